package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMailUtil;
import jakarta.mail.internet.MimeMessage;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.house.RouteStore;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.core.access.Right;
import mintshelf.core.document.VersionName;
import mintshelf.core.fact.RequiredAt;
import mintshelf.core.house.DistributionRule;
import mintshelf.core.house.DistributionRule.Sentence;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Subject;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.route.RouteEdit;
import mintshelf.core.route.StopRule;
import mintshelf.core.signoff.Asked;
import org.junit.jupiter.api.Test;

/** What stops of a route say beside their classes: who fetches files, whether facts change; and what charts hold for others. */
class StopRulesTest extends InAHouse {
    private final String route = "stops-" + mark;
    private final String kind = "stopped-sheet-" + mark;
    private final long shelf = server.shelf();

    StopRulesTest() {
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "straight", "Stops " + mark);
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "stopped sheet " + mark);
    }

    private void rule(String stop, StopRule rule) {
        step("ines", route, r -> RouteEdit.ruleStop(r, stop, rule));
        draw.keep(server.actor("ines"), Server.key(), route, "");
        KindRule of = (KindRule) latest(Subject.KIND, kind).rule();
        if (!of.route().equals(route)) {
            keep(
                    with(
                            of,
                            of.series(),
                            of.revisions(),
                            route,
                            List.of(new KindRule.OnSheet("material", RequiredAt.NEVER))),
                    1,
                    "");
        }
    }

    private String stop(String words) {
        return server.bean(RouteStore.class).inForce().get(route).stages().stream()
                .filter(s -> s.name().equals(words))
                .findFirst()
                .orElseThrow()
                .code();
    }

    private long file(boolean hold) {
        return server.file("priya", shelf, kind, Server.key() + ".dxf", Review.sheet(Server.key()), hold);
    }

    private String fetched(String login, long item, int version) {
        return code(() -> server.bean(FetchFiles.class).fetch(server.actor(login), item, version));
    }

    @Test
    void filesAreFetchedByWhomTheStopNamesAndByWhoHoldsThem() {
        rule(stop("In preparation"), new StopRule(Optional.of(Right.KEEP_SHELF), true));
        long item = file(true);
        assertThat(fetched("priya", item, 1)).as("she holds it").isEmpty();
        assertThat(fetched("hedda", item, 1)).isEqualTo("stage.fetch");
        assertThat(fetched("ines", item, 1)).isEmpty();
        assertThat(code(() -> server.bean(FetchFiles.class).readable(server.actor("hedda"), item, VersionName.main(1))))
                .isEqualTo("stage.fetch");
        assertThat(code(() -> server.bean(FetchFiles.class).fetchLatest(server.actor("hedda"), List.of(item), false)))
                .isEqualTo("stage.fetch");
        Web hedda = Web.as(server, "hedda");
        assertThat(hedda.get("/documents/" + item + "/versions/1/file").statusCode())
                .isEqualTo(409);
        assertThat(hedda.get("/documents/" + item).body())
                .as("its page says why, and offers nothing that is refused")
                .contains("are fetched by those who may keep the shelf in order")
                .doesNotContain("Fetch a copy");
        assertThat(hedda.get("/documents/" + item + "/versions/1/drawn").statusCode())
                .as("who sees it looks at it")
                .isEqualTo(200);
        server.checkIn("priya", item, Review.sheet(Server.key()), false);
        server.release("priya", item);
        assertThat(fetched("hedda", item, 2))
                .as("the released stop says the usual")
                .isEmpty();
        assertThat(fetched("rafael", item, 2)).isEmpty();
    }

    @Test
    void whatIsWithdrawnIsFetchedByKeepersAlone() {
        rule(stop("Withdrawn"), new StopRule(Optional.of(Right.KEEP_SHELF), true));
        long item = file(false);
        server.release("priya", item);
        assertThat(fetched("rafael", item, 1)).isEmpty();
        server.bean(MoveDocument.class)
                .move(server.actor("ines"), item, Server.key(), "withdraw", 1, "replaced by a casting");
        assertThat(fetched("rafael", item, 1)).isEqualTo("stage.fetch");
        assertThat(fetched("priya", item, 1)).isEqualTo("stage.fetch");
        assertThat(fetched("ines", item, 1)).isEmpty();
        assertThat(code(() -> server.bean(ReadVersion.class).output(server.actor("rafael"), item, 1, "PDF")))
                .isEqualTo("stage.fetch");
    }

    /** A distribution gives no file to whom the stop gives none: they get the news. */
    @Test
    void whoMayNotFetchGetsNoFileByMailEither() throws Exception {
        rule(stop("Released"), new StopRule(Optional.of(Right.KEEP_SHELF), true));
        Asked rafael = new Asked(
                Asked.Kind.PERSON, Long.toString(server.actor("rafael").person()));
        Sentence sentence = new Sentence(
                Moment.RELEASE, kind, "", rafael, DistributionRule.Way.FILE, Optional.of(MailTime.AT_ONCE));
        int edition = latest(Subject.DISTRIBUTION, DistributionRule.CODE).number();
        keep(new DistributionRule(List.of(sentence)), edition, "");
        server.post();
        // Documents of other houses in this process have the same numbers.
        Server.mail().purgeEmailFromAllMailboxes();
        long item = file(false);
        server.release("priya", item);
        server.post();
        String number = server.document(item).number();
        List<String> told = new ArrayList<>();
        for (MimeMessage m : Server.mail().getReceivedMessages()) {
            // It may come together with other news: then its number stands in the text alone.
            String body = GreenMailUtil.getBody(m).replaceAll("=\r?\n", "");
            if (m.getAllRecipients()[0].toString().startsWith("rafael@") && body.contains(number)) told.add(body);
        }
        assertThat(told)
                .singleElement()
                .asString()
                .contains("No file comes with this.")
                .doesNotContain(".dxf");
        keep(new DistributionRule(List.of()), edition + 1, "");
    }

    @Test
    void factsDoNotChangeWhereTheStopSaysSo() {
        rule(stop("In preparation"), new StopRule(Optional.empty(), false));
        long item = file(false);
        assertThat(code(() -> server.bean(KeepFacts.class)
                        .keep(
                                server.actor("priya"),
                                item,
                                Server.key(),
                                server.document(item).title(),
                                Map.of("material", "2205"),
                                Map.of())))
                .isEqualTo("stage.facts");
        assertThat(server.bean(ReadDocument.class)
                        .view(server.actor("priya"), item)
                        .facts()
                        .get(0)
                        .closed()
                        .orElseThrow()
                        .code())
                .isEqualTo("stage.facts");
    }

    @Test
    void theStopIsRuledOnTheMapsPageAndAChartGivesBackWhatItHeldForOthers() {
        Web ines = Web.as(server, "ines");
        String page = "/house/routes/" + route;
        ines.get(page + "/draw?stop=" + stop("Withdrawn"));
        assertThat(ines.post(
                                page + "/draw",
                                Map.of(
                                        "actKey", Server.key(),
                                        "act", "rule-stop",
                                        "stop", stop("Withdrawn"),
                                        "fetch", "KEEP_SHELF",
                                        "facts", "closed"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(ines.get(page + "/draw?stop=" + stop("Withdrawn")).body())
                .contains("its files are fetched by those who may keep the shelf in order; its facts do not change");
        draw.keep(server.actor("ines"), Server.key(), route, "");
        assertThat(ines.get(page).body()).contains("Its files are fetched by those who may keep the shelf in order");
        String chart = ines.get(page + "/scxml").body();
        String theirs = chart.replaceFirst(
                "(<(?:\\w+:)?scxml[^>]*>)", "$1<layout xmlns=\"urn:theirs\" grid=\"4\"><x/></layout>");
        assertThat(ines.post(page + "/scxml", Map.of("actKey", Server.key(), "text", theirs))
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .contains("kept");
        draw.keep(server.actor("ines"), Server.key(), route, "with their layout");
        assertThat(ines.get(page + "/scxml").body()).contains("urn:theirs").contains("grid=\"4\"");
        assertThat(latest(Subject.ROUTE, route).number()).isEqualTo(3);
    }
}
