package mintshelf.app.use.takein;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.References;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore.Read;
import mintshelf.core.base.ContentHash;
import mintshelf.core.content.ContentKind;
import mintshelf.core.takein.RevisionTable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Reads what files of a taking-in say of themselves. Outside of any transaction: to read takes time. */
@Component
class ReadTaken {
    private static final Logger LOG = LoggerFactory.getLogger(ReadTaken.class);

    private final UploadStore uploads;
    private final FileFacts facts;
    private final Sheets sheets;
    private final References references;
    private final ReadingRoom room;

    ReadTaken(UploadStore uploads, FileFacts facts, Sheets sheets, References references, ReadingRoom room) {
        this.uploads = uploads;
        this.facts = facts;
        this.sheets = sheets;
        this.references = references;
        this.room = room;
    }

    List<Read> read(List<TakenFile> files) {
        Map<Long, Upload> all =
                uploads.uploads(files.stream().flatMap(f -> f.upload().stream()).toList());
        return files.stream().map(f -> read(f, f.upload().map(all::get))).toList();
    }

    private Read read(TakenFile file, Optional<Upload> upload) {
        if (!file.unread().isEmpty()) return nothing(file, file.unread());
        if (file.upload().isEmpty()) return new Read(file.at(), "", ContentKind.EMPTY, Map.of(), List.of(), "");
        Optional<Upload> whole = upload.filter(u -> u.state() == Upload.State.COMPLETE);
        if (whole.isEmpty()) return nothing(file, "Its bytes did not arrive whole.");
        Upload there = whole.get();
        ContentHash hash = there.hash().orElseThrow();
        ContentKind kind = there.kind().orElse(ContentKind.OTHER);
        try {
            return room.within(() -> new Read(
                    file.at(),
                    hash.hex(),
                    kind,
                    says(new StoredContent(there.content(), hash, there.size(), kind)),
                    references.read(there),
                    ""));
        } catch (RuntimeException e) {
            // A broken file of one says nothing of itself; the others are read.
            LOG.info("A file of a taking-in could not be read: {}", e.toString());
            return new Read(file.at(), hash.hex(), kind, Map.of(), List.of(), "");
        }
    }

    /** What a file says of itself, and of its revisions. */
    private Map<String, String> says(StoredContent content) {
        Map<String, String> said = new HashMap<>(facts.said(content));
        if (content.kind() == ContentKind.DXF) {
            String revisions = RevisionTable.text(sheets.revisions(content));
            if (!revisions.isEmpty()) said.put(RevisionTable.KEY, revisions);
        }
        return said;
    }

    private static Read nothing(TakenFile file, String why) {
        return new Read(file.at(), "", ContentKind.OTHER, Map.of(), List.of(), why);
    }
}
