package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.revision.DropRevision;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.access.Scope;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class RevisionTest {
    private final Server server = Server.shared();
    private final StartRevisions startRevisions = server.bean(StartRevisions.class);
    private final DropRevision dropRevision = server.bean(DropRevision.class);
    private final MoveDocument moveDocument = server.bean(MoveDocument.class);

    private void start(long item, boolean out) {
        startRevisions.start(server.actor("priya"), List.of(item), Server.key(), "M6 glands", "", out);
    }

    @Test
    void releasingTheNextRevisionSupersedesTheFormerInOneStep() {
        long item = server.released(server.shelf(), "gland.txt");
        start(item, true);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("B");
        assertThat(server.document(item).released().orElseThrow().label()).contains("A");
        server.checkIn("priya", item, "holes 6.6", false);
        server.release("priya", item);
        var document = server.document(item);
        assertThat(document.released().orElseThrow().label()).contains("B");
        assertThat(document.pending()).isEmpty();
        assertThat(server.bean(RevisionStore.class).revisions(item))
                .extracting(r -> r.revision().stage().stageClass())
                .containsExactly(StageClass.SUPERSEDED, StageClass.RELEASED);
    }

    /** A label that comes later skips ahead, and what was skipped is not given any more; one that comes earlier is refused. */
    @Test
    void aRevisionSkipsAheadAndWhatWasSkippedIsNotGivenAnyMore() {
        long item = server.released(server.shelf(), "skipping.txt");
        Web priya = Web.as(server, "priya");
        assertThat(priya.get("/start-revision?items=" + item).body())
                .contains("name=\"label." + item + "\" value=\"B\"");
        Map<String, String> form =
                new HashMap<>(Map.of("items", "" + item, "actKey", Server.key(), "reason", "as agreed"));
        for (String wrong : List.of("A", "I", "B B", "<b>")) {
            form.put("label." + item, wrong);
            form.put("actKey", Server.key());
            assertThat(priya.post("/start-revision", form).statusCode())
                    .as(wrong)
                    .isIn(400, 409);
            assertThat(server.document(item).pending()).as(wrong).isEmpty();
        }
        form.put("label." + item, "e");
        form.put("actKey", Server.key());
        assertThat(priya.post("/start-revision", form).statusCode()).isEqualTo(302);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("E");
        assertThat(Web.as(server, "ines").get("/documents/" + item + "/record").body())
                .contains("started revision E, skipping B");
        server.checkOut("priya", item);
        server.checkIn("priya", item, "skipped to E", false);
        server.release("priya", item);
        assertThat(priya.get("/start-revision?items=" + item).body()).contains("value=\"F\"");
    }

    @Test
    void theNextRevisionCanStartTheMinuteAfterARelease() {
        long item = server.released(server.shelf(), "shaft.txt");
        start(item, false);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("B");
        assertThatThrownBy(() -> start(item, false)).isInstanceOf(Refused.class).hasMessageContaining("under way");
    }

    @Test
    void aRevisionWithoutAVersionOfItsOwnIsNotReleased() {
        long item = server.released(server.shelf(), "tube.txt");
        start(item, false);
        assertThatThrownBy(() -> server.release("priya", item))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("move.no_version");
    }

    @Test
    void aDroppedRevisionGoesBackToTheReleasedOneAndItsLabelIsFreeWhenItNeverLeft() {
        long item = server.released(server.shelf(), "mast.txt");
        long releasedVersion = server.document(item).head().version();
        start(item, true);
        server.checkIn("priya", item, "second thoughts", false);
        dropRevision.drop(server.actor("priya"), item, Server.key(), 2, "not needed");
        assertThat(server.document(item).pending()).isEmpty();
        assertThat(server.document(item).head().version()).isEqualTo(releasedVersion);
        start(item, true);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("B");
        server.checkIn("priya", item, "third thoughts", false);
        assertThat(server.document(item).head().number()).isEqualTo(3);
    }

    @Test
    void aLabelThatSomebodyElseFetchedStaysUsed() {
        long item = server.released(server.shelf(), "panel.txt");
        start(item, true);
        server.checkIn("priya", item, "wider", false);
        server.bean(FetchFiles.class).fetch(server.actor("hedda"), item, 2);
        dropRevision.drop(server.actor("priya"), item, Server.key(), 2, "not needed");
        start(item, false);
        assertThat(server.document(item).pending().orElseThrow().label()).contains("C");
    }

    @Test
    void reinstatingMakesTheNextVersionACopyOfTheEarlierOne() {
        long item = server.file("priya", server.shelf(), "base.txt", "296", true);
        server.checkIn("priya", item, "340", false);
        Reinstate reinstate = server.bean(Reinstate.class);
        reinstate.reinstate(server.actor("priya"), item, Server.key(), 1, 2, "back to 296");
        var versions = server.bean(VersionStore.class).versions(item);
        assertThat(versions).hasSize(3);
        assertThat(versions.get(2).copyOf()).contains(1);
        assertThat(versions.get(2).content()).isEqualTo(versions.get(0).content());
        assertThatThrownBy(() -> reinstate.reinstate(server.actor("priya"), item, Server.key(), 2, 2, ""))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("page.old");
    }

    @Test
    void withdrawingNeedsAKeeperAndAReason() {
        long item = server.released(server.shelf(), "hose.txt");
        assertThatThrownBy(() -> moveDocument.move(server.actor("priya"), item, Server.key(), "withdraw", 1, "x"))
                .isInstanceOf(Refused.class);
        assertThatThrownBy(() -> moveDocument.move(server.actor("ines"), item, Server.key(), "withdraw", 1, ""))
                .hasMessageContaining("move.reason");
        moveDocument.move(server.actor("ines"), item, Server.key(), "withdraw", 1, "clipped to the mast now");
        assertThat(server.document(item).current().stage().stageClass()).isEqualTo(StageClass.WITHDRAWN);
    }

    @Test
    void factsBelongToTheirRevision() {
        long item = server.released(server.shelf(), "lid.txt");
        KeepFacts keep = server.bean(KeepFacts.class);
        assertThatThrownBy(() -> keep.keep(
                        server.actor("priya"), item, Server.key(), "Lid", Map.of("material", "2205"), Map.of()))
                .isInstanceOf(Refused.class);
        start(item, false);
        keep.keep(server.actor("priya"), item, Server.key(), "Lid", Map.of("material", "2205"), Map.of());
        assertThatThrownBy(() -> keep.keep(
                        server.actor("ines"),
                        item,
                        Server.key(),
                        "Lid",
                        Map.of("material", "2507"),
                        Map.of("material", "316L")))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("page.old");
        FactStore facts = server.bean(FactStore.class);
        assertThat(facts.facts(server.document(item).pending().orElseThrow().id()))
                .containsEntry("material", "2205");
        assertThat(facts.facts(server.document(item).released().orElseThrow().id()))
                .containsEntry("material", "316L");
    }

    @Test
    void readersOfReleasedWorkSeeTheReleasedVersionAndNothingElse() {
        long item = server.released(server.shelf(), "housing.txt");
        start(item, true);
        server.checkIn("priya", item, "secret draft", true);
        ReadDocument read = server.bean(ReadDocument.class);
        var view = read.view(server.actor("rafael"), item);
        assertThat(view.versions()).extracting(v -> v.number()).containsExactly(1);
        assertThat(view.seen().version()).isEqualTo(1);
        assertThat(view.seen().pending()).isEmpty();
        assertThatThrownBy(() -> server.bean(FetchFiles.class).fetch(server.actor("rafael"), item, 2))
                .isInstanceOf(NotThere.class);
        long draft = server.file("priya", server.shelf(), "draft.txt", "d", false);
        assertThatThrownBy(() -> read.view(server.actor("rafael"), draft)).isInstanceOf(NotThere.class);
    }

    @Test
    void aGrantOnAFolderCoversTheFoldersBelowItAndNothingBeside() {
        var shelves = server.bean(ReadShelf.class);
        var store = server.bean(ShelfStore.class);
        var people = server.bean(PersonStore.class);
        long shelf = server.shelf();
        long head = shelves.addFolder(server.actor("ines"), shelf, OptionalLong.empty(), "3000 Encoder head");
        long lids = shelves.addFolder(server.actor("ines"), shelf, OptionalLong.of(head), "Lids");
        assertThat(store.folders(shelf)).extracting(f -> f.name()).endsWith("3000 Encoder head", "Lids");
        long inside = server.file("priya", shelf, "inside.txt", "inside" + shelf, false);
        long beside = server.file("priya", shelf, "beside.txt", "beside" + shelf, false);
        server.db().execute("update item set folder = ? where id = ?", lids, inside);
        String login = "folder" + shelf;
        long person = people.add(login, "Folder Only", "", "", "", "UTC", Instant.now());
        server.bean(GrantStore.class)
                .grantPerson(
                        person,
                        "designer",
                        new Scope(OptionalLong.of(shelf), OptionalLong.of(head), OptionalLong.empty()));
        var rows = shelves.rows(
                server.actor(login),
                shelves.shelf(server.actor(login), shelf, ListStore.Filter.EVERYTHING, false),
                ListStore.Order.NUMBER,
                ListStore.Filter.EVERYTHING,
                OptionalLong.empty(),
                OptionalLong.empty(),
                50);
        assertThat(rows).extracting(r -> r.spine().id()).containsExactly(inside);
        server.checkOut(login, inside);
        assertThatThrownBy(() -> server.checkOut(login, beside)).isInstanceOf(NotThere.class);
    }

    @Test
    void theReleasedRevisionStaysWhileTheNextOneIsPending() {
        long item = server.released(server.shelf(), "cradle.txt");
        start(item, false);
        assertThatThrownBy(() -> moveDocument.move(server.actor("ines"), item, Server.key(), "withdraw", 1, "not now"))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("move.stage");
    }

    @Test
    void aDocumentFiledByMistakeIsDroppedAndItsNumberStaysUsed() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "mistake.txt", "m", false);
        DropDocument keep = server.bean(DropDocument.class);
        assertThatThrownBy(() -> keep.drop(server.actor("tomasz"), item, Server.key(), "x"))
                .isInstanceOf(Refused.class);
        keep.drop(server.actor("priya"), item, Server.key(), "wrong shelf");
        assertThatThrownBy(() -> server.bean(ReadDocument.class).view(server.actor("priya"), item))
                .isInstanceOf(NotThere.class);
        long again = server.file("priya", shelf, "mistake.txt", "m2", false);
        assertThat(server.document(again).number())
                .isNotEqualTo(server.document(item).number());
    }
}
