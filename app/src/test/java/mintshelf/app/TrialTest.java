package mintshelf.app;

import static mintshelf.app.InDesign.plate;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.HandOver;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Trials.Whole;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.trial.ReadTrials;
import mintshelf.core.hold.Became.Fate;
import mintshelf.core.trial.Opinion;
import mintshelf.core.trial.TrialRules;
import org.junit.jupiter.api.Test;

/** A trial runs beside its documents: nothing of them moves by it. */
class TrialTest extends InTrial {
    @Test
    void itsVersionsCountForThemselvesAndItsDocumentStaysAsItWas() {
        long item = sheet("10", plate("5", "deburr"));
        server.checkOut("tomasz", item);
        long trial = begin(priya, "wider", item);
        assertThat(says(change(priya, trial, item, plate("6", "deburr")))).contains("trial 1");
        assertThat(says(change(priya, trial, item, plate("7", "deburr")))).contains("trial 2");
        assertThat(tried(trial, item).line().gets().says()).isEqualTo("t1/2");
        assertThat(version(item, "t1-2").base()).contains(1);
        assertThat(version(item, "t1-1").base()).contains(1);
        assertThat(server.document(item).head().number()).isEqualTo(1);
        assertThat(server.document(item).holder().orElseThrow().person()).isEqualTo(tomasz.person());
        assertThat(server.checkIn("tomasz", item, "other", false)).isNotEmpty();
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(TrialRules.original(
                        server.document(item), tried(trial, item).line().from()))
                .isEqualTo(TrialRules.Original.MOVED_ON);
    }

    @Test
    void oneAtATimeHoldsALineAndWhatComesWithoutAHoldIsKept() {
        long item = sheet("11", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        holds.take(priya, trial, List.of(item), Server.key(), "BENCH-3", "");
        assertThat(code(() -> holds.take(tomasz, trial, List.of(item), Server.key(), "", "")))
                .isEqualTo("check_out.refused");
        assertThat(Web.as(server, "priya").get("/today").body()).contains(mark + "-11 t1");
        assertThat(Web.as(server, "tomasz").get("/today").body()).doesNotContain(mark + "-11 t1");
        long hold = tried(trial, item).line().holder().orElseThrow().hold();
        assertThat(code(() -> holds.breakHold(tomasz, trial, item, Server.key(), hold, "away")))
                .isEqualTo("access.missing");
        holds.breakHold(ines, trial, item, Server.key(), hold, "away for a month");
        assertThat(notices(priya)).anyMatch(s -> s.contains("ended your check-out of " + mark + "-11 t1"));
        assertThat(back(priya, item, hold, plate("6", "deburr")).fate()).isEqualTo(Fate.STRAY);
        assertThat(server.bean(StrayStore.class).kept(item)).hasSize(1);
        assertThat(tried(trial, item).line().begun()).isFalse();
        holds.take(tomasz, trial, List.of(item), Server.key(), "", "");
        assertThat(bring(tomasz, trial, item, plate("5", "deburr")).fate()).isEqualTo(Fate.UNCHANGED);
        holds.take(tomasz, trial, List.of(item), Server.key(), "", "");
        holds.undo(tomasz, trial, List.of(item), Server.key());
        assertThat(tried(trial, item).line().holder()).isEmpty();
        assertThat(tried(trial, item).line().gets().says()).isEqualTo("1");
    }

    @Test
    void severalStandBesideEachOtherUpToThoseThatAreSeen() {
        long item = sheet("12", plate("5", "deburr"));
        long other = sheet("13", plate("5", "deburr"));
        begin(priya, "first", item);
        long both = begin(tomasz, "second, of both", item, other);
        assertThat(tried(both, item).line().number()).isEqualTo(2);
        assertThat(tried(both, other).line().number()).isEqualTo(2);
        for (int i = 2; i < TrialRules.MOST_OPEN; i++) begin(priya, "more", item);
        assertThat(code(() -> begin(priya, "one more", item))).isEqualTo("trial.many");
        assertThat(code(() -> begin(priya, "one more", other, item))).isEqualTo("trial.many");
        assertThat(read.beside(priya, other)).hasSize(1);
        assertThat(code(() -> start.start(priya, List.of(), "nothing", Server.key())))
                .isEqualTo("trial.none");
        assertThat(code(() -> start.start(priya, List.of(item), " ", Server.key())))
                .isNotEmpty();
        Web web = Web.as(server, "priya");
        assertThat(web.get("/documents/" + item).body()).contains("3 more trials");
        assertThat(web.get("/documents/" + item + "/trials").body()).contains("second, of both", "first");
        drop.drop(tomasz, both, "", Server.key());
        long again = begin(priya, "after one went", item);
        assertThat(tried(again, item).line().number()).isEqualTo(TrialRules.MOST_OPEN + 1);
    }

    @Test
    void aStripShowsTheLatestOfManyVersions() {
        long item = sheet("12c", plate("5", "deburr"));
        for (int i = 0; i < 24; i++) changeMain(item, plate("6." + i, "deburr"));
        long trial = begin(priya, "many, with words enough for more than the line that is left for them here", item);
        for (int i = 0; i < 14; i++) change(priya, trial, item, plate("7." + i, "deburr"));
        String page = Web.as(server, "priya").get("/documents/" + item).body();
        String strip = page.substring(page.indexOf("trial-strip"), page.indexOf("</svg>", page.indexOf("trial-strip")));
        assertThat(strip.split("class=\"stop", -1).length - 1).isBetween(3, 12);
        assertThat(strip).contains("t1/14, Priya Malhan", "text-anchor=\"end\"").doesNotContain("t1/1, Priya");
    }

    @Test
    void itBeginsOnWhatIsReleasedToo() {
        long item = plain("14", Review.sheet(mark + "-14 " + mark));
        server.release("priya", item);
        long trial = begin(priya, "thinner", item);
        assertThat(says(change(priya, trial, item, Review.sheet(mark + "-14 thinner"))))
                .contains("trial 1");
        assertThat(server.document(item).pending()).isEmpty();
        long revision = server.document(item).current().id();
        assertThat(server.bean(RevisionStore.class).authors(revision)).containsOnly(priya.person());
        assertThat(change(tomasz, trial, item, Review.sheet(mark + "-14 thinner still"))
                        .fate())
                .isEqualTo(Fate.TRIAL);
        assertThat(server.bean(RevisionStore.class).authors(revision)).containsOnly(priya.person());
    }

    @Test
    void readersKnowNothingOfIt() throws InterruptedException {
        long item = plain("15", Review.sheet(mark + "-15 " + mark));
        server.release("priya", item);
        Settled.of(server, item);
        Web rafael = Web.as(server, "rafael");
        List<String> pages = List.of(
                "/documents/" + item,
                "/documents/" + item + "/structure",
                "/search?q=" + mark + "-15",
                "/shelves/" + shelf,
                "/trials");
        List<String> before = pages.stream().map(p -> rafael.get(p).body()).toList();
        long trial = begin(priya, "secret", item);
        change(priya, trial, item, Review.sheet(mark + "-15 secret"));
        for (int i = 0; i < pages.size(); i++)
            assertThat(plain(rafael.get(pages.get(i)).body())).as(pages.get(i)).isEqualTo(plain(before.get(i)));
        assertThat(rafael.get("/trials/" + trial).statusCode()).isEqualTo(404);
        assertThat(rafael.get("/documents/" + item + "/lines/t1").statusCode()).isEqualTo(404);
        for (String what : List.of("file", "thumbnail", "sheet", "drawn", "compare?old=1", "geometry"))
            assertThat(rafael.get("/documents/" + item + "/versions/t1-1/" + what)
                            .statusCode())
                    .as(what)
                    .isEqualTo(404);
        assertThat(rafael.get("/documents/" + item + "/structure?trial=" + trial)
                        .body())
                .doesNotContain("t1/1");
        assertThatThrownBy(() -> holds.take(server.actor("rafael"), trial, List.of(item), Server.key(), "", ""))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> drop.drop(server.actor("rafael"), trial, "", Server.key()))
                .isInstanceOf(NotThere.class);
    }

    /** Without what differs on every page: keys of acts, tokens. */
    private static String plain(String page) {
        return page.replaceAll("[A-Za-z0-9_-]{60,}", "").replaceAll("[0-9a-f-]{36}", "");
    }

    @Test
    void peopleAreAskedAboutExactVersionsUntilItMovesOn() {
        long item = sheet("16", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        assertThat(code(() -> ask.ask(priya, trial, List.of(hedda.person()), "", ask.today(), Server.key())))
                .isEqualTo("trial.empty");
        change(priya, trial, item, plate("6", "deburr"));
        assertThat(code(() -> ask.ask(priya, trial, List.of(), "", ask.today(), Server.key())))
                .isEqualTo("trial.whom");
        assertThat(code(() ->
                        ask.ask(priya, trial, List.of(server.actor("rafael").person()), "", ask.today(), Server.key())))
                .isEqualTo("show.access");
        assertThat(code(() -> ask.ask(
                        priya, trial, List.of(hedda.person()), "", ask.today().minusDays(1), Server.key())))
                .isEqualTo("round.due");
        ask.ask(priya, trial, List.of(hedda.person(), tomasz.person()), "wide enough?", ask.today(), Server.key());
        assertThat(notices(hedda)).anyMatch(s -> s.contains("asks what you think of trial t1 of " + mark + "-16"));
        assertThat(ask.waiting(hedda)).hasSize(1);
        assertThat(code(() -> ask.ask(priya, trial, List.of(hedda.person()), "", ask.today(), Server.key())))
                .isEqualTo("trial.asked");
        assertThat(code(() -> ask.answer(hedda, trial, Opinion.AGAINST, " ", Server.key())))
                .isEqualTo("trial.words");
        String key = Server.key();
        ask.answer(hedda, trial, Opinion.AGAINST, "it will crack", key);
        ask.answer(hedda, trial, Opinion.AGAINST, "it will crack", key);
        assertThat(ask.waiting(hedda)).isEmpty();
        assertThat(code(() -> ask.answer(hedda, trial, Opinion.FOR, "", Server.key())))
                .isEqualTo("trial.not_asked");
        assertThat(notices(priya)).anyMatch(s -> s.contains("Hedda Lysgaard is against it"));
        // It moves on: who has not answered need not.
        change(priya, trial, item, plate("7", "deburr"));
        assertThat(notices(tomasz)).anyMatch(s -> s.contains("checked in t1/2 of " + mark + "-16"));
        assertThat(ask.waiting(tomasz)).isEmpty();
        assertThat(code(() -> ask.answer(tomasz, trial, Opinion.FOR, "", Server.key())))
                .isEqualTo("trial.not_asked");
        ask.ask(priya, trial, List.of(tomasz.person()), "", ask.today(), Server.key());
        ask.answer(tomasz, trial, Opinion.FOR, "", Server.key());
        ReadTrials.View view = read.view(priya, trial);
        assertThat(view.open()).isEmpty();
        assertThat(view.rounds())
                .extracting(r -> r.ended().orElseThrow().words())
                .containsExactly("everybody answered", "the trial moved on");
        assertThat(view.rounds().get(0).versions().get(item).says()).isEqualTo("t1/2");
        ask.ask(priya, trial, List.of(tomasz.person()), "", ask.today(), Server.key());
        assertThat(code(() -> ask.takeBack(hedda, trial, Server.key()))).isEqualTo("access.missing");
        ask.takeBack(priya, trial, Server.key());
        assertThat(notices(tomasz)).anyMatch(s -> s.contains("does not ask about trial"));
    }

    @Test
    void droppedItStaysReadableAndEverybodyIsTold() {
        long item = sheet("17", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        change(priya, trial, item, plate("6", "deburr"));
        ask.ask(priya, trial, List.of(hedda.person()), "", ask.today(), Server.key());
        holds.take(tomasz, trial, List.of(item), Server.key(), "", "");
        long hold = tried(trial, item).line().holder().orElseThrow().hold();
        assertThat(code(() -> drop.drop(tomasz, trial, "", Server.key()))).isEqualTo("access.missing");
        drop.drop(ines, trial, "another way was found", Server.key());
        assertThat(code(() -> drop.drop(ines, trial, "", Server.key()))).isEqualTo("trial.ended");
        assertThat(List.of(notices(priya), notices(tomasz), notices(hedda)))
                .allMatch(n -> n.stream().anyMatch(s -> s.contains("dropped trial t1 of " + mark + "-17")));
        assertThat(back(tomasz, item, hold, plate("8", "deburr")).fate()).isEqualTo(Fate.STRAY);
        assertThat(code(() -> holds.take(tomasz, trial, List.of(item), Server.key(), "", "")))
                .isEqualTo("check_out.refused");
        assertThat(ask.waiting(hedda)).isEmpty();
        Web web = Web.as(server, "priya");
        assertThat(web.get("/trials/" + trial).body())
                .contains("dropped by Ines Kallmar", "another way was found", "t1/1");
        assertThat(web.get("/documents/" + item + "/versions/t1-1/file").statusCode())
                .isEqualTo(200);
        assertThat(web.get("/documents/" + item).body()).contains("trial-strip dropped");
        Whole whole = trials.whole(priya, trial);
        assertThat(whole.trial().state()).isEqualTo(TrialStore.State.DROPPED);
        assertThat(read.list(priya, TrialStore.State.DROPPED, Long.MAX_VALUE, 5).trials())
                .anyMatch(t -> t.trial().id() == trial);
        assertThat(Set.copyOf(whole.items())).containsExactly(item);
    }

    @Test
    void whoSeesSomeOfItLooksOn() {
        long seen = sheet("18", plate("5", "deburr"));
        long trial = begin(priya, "wider", seen);
        assertThat(read.view(hedda, trial).adopts()).isFalse();
        assertThat(Web.as(server, "hedda").get("/trials/" + trial).body())
                .doesNotContain("check-out", "/adopt", "/drop");
        assertThat(Web.as(server, "hedda")
                        .post(
                                "/trials/" + trial + "/check-out",
                                Map.of("items", String.valueOf(seen), "actKey", Server.key()))
                        .statusCode())
                .isEqualTo(409);
    }

    @Test
    void aStrayBecomesAVersionOfTheLineToWhichItCameBack() {
        long item = sheet("19", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        holds.take(priya, trial, List.of(item), Server.key(), "", "");
        long hold = tried(trial, item).line().holder().orElseThrow().hold();
        holds.breakHold(ines, trial, item, Server.key(), hold, "away");
        long stray = back(priya, item, hold, plate("6", "deburr")).number();
        // A hold of another document's line is none of this one's.
        long other = sheet("19b", plate("5", "deburr"));
        server.checkOut("priya", other);
        assertThat(back(priya, other, hold, plate("7", "deburr")).fate()).isEqualTo(Fate.STRAY);
        assertThat(server.document(other).head().number()).isEqualTo(1);
        assertThat(Web.as(server, "priya").get("/strays/" + stray).body()).contains("Make it version t1/1");
        Strays strays = server.bean(Strays.class);
        strays.adopt(priya, stray, Server.key(), 1, "after all");
        assertThat(tried(trial, item).line().gets().says()).isEqualTo("t1/1");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        // To a trial that is over nothing comes any more.
        holds.take(priya, trial, List.of(item), Server.key(), "", "");
        long second = tried(trial, item).line().holder().orElseThrow().hold();
        drop.drop(priya, trial, "", Server.key());
        long late = back(priya, item, second, plate("8", "deburr")).number();
        assertThatThrownBy(() -> strays.adopt(priya, late, Server.key(), 1, ""))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().code()).isEqualTo("trial.ended"));
        assertThat(Web.as(server, "priya").get("/strays/" + late).body())
                .contains("The trial that it came back to is over.");
    }

    @Test
    void whoLeavesHandsOnWhatTheyHoldOnTrials() {
        server.add("leaver" + mark, "Leaver " + mark, "designer");
        Actor leaver = server.actor("leaver" + mark);
        long item = sheet("19c", plate("5", "deburr"));
        long trial = begin(leaver, "wider", item);
        holds.take(leaver, trial, List.of(item), Server.key(), "", "");
        HandOver over = server.bean(HandOver.class);
        assertThat(over.carried(ines, leaver.person()).held()).anyMatch(s -> s.contains(mark + "-19c t1"));
        PersonStore.Person from =
                server.bean(PersonStore.class).person(leaver.person()).orElseThrow();
        server.bean(UnitOfWork.class).run(() -> over.handOn(ines, from, Optional.of(priya.access()), "left"));
        assertThat(tried(trial, item).line().holder().orElseThrow().person()).isEqualTo(priya.person());
    }
}
