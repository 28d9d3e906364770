package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import mintshelf.app.setup.Backup;
import mintshelf.app.setup.OlderForm;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.store.house.SheetMapStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.person.AddPeople;
import mintshelf.app.use.person.People;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.verify.Verify;
import mintshelf.database.schema.Tables;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** An empty server's first start, its people, its backup, its migrations. */
class HouseTest {
    @Test
    void anEmptyServerAsksWhoKeepsItAndIsThenUsable() {
        Server server = Server.empty();
        try {
            Web web = new Web(server.origin());
            assertThat(web.get("/sign-in").headers().firstValue("Location").orElse(""))
                    .endsWith("/first-start");
            web.get("/first-start");
            assertThat(web.post("/first-start", Map.of("name", "Ines Kallmar", "login", "ines", "password", "short"))
                            .body())
                    .contains("at least 12");
            String code = server.bean(People.class).firstCode().orElseThrow();
            web.get("/first-start");
            assertThat(web.post(
                                    "/first-start",
                                    Map.of(
                                            "name",
                                            "E Vil",
                                            "login",
                                            "evil",
                                            "password",
                                            Server.PASSWORD,
                                            "code",
                                            "WRONG234"))
                            .body())
                    .contains("not the code that the server printed");
            web.get("/first-start");
            web.post(
                    "/first-start",
                    Map.of(
                            "code",
                            code,
                            "name",
                            "Ines Kallmar",
                            "login",
                            "ines",
                            "password",
                            Server.PASSWORD,
                            "zone",
                            "Europe/Oslo"));
            assertThat(web.signIn("ines", Server.PASSWORD)).isEqualTo("/today");
            assertThat(web.post("/first-start", Map.of("name", "E Vil", "login", "evil", "password", Server.PASSWORD))
                            .body())
                    .contains("has people already");
            String shelf = web.post("/shelves", Map.of("name", "TG40 Tide gauge"))
                    .headers()
                    .firstValue("Location")
                    .orElse("");
            assertThat(web.get(shelf.replace(server.origin(), "")).body()).contains("Nothing on this shelf yet");

            long ines = server.actor("ines").person();
            String added = web.post("/people/" + ines + "/like", Map.of("name", "Priya Malhan"))
                    .body();
            String link = added.replaceAll("(?s).*(/invitations/[A-Za-z0-9_-]+).*", "$1");
            Web priya = new Web(server.origin());
            priya.get(link);
            assertThat(priya.post(link, Map.of("password", "another harbour 9")).statusCode())
                    .isEqualTo(302);
            assertThat(priya.get(link).body()).contains("used or is too old");
            assertThat(priya.signIn("priya.malhan", "another harbour 9")).isEqualTo("/today");
            assertThat(priya.get("/record").statusCode()).isEqualTo(200);
        } finally {
            server.stop();
        }
    }

    @Test
    void aBackupIsRestoredWholeAndVerified() throws Exception {
        Server server = Server.empty();
        try {
            server.add("ines", "Ines Kallmar", "data-manager");
            server.add("priya", "Priya Malhan", "designer");
            long item = server.file("priya", server.shelf(), "kept.txt", "kept for good", true);
            server.checkIn("priya", item, "kept for better", false);
            Verify.Findings before = server.bean(Verify.class).verify();
            assertThat(before.problems()).isEmpty();
            Backup backup = new Backup(Server.database().url(server.schema()), "mint", "mint");
            Path file = Files.createTempFile("mint-shelf-", ".sql.gz");
            backup.write(file);
            server.checkIn("priya", item, "a stray that comes after", false);
            server.db().execute("delete from hold");
            backup.restore(file);
            Verify.Findings after = server.bean(Verify.class).verify();
            assertThat(after).isEqualTo(before);
            assertThat(server.document(item).head().number()).isEqualTo(2);
            assertThat(server.db().fetchCount(Tables.STRAY)).isZero();
            Files.delete(file);
        } finally {
            server.stop();
        }
    }

    @Test
    void verifyNamesWhatWasAlteredBehindItsBack() {
        Server server = Server.empty();
        try {
            server.add("ines", "Ines Kallmar", "data-manager");
            server.add("priya", "Priya Malhan", "designer");
            long item = server.file("priya", server.shelf(), "altered.txt", "unaltered", false);
            server.bean(ReadRecord.class).anchor();
            server.db().execute("drop trigger record_no_change");
            server.db().execute("update record_entry set says = 'nothing at all' where stream = ? and seq = 1", item);
            server.db().execute("update pack set bytes = 'otherwise', codec = 'plain', length = 9");
            assertThat(server.bean(Verify.class).verify().problems())
                    .anySatisfy(p -> assertThat(p).contains("stream " + item).contains("was changed"))
                    .anySatisfy(p -> assertThat(p).contains("content"));
        } finally {
            server.stop();
        }
    }

    @Test
    void aMigrationThatWasKilledHalfWayIsRestarted() {
        String schema = "mint_half_" + System.nanoTime();
        var db = Server.database();
        Flyway half = Flyway.configure()
                .dataSource(db.url(schema), "mint", "mint")
                .locations("classpath:db/migration")
                .target("005")
                .load();
        half.migrate();
        // As a kill between a statement and its entry leaves it: the table is there, the entry is not, another one
        // failed.
        try (var connection = db.connect(schema);
                var statement = connection.createStatement()) {
            statement.execute("delete from flyway_schema_history where version = '005'");
            statement.execute(
                    "insert into flyway_schema_history select installed_rank + 1, '005', 'half', 'SQL', 'V005__x.sql', 1, installed_by, now(), 0, 0 from flyway_schema_history where version = '004'");
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
        Flyway whole = Flyway.configure()
                .dataSource(db.url(schema), "mint", "mint")
                .locations("classpath:db/migration")
                .load();
        whole.repair();
        whole.migrate();
        assertThat(whole.info().pending()).isEmpty();
    }

    @Test
    void aDatabaseOfAnOlderFormIsToldInWordsAndLeftAsItIs() throws Exception {
        String schema = "mint_older_" + System.nanoTime();
        var db = Server.database();
        Flyway older = Flyway.configure()
                .dataSource(db.url(schema), "mint", "mint")
                .locations("classpath:db/migration")
                .target("002")
                .load();
        older.migrate();
        assertThat(OlderForm.isThatOf(db.url(schema), "mint", "mint"))
                .as("of this form and not up to date")
                .isFalse();
        try (var connection = db.connect(schema);
                var statement = connection.createStatement()) {
            statement.execute(
                    "update flyway_schema_history set description = 'person', script = 'V001__person.sql' where version = '001'");
        }
        assertThat(OlderForm.isThatOf(db.url(schema), "mint", "mint")).isTrue();
        OlderForm refused = catchThrowableOfType(OlderForm.class, () -> OlderForm.refuse(older));
        FailureAnalysis said = new OlderForm.Analyzer().analyze(refused);
        assertThat(said.getDescription()).contains("before the first release", "Nothing in it was changed");
        assertThat(said.getAction()).contains("empty database");
        assertThat(older.info().applied()).hasSize(2);
    }

    @Test
    void aHouseOfTheFirstReleaseKeepsItsDocumentsAndGetsWhatItLacks() throws Exception {
        String schema = "mint_first_" + System.nanoTime();
        var db = Server.database();
        Flyway.configure()
                .dataSource(db.url(schema), "mint", "mint")
                .locations("classpath:db/migration")
                .target("011")
                .load()
                .migrate();
        try (var connection = db.connect(schema);
                var statement = connection.createStatement()) {
            for (String sql : List.of(
                    "insert into person (id, login, login_key, name, mail, telephone, note, zone, created_at) values (1, 'ines', 'ines', 'Ines Kallmar', '', '', '', 'UTC', now())",
                    "insert into shelf (id, name, name_key, note, created_at) values (1, 'TG40', 'tg40', '', now())",
                    "insert into folder (id, shelf, name, name_key, root_mark, depth, ordinal) values (1, 1, '', '', 1, 0, 0)",
                    "insert into number_series (id, code, name, pattern, scope) values (1, 'documents', 'Documents', 'D-{n:5}', 'SERVER')",
                    "insert into route (id, code, name) values (1, 'straight', 'Straight')",
                    "insert into route_edition (id, route, edition, definition) values (1, 1, 1, '{\"moves\":[{\"code\":\"release\",\"name\":\"Release\",\"from\":\"preparation\",\"to\":\"released\",\"who\":\"CHANGE\",\"gates\":[\"HELD_BY_NOBODY\"],\"effects\":[\"FIX_LABEL\"],\"signOffs\":[]}]}')",
                    "insert into stage (edition, code, name, class, position) values (1, 'preparation', 'In preparation', 'PREPARING', 1), (1, 'released', 'Released', 'RELEASED', 2)",
                    "insert into role (id, code, name) values (1, 'data-manager', 'Data manager')",
                    "insert into role_right values (1, 'SEE_ALL'), (1, 'CHANGE')",
                    "insert into access_grant (person, role) values (1, 1)",
                    "insert into kind (id, code, name, aspect, glyph, number_series, revision_series, label_taken, route, position) values (1, 'drawing', 'drawing', 'DRAWING', 'sheet', 1, 'asme', 'START', 1, 1)",
                    "insert into item (id, aspect, kind, shelf, folder, number, number_sort, title, file_name, file_name_key, author, created_at, changed_at) values (1, 'DRAWING', 1, 1, 1, 'TG40-1010', 'tg40-1010', 'Well pipe', 'pipe.dxf', 'pipe.dxf', 1, now(), now())",
                    "insert into line (id, item, main_mark) values (1, 1, 1)",
                    "insert into revision (id, item, ordinal, label, label_key, edition, stage, pending_mark, started_by, started_at, stage_since) values (1, 1, 1, 'A', 'a', 1, 'preparation', 1, 1, now(), now())",
                    "insert into content (id, state, sha256, size, sealed_mark, content_kind, cut, created_at) values (1, 'SEALED', repeat('x', 32), 0, 1, 'TEXT', 'SMALL', now())",
                    "insert into version (id, item, line, revision, number, digest, comment, author, made_by, at, facts) values (1, 1, 1, 1, 1, repeat('y', 32), 'filed', 1, 'FILED', now(), '{}')",
                    "insert into version_file values (1, 'MAIN', 1, 'pipe.dxf')",
                    "update line set head_version = 1 where id = 1")) {
                statement.execute(sql);
            }
        }
        Server server = Server.on(schema);
        try {
            var house = server.bean(HouseStore.class);
            var routes = server.bean(RouteStore.class);
            assertThat(routes.route("reviewed")).isPresent();
            assertThat(house.kind("drawing").route())
                    .as("its kinds keep their routes")
                    .isEqualTo(1);
            assertThat(server.bean(SheetMapStore.class).latest()).isNotEmpty();
            server.bean(MoveDocument.class).move(server.actor("ines"), 1, Server.key(), "release", 1, "");
            assertThat(server.document(1).released().orElseThrow().label()).contains("A");
        } finally {
            server.stop();
        }
    }

    @Test
    void aPersonAddedLikeAnotherHasTheirRolesAndNotTheirName() {
        Server server = Server.shared();
        PersonStore people = server.bean(PersonStore.class);
        var invited = server.bean(AddPeople.class)
                .addLike(server.actor("ines"), server.actor("tomasz").person(), "Lena Vik", "", "");
        var lena = people.person(invited.person()).orElseThrow();
        assertThat(lena.mail()).isEmpty();
        assertThat(lena.canSignIn()).isFalse();
        assertThat(server.bean(GrantStore.class).access(lena.id(), lena.name()).grants())
                .extracting(g -> g.role().code())
                .containsExactly("designer");
    }
}
