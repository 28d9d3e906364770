package mintshelf.app;

import static mintshelf.app.InDesign.plate;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Packed;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.structure.FetchStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.trial.AdoptTrial;
import mintshelf.app.use.trial.PlanAdoption;
import mintshelf.app.use.trial.PlanAdoption.Way;
import mintshelf.core.document.VersionName;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** The result of a trial becomes the next versions of its documents: whole or not at all. */
class AdoptTrialTest extends InTrial {
    @Test
    void whatIsAsItWasTakesTheFileByteForByte() {
        long item = sheet("20", plate("5", "deburr"));
        long trial = begin(tomasz, "wider", item);
        assertThat(plan(trial).rows().get(0).way()).isEqualTo(Way.NOTHING);
        assertThat(plan(trial).opens()).isFalse();
        change(tomasz, trial, item, plate("6", "deburr"));
        PlanAdoption.Plan plan = plan(trial);
        assertThat(plan.rows().get(0).way()).isEqualTo(Way.AS_IT_IS);
        String key = Server.key();
        adopt.adopt(priya, trial, all(plan), key);
        adopt.adopt(priya, trial, all(plan), key);
        same(server.bytes(item), plate("6", "deburr"));
        VersionRow made = version(item, "2");
        assertThat(made.madeBy()).isEqualTo(VersionRow.MadeBy.ADOPTED);
        assertThat(made.comment()).isEqualTo("Adopts t1/1, wider");
        assertThat(tried(trial, item).line().adoptedAs()).contains(2);
        // Who worked on the trial does not sign the revision.
        long revision = server.document(item).pending().orElseThrow().id();
        assertThat(server.bean(RevisionStore.class).authors(revision)).contains(tomasz.person(), priya.person());
        assertThat(notices(tomasz)).anyMatch(s -> s.contains("adopted trial t1 of " + mark + "-20"));
        assertThat(code(() -> adopt.adopt(priya, trial, all(plan), Server.key())))
                .isEqualTo("trial.ended");
        String page = Web.as(server, "priya").get("/trials/" + trial).body();
        assertThat(page).contains("adopted as version 2").doesNotContain("/adopt\"");
    }

    @Test
    void whatMovedOnTakesTheDifferencesOver() {
        long item = sheet("21", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        change(priya, trial, item, plate("8", "deburr"));
        changeMain(item, plate("5", "deburr, R 0.5"));
        PlanAdoption.Plan plan = plan(trial);
        PlanAdoption.Row row = plan.rows().get(0);
        assertThat(row.way()).isEqualTo(Way.SHEET);
        assertThat(row.since()).isEqualTo(1);
        assertThat(row.differences()).extracting(ThreeWay.Row::fate).containsExactly(ThreeWay.Fate.GOES);
        AdoptTrial.Choice none = new AdoptTrial.Choice(Set.of(item), Map.of(), List.of(), "", plan.shown());
        assertThat(code(() -> adopt.adopt(priya, trial, none, Server.key()))).isEqualTo("trial.nothing");
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(Web.as(server, "priya").get("/trials/" + trial + "/adopt").body())
                .contains("1 version came since", "goes over");
        adopt.adopt(priya, trial, all(plan), Server.key());
        assertThat(new String(server.bytes(item), StandardCharsets.US_ASCII))
                .isEqualTo(new String(plate("8", "deburr, R 0.5"), StandardCharsets.US_ASCII));
    }

    @Test
    void whatNobodyPutsTogetherIsReplacedOnlyWhenItIsSaid() {
        long item = server.file(
                "priya", shelf, "part-model", mark + " 22.stp", mark + "-22", StructureTest.assembly("a"), false);
        long trial = begin(priya, "lighter", item);
        change(priya, trial, item, StructureTest.assembly("b"));
        changeMain(item, StructureTest.assembly("c"));
        PlanAdoption.Plan plan = plan(trial);
        assertThat(plan.rows().get(0).way()).isEqualTo(Way.INSTEAD);
        assertThat(code(() -> adopt.adopt(priya, trial, all(plan), Server.key())))
                .isEqualTo("trial.nothing");
        AdoptTrial.Choice said =
                new AdoptTrial.Choice(Set.of(item), Map.of(), List.of(), "the lighter one", plan.shown());
        adopt.adopt(priya, trial, said, Server.key());
        same(server.bytes(item), StructureTest.assembly("b"));
        assertThat(Web.as(server, "priya").get("/documents/" + item + "/record").body())
                .contains("it takes the place of 1 version that came since");
    }

    @Test
    void nothingIsAdoptedOverWhatStandsInTheWay() {
        long item = sheet("23", plate("5", "deburr"));
        long other = sheet("24", plate("5", "deburr"));
        long trial = begin(priya, "wider", item, other);
        change(priya, trial, item, plate("6", "deburr"));
        change(priya, trial, other, plate("6", "deburr"));
        PlanAdoption.Plan plan = plan(trial);
        server.checkOut("tomasz", other);
        AdoptTrial.Choice both = all(plan);
        assertThat(code(() -> adopt.adopt(priya, trial, both, Server.key()))).isEqualTo("trial.refused");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        assertThat(plan(trial).rows().get(1).refusal().orElseThrow().says()).contains("held by Tomasz Okrent");
        // What is left out stays as it is, and ends with the trial.
        AdoptTrial.Choice one = new AdoptTrial.Choice(
                Set.of(item), Map.of(), List.of(), "", plan(trial).shown());
        changeMainBy("tomasz", other);
        assertThat(code(() -> adopt.adopt(priya, trial, one, Server.key()))).isEqualTo("page.old");
        holds.take(tomasz, trial, List.of(item), Server.key(), "", "");
        assertThat(plan(trial).rows().get(0).refusal().orElseThrow().says()).contains(" t1 is held by Tomasz");
        holds.undo(tomasz, trial, List.of(item), Server.key());
        adopt.adopt(
                priya,
                trial,
                new AdoptTrial.Choice(
                        Set.of(item), Map.of(), List.of(), "", plan(trial).shown()),
                Server.key());
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(tried(trial, other).line().adoptedAs()).isEmpty();
    }

    private void changeMainBy(String who, long item) {
        server.checkIn(who, item, plate("9", "deburr"), false);
    }

    @Test
    void releasedMeanwhileItSaysWhatToDoFirst() {
        long item = plain("25", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        change(priya, trial, item, plate("6", "deburr"));
        server.release("priya", item);
        PlanAdoption.Row row = plan(trial).rows().get(0);
        assertThat(row.refusal().orElseThrow().says()).contains("Start the next revision");
        assertThat(row.isOpen()).isFalse();
    }

    @Test
    void othersOfTheSameDocumentsEndWithItInTheSamePlan() {
        long item = sheet("26", plate("5", "deburr"));
        long won = begin(priya, "wider", item);
        long mine = begin(priya, "wider still", item);
        long his = begin(tomasz, "narrower", item);
        change(priya, won, item, plate("6", "deburr"));
        change(priya, mine, item, plate("7", "deburr"));
        PlanAdoption.Plan plan = plan(won);
        assertThat(plan.others()).hasSize(2);
        assertThat(plan.others().stream()
                        .filter(o -> o.refusal().isPresent())
                        .map(o -> o.whole().trial().id()))
                .containsExactly(his);
        AdoptTrial.Choice all = new AdoptTrial.Choice(Set.of(item), Map.of(), List.of(mine, his), "", plan.shown());
        assertThat(code(() -> adopt.adopt(priya, won, all, Server.key()))).isEqualTo("trial.others");
        assertThat(server.document(item).head().number()).isEqualTo(1);
        AdoptTrial.Choice some = new AdoptTrial.Choice(Set.of(item), Map.of(), List.of(mine), "", plan.shown());
        adopt.adopt(priya, won, some, Server.key());
        assertThat(trials.whole(priya, mine).trial().state()).isEqualTo(TrialStore.State.DROPPED);
        assertThat(trials.whole(priya, mine).trial().endedWhy()).contains("was adopted");
        assertThat(trials.whole(priya, his).trial().isOpen()).isTrue();
        same(bytes(item, "t2-1"), plate("7", "deburr"));
    }

    private byte[] bytes(long item, String name) {
        return server.bytes(version(item, name).content());
    }

    @Test
    void manyAtOnceAdoptItOnce() throws Exception {
        long item = sheet("27", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        change(priya, trial, item, plate("6", "deburr"));
        AdoptTrial.Choice choice = all(plan(trial));
        List<Callable<String>> acts = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            var who = i % 2 == 0 ? priya : tomasz;
            acts.add(() -> code(() -> adopt.adopt(who, trial, choice, Server.key())));
        }
        var pool = Executors.newFixedThreadPool(6);
        try {
            List<String> answers = new ArrayList<>();
            for (Future<String> answer : pool.invokeAll(acts)) answers.add(answer.get());
            assertThat(answers).filteredOn(String::isEmpty).hasSize(1);
            assertThat(answers).filteredOn("trial.ended"::equals).hasSize(5);
        } finally {
            pool.shutdown();
        }
        assertThat(server.document(item).head().number()).isEqualTo(2);
    }

    @Test
    void whatIsTriedTogetherRefersToEachOtherAndSoDoesWhatBecomesOfIt() throws Exception {
        String file = mark + " 31.stp";
        long part = model("31", StructureTest.assembly("part"));
        long top = model("30", StructureTest.assembly("top", file, 2));
        long screw = model("32", StructureTest.assembly("screw"));
        long trial = begin(priya, "lighter", part, top);
        change(priya, trial, part, StructureTest.assembly("lighter part"));
        change(priya, trial, top, StructureTest.assembly("lighter top", file, 3, mark + " 32.stp", 1));
        Reference.Component captured = component(version(top, "t1-1"), part);
        assertThat(captured.version()).isEqualTo(version(part, "t1-1").id());
        assertThat(component(version(top, "t1-1"), screw).version())
                .isEqualTo(version(screw, "1").id());
        // The main line never refers to a trial, whatever lies on a desk.
        changeMain(top, StructureTest.assembly("top anew", file, 2));
        assertThat(component(version(top, "2"), part).version())
                .isEqualTo(version(part, "1").id());
        FetchStructure fetch = server.bean(FetchStructure.class);
        FetchStructure.Bundle with =
                fetch.bundle(priya, top, StructureView.AS_SAVED, Optional.of(2), LocalDate.EPOCH, Optional.of(trial));
        assertThat(with.says()).contains(file + "  t1/1", mark + " 30.stp  v2");
        assertThat(files(with.files())).contains("lighter part").doesNotContain("lighter top");
        assertThat(fetch.bundle(
                                priya,
                                top,
                                StructureView.AS_SAVED,
                                Optional.empty(),
                                LocalDate.EPOCH,
                                Optional.of(trial))
                        .says())
                .contains(mark + " 30.stp  t1/1", mark + " 32.stp  v1");
        assertThat(zip("/documents/" + top + "/structure.zip?trial=" + trial)).anyMatch(e -> e.endsWith(file));
        assertThat(zip("/trials/" + trial + "/files.zip")).hasSize(3);
        assertThat(server.bean(ReadWhereUsed.class).of(priya, screw, true).former())
                .anyMatch(f -> f.versions().contains(new VersionName(1, 1)));
        assertThat(code(() -> server.bean(DropDocument.class).drop(priya, part, Server.key(), "mistake")))
                .isNotEmpty();
        PlanAdoption.Plan plan = plan(trial);
        assertThat(plan.rows()).extracting(PlanAdoption.Row::way).containsExactly(Way.AS_IT_IS, Way.INSTEAD);
        adopt.adopt(
                priya,
                trial,
                new AdoptTrial.Choice(Set.of(part, top), Map.of(), List.of(), "", plan.shown()),
                Server.key());
        assertThat(component(version(top, "3"), part).version())
                .isEqualTo(version(part, "2").id());
        assertThat(component(version(top, "3"), part).number()).isEqualTo(2);
    }

    private long model(String number, byte[] bytes) {
        return server.file(
                "priya", shelf, "part-model", mark + " " + number + ".stp", mark + "-" + number, bytes, false);
    }

    private Reference.Component component(VersionRow version, long item) {
        return refersTo(version).stream()
                .flatMap(r -> r.component().stream())
                .filter(c -> c.item() == item)
                .findFirst()
                .orElseThrow();
    }

    private String files(List<Packed> files) {
        StringBuilder all = new StringBuilder();
        files.forEach(f -> all.append(new String(server.bytes(f.content()), StandardCharsets.US_ASCII)));
        return all.toString();
    }

    private List<String> zip(String address) throws IOException, InterruptedException {
        List<String> names = new ArrayList<>();
        try (ZipInputStream in = new ZipInputStream(Web.as(server, "priya").stream(address))) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) names.add(e.getName());
        }
        return names;
    }

    @Test
    void whatWasDroppedMeanwhileIsNoVersionOfAnything() {
        long item = sheet("28", plate("5", "deburr"));
        long trial = begin(priya, "wider", item);
        change(priya, trial, item, plate("6", "deburr"));
        assertThatThrownBy(() -> server.bean(DropDocument.class).drop(priya, item, Server.key(), "mistake"))
                .isInstanceOfSatisfying(
                        Refused.class, r -> assertThat(r.refusal().says()).contains("1 trial under way on it"));
        drop.drop(priya, trial, "", Server.key());
        server.bean(DropDocument.class).drop(priya, item, Server.key(), "mistake");
        assertThat(Web.as(server, "priya").get("/trials/" + trial).statusCode()).isEqualTo(404);
    }
}
