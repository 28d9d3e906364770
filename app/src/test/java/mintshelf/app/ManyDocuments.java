package mintshelf.app;

import java.util.List;
import org.jooq.DSLContext;

/** Fills a shelf with documents by plain SQL, for tests and benchmarks of long lists. All share one small content. */
public final class ManyDocuments {
    private ManyDocuments() {}

    /** {@code n} documents in ten folders like the document {@code model}, released every third. */
    public static void fill(DSLContext db, long shelf, long model, int n) {
        db.execute(
                "insert into folder (shelf, parent, name, name_key, depth, ordinal)"
                        + " select r.shelf, r.id, concat('Bay ', lpad(s.seq, 2, '0')), concat('bay ', lpad(s.seq, 2, '0')), 1, s.seq"
                        + " from folder r join seq_1_to_10 s where r.shelf = ? and r.root_mark = 1",
                shelf);
        String seq = "seq_1_to_" + n;
        db.execute(
                "insert into item (aspect, kind, shelf, folder, number, number_sort, title, file_name, file_name_key, author, created_at, changed_at)"
                        + " select m.aspect, m.kind, f.shelf, f.id, concat('M', f.shelf, '-', lpad(s.seq, 6, '0')), concat('m', lpad(f.shelf, 10, '0'), '-', lpad(s.seq, 10, '0')),"
                        + " concat('Mooring bracket ', s.seq), concat('m', f.shelf, '-', s.seq, '.txt'), concat('m', f.shelf, '-', s.seq, '.txt'), m.author, m.created_at,"
                        + " date_sub(m.changed_at, interval s.seq second)"
                        + " from item m join " + seq
                        + " s join folder f on f.shelf = ? and f.ordinal = 1 + (s.seq mod 10) where m.id = ?",
                shelf,
                model);
        String these = " i where i.shelf = ? and not exists (select 1 from line l where l.item = i.id)";
        db.execute(
                "insert into number_claim (aspect, number_key, number, item, state, current_mark, at) select i.aspect, lower(i.number), i.number, i.id, 'CURRENT', 1, i.created_at from item"
                        + these,
                shelf);
        db.execute(
                "insert into revision (item, ordinal, label, label_key, edition, stage, pending_mark, released_mark, started_by, started_at, stage_since)"
                        + " select i.id, 1, 'A', 'a', r.edition, if(i.id mod 3 = 0, 'released', 'preparation'), if(i.id mod 3 = 0, null, 1), if(i.id mod 3 = 0, 1, null), i.author, i.created_at, i.created_at"
                        + " from item i join revision r on r.item = ? where i.shelf = ? and r.ordinal = 1 and not exists (select 1 from line l where l.item = i.id)",
                model,
                shelf);
        db.execute("insert into line (item, main_mark) select i.id, 1 from item" + these, shelf);
        db.execute(
                "insert into version (item, line, revision, number, digest, comment, author, made_by, at, facts)"
                        + " select i.id, l.id, r.id, 1, m.digest, 'filed', i.author, 'FILED', i.created_at, '{}' from item i join line l on l.item = i.id join revision r on r.item = i.id"
                        + " join version m on m.item = ? and m.number = 1 where i.shelf = ? and l.head_version is null",
                model,
                shelf);
        db.execute(
                "insert into version_file (version, role, content, file_name) select v.id, 'MAIN', f.content, i.file_name from item i join line l on l.item = i.id and l.head_version is null"
                        + " join version v on v.item = i.id join version mv on mv.item = ? and mv.number = 1 join version_file f on f.version = mv.id where i.shelf = ?",
                model,
                shelf);
        db.execute(
                "update line l join version v on v.line = l.id join item i on i.id = l.item set l.head_version = v.id where i.shelf = ? and l.head_version is null",
                shelf);
        db.execute(
                "update revision r join version v on v.revision = r.id join item i on i.id = r.item set r.released_version = v.id where i.shelf = ? and r.released_mark = 1 and r.released_version is null",
                shelf);
    }

    /** So many documents in preparation that a designer may release by hand, on a shelf of their own. */
    public static List<Long> preparing(Server server, int count) {
        long shelf = server.shelf();
        long model = server.file("priya", shelf, "model " + Server.key() + ".txt", "model " + Server.key(), false);
        fill(server.db(), shelf, model, count * 2);
        server.db()
                .execute(
                        "insert into fact_value (revision, fact, text_value) select r.id, f.id, '316L' from revision r"
                                + " join item i on i.id = r.item join fact f on f.name = 'material'"
                                + " where i.shelf = ? and not exists"
                                + " (select 1 from fact_value v where v.revision = r.id and v.fact = f.id)",
                        shelf);
        return server.db()
                .resultQuery(
                        "select i.id from item i join revision r on r.item = i.id and r.pending_mark = 1"
                                + " where i.shelf = ? and i.id <> ? order by i.id limit ?",
                        shelf,
                        model,
                        count)
                .fetch(0, Long.class);
    }
}
