package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Optional;
import mintshelf.app.store.record.RecordStore;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessException;

/** What SQL tries behind the application's back, the database refuses. */
class ConstraintsTest {
    private final Server server = Server.shared();

    private void refused(String sql, Object... values) {
        assertThatThrownBy(() -> server.db().execute(sql, values)).as(sql).isInstanceOf(DataAccessException.class);
    }

    @Test
    void aSecondOpenHoldOfALine() {
        long item = server.file("priya", server.shelf(), "h.txt", "h", true);
        refused(
                "insert into hold (item, line, person, base_version, at, open_mark) select item, line, person, base_version, at, 1 from hold where item = ?",
                item);
    }

    @Test
    void aSecondReleasedAndASecondPendingRevision() {
        long item = server.released(server.shelf(), "r.txt");
        String second =
                "insert into revision (item, ordinal, edition, stage, %s, started_by, started_at, stage_since) select item, 99, edition, stage, 1, started_by, started_at, stage_since from revision where item = ?";
        refused(String.format(second, "released_mark"), item);
        server.db().execute(String.format(second, "pending_mark"), item);
        refused(String.format(second.replace("99", "100"), "pending_mark"), item);
        server.db().execute("delete from revision where item = ? and ordinal = 99", item);
    }

    @Test
    void aNumberThatIsOrWasUsed() {
        long item = server.file("priya", server.shelf(), "n.txt", "n", false);
        refused(
                "insert into number_claim (aspect, number_key, number, state, at) select aspect, number_key, number, 'RESERVED', at from number_claim where item = ?",
                item);
    }

    @Test
    void aVersionOfAnotherDocumentAsHead() {
        long a = server.file("priya", server.shelf(), "a.txt", "a", false);
        long b = server.file("priya", server.shelf(), "b.txt", "b", false);
        refused(
                "update line set head_version = ? where item = ?",
                server.document(b).head().version(),
                a);
    }

    @Test
    void anEntryOfTheRecordChangedOrRemoved() {
        long item = server.file("priya", server.shelf(), "e.txt", "e", false);
        refused("update record_entry set says = 'nothing' where stream = ?", item);
        refused("delete from record_entry where stream = ?", item);
        assertThat(server.bean(RecordStore.class).verify(item)).isEqualTo(Optional.empty());
    }

    @Test
    void aPackThatAContentHasAStretchOf() {
        long item = server.file("priya", server.shelf(), "p.txt", "piece of it", false);
        refused(
                "delete from pack where id in (select pack from content_stretch where content in (select content from version_file f join version v on v.id = f.version where v.item = ?))",
                item);
    }

    @Test
    void aSecondOpenRoundOrBundleAndASignOffGivenTwice() {
        Review review = new Review(server);
        long item = review.drawing(server.shelf(), "bundle.dxf");
        long round = review.send("priya", item);
        refused(
                "insert into bundle_item (bundle, item, position, open_mark) select max(bundle.id), ?, 1, 1 from bundle where bundle.id not in (select bundle from round where id = ?)",
                item,
                round);
        refused(
                "insert into round (bundle, opened_by, opened_at, note, state, open_mark) select bundle, opened_by, opened_at, note, state, 1 from round where id = ?",
                round);
        review.sign("hedda", round);
        refused(
                "insert into sign_off (ask, round, item, version, digest, person, decision, remark, at, standing_mark) select ask, round, item, version, digest, person, decision, remark, at, 1 from sign_off where round = ?",
                round);
        refused("update round set state = 'SIGNED', open_mark = null where id = ?", round);
    }

    @Test
    void anOutputThatSaysItIsMadeAndHasNoContent() {
        Review review = new Review(server);
        long item = review.drawing(server.shelf(), "output.dxf");
        review.release(item);
        refused(
                "update output set state = 'MADE', content = null where version in (select id from version where item = ?)",
                item);
    }
}
