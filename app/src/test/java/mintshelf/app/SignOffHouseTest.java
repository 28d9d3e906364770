package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.use.person.SetAway;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignMany;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.house.CalendarRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.house.Subject;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteEdit;
import mintshelf.core.signoff.Ask;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.Round;
import mintshelf.core.signoff.SignOffLine;
import mintshelf.core.signoff.WorkingDays;
import org.junit.jupiter.api.Test;

/** Sign-off rules as a house makes them: groups, all, one person, everybody heard, the password again, the house's calendar. */
class SignOffHouseTest extends InAHouse {
    private final Review review = new Review(server);
    private final GroupStore groups = server.bean(GroupStore.class);

    private long person(String login) {
        return server.actor(login).person();
    }

    /** Adds somebody with a role; their login is {@code name} and the test's mark. */
    private String add(String name, String role) {
        server.add(name + mark, name + " " + mark, role);
        return name + mark;
    }

    private String group(String... logins) {
        long group = groups.addGroup("Group " + mark);
        for (String login : logins) groups.join(group, person(login));
        return Long.toString(group);
    }

    private static SignOffLine line(Asked.Kind kind, String code, int needed, boolean password) {
        return new SignOffLine(1, new Asked(kind, code), needed, "seen", "", "", 2, true, password);
    }

    /** A kind of this test, on a route whose release asks by a rule with these lines. */
    private String kind(Policy policy, SignOffLine... lines) {
        String name = "seen-" + mark;
        keep(new SignOffRule(name, "Seen " + mark, Arrays.asList(lines), policy), 0, "");
        keep.copy(server.actor("ines"), Server.key(), Subject.ROUTE, "reviewed", "Seen " + mark);
        step("ines", name, r -> asking(r, name, false));
        draw.keep(server.actor("ines"), Server.key(), name, "");
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "seen " + mark);
        keep(onRoute((KindRule) latest(Subject.KIND, name).rule(), name), 1, "");
        return name;
    }

    private static Outcome<Route> asking(Route r, String rule, boolean hand) {
        Move m = r.move("release").orElseThrow();
        return RouteEdit.say(
                r,
                m.code(),
                m.name(),
                m.who(),
                m.gates().stream()
                        .map(g -> hand && g.equals(Gates.SIGNED_OFF) ? Gates.BOARD_SIGNED : g)
                        .toList(),
                m.effects(),
                rule);
    }

    private long drawing(String kind) {
        long item = server.file("priya", server.shelf(), kind, "s" + Server.key() + ".dxf", Review.sheet(mark), true);
        server.checkIn("priya", item, Review.sheet(Server.key()), false);
        return item;
    }

    private Round round(long id) {
        return review.store().round(id).orElseThrow();
    }

    private String refused(String login, long round, String password) {
        return code(() -> server.bean(SignRound.class)
                .answer(
                        server.actor(login),
                        round,
                        Server.key(),
                        review.digest(login, round),
                        Decision.SIGNED,
                        "",
                        password));
    }

    @Test
    void twoOfAGroupSignAndNobodyElse() {
        String jens = add("jens", "checker");
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.GROUP, group("hedda", jens, "rafael"), 2, false));
        long item = drawing(kind);
        long round = review.send("priya", item);
        assertThat(round(round).waiting()).singleElement().satisfies(a -> {
            assertThat(a.whom()).isEqualTo("one of Group " + mark);
            assertThat(round(round).lacks(a)).isEqualTo(2);
        });
        assertThat(refused("oluwaseun", round, "")).as("not in the group").isEqualTo("sign.role");
        review.sign("hedda", round);
        assertThat(refused("hedda", round, "")).isEqualTo("sign.done");
        assertThat(server.document(item).released()).isEmpty();
        assertThat(Web.as(server, jens).get("/in-tray").body())
                .contains(server.document(item).number());
        review.sign(jens, round);
        assertThat(server.document(item).released()).isPresent();
    }

    /** Who is taken out of a group in the middle of a round is not asked any more; when nobody is left, the sender is told. */
    @Test
    void aGroupThatEmptiesLeavesNobodyAndThatIsSaid() {
        String jens = add("jens", "checker");
        String group = group("hedda", jens);
        long item = drawing(kind(Policy.FIRST_RETURN, line(Asked.Kind.GROUP, group, 1, false)));
        long round = review.send("priya", item);
        groups.leave(Long.parseLong(group), person("hedda"));
        assertThat(refused("hedda", round, "")).isEqualTo("sign.role");
        groups.leave(Long.parseLong(group), person(jens));
        assertThat(Web.as(server, "priya").get("/rounds/" + round).body())
                .contains("Nobody is left who could answer", "asks one of Group " + mark, "anybody in Group " + mark);
        long second = drawing("seen-" + mark);
        assertThat(code(() -> review.send("priya", second))).isEqualTo("send.refused");
        assertThat(Web.as(server, "priya")
                        .get("/send-to-review?items=" + second)
                        .body())
                .contains("nobody in Group " + mark + " may sign here");
    }

    /** Everybody of a role is asked by name, so that a deputy stands in for each. */
    @Test
    void allAreAskedByNameAndDeputiesStandIn() {
        String jens = add("jens", "checker");
        String liv = add("liv", "checker");
        String group = group("hedda", jens);
        long item = drawing(kind(Policy.FIRST_RETURN, line(Asked.Kind.GROUP, group, SignOffLine.EVERYBODY, false)));
        assertThat(Web.as(server, "priya").get("/send-to-review?items=" + item).body())
                .contains("all of Group " + mark + ": Hedda Lysgaard, jens " + mark);
        long round = review.send("priya", item);
        assertThat(round(round).waiting())
                .extracting(Ask::personName)
                .containsExactly("Hedda Lysgaard", "jens " + mark);
        LocalDate today = server.bean(SetAway.class).today();
        server.bean(SetAway.class)
                .away(
                        server.actor(jens),
                        Server.key(),
                        person(jens),
                        today,
                        today.plusDays(3),
                        Optional.of(person(liv)));
        review.sign("hedda", round);
        review.sign(liv, round);
        assertThat(server.document(item).released()).isPresent();
        assertThat(round(round).signOffs())
                .extracting(s -> s.signer())
                .containsExactly("Hedda Lysgaard", "liv " + mark + " for jens " + mark);
    }

    @Test
    void onePersonIsAskedAndAnotherOneOnlyWhenSomebodySaysSo() {
        String marit = add("marit", "checker");
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.PERSON, Long.toString(person(marit)), 1, false));
        long item = drawing(kind);
        long round = review.send("priya", item);
        assertThat(refused("hedda", round, "")).isEqualTo("sign.other");
        long ask = round(round).asks().get(0).id();
        Web ines = Web.as(server, "ines");
        Map<String, String> form = Map.of(
                "actKey",
                Server.key(),
                "person",
                "" + person("hedda"),
                "due",
                server.bean(SetAway.class).today().plusDays(9).toString());
        assertThat(ines.post("/rounds/" + round + "/asks/" + ask, form).statusCode())
                .isEqualTo(302);
        assertThat(refused(marit, round, "")).isEqualTo("sign.other");
        review.sign("hedda", round);
        assertThat(server.document(item).released()).isPresent();
    }

    @Test
    void everybodyIsHeardBeforeItGoesBackWithAllThatWasSaid() {
        String jens = add("jens", "checker");
        String kind = kind(
                Policy.EVERYBODY_HEARD, line(Asked.Kind.GROUP, group("hedda", jens), SignOffLine.EVERYBODY, false));
        long item = drawing(kind);
        long round = review.send("priya", item);
        review.answer("hedda", round, Decision.RETURNED, "the hole is too small");
        assertThat(round(round).isOpen()).isTrue();
        assertThat(refused("hedda", round, "")).isEqualTo("sign.done");
        review.answer(jens, round, Decision.RETURNED, "the radius is missing");
        Round ended = round(round);
        assertThat(ended.state()).isEqualTo(Round.State.RETURNED);
        assertThat(server.document(item).current().stage().name()).isEqualTo("In preparation");
        String today = Web.as(server, "priya").get("/today").body();
        assertThat(today).contains("the radius is missing").contains("the hole is too small");
        // The second round begins anew: nobody's return of the first one counts.
        server.checkIn("priya", item, Review.sheet("mended " + mark), false);
        long again = review.send("priya", item);
        review.answer("hedda", again, Decision.RETURNED, "still too small");
        assertThat(round(again).isOpen()).isTrue();
        review.sign(jens, again);
        assertThat(round(again).state()).as("one return is enough").isEqualTo(Round.State.RETURNED);
    }

    @Test
    void aSignatureAsksForThePasswordAgainAndGuessesAreBraked() {
        long item = drawing(kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, true)));
        long round = review.send("priya", item);
        assertThat(Web.as(server, "hedda").get("/rounds/" + round).body()).contains("Your password");
        assertThat(refused("hedda", round, "")).isEqualTo("sign.password");
        assertThat(refused("hedda", round, "wrong")).isEqualTo("sign.password");
        SignMany many = server.bean(SignMany.class);
        assertThat(many.plan(server.actor("hedda"), List.of(item), Wish.sign(Decision.SIGNED, ""))
                        .refusals())
                .extracting(Refusal::code)
                .containsExactly("sign.password");
        assertThat(many.plan(
                                server.actor("hedda"),
                                List.of(item),
                                Wish.sign(Decision.SIGNED, "").saidAgain(true))
                        .opens())
                .isTrue();
        for (int i = 0; i < 7; i++) refused("hedda", round, "wrong " + i);
        assertThat(refused("hedda", round, Server.PASSWORD)).isEqualTo("sign.braked");
        assertThat(round(round).signOffs()).isEmpty();
        server.db().execute("delete from sign_in_attempt");
        assertThat(refused("hedda", round, Server.PASSWORD)).isEmpty();
        assertThat(server.document(item).released()).isPresent();
        assertThat(server.db().fetch("select says from record_entry where act = 'person.password_failed'"))
                .isNotEmpty();
    }

    /** A return asks nobody for a password. */
    @Test
    void aReturnNeedsNoPassword() {
        long item = drawing(kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, true)));
        long round = review.send("priya", item);
        review.answer("hedda", round, Decision.RETURNED, "no");
        assertThat(round(round).state()).isEqualTo(Round.State.RETURNED);
    }

    @Test
    void whatIsUnderWayKeepsItsLinesAndTheNextFollowsTheNewEdition() {
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, false));
        long first = drawing(kind);
        long round = review.send("priya", first);
        keep(
                new SignOffRule(
                        kind,
                        "Seen " + mark,
                        List.of(line(Asked.Kind.ROLE, "board-member", 1, false)),
                        Policy.FIRST_RETURN),
                1,
                "the board looks");
        review.sign("hedda", round);
        assertThat(server.document(first).released()).isPresent();
        long second = drawing(kind);
        long next = review.send("priya", second);
        assertThat(refused("hedda", next, "")).isEqualTo("sign.role");
        review.sign("oluwaseun", next);
        assertThat(server.document(second).released()).isPresent();
    }

    /** The signatures open the move and a release clerk makes it; until then what was signed stays as it is. */
    @Test
    void aClerkReleasesWhatIsSigned() {
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, false));
        step("ines", kind, r -> asking(r, kind, true));
        draw.keep(server.actor("ines"), Server.key(), kind, "a clerk releases");
        long item = drawing(kind);
        MoveDocument move = server.bean(MoveDocument.class);
        long round = review.send("priya", item);
        String early = code(() -> move.move(server.actor("hedda"), item, Server.key(), "release", 2, ""));
        assertThat(early).as("nobody has signed").isEqualTo("gate.sign_offs");
        review.sign("hedda", round);
        assertThat(server.document(item).released()).as("it waits for a hand").isEmpty();
        assertThat(round(round).state()).isEqualTo(Round.State.SIGNED);
        server.checkIn("priya", item, Review.sheet("late " + mark), false);
        assertThat(server.document(item).head().number())
                .as("signed as it is; what comes is a stray")
                .isEqualTo(2);
        assertThat(Web.as(server, "priya").get("/rounds/" + round + "?answered").body())
                .contains("It waits for the hand of somebody who may sign");
        assertThat(code(() -> move.move(server.actor("priya"), item, Server.key(), "release", 2, "")))
                .as("a designer is no clerk")
                .isNotEmpty();
        assertThat(Web.as(server, "oluwaseun").get("/today").body())
                .as("whoever may release is told")
                .contains("it can be carried out");
        move.move(server.actor("oluwaseun"), item, Server.key(), "release", 2, "");
        assertThat(server.document(item).released()).isPresent();
        assertThat(review.store().openRound(item)).as("nothing waits any more").isEmpty();
    }

    /** What was sent together and signed goes together by the clerk's hand, and once more in the next revision. */
    @Test
    void aClerkReleasesAllThatWasSignedTogether() {
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, false));
        step("ines", kind, r -> asking(r, kind, true));
        draw.keep(server.actor("ines"), Server.key(), kind, "a clerk releases");
        long one = drawing(kind);
        long two = drawing(kind);
        MoveDocument move = server.bean(MoveDocument.class);
        review.sign("hedda", review.send("priya", one, two));
        move.move(server.actor("oluwaseun"), one, Server.key(), "release", 2, "");
        assertThat(server.document(two).released()).as("it went along").isPresent();
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(one), Server.key(), "why", "", true);
        server.checkIn("priya", one, Review.sheet("again " + mark), false);
        int head = server.document(one).head().number();
        review.sign("hedda", review.send("priya", one));
        move.move(server.actor("oluwaseun"), one, Server.key(), "release", head, "");
        assertThat(server.document(one).released().orElseThrow().shown()).isEqualTo("B");
    }

    @Test
    void dueDaysFollowTheCalendarOfTheHouse() {
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, false));
        long before = drawing(kind);
        LocalDate usual = round(review.send("priya", before)).asks().get(0).due();
        LocalDate today = server.bean(SetAway.class).today();
        assertThat(usual).isEqualTo(WorkingDays.USUAL.due(today, 2));
        Web ines = Web.as(server, "ines");
        LocalDate first = WorkingDays.USUAL.due(today, 1);
        int edition = latest(Subject.CALENDAR, CalendarRule.CODE).number();
        String ics = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART;VALUE=DATE:"
                + first.toString().replace("-", "") + "\r\nSUMMARY:Harbour day\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        assertThat(ines.post(
                                "/house/calendar/file",
                                Map.of("actKey", Server.key(), "edition", "" + edition, "text", ics))
                        .headers()
                        .firstValue("Location")
                        .orElseThrow())
                .endsWith("/house/calendar?added=1");
        assertThat(ines.get("/house/calendar").body()).contains("Harbour day", first.toString());
        long after = drawing(kind);
        assertThat(round(review.send("priya", after)).asks().get(0).due()).isEqualTo(WorkingDays.USUAL.due(today, 3));
        String picture = ines.get("/house/sign-offs/" + kind + "?sent=" + today).body();
        assertThat(picture).contains("class=\"holiday\"");
        assertThat(ines.post("/house/calendar/file", Map.of("actKey", Server.key(), "edition", "2", "text", "hello"))
                        .body())
                .contains("This is no calendar file", "Nothing was changed");
        Map<String, String> back =
                Map.of("actKey", Server.key(), "number", "" + edition, "edition", "" + (edition + 1));
        assertThat(ines.post("/house/calendar/set-back", back).statusCode()).isEqualTo(302);
        assertThat(((CalendarRule) latest(Subject.CALENDAR, CalendarRule.CODE).rule()).holidays())
                .isEmpty();
    }

    /** The page writes what the form says, refuses in words, and knows "all". */
    @Test
    void aRuleIsEditedThroughItsPage() {
        String kind = kind(Policy.FIRST_RETURN, line(Asked.Kind.ROLE, "checker", 1, false));
        Web ines = Web.as(server, "ines");
        String page = "/house/sign-offs/" + kind;
        assertThat(ines.get(page).body())
                .contains("Asked by", "made by the last sign-off", "1 of the role Checker", "(a line more)");
        Map<String, String> form = new HashMap<>(
                Map.of("actKey", Server.key(), "edition", "1", "name", "Seen " + mark, "policy", "EVERYBODY_HEARD"));
        form.putAll(
                Map.of("who.0", "ROLE:checker", "step.0", "1", "needed.0", "all", "meaning.0", "seen", "days.0", "4"));
        form.putAll(Map.of("eyes.0", "no", "password.0", "yes", "fact.0", "seen_by", "day.0", "seen_at"));
        form.putAll(Map.of("who.1", "", "step.1", "1", "needed.1", "1", "meaning.1", "", "days.1", "2"));
        assertThat(ines.post(page, form).statusCode()).isEqualTo(302);
        SignOffRule kept = (SignOffRule) latest(Subject.SIGN_OFF, kind).rule();
        assertThat(kept.policy()).isEqualTo(Policy.EVERYBODY_HEARD);
        assertThat(kept.asked())
                .containsExactly(new SignOffLine(
                        1, new Asked(Asked.Kind.ROLE, "checker"), 0, "seen", "seen_by", "seen_at", 4, false, true));
        form.put("actKey", Server.key());
        form.put("edition", "2");
        form.put("days.0", "soon");
        assertThat(ines.post(page, form).body()).contains("gives more than 250 days", "Nothing was changed");
        form.put("actKey", Server.key());
        form.put("edition", "1");
        assertThat(ines.post(page, form).body()).contains("is at edition 2; your page showed edition 1");
        assertThat(ines.get(page + "?beside=1").body()).contains("Edition 2 beside 1", "all of the role Checker");
    }

    /** What a house has one alone of is set back by its page too. */
    @Test
    void theFilingRulesAreSetBackThroughTheirPage() {
        Web ines = Web.as(server, "ines");
        int now = latest(Subject.FILING, "filing").number();
        Map<String, String> form =
                Map.of("actKey", Server.key(), "edition", "" + now, "kind.0", "drawing", "place.0", "1", "why", mark);
        assertThat(ines.post("/house/filing", form).statusCode()).isEqualTo(302);
        Map<String, String> back = Map.of("actKey", Server.key(), "number", "" + now, "edition", "" + (now + 1));
        assertThat(ines.post("/house/filing/set-back", back).statusCode()).isEqualTo(302);
        assertThat(latest(Subject.FILING, "filing").number()).isEqualTo(now + 2);
    }

    /** A grant taken away in the middle of a round: whoever was asked does not sign any more. */
    @Test
    void whoLosesTheRightIsNotAskedAnyMore() {
        String jens = add("jens", "reader");
        GrantStore grants = server.bean(GrantStore.class);
        String group = group(jens);
        assertThat(code(() -> review.send(
                        "priya", drawing(kind(Policy.FIRST_RETURN, line(Asked.Kind.GROUP, group, 1, false))))))
                .as("in the group, without the right")
                .isEqualTo("send.refused");
        grants.grantPerson(person(jens), "checker", Scope.EVERYWHERE);
        long item = drawing("seen-" + mark);
        assertThat(server.bean(SendToReview.class)
                        .plan(server.actor("priya"), List.of(item))
                        .opens())
                .isTrue();
    }
}
