package mintshelf.demo;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.stream.Collectors;
import javax.sql.DataSource;

/**
 * A works with many documents, to try scale: made-up titles, materials and masses, up to three revisions and ten versions each, assemblies
 * of assemblies. They share the contents that are in the house already, and were never filed by anybody: their record is empty.
 */
public final class Large {
    public static final int DOCUMENTS = 100_000;
    private static final int SHELVES = 20;
    private static final int FOLDERS = 25;
    private static final int VERSIONS = 10;

    private static final List<String> THINGS = List.of(
            "Mooring",
            "Gauge",
            "Sluice",
            "Berth",
            "Fender",
            "Winch",
            "Pontoon",
            "Beacon",
            "Capstan",
            "Davit",
            "Hawse",
            "Ladder",
            "Lock",
            "Mast",
            "Pulley",
            "Quay",
            "Rudder",
            "Sounding",
            "Staff",
            "Tide",
            "Valve",
            "Weir",
            "Wharf",
            "Anchor");
    private static final List<String> PARTS = List.of(
            "bracket",
            "plate",
            "housing",
            "shaft",
            "bushing",
            "flange",
            "cover",
            "lever",
            "spacer",
            "clamp",
            "frame",
            "gusset",
            "bearing seat",
            "guard",
            "hinge",
            "nozzle");
    private static final List<String> MATERIALS =
            List.of("316L", "304", "POM-C", "NBR", "VMQ", "S355J2", "1.4462", "CuSn8");
    private static final List<String> WORDS = List.of(
            "seat 0.2 deeper",
            "hole pattern moved",
            "title block written",
            "radius for the milling cutter",
            "tolerance opened",
            "as the shop wanted it",
            "copy of the one before",
            "note on passivation");

    private final Connection db;

    private Large(Connection db) {
        this.db = db;
    }

    /** Adds them to a house that has documents of the kinds drawing, part model and report; minutes. */
    public static void build(DataSource house, int documents) {
        try (Connection db = house.getConnection()) {
            new Large(db).build(documents);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private void build(int documents) throws SQLException {
        run("set foreign_key_checks = 0");
        run("set unique_checks = 0");
        try {
            places();
            documents(documents);
            versions();
            facts();
            structure();
            run(
                    "analyze table item, line, version, revision, version_file, fact_value, version_reference, number_claim");
        } finally {
            run("set foreign_key_checks = 1");
            run("set unique_checks = 1");
        }
    }

    private void places() throws SQLException {
        run(
                "insert into shelf (name, name_key, note, library, created_at) select concat('Works ', lpad(seq, 2, '0')), concat('works ',"
                        + " lpad(seq, 2, '0')), 'to try scale', 0, now(6) from seq_1_to_" + SHELVES);
        run(
                "insert into folder (shelf, name, name_key, root_mark, depth, ordinal) select id, name, name_key, 1, 0, 0 from shelf where note"
                        + " = 'to try scale'");
        run(
                "insert into folder (shelf, parent, name, name_key, depth, ordinal) select r.shelf, r.id, concat('Bay ', lpad(q.seq, 2, '0')),"
                        + " concat('bay ', lpad(q.seq, 2, '0')), 1, q.seq from folder r join shelf s on s.id = r.shelf join seq_1_to_"
                        + FOLDERS
                        + " q where s.note = 'to try scale' and r.root_mark = 1");
        run(
                "create temporary table large_folder (n int primary key, id bigint, shelf bigint) as select row_number() over (order by f.id) - 1"
                        + " n, f.id, f.shelf from folder f join shelf s on s.id = f.shelf where s.note = 'to try scale' and f.root_mark is null");
        run(
                "create temporary table large_content (n int primary key, id bigint) as select row_number() over (order by id) - 1 n, id from"
                        + " content where state = 'SEALED' and content_kind in ('DXF', 'TEXT', 'STEP')");
        run(
                "create temporary table large_kind (n int primary key, kind bigint, aspect varchar(10), edition bigint, prep varchar(40), rel"
                        + " varchar(40), sup varchar(40))");
        int n = 0;
        for (String kind : List.of(
                "drawing",
                "drawing",
                "drawing",
                "drawing",
                "drawing",
                "part-model",
                "part-model",
                "part-model",
                "drawing",
                "report")) {
            run(
                    "insert into large_kind select ?, k.id, k.aspect, e.id, (select min(code) from stage where edition = e.id and class ="
                            + " 'PREPARING'), (select min(code) from stage where edition = e.id and class = 'RELEASED'), (select min(code)"
                            + " from stage where edition = e.id and class = 'SUPERSEDED') from kind k join route_edition e on e.id ="
                            + " (select max(x.id) from route_edition x where x.route = k.route) where k.code = ?",
                    n++,
                    kind);
        }
    }

    private static String one(List<String> words, String n) {
        return words.stream()
                .map(w -> "'" + w + "'")
                .collect(Collectors.joining(", ", "elt(1 + (" + n + ") mod " + words.size() + ", ", ")"));
    }

    private void documents(int documents) throws SQLException {
        run(
                "insert into item (aspect, kind, shelf, folder, number, number_sort, title, file_name, file_name_key, author, created_at,"
                        + " changed_at) select k.aspect, k.kind, f.shelf, f.id, concat('W', lpad(s.seq mod 97, 2, '0'), '-', lpad(s.seq, 6, '0')),"
                        + " concat('w', lpad(s.seq mod 97, 10, '0'), '-', lpad(s.seq, 10, '0')), concat("
                        + one(THINGS, "s.seq") + ", ' ', "
                        + one(PARTS, "s.seq div 24")
                        + ", ' ', 10 + s.seq mod 190), concat('w', s.seq, '.dxf'), concat('w', s.seq, '.dxf'),"
                        + " (select min(id) from person), date_sub(now(6), interval 400 + s.seq mod 900 day), date_sub(now(6), interval s.seq mod"
                        + " 400 day) from seq_1_to_" + documents
                        + " s join large_folder f on f.n = s.seq mod (select count(*) from (select n from"
                        + " large_folder) x) join large_kind k on k.n = s.seq mod 10");
        run(
                "create temporary table large_item (id bigint primary key, seq int, revisions int, works int, kind_n int, created datetime, key"
                        + " (seq)) as select id, cast(substring_index(number, '-', -1) as unsigned) seq, 1 + cast(substring_index(number, '-', -1) as"
                        + " unsigned) mod 3 revisions, cast(substring_index(number, '-', -1) as unsigned) mod 4 = 0 works, cast(substring_index(number,"
                        + " '-', -1) as unsigned) mod 10 kind_n, created_at created from item where shelf in (select shelf from large_folder)");
        run(
                "insert into number_claim (aspect, number_key, number, item, state, current_mark, at) select i.aspect, lower(i.number), i.number,"
                        + " i.id, 'CURRENT', 1, i.created_at from item i join large_item l on l.id = i.id");
        run("insert into line (item, main_mark) select id, 1 from large_item");
        run(
                "insert into revision (item, ordinal, label, label_key, title, edition, stage, pending_mark, released_mark, started_by,"
                        + " started_at, stage_since) select l.id, q.seq, char(64 + q.seq), char(96 + q.seq), i.title, k.edition, case when q.seq ="
                        + " l.revisions then if(l.works, k.prep, k.rel) when q.seq = l.revisions - 1 and l.works then k.rel else k.sup end, if(q.seq ="
                        + " l.revisions and l.works, 1, null), if((q.seq = l.revisions and not l.works) or (q.seq = l.revisions - 1 and l.works), 1,"
                        + " null), i.author, l.created, l.created from large_item l join item i on i.id = l.id join large_kind k on k.n = l.kind_n"
                        + " join seq_1_to_3 q on q.seq <= l.revisions");
    }

    private void versions() throws SQLException {
        run(
                "insert into version (item, line, revision, number, digest, comment, author, made_by, at, facts) select l.id, n.id, r.id, v.seq,"
                        + " unhex(sha2(concat(l.id, '/', v.seq), 256)), " + one(WORDS, "l.seq + v.seq")
                        + ", i.author, if(v.seq = 1, 'FILED',"
                        + " 'CHECKED_IN'), date_add(l.created, interval v.seq * 30 day), '{}' from large_item l join item i on i.id = l.id join line n"
                        + " on n.item = l.id join seq_1_to_" + VERSIONS
                        + " v join revision r on r.item = l.id and r.ordinal = 1 + floor((v.seq - 1) *"
                        + " l.revisions / " + VERSIONS + ")");
        run(
                "insert into version_file (version, role, content, file_name) select v.id, 'MAIN', c.id, i.file_name from version v join"
                        + " large_item l on l.id = v.item join item i on i.id = l.id join large_content c on c.n = (l.seq * 7 + v.number) mod"
                        + " (select count(*) from (select n from large_content) x)");
        run("update line n join large_item l on l.id = n.item join version v on v.line = n.id and v.number = "
                + VERSIONS + " set n.head_version = v.id");
        run(
                "update revision r join large_item l on l.id = r.item join (select revision, max(id) id, max(at) at from version group by"
                        + " revision) v on v.revision = r.id set r.released_version = v.id, r.released_at = v.at where r.pending_mark is null");
        run(
                "update item i join (select r.item, max(r.released_at) at from revision r join large_item l on l.id = r.item where r.released_at"
                        + " is not null group by r.item) o on o.item = i.id set i.out_title = i.title, i.out_at = o.at");
    }

    private void facts() throws SQLException {
        run(
                "insert into fact_value (revision, fact, text_value) select r.id, f.id, "
                        + one(MATERIALS, "l.seq div 3 + r.ordinal")
                        + " from revision r join large_item l on l.id = r.item join fact f on f.name = 'material' where l.kind_n <> 9");
        run(
                "insert into fact_value (revision, fact, number_value) select r.id, f.id, (l.seq mod 997) / 50 from revision r join large_item l"
                        + " on l.id = r.item join fact f on f.name = 'mass' where l.kind_n <> 9");
    }

    /** Every twentieth is an assembly of the eight behind it, every four hundredth one of eight assemblies. */
    private void structure() throws SQLException {
        uses("l.seq mod 20 = 0 and l.seq mod 400 <> 0", 1);
        uses("l.seq mod 400 = 0", 20);
        run("insert into structure_log (item) select id from large_item where seq mod 20 = 0");
    }

    private void uses(String parents, int step) throws SQLException {
        run("create temporary table large_part as select id, seq from large_item");
        run("alter table large_part add key (seq)");
        run(
                "insert into version_reference (version, seq, role, path, quantity, state, component, captured, source) select n.head_version,"
                        + " q.seq, 'COMPONENT', concat('w', p.seq, '.dxf'), 1 + q.seq mod 4, 'FOUND', p.id, pn.head_version, 'ASSUMED' from"
                        + " large_item l join line n on n.item = l.id join seq_1_to_8 q join large_part p on p.seq = l.seq + q.seq * "
                        + step
                        + " join line pn on pn.item = p.id where " + parents);
        run("drop temporary table large_part");
    }

    private void run(String sql, Object... values) throws SQLException {
        if (values.length == 0) {
            try (Statement statement = db.createStatement()) {
                statement.execute(sql);
            }
            return;
        }
        try (PreparedStatement statement = db.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) statement.setObject(i + 1, values[i]);
            statement.execute();
        }
    }
}
