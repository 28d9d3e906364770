package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.app.use.person.Leaving;
import mintshelf.app.use.person.SetAway;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Ask;
import org.junit.jupiter.api.Test;

/** Somebody leaves: what they hold and are asked goes on. Who may do what, both ways; grants in folders. */
class LeavingTest extends InAHouse {
    private final Review review = new Review(server);
    private final Leaving leaving = server.bean(Leaving.class);

    private String add(String name, String role) {
        server.add(name + mark, name + " " + mark, role);
        return name + mark;
    }

    private long person(String login) {
        return server.actor(login).person();
    }

    private String held(long item) {
        return server.document(item).holder().map(h -> h.name()).orElse("");
    }

    private long sentTo(String checker, long item) {
        String to = server.bean(SendToReview.class)
                .send(server.actor("priya"), List.of(item), Server.key(), "", Map.of(0, person(checker)), Map.of());
        return Long.parseLong(to.substring("/rounds/".length()));
    }

    private List<Ask> waiting(long round) {
        return review.store().round(round).orElseThrow().waiting();
    }

    @Test
    void whatSomebodyHoldsAndIsAskedGoesToWhoIsNamed() {
        String tove = add("tove", "designer");
        String jens = add("jens", "checker");
        long held = server.file(tove, server.shelf(), "held " + mark + ".txt", mark, true);
        long item = review.drawing(server.shelf(), "asked " + mark + ".dxf");
        long round = sentTo(jens, item);
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/people/" + person(tove) + "/leave").body())
                .contains("Holds 1 document", server.document(held).number());
        assertThat(ines.get("/people/" + person(jens) + "/leave").body())
                .contains("Is asked for 1 signature", server.document(item).number() + " as checked");
        assertThat(ines.post("/people/" + person(tove) + "/leave", Map.of("heir", "" + person("priya")))
                        .statusCode())
                .isEqualTo(302);
        assertThat(held(held)).isEqualTo("Priya Malhan");
        assertThat(Web.as(server, "priya").get("/today").body()).contains("gave you the check-out of");
        leaving.leave(server.actor("ines"), person(jens), person("hedda"));
        assertThat(waiting(round)).singleElement().matches(a -> a.personName().equals("Hedda Lysgaard"));
        review.sign("hedda", round);
        assertThat(ines.get("/people/" + person(jens) + "/leave").statusCode())
                .as("who has left does not leave again")
                .isEqualTo(404);
    }

    @Test
    void withoutAnHeirHoldsEndAndWhoeverTheRuleAsksIsAsked() {
        String tove = add("tove", "designer");
        String jens = add("jens", "checker");
        long held = server.file(tove, server.shelf(), "free " + mark + ".txt", mark, true);
        long item = review.drawing(server.shelf(), "anybody " + mark + ".dxf");
        long round = sentTo(jens, item);
        leaving.leave(server.actor("ines"), person(tove), 0);
        leaving.leave(server.actor("ines"), person(jens), 0);
        assertThat(held(held)).isEmpty();
        assertThat(waiting(round)).singleElement().matches(a -> a.whom().equals("a checker"));
        review.sign("hedda", round);
    }

    /** All or nothing: an heir who may not change one of the documents takes over none, and nobody has left. */
    @Test
    void anHeirWithoutTheRightIsRefusedAndNothingIsChanged() {
        String tove = add("tove", "designer");
        long held = server.file(tove, server.shelf(), "kept " + mark + ".txt", mark, true);
        assertThat(code(() -> {
                    leaving.leave(server.actor("ines"), person(tove), person("rafael"));
                    return "";
                }))
                .isEqualTo("leave.heir");
        assertThat(held(held)).isEqualTo("tove " + mark);
        Document before = server.document(held);
        assertThat(before.holder()).isPresent();
        assertThat(Web.as(server, tove).get("/today").statusCode())
                .as("still there")
                .isEqualTo(200);
        assertThat(code(() -> {
                    leaving.leave(server.actor("ines"), person("ines"), 0);
                    return "";
                }))
                .isEqualTo("person.own");
        assertThat(Web.as(server, "priya")
                        .post("/people/" + person(tove) + "/leave", Map.of("heir", "0"))
                        .statusCode())
                .isEqualTo(403);
    }

    /** An heir who worked on it does not sign it: then whoever the rule asks is asked. */
    @Test
    void anHeirWhoCannotSignDoesNotInheritTheQuestion() {
        String jens = add("jens", "checker");
        long item = review.drawing(server.shelf(), "own " + mark + ".dxf");
        long round = sentTo(jens, item);
        leaving.leave(server.actor("ines"), person(jens), person("priya"));
        assertThat(waiting(round)).singleElement().matches(a -> a.whom().equals("a checker"));
    }

    @Test
    void whomTheyStoodInForIsTold() {
        String jens = add("jens", "checker");
        String liv = add("liv", "checker");
        SetAway away = server.bean(SetAway.class);
        away.away(
                server.actor(liv),
                Server.key(),
                person(liv),
                away.today(),
                away.today().plusDays(9),
                Optional.of(person(jens)));
        leaving.leave(server.actor("ines"), person(jens), 0);
        assertThat(Web.as(server, liv).get("/today").body()).contains("stands in for you no more");
        assertThat(Web.as(server, liv).get("/people/" + person(liv)).body())
                .doesNotContain("jens " + mark + " stands in");
    }

    @Test
    void whoMayDoWhatIsReadBothWaysAndAGrantHoldsInAFolderAndBelow() {
        String nora = add("nora", "reader");
        long shelf = server.shelf();
        long in = server.bean(ReadShelf.class)
                .addFolder(server.actor("ines"), shelf, java.util.OptionalLong.empty(), "Hull " + mark);
        KeepGrants keep = server.bean(KeepGrants.class);
        keep.giveInFolder(server.actor("ines"), Server.key(), false, person(nora), "designer", in, 0);
        Web ines = Web.as(server, "ines");
        assertThat(ines.get("/house/people").body())
                .contains("in Hull " + mark + ", on " + server.shelfName(shelf))
                .contains("nora " + mark);
        assertThat(ines.get("/people/" + person(nora)).body()).contains("Reach", "Designer", "in Hull " + mark);
        ShelfStore.Folder folder = server.bean(ShelfStore.class).folder(in).orElseThrow();
        assertThat(folder.shelf()).isEqualTo(shelf);
        long outside = review.drawing(shelf, "outside " + mark + ".dxf");
        String people = ines.get("/documents/" + outside + "/who").body();
        assertThat(people).contains("Change documents", "Priya Malhan", "Hedda Lysgaard");
        review.release(outside);
        assertThat(Web.as(server, "rafael")
                        .get("/documents/" + outside + "/who")
                        .body())
                .as("readers learn nobody's rights but their own")
                .doesNotContain("Hedda Lysgaard");
        int change = people.indexOf("Change documents");
        assertThat(people.substring(change, people.indexOf("</div>", change)))
                .as("not outside of her folder")
                .doesNotContain("nora " + mark);
        Map<String, String> form =
                Map.of("actKey", Server.key(), "who", "p" + person(nora), "role", "checker", "place", "f" + in);
        assertThat(ines.post("/house/people/grants", form).statusCode()).isEqualTo(302);
        assertThat(ines.post(
                                "/house/people/grants",
                                Map.of("actKey", Server.key(), "who", "p1", "role", "checker", "place", "x1"))
                        .statusCode())
                .isEqualTo(404);
    }
}
