package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.Prepared;
import mintshelf.app.store.Rows;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.DuplicateKeyException;

/** Statements whose text is written once for each length, on a table of their own. */
class PreparedRowsTest {
    private static final Table<?> TABLE = DSL.table(DSL.name("slip"));
    private static final Field<Long> ID = DSL.field(DSL.name("id"), Long.class);
    private static final Field<String> NAME = DSL.field(DSL.name("name"), String.class);
    private static final Field<Integer> RANK = DSL.field(DSL.name("rank"), Integer.class);

    private final Server server = Server.shared();
    private final DSLContext db = server.db();
    private final Prepared named = new Prepared((db, ids) ->
            db.select(ID, NAME).from(TABLE).where(NAME.ne("hidden"), ID.in(ids)).orderBy(ID));

    @BeforeEach
    void table() {
        db.execute("create or replace table slip (id bigint primary key, name varchar(20) null, `rank` int not null)");
    }

    private static Object[] row(Object... values) {
        return values;
    }

    private void fill(int count) {
        List<Object[]> rows = new ArrayList<>();
        for (long i = 0; i < count; i++) rows.add(row(i, i % 7 == 0 ? "hidden" : "slip " + i, (int) i));
        Rows added = Rows.added(TABLE, ID, NAME, RANK);
        for (int from = 0; from < count; from += 300) added.write(db, rows.subList(from, Math.min(count, from + 300)));
    }

    private List<Long> fetched(List<Long> ids) {
        return named.fetch(db, ids).stream().map(r -> r.get(ID)).toList();
    }

    @Test
    void anyNumberOfIdsFindsWhatOnePlainStatementFinds() {
        fill(1_700);
        Random random = new Random(19);
        for (int count : new int[] {0, 1, 2, 3, 4, 5, 64, 65, 511, 512, 513, 1_025, 1_700}) {
            List<Long> ids = new ArrayList<>(LongStream.range(0, 1_700).boxed().toList());
            Collections.shuffle(ids, random);
            List<Long> some = ids.subList(0, count);
            List<Long> plain = count == 0
                    ? List.of()
                    : db.select(ID)
                            .from(TABLE)
                            .where(NAME.ne("hidden"), ID.in(some))
                            .fetch(ID);
            assertThat(fetched(some)).as(count + " ids").containsExactlyInAnyOrderElementsOf(plain);
            assertThat(server.bean(UnitOfWork.class).run(() -> fetched(some)))
                    .as(count + " ids within an act")
                    .containsExactlyInAnyOrderElementsOf(plain);
        }
    }

    @Test
    void idsThatFillAListUpAreNotFoundTwice() {
        fill(20);
        assertThat(fetched(List.of(1L, 2L, 3L))).containsExactly(1L, 2L, 3L);
        assertThat(fetched(List.of(5L, 5L, 5L))).containsExactly(5L);
        assertThat(fetched(List.of(-1L, 999L))).isEmpty();
    }

    @Test
    void withinAnActItsOwnRowsAreSeen() {
        fill(3);
        server.bean(UnitOfWork.class).run(() -> {
            Rows.added(TABLE, ID, NAME, RANK).write(db, List.<Object[]>of(row(50L, "mine", 1)));
            assertThat(fetched(List.of(50L))).containsExactly(50L);
        });
    }

    @Test
    void aStatementThatFailsTellsItAsTheOthersDo() {
        Prepared wrong = new Prepared((db, ids) -> db.select(ID).from("nowhere").where(ID.in(ids)));
        assertThatThrownBy(() -> wrong.fetch(db, List.of(1L))).isInstanceOf(DataAccessException.class);
        Rows added = Rows.added(TABLE, ID, NAME, RANK);
        added.write(db, List.<Object[]>of(row(1L, "one", 1)));
        assertThatThrownBy(() -> added.write(db, List.of(row(2L, "two", 1), row(1L, "again", 1))))
                .isInstanceOfAny(DuplicateKeyException.class, DataIntegrityViolationException.class);
        assertThat(db.fetchCount(TABLE)).as("whole or not at all").isEqualTo(1);
        assertThatThrownBy(() -> added.write(db, List.<Object[]>of(row(3L, "x".repeat(21), 1))))
                .isInstanceOf(DataAccessException.class);
    }

    @Test
    void rowsThatAreThereTakeOverOnlyWhatIsToMove() {
        Rows kept = Rows.kept(TABLE, List.of(RANK), ID, NAME, RANK);
        kept.write(db, List.of(row(1L, "one", 1), row(2L, null, 2)));
        kept.write(db, List.of(row(1L, "other", 10), row(3L, "three", 3)));
        assertThat(db.select(ID, NAME, RANK)
                        .from(TABLE)
                        .orderBy(ID)
                        .fetch(r -> Arrays.asList(r.value1(), r.value2(), r.value3())))
                .containsExactly(
                        Arrays.asList(1L, "one", 10), Arrays.asList(2L, null, 2), Arrays.asList(3L, "three", 3));
    }

    @Test
    void noRowsAreNoStatement() {
        int before = Server.statements();
        Rows.added(TABLE, ID, NAME, RANK).write(db, List.of());
        assertThat(named.fetch(db, List.of())).isEmpty();
        assertThat(Server.statements()).isEqualTo(before);
    }

    @Test
    void manyRowsAreOneStatement() {
        List<Object[]> rows = new ArrayList<>();
        for (long i = 0; i < 400; i++) rows.add(row(i, "row " + i, 0));
        int before = Server.statements();
        Rows.added(TABLE, ID, NAME, RANK).write(db, rows);
        assertThat(Server.statements() - before).isEqualTo(1);
        assertThat(db.fetchCount(TABLE)).isEqualTo(400);
    }
}
