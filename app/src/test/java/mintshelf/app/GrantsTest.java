package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.core.access.Grant;
import mintshelf.core.access.Right;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Groups, roles, grants: given and taken, effective at once, never without somebody who keeps the house. */
class GrantsTest {
    private static Server server;
    private final KeepGrants keep = server.bean(KeepGrants.class);
    private final String mark = Server.key().substring(0, 6);

    @BeforeAll
    static void aHouse() {
        server = Server.with();
    }

    @AfterAll
    static void end() {
        server.stop();
    }

    private static String code(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        } catch (NotThere e) {
            return "not there";
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    private String somebody() {
        String login = "g" + Server.key().substring(0, 8);
        server.add(login, "Person " + login, "reader");
        return login;
    }

    private long group(String name) {
        keep.addGroup(server.actor("ines"), Server.key(), name);
        return server.bean(GroupStore.class).groups().stream()
                .filter(g -> g.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    private Grant grant(String to) {
        return keep.view(server.actor("ines")).grants().stream()
                .filter(g -> g.to().equals(to))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aGroupIsMadeGivenARoleOnOneShelfAndWhoJoinsHasItAtOnce() {
        String login = somebody();
        long shelf = server.shelf();
        long elsewhere = server.shelf();
        long group = group("Yard " + mark);
        keep.give(server.actor("ines"), Server.key(), true, group, "designer", shelf, 0);
        long person = server.actor(login).person();
        keep.join(server.actor("ines"), Server.key(), group, person);
        assertThat(server.bean(NoticeStore.class).open(person, 5))
                .anyMatch(n -> n.says().equals("Ines Kallmar put you into the group Yard " + mark));
        assertThat(server.actor(login).access().mayOn(Right.CHANGE, shelf, false))
                .isTrue();
        assertThat(server.actor(login).access().mayOn(Right.CHANGE, elsewhere, false))
                .isFalse();
        long item = server.file(login, shelf, "drawing", "first " + mark + ".dxf", Review.sheet(Server.key()), false);
        assertThat(server.document(item).number()).isNotEmpty();
        keep.leaveGroup(server.actor("ines"), Server.key(), group, person);
        assertThat(server.actor(login).access().mayOn(Right.CHANGE, shelf, false))
                .isFalse();
        assertThat(Web.as(server, "ines").get("/record?acts=house.").body())
                .contains("gave Yard " + mark + " the role Designer, on " + server.shelfName(shelf))
                .contains("out of Yard " + mark);
    }

    @Test
    void aRoleForOneKindHoldsForThatKind() {
        String login = somebody();
        keep.give(server.actor("ines"), Server.key(), false, server.actor(login).person(), "designer", 0, 1);
        assertThat(grant("Person " + login).where()).isIn("everywhere", "for drawing");
        assertThat(server.actor(login).access().grants())
                .anyMatch(g -> g.where().equals("for drawing"));
        int grants = server.actor(login).access().grants().size();
        keep.give(server.actor("ines"), Server.key(), false, server.actor(login).person(), "designer", 0, 1);
        assertThat(server.actor(login).access().grants())
                .as("given twice is given once")
                .hasSize(grants);
    }

    @Test
    void aRoleIsMadeAndWhatItGivesChangesForEverybodyWhoHasIt() {
        String login = somebody();
        keep.keepRole(server.actor("ines"), Server.key(), "", "Inspector " + mark, Set.of(Right.SEE_ALL));
        String code = "inspector-" + mark;
        keep.give(server.actor("ines"), Server.key(), false, server.actor(login).person(), code, 0, 0);
        assertThat(server.actor(login).access().maySomewhere(Right.SIGN)).isFalse();
        keep.keepRole(server.actor("ines"), Server.key(), code, "Inspector " + mark, Set.of(Right.SEE_ALL, Right.SIGN));
        assertThat(server.actor(login).access().maySomewhere(Right.SIGN)).isTrue();
        keep.keepRole(server.actor("ines"), Server.key(), code, "Inspector " + mark, Set.of());
        assertThat(server.actor(login).access().maySomewhere(Right.SEE_ALL)).isFalse();
        assertThat(code(() -> keep.keepRole(server.actor("ines"), Server.key(), code, "Designer", Set.of())))
                .isEqualTo("role.named");
        String longest = "Whoever looks at the welds of the large frame, on site " + mark.substring(0, 3);
        assertThat(code(() -> keep.keepRole(server.actor("ines"), Server.key(), "", longest, Set.of(Right.SIGN))))
                .as("a name as long as names may be")
                .isEmpty();
        assertThat(code(() -> keep.addGroup(server.actor("ines"), Server.key(), " ")))
                .isEqualTo("text.missing");
    }

    @Test
    void theLastKeeperStaysWhateverWayItIsTried() {
        var ines = server.actor("ines");
        long own = ines.access().grants().get(0).id();
        assertThat(code(() -> keep.takeAway(ines, Server.key(), own))).isEqualTo("grants.last_keeper");
        assertThat(code(() -> keep.keepRole(ines, Server.key(), "data-manager", "Data manager", Set.of(Right.SEE_ALL))))
                .isEqualTo("grants.last_keeper");
        assertThat(server.actor("ines").access().mayEverywhere(Right.KEEP_HOUSE_RULES))
                .isTrue();
        // Somebody who keeps one shelf, or who never set a password, keeps no house.
        String login = somebody();
        keep.give(ines, Server.key(), false, server.actor(login).person(), "data-manager", server.shelf(), 0);
        assertThat(code(() -> keep.takeAway(ines, Server.key(), own))).isEqualTo("grants.last_keeper");
    }

    /** Each takes the other's right away at the same moment: one of them succeeds. */
    @Test
    void ofTwoKeepersWhoTakeEachOthersRightOneStays() throws Exception {
        for (int round = 0; round < 5; round++) {
            String login = somebody();
            keep.give(
                    server.actor("ines"),
                    Server.key(),
                    false,
                    server.actor(login).person(),
                    "data-manager",
                    0,
                    0);
            long mine = keeper("ines");
            long theirs = keeper(login);
            var ines = server.actor("ines");
            var other = server.actor(login);
            ExecutorService two = Executors.newFixedThreadPool(2);
            var a = two.submit(() -> code(() -> keep.takeAway(ines, Server.key(), theirs)));
            var b = two.submit(() -> code(() -> keep.takeAway(other, Server.key(), mine)));
            List<String> became = List.of(a.get(), b.get());
            two.shutdown();
            assertThat(became).as("one of them was done").contains("").hasSize(2);
            assertThat(became.stream().filter(String::isEmpty)).hasSize(1);
            boolean inesStays = server.actor("ines").access().mayEverywhere(Right.KEEP_HOUSE_RULES);
            assertThat(inesStays || server.actor(login).access().mayEverywhere(Right.KEEP_HOUSE_RULES))
                    .isTrue();
            if (!inesStays) {
                keep.give(server.actor(login), Server.key(), false, ines.person(), "data-manager", 0, 0);
                keep.takeAway(server.actor("ines"), Server.key(), keeper(login));
            }
        }
    }

    private long keeper(String login) {
        return server.actor(login).access().grants().stream()
                .filter(g -> g.role().code().equals("data-manager") && g.where().equals("everywhere"))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void allOfItIsDoneThroughThePageAndByKeepersOnly() {
        Web web = Web.as(server, "ines");
        assertThat(web.get("/house/people").body())
                .contains("People and grants", "Data manager", "is Designer, everywhere.");
        String login = somebody();
        Map<String, String> give = Map.of(
                "actKey",
                Server.key(),
                "who",
                "p" + server.actor(login).person(),
                "role",
                "checker",
                "shelf",
                "0",
                "kind",
                "0");
        assertThat(web.post("/house/people/grants", give).statusCode()).isEqualTo(302);
        assertThat(server.actor(login).access().maySomewhere(Right.SIGN)).isTrue();
        Map<String, String> odd = new HashMap<>(give);
        odd.putAll(Map.of("actKey", Server.key(), "who", "x1"));
        assertThat(web.post("/house/people/grants", odd).statusCode()).isEqualTo(404);
        odd.putAll(Map.of("actKey", Server.key(), "who", "p999999"));
        assertThat(web.post("/house/people/grants", odd).statusCode()).isEqualTo(404);
        assertThat(web.post("/house/people/groups", Map.of("actKey", Server.key(), "name", "Deck " + mark))
                        .statusCode())
                .isEqualTo(302);
        assertThat(web.post("/house/people/groups", Map.of("actKey", Server.key(), "name", "DECK " + mark))
                        .body())
                .contains("There is a group");
        assertThat(web.post(
                                "/house/people/roles",
                                Map.of("actKey", Server.key(), "name", "Deck hand " + mark, "right", "SEE_RELEASED"))
                        .statusCode())
                .isEqualTo(302);
        assertThat(web.get("/house/people").body())
                .contains("Deck hand " + mark, "may see what is released", "nobody yet");
        for (String other : List.of("priya", "hedda", "rafael")) {
            assertThat(Web.as(server, other).post("/house/people/grants", give).statusCode())
                    .isEqualTo(403);
        }
    }
}
