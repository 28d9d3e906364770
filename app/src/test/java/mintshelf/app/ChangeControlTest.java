package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.ChangeControlRule.Sentence;
import mintshelf.core.house.ChangeControlRule.Starts;
import mintshelf.core.house.Subject;
import mintshelf.core.next.Act;
import mintshelf.core.signoff.Asked;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Who may start next revisions, and who is told, as the house says it by kind and shelf. */
class ChangeControlTest extends InAHouse {
    private final long shelf = server.shelf();
    private final StartRevisions start = server.bean(StartRevisions.class);

    private static Asked person(String login) {
        return new Asked(Asked.Kind.PERSON, Long.toString(server.actor(login).person()));
    }

    private void control(Sentence... sentences) {
        keep(
                new ChangeControlRule(List.of(sentences)),
                latest(Subject.CHANGE_CONTROL, ChangeControlRule.CODE).number(),
                "");
    }

    @AfterEach
    void backToWhatIsShipped() {
        control();
    }

    private Sentence here(Starts starts, Optional<Asked> some, Optional<Asked> told) {
        return new Sentence("", Long.toString(shelf), starts, some, told);
    }

    private String started(String login, long item) {
        return code(() -> start.start(server.actor(login), List.of(item), Server.key(), "longer", "", false));
    }

    private Act offered(String login, long item) {
        return server.bean(ReadDocument.class)
                .view(server.actor(login), item)
                .next()
                .act();
    }

    @Test
    void whatIsKeptForOrdersIsStartedByNobodyElseAndItsPageSaysSo() {
        long item = server.released(shelf, "kept.txt");
        long elsewhere = server.released(server.shelf(), "free.txt");
        assertThat(offered("priya", item)).isEqualTo(Act.START_REVISION);
        control(here(Starts.BY_ORDER, Optional.empty(), Optional.empty()));
        assertThat(offered("priya", item)).isEqualTo(Act.ASK_FOR_CHANGE);
        assertThat(offered("rafael", item)).isEqualTo(Act.LOOK);
        assertThat(started("priya", item)).isEqualTo("revision.refused");
        assertThat(started("ines", item)).as("nor by who keeps the rules").isEqualTo("revision.refused");
        assertThat(server.document(item).pending()).isEmpty();
        assertThat(offered("priya", elsewhere)).isEqualTo(Act.START_REVISION);
        assertThat(started("priya", elsewhere)).isEmpty();
        // Both in one act: all of them or none.
        long third = server.released(server.shelf(), "third.txt");
        assertThat(code(() ->
                        start.start(server.actor("priya"), List.of(third, item), Server.key(), "longer", "", false)))
                .isEqualTo("revision.refused");
        assertThat(server.document(third).pending()).isEmpty();
        assertThat(Web.as(server, "priya").get("/documents/" + item).body())
                .contains("Ask for a change…")
                .contains("is started by a change order");
        // An order may be asked for; what an order starts is its own affair.
        assertThat(server.bean(AskForChange.class)
                        .ask(server.actor("priya"), List.of(item), Server.key(), "Longer", "because", Map.of()))
                .startsWith("/orders/");
    }

    @Test
    void onlySomeOfThoseWhoMayChangeStartIt() {
        long item = server.released(shelf, "some.txt");
        control(here(Starts.BY_SOME, Optional.of(person("tomasz")), Optional.empty()));
        assertThat(started("priya", item)).isEqualTo("revision.refused");
        assertThat(offered("priya", item)).isEqualTo(Act.ASK_FOR_CHANGE);
        // Being named gives nobody a right that they have not.
        control(here(Starts.BY_SOME, Optional.of(person("rafael")), Optional.empty()));
        assertThatThrownBy(() -> started("rafael", item)).hasCauseInstanceOf(NotThere.class);
        control(here(Starts.BY_SOME, Optional.of(person("tomasz")), Optional.empty()));
        assertThat(started("tomasz", item)).isEmpty();
        assertThat(server.document(item).pending()).isPresent();
    }

    @Test
    void whoIsNamedIsToldWhenTheySeeIt() {
        long item = server.released(shelf, "told.txt");
        control(here(Starts.BY_HAND, Optional.empty(), Optional.of(person("hedda"))));
        assertThat(started("priya", item)).isEmpty();
        assertThat(server.bean(NoticeStore.class).open(server.actor("hedda").person(), 50))
                .anySatisfy(n -> {
                    assertThat(n.target()).isEqualTo("/documents/" + item);
                    assertThat(n.says())
                            .contains("Priya Malhan started revision B")
                            .contains("for longer");
                });
        long other = server.released(shelf, "blind.txt");
        control(here(Starts.BY_HAND, Optional.empty(), Optional.of(person("rafael"))));
        assertThat(started("priya", other)).isEmpty();
        assertThat(server.bean(NoticeStore.class).open(server.actor("rafael").person(), 50))
                .as("a reader does not learn what is prepared")
                .noneSatisfy(n -> assertThat(n.target()).isEqualTo("/documents/" + other));
    }

    @Test
    void itIsKeptThroughItsPageAndSaysNames() {
        Web web = Web.as(server, "ines");
        int edition = latest(Subject.CHANGE_CONTROL, ChangeControlRule.CODE).number();
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey", Server.key(),
                "edition", Integer.toString(edition),
                "why", "what is welded",
                "kind.0", "drawing",
                "shelf.0", Long.toString(shelf),
                "starts.0", "BY_ORDER",
                "kind.1", "",
                "shelf.1", Long.toString(shelf),
                "starts.1", "ROLE:designer"));
        form.put("told.1", "PERSON:" + server.actor("hedda").person());
        // The third is the empty one that every page ends with.
        form.put("starts.2", "");
        assertThat(web.post("/house/change-control", form).statusCode()).isEqualTo(302);
        ChangeControlRule kept = (ChangeControlRule)
                latest(Subject.CHANGE_CONTROL, ChangeControlRule.CODE).rule();
        assertThat(kept.sentences()).hasSize(2);
        assertThat(kept.sentences().get(1).starts()).isEqualTo(Starts.BY_SOME);
        assertThat(web.get("/house/change-control").body())
                .contains("Who may, today: Priya Malhan", "Who is told, today: Hedda Lysgaard")
                .contains("what is welded");
        // Somebody whose page shows an earlier edition overwrites nothing.
        form.put("actKey", Server.key());
        assertThat(web.post("/house/change-control", form).statusCode()).isEqualTo(409);
        assertThat(web.get("/house/change-control?beside=" + edition).body()).contains("added");
        form.put("actKey", Server.key());
        form.put("edition", Integer.toString(edition + 1));
        form.put("starts.1", "BY_HAND");
        form.put("shelf.0", "");
        form.put("kind.0", "");
        var refused = web.post("/house/change-control", form);
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("is never reached");
    }
}
