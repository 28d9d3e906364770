package mintshelf.app.store.verify;

import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Looks for what no constraint can say: rows that must exist together. */
@Repository
public class LooseEndStore {
    private final DSLContext db;

    public LooseEndStore(DSLContext db) {
        this.db = db;
    }

    /** A sentence for each kind of fault that occurs, with the number of rows. */
    public List<String> problems() {
        List<String> problems = new ArrayList<>();
        count(
                problems,
                "documents without a main line",
                "select count(*) from item i left join line l on l.item = i.id and l.main_mark = 1 where l.id is null");
        count(
                problems,
                "main lines without a head version",
                "select count(*) from line l where l.main_mark = 1 and l.head_version is null");
        count(
                problems,
                "versions without a file",
                "select count(*) from version v join item i on i.id = v.item and i.freed_at is null left join version_file f on f.version = v.id and f.role = 'MAIN' where f.version is null");
        count(
                problems,
                "versions whose content is not sealed",
                "select count(*) from version_file f join content c on c.id = f.content where c.state <> 'SEALED'");
        count(
                problems,
                "documents whose number is not claimed",
                "select count(*) from item i left join number_claim n on n.item = i.id and n.current_mark = 1 where n.id is null");
        count(
                problems,
                "released revisions without a released version",
                "select count(*) from revision r where r.released_mark = 1 and r.released_version is null");
        count(
                problems,
                "documents with neither a pending, a released nor an ended revision",
                "select count(*) from item i where not exists (select 1 from revision r where r.item = i.id)");
        count(
                problems,
                "gaps in the numbers of versions",
                "select count(*) from (select line from version group by line having max(number) <> count(*)) t");
        return problems;
    }

    private void count(List<String> problems, String what, String sql) {
        long n = db.fetchSingle(sql).get(0, Long.class);
        if (n > 0) problems.add(n + " " + what);
    }
}
