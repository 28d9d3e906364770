package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteEdit;
import org.junit.jupiter.api.Test;

/** House rules through their pages, and drawing routes. */
class HousePagesTest extends InAHouse {
    @Test
    void twoWhoDrawOneRouteAreToldAndTheSecondIsNotKeptUnseen() {
        server.add("bo" + mark, "Bo Lund", "data-manager");
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "straight", "Shared " + mark);
        String route = "shared-" + mark;
        step("ines", route, r -> RouteEdit.rename(r, "Mine " + mark));
        step("bo" + mark, route, r -> RouteEdit.rename(r, "Theirs " + mark));
        assertThat(draw.others(server.actor("ines"), route)).containsExactly("Bo Lund");
        draw.keep(server.actor("bo" + mark), Server.key(), route, "");
        assertThat(code(() -> draw.keep(server.actor("ines"), Server.key(), route, "")))
                .isEqualTo("page.old");
        assertThat(latest(Subject.ROUTE, route).rule().name()).isEqualTo("Theirs " + mark);
        assertThat(draw.draft(server.actor("ines"), route))
                .as("what Ines drew is still there")
                .isPresent();
        draw.drop(server.actor("ines"), Server.key(), route);
        assertThat(draw.draft(server.actor("ines"), route)).isEmpty();
    }

    @Test
    void stepsAreKeptAsOneGoesAndTakenBackOneByOne() {
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "reviewed", "Steps " + mark);
        String route = "steps-" + mark;
        for (int i = 0; i < 60; i++) {
            String name = "Step " + i + " " + mark;
            step("ines", route, r -> RouteEdit.rename(r, name));
        }
        assertThat(draw.draft(server.actor("ines"), route).orElseThrow().steps())
                .isEqualTo(49);
        draw.back(server.actor("ines"), Server.key(), route);
        assertThat(draw.draft(server.actor("ines"), route).orElseThrow().route().name())
                .isEqualTo("Step 58 " + mark);
        for (int i = 0; i < 60; i++) draw.back(server.actor("ines"), Server.key(), route);
        assertThat(draw.draft(server.actor("ines"), route).orElseThrow().route().name())
                .as("the edition in force is the first state, whatever was forgotten between")
                .isEqualTo("Steps " + mark);
        assertThat(latest(Subject.ROUTE, route).number()).isEqualTo(1);
    }

    @Test
    void theCardIsEditedWhereItStands() {
        Web web = Web.as(server, "ines");
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "report", "gauge report " + mark);
        String page = "/house/kinds/gauge-report-" + mark;
        assertThat(web.get(page).body()).contains("Gauge report " + mark, "a copy of report", "Keep as edition 2");
        Map<String, String> form = new HashMap<>(Map.of(
                "actKey", Server.key(),
                "edition", "1",
                "name", "gauge report " + mark,
                "series", "papers",
                "revisions", "list",
                "own", "P, A, B",
                "taken", "release",
                "route", "paper",
                "why", "as the yard has them"));
        form.put("required.subject", "FILING");
        form.put("place.subject", "2");
        form.put("more", "mass");
        form.put("morerequired", "NEVER");
        assertThat(web.post(page, form).statusCode()).isEqualTo(302);
        String kept = web.get(page + "?beside=1").body();
        assertThat(kept).contains("P, A, B; taken at release", "as the yard has them", "Set 1 back in force");
        KindRule now = (KindRule) latest(Subject.KIND, "gauge-report-" + mark).rule();
        assertThat(now.facts())
                .containsExactly(
                        new KindRule.OnSheet("subject", RequiredAt.FILING),
                        new KindRule.OnSheet("mass", RequiredAt.NEVER));
        form.put("actKey", Server.key());
        assertThat(web.post(page, form).body())
                .as("the page is old")
                .contains("is at edition 2; your page showed edition 1");
        form.putAll(Map.of("actKey", Server.key(), "edition", "2", "own", "P, P", "route", "nowhere"));
        assertThat(web.post(page, form).body())
                .contains("is no revision series", "names a route that is not there", "Nothing was changed");
        for (String address :
                List.of("/house/kinds", "/house/series", "/house/routes", "/house/filing", "/house/facts", page)) {
            assertThat(Web.as(server, "priya").get(address).statusCode())
                    .as(address)
                    .isEqualTo(403);
        }
        assertThat(Web.as(server, "priya").post(page, form).statusCode()).isEqualTo(403);
    }

    @Test
    void aRouteIsGivenOutAndTakenInThroughThePages() {
        Web web = Web.as(server, "ines");
        String chart = web.get("/house/routes/reviewed-twice/scxml").body();
        assertThat(chart).contains("http://www.w3.org/2005/07/scxml");
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "straight", "Taken " + mark);
        String page = "/house/routes/taken-" + mark;
        assertThat(web.post(page + "/scxml", Map.of("actKey", Server.key(), "text", chart))
                        .statusCode())
                .isEqualTo(302);
        assertThat(web.get(page + "/draw").body()).contains("Second reading", "Sound", "Keep as edition 2");
        assertThat(web.post(page, Map.of("actKey", Server.key(), "why", "as the others"))
                        .statusCode())
                .isEqualTo(302);
        Route taken = ReadRules.route(latest(Subject.ROUTE, "taken-" + mark));
        Route source = ReadRules.route(latest(Subject.ROUTE, "reviewed-twice"));
        assertThat(taken.moves()).isEqualTo(source.moves());
        assertThat(web.post(
                                page + "/scxml",
                                Map.of(
                                        "actKey",
                                        Server.key(),
                                        "text",
                                        "<!DOCTYPE x [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><x>&e;</x>"))
                        .body())
                .contains("Nothing was taken in")
                .doesNotContain("root:");
    }

    @Test
    void sentencesOfAMoveAreWrittenThroughThePageAndTheProofSpeaks() {
        Web web = Web.as(server, "ines");
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "reviewed", "Said " + mark);
        String page = "/house/routes/said-" + mark + "/draw";
        Map<String, String> say = new HashMap<>(
                Map.of("actKey", Server.key(), "act", "say", "move", "release", "name", "Let go", "who", "SIGN"));
        say.putAll(Map.of("gate", "SIGNED_OFF", "effect", "FIX_LABEL", "signOff", "check"));
        assertThat(web.post(page, say).headers().firstValue("Location").orElseThrow())
                .endsWith("?move=release");
        String drawn = web.get(page).body();
        assertThat(drawn)
                .contains(
                        "Let go would leave two revisions in force",
                        "It cannot be kept yet",
                        "It asks by the sign-off rule");
        assertThat(web.post("/house/routes/said-" + mark, Map.of("actKey", Server.key()))
                        .body())
                .contains("two revisions in force");
        assertThat(web.post(page, Map.of("actKey", Server.key(), "act", "back")).statusCode())
                .isEqualTo(302);
        assertThat(web.get(page).body()).contains("Sound");
        assertThat(web.post(page, Map.of("actKey", Server.key(), "act", "explode"))
                        .statusCode())
                .isEqualTo(404);
        assertThat(web.post(page, Map.of("actKey", Server.key(), "act", "take-move", "move", "gone"))
                        .body())
                .contains("is not there any more");
        Matcher picture = Pattern.compile("<path class=\"gate\"")
                .matcher(web.get("/house/routes/said-" + mark).body());
        assertThat(picture.find()).isTrue();
    }
}
