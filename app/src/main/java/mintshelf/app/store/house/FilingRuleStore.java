package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.FILING_RULE;
import static mintshelf.database.schema.Tables.KIND;

import java.util.List;
import mintshelf.core.content.ContentKind;
import mintshelf.core.filing.FilingRule;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Repository;

/** The rules that give new files their kind. */
@Repository
public class FilingRuleStore {
    private final DSLContext db;

    public FilingRuleStore(DSLContext db) {
        this.db = db;
    }

    /** Takes all rules away, for the order that is written in their place. */
    public void clear() {
        db.deleteFrom(FILING_RULE).execute();
    }

    public void add(int position, String contentKind, String namePattern, long kind) {
        db.insertInto(FILING_RULE)
                .set(FILING_RULE.POSITION, position)
                .set(FILING_RULE.CONTENT_KIND, contentKind)
                .set(FILING_RULE.NAME_PATTERN, namePattern)
                .set(FILING_RULE.KIND, kind)
                .execute();
    }

    private static String says(Record row) {
        String content = row.get(FILING_RULE.CONTENT_KIND);
        String named = row.get(FILING_RULE.NAME_PATTERN).isEmpty() ? "" : "its name";
        String words = content.isEmpty() ? named : ContentKind.valueOf(content).words();
        return "filing rule " + row.get(FILING_RULE.POSITION) + ": " + words
                + (content.isEmpty() || named.isEmpty() ? "" : " and " + named);
    }

    /** The filing rules in their order. */
    public List<FilingRule> all() {
        return db.select(FILING_RULE.fields())
                .select(KIND.NAME)
                .from(FILING_RULE)
                .join(KIND)
                .on(KIND.ID.eq(FILING_RULE.KIND))
                .orderBy(FILING_RULE.POSITION)
                .fetch(row -> new FilingRule(
                        row.get(FILING_RULE.CONTENT_KIND),
                        row.get(FILING_RULE.NAME_PATTERN),
                        row.get(FILING_RULE.KIND),
                        row.get(KIND.NAME),
                        says(row)));
    }
}
