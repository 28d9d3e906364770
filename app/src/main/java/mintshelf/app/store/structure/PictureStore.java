package mintshelf.app.store.structure;

import static mintshelf.database.schema.Tables.MODEL_PICTURE;

import java.time.Instant;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Small pictures of models, by the content that they show. */
@Repository
public class PictureStore {
    private final DSLContext db;
    private final ContentStore contents;

    public PictureStore(DSLContext db, ContentStore contents) {
        this.db = db;
        this.contents = contents;
    }

    public Optional<StoredContent> of(long content) {
        return db.select(MODEL_PICTURE.PICTURE)
                .from(MODEL_PICTURE)
                .where(MODEL_PICTURE.CONTENT.eq(content))
                .fetchOptional(MODEL_PICTURE.PICTURE)
                .flatMap(contents::content);
    }

    /** Keeps a picture; the first one stays. */
    public void keep(long content, long picture, long person, Instant now) {
        db.insertInto(MODEL_PICTURE)
                .set(MODEL_PICTURE.CONTENT, content)
                .set(MODEL_PICTURE.PICTURE, picture)
                .set(MODEL_PICTURE.PERSON, person)
                .set(MODEL_PICTURE.AT, Times.utc(now))
                .onDuplicateKeyUpdate()
                .set(MODEL_PICTURE.CONTENT, MODEL_PICTURE.CONTENT)
                .execute();
    }
}
