package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.effect.Habits;
import mintshelf.app.effect.References;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.structure.FetchStructure;
import mintshelf.app.use.structure.KeepLinks;
import mintshelf.app.use.structure.KeepReferences;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** References from files to the graph, on the real database. */
class StructureTest {
    private final Server server = Server.shared();
    private final ReadStructure structure = server.bean(ReadStructure.class);
    private final ReadWhereUsed used = server.bean(ReadWhereUsed.class);
    private final ActOverSet over = server.bean(ActOverSet.class);
    private final KeepLinks keepLinks = server.bean(KeepLinks.class);
    private final KeepReferences keep = server.bean(KeepReferences.class);
    private final long shelf = server.shelf();
    private final String mark = Server.key().substring(0, 8);

    /** A model that refers to other files, each so many times. */
    static byte[] assembly(String says, Object... filesAndCounts) {
        StringBuilder s = new StringBuilder("ISO-10303-21;\nHEADER;\nFILE_NAME('" + says
                + "','2026-01-01T00:00:00',(''),(''),'','','');\nFILE_SCHEMA(('AP242'));\nENDSEC;\nDATA;\n");
        s.append("#10=PRODUCT('top','','',());\n#11=PRODUCT_DEFINITION_FORMATION('','',#10);\n");
        s.append("#12=PRODUCT_DEFINITION('','',#11,$);\n");
        for (int i = 0; i < filesAndCounts.length; i += 2) {
            int n = 100 + 50 * i;
            s.append("#%d=PRODUCT('p%d','','',());\n".formatted(n, i));
            s.append("#%d=PRODUCT_DEFINITION_FORMATION('','',#%d);\n".formatted(n + 1, n));
            s.append("#%d=PRODUCT_DEFINITION('','',#%d,$);\n".formatted(n + 2, n + 1));
            for (int k = 0; k < (int) filesAndCounts[i + 1]; k++) {
                s.append("#%d=NEXT_ASSEMBLY_USAGE_OCCURRENCE('%d','','',#12,#%d,$);\n".formatted(n + 10 + k, k, n + 2));
            }
            s.append("#%d=DOCUMENT_FILE('%s','','',#1,'',$);\n".formatted(n + 3, filesAndCounts[i]));
            s.append("#%d=APPLIED_DOCUMENT_REFERENCE(#%d,'',(#%d));\n".formatted(n + 4, n + 3, n + 2));
        }
        return (s + "ENDSEC;\nEND-ISO-10303-21;\n").getBytes(StandardCharsets.US_ASCII);
    }

    private long file(String name, byte[] bytes) {
        return server.file("priya", shelf, "part-model", name, bytes, false);
    }

    private long part(String name) {
        return file(name, assembly(name + mark));
    }

    private void change(long item, byte[] bytes) {
        server.checkOut("priya", item);
        server.checkIn("priya", item, bytes, false);
    }

    private ReadStructure.Structure tree(long item, StructureView view) {
        return structure.tree(server.actor("priya"), item, view, Optional.empty(), LocalDate.of(2100, 1, 1));
    }

    private List<Reference> refersTo(long item) {
        return server.bean(References.class).of(server.document(item).head().version());
    }

    @Test
    void anAssemblyIsOutOfDateOnceItsComponentMovesOnAndTakesItUpOnRequest() {
        long clamp = part("clamp" + mark + ".stp");
        long well = file("well" + mark + ".stp", assembly("w", "clamp" + mark + ".stp", 4));
        long station =
                file("station" + mark + ".stp", assembly("s", "WELL" + mark.toUpperCase(Locale.ROOT) + ".STP", 1));
        assertThat(tree(station, StructureView.AS_SAVED).rows())
                .extracting(r -> r.find() + " " + r.seen().orElseThrow().spine().id() + " "
                        + r.reference().written().quantity())
                .containsExactly("1 " + well + " 1", "1.1 " + clamp + " 4");
        assertThat(tree(station, StructureView.AS_SAVED).outOfDate()).isZero();
        change(clamp, assembly("clamp, slot wider " + mark));
        change(clamp, assembly("clamp, slot wider still " + mark));
        ReadStructure.Row row = tree(well, StructureView.AS_SAVED).rows().get(0);
        assertThat(row.newer()).isEqualTo(2);
        assertThat(row.shown().orElseThrow().number()).isEqualTo(1);
        assertThat(tree(well, StructureView.LATEST)
                        .rows()
                        .get(0)
                        .shown()
                        .orElseThrow()
                        .number())
                .isEqualTo(3);
        ReadStructure.Row below = tree(station, StructureView.AS_SAVED).rows().get(0);
        assertThat(below.newer()).isZero();
        assertThat(below.belowOutOfDate()).as("told at every level above").isTrue();

        Wish above = Wish.takeUp(true);
        assertThat(over.plan(server.actor("priya"), Run.What.TAKE_UP, List.of(well), above)
                        .rows())
                .extracting(r -> r.of().seen().spine().id() + " " + r.of().says())
                .containsExactly(well + " [takes up 1 newer component]", station + " [takes up 1 newer component]");
        over.begin(
                server.actor("priya"),
                Run.What.TAKE_UP,
                List.of(station, well),
                Wish.NONE,
                Optional.empty(),
                Server.key());
        assertThat(server.document(well).head().number()).isEqualTo(2);
        assertThat(server.document(station).head().number()).isEqualTo(2);
        assertThat(tree(station, StructureView.AS_SAVED).rows()).allMatch(r -> r.newer() == 0 && !r.belowOutOfDate());
        assertThat(structure
                        .tree(server.actor("priya"), well, StructureView.AS_SAVED, Optional.of(1), LocalDate.EPOCH)
                        .rows()
                        .get(0)
                        .shown()
                        .orElseThrow()
                        .number())
                .as("an older version shows what was captured with it")
                .isEqualTo(1);
    }

    @Test
    void whereUsedTellsLevelsQuantitiesAndFormerVersions() {
        long clamp = part("c" + mark + ".stp");
        long well = file("w" + mark + ".stp", assembly("w", "c" + mark + ".stp", 4));
        long station = file("s" + mark + ".stp", assembly("s", "w" + mark + ".stp", 2, "c" + mark + ".stp", 1));
        ReadWhereUsed.Used found = used.of(server.actor("priya"), clamp, false);
        assertThat(found.above())
                .extracting(a -> a.seen().spine().id() + " " + a.steps() + " "
                        + a.quantity().orElse(0L))
                .containsExactlyInAnyOrder(well + " 1 4", station + " 1 9");
        assertThat(found.boxes()).hasSize(3);
        change(well, assembly("without it"));
        assertThat(used.of(server.actor("priya"), clamp, true).former())
                .extracting(f -> f.seen().spine().id() + " " + f.versions())
                .containsExactly(well + " [1]");
    }

    @Test
    void aRingIsKeptAsAStrayWithTheRingSpelledOut() {
        long a = part("a" + mark + ".stp");
        long b = file("b" + mark + ".stp", assembly("b", "a" + mark + ".stp", 1));
        server.checkOut("priya", a);
        assertThat(server.checkIn("priya", a, assembly("a", "b" + mark + ".stp", 1), false))
                .contains(a + "s");
        assertThat(server.bean(StrayStore.class).kept(a).get(0).refusal())
                .contains(
                        server.document(a).number() + " › " + server.document(b).number() + " › "
                                + server.document(a).number());
        assertThat(server.document(a).head().number()).isEqualTo(1);
    }

    @Test
    void twoCheckInsAtOnceNeverCloseARingTogether() throws Exception {
        for (int round = 0; round < 6; round++) {
            String m = mark + round;
            long a = part("ra" + m + ".stp");
            long b = part("rb" + m + ".stp");
            server.checkOut("priya", a);
            server.checkOut("tomasz", b);
            try (var threads = new Threads(2)) {
                Future<String> one =
                        threads.submit(() -> server.checkIn("priya", a, assembly("a", "rb" + m + ".stp", 1), false));
                Future<String> two =
                        threads.submit(() -> server.checkIn("tomasz", b, assembly("b", "ra" + m + ".stp", 1), false));
                assertThat(List.of(one.get().contains(a + "v2"), two.get().contains(b + "v2")))
                        .as("exactly one of them stands")
                        .containsOnlyOnce(true);
            }
        }
    }

    private record Threads(ExecutorService pool) implements AutoCloseable {
        Threads(int n) {
            this(Executors.newFixedThreadPool(n));
        }

        <T> Future<T> submit(Callable<T> work) {
            return pool.submit(work);
        }

        @Override
        public void close() {
            pool.shutdown();
        }
    }

    @Test
    void missingFilesAreShownFoundLaterAndAmbiguousOnesPickedOnceAndRemembered() {
        long top = file("t" + mark + ".stp", assembly("t", "late" + mark + ".stp", 1, "twin" + mark + ".stp", 2));
        assertThat(tree(top, StructureView.AS_SAVED).missing()).isEqualTo(2);
        assertThatThrownBy(() -> keep.lookAgain(server.actor("priya"), top, Server.key()))
                .isInstanceOf(Refused.class);
        long late = part("late" + mark + ".stp");
        keep.lookAgain(server.actor("priya"), top, Server.key());
        assertThat(refersTo(top).get(0).component().orElseThrow().item()).isEqualTo(late);

        long elsewhere = server.shelf();
        long twin = server.file("priya", elsewhere, "part-model", "twin" + mark + ".stp", assembly("x" + mark), false);
        assertThatThrownBy(() -> keep.lookAgain(server.actor("priya"), top, Server.key()))
                .as("from a foreign shelf nothing is taken by its name alone")
                .isInstanceOf(Refused.class);
        assertThat(keep.of(server.actor("priya"), top).lines().get(1).candidates())
                .extracting(s -> s.spine().id())
                .containsExactly(twin);
        keep.pick(server.actor("priya"), top, Server.key(), 2, Optional.of(twin), "");
        assertThat(refersTo(top).get(1).component().orElseThrow().source()).isEqualTo(Reference.Source.PICKED);
        change(top, assembly("t2", "late" + mark + ".stp", 1, "twin" + mark + ".stp", 3));
        assertThat(refersTo(top).get(1).component().orElseThrow().item())
                .as("the next version remembers")
                .isEqualTo(twin);
    }

    @Test
    void theSameBytesWithNewerComponentsMakeAVersionAndOnlySavedFilesMakeNone() {
        long part = part("p" + mark + ".stp");
        byte[] bytes = assembly("top", "p" + mark + ".stp", 1);
        long top = file("top" + mark + ".stp", bytes);
        server.checkOut("priya", top);
        assertThat(server.checkIn("priya", top, bytes, false)).endsWith("u1");
        change(part, assembly("p2" + mark));
        server.checkOut("priya", top);
        assertThat(server.checkIn("priya", top, bytes, false)).endsWith("v2");
        server.checkOut("priya", top);
        byte[] saved = new String(bytes, StandardCharsets.US_ASCII)
                .replace("2026-01-01T00:00:00", "2026-11-23T10:15:00")
                .getBytes(StandardCharsets.US_ASCII);
        assertThat(server.checkIn("priya", top, saved, false)).endsWith("o2");
        assertThat(server.document(top).holder()).isEmpty();
    }

    @Test
    void aSetIsCheckedInComponentsFirst() {
        long part = part("sp" + mark + ".stp");
        long top = file("st" + mark + ".stp", assembly("st", "sp" + mark + ".stp", 1));
        server.checkOut("priya", part);
        server.checkOut("priya", top);
        List<CheckIn.Row> rows = new ArrayList<>();
        for (long item : List.of(top, part)) {
            String token = server.bring(
                    "priya",
                    server.document(item).fileName(),
                    item == top ? assembly("st2", "sp" + mark + ".stp", 1) : assembly("sp2" + mark));
            rows.add(new CheckIn.Row(
                    item, token, server.document(item).holder().orElseThrow().hold()));
        }
        server.bean(CheckIn.class).take(server.actor("priya"), rows, Server.key(), "both", false);
        assertThat(refersTo(top).get(0).component().orElseThrow().number())
                .as("the parent was saved with the part's new version")
                .isEqualTo(2);
    }

    @Test
    void aCheckOutTakesAlongAndRemembersWhatWasChosen() {
        CheckOut checkOut = server.bean(CheckOut.class);
        long part = part("ap" + mark + ".stp");
        long held = part("ah" + mark + ".stp");
        long top = file("at" + mark + ".stp", assembly("at", "ap" + mark + ".stp", 1, "ah" + mark + ".stp", 1));
        server.checkOut("tomasz", held);
        CheckOut.Plan first = checkOut.plan(server.actor("priya"), List.of(top), Optional.empty());
        assertThat(first.rows()).as("a newcomer gets the selection").hasSize(1);
        assertThat(first.offered()).containsExactly(With.FIRST_LEVEL);
        CheckOut.Plan plan =
                checkOut.plan(server.actor("priya"), List.of(top), Optional.of(EnumSet.of(With.FIRST_LEVEL)));
        assertThat(plan.rows())
                .extracting(r -> r.seen().spine().id() + " " + r.verdict().fates())
                .containsExactlyInAnyOrder(top + " [HOLD]", part + " [COPY, HOLD, STAY]", held + " [COPY, STAY]");
        assertThat(plan.sentence()).isEqualTo("1 document will be held by you, 2 come as copies.");
        assertThat(checkOut.take(server.actor("priya"), List.of(top, part), List.of(held), Server.key(), "BENCH-3", ""))
                .startsWith("/runs/");
        checkOut.remember(server.actor("priya"), top, plan.with(), true);
        assertThat(server.bean(ReadHeld.class).plan(server.actor("priya"), List.of(top)))
                .extracting(l -> l.seen().spine().id() + " " + l.along())
                .containsExactlyInAnyOrder(top + " false", part + " true");
        assertThat(checkOut.undoPlan(server.actor("priya"), List.of(top))).hasSize(2);
        checkOut.undo(server.actor("priya"), List.of(top, part), Server.key());
        CheckOut.Plan next = checkOut.plan(server.actor("priya"), List.of(top), Optional.empty());
        assertThat(next.remembered()).isTrue();
        assertThat(next.rows().stream().filter(CheckOut.Row::opens)).hasSize(2);
        server.bean(Habits.class).forget(server.actor("priya"), Optional.empty());
        assertThat(checkOut.plan(server.actor("priya"), List.of(top), Optional.empty())
                        .rows())
                .hasSize(1);
    }

    @Test
    void aReleaseFreezesWhatWasInForce() {
        long part = part("fp" + mark + ".stp");
        long top = file("ft" + mark + ".stp", assembly("ft", "fp" + mark + ".stp", 1));
        assertThat(tree(top, StructureView.AS_RELEASED).version()).isEmpty();
        server.release("priya", part);
        server.release("priya", top);
        server.bean(StartRevisions.class).start(server.actor("priya"), List.of(part), Server.key(), "slot", "", true);
        server.checkIn("priya", part, assembly("fp2" + mark), false);
        server.release("priya", part);
        int before = server.document(top).head().number();
        assertThat(tree(top, StructureView.AS_RELEASED)
                        .rows()
                        .get(0)
                        .shown()
                        .orElseThrow()
                        .number())
                .isEqualTo(1);
        assertThat(tree(top, StructureView.LATEST_RELEASED)
                        .rows()
                        .get(0)
                        .shown()
                        .orElseThrow()
                        .number())
                .isEqualTo(2);
        assertThat(tree(top, StructureView.ON_DATE).version()).contains(before);
        assertThat(tree(top, StructureView.AS_SAVED).rows().get(0).newer()).isEqualTo(1);
        List<String> readers = structure
                .tree(server.actor("rafael"), top, StructureView.LATEST, Optional.empty(), LocalDate.EPOCH)
                .rows()
                .stream()
                .map(r -> r.shown().orElseThrow().number() + "")
                .toList();
        assertThat(readers).as("a reader gets what was released with it").containsExactly("1");
    }

    @Test
    void aDrawingAndAModelOfOneNumberAreLinkedAndTheLinkFallsBehind() {
        long model = server.file("priya", shelf, "part-model", "X-" + mark + ".stp", assembly("m" + mark), false);
        long drawing = server.file("priya", shelf, "drawing", "X-" + mark + ".dxf", Review.sheet(Server.key()), false);
        String number = server.document(drawing).number();
        List<LinkStore.Link> links = server.bean(LinkStore.class).around(List.of(drawing));
        if (links.isEmpty()) {
            keepLinks.link(
                    server.actor("priya"),
                    drawing,
                    Server.key(),
                    LinkStore.Kind.SHOWS,
                    server.document(model).number());
            links = server.bean(LinkStore.class).around(List.of(drawing));
        }
        assertThat(links).as(number).hasSize(1);
        assertThat(links.get(0).isBehind()).isFalse();
        assertThat(Web.as(server, "priya")
                        .get("/documents/" + drawing + "/structure")
                        .body())
                .as("what it consists of is one click away")
                .contains("It shows", "/documents/" + model + "/structure");
        change(model, assembly("m2" + mark));
        assertThat(server.bean(LinkStore.class).around(List.of(drawing)).get(0).isBehind())
                .isTrue();
        server.checkOut("priya", drawing);
        server.checkIn("priya", drawing, Review.sheet(Server.key()), false);
        assertThat(server.bean(LinkStore.class).around(List.of(drawing)).get(0).isBehind())
                .isFalse();
        keepLinks.unlink(server.actor("priya"), links.get(0).id(), Server.key());
        assertThat(server.bean(LinkStore.class).around(List.of(drawing))).isEmpty();
    }

    @Test
    void aStructureIsFetchedInTheFoldersInWhichItsFilesReferToEachOther() {
        long part = part("zp" + mark + ".stp");
        long top = file("zt" + mark + ".stp", assembly("zt", "zp" + mark + ".stp", 1, "nowhere.stp", 1));
        change(part, assembly("zp2" + mark));
        FetchStructure.Bundle bundle = server.bean(FetchStructure.class)
                .bundle(server.actor("priya"), top, StructureView.AS_SAVED, Optional.empty(), LocalDate.EPOCH);
        assertThat(bundle.files()).hasSize(2);
        assertThat(bundle.says()).contains("zp" + mark + ".stp  v1").contains("Not here: nowhere.stp");
    }

    @Test
    void aNodeThatComesLaterSeesTheSameStructureAndKeepsUp() {
        long part = part("np" + mark + ".stp");
        long top = file("nt" + mark + ".stp", assembly("nt", "np" + mark + ".stp", 3));
        Server other = server.secondNode();
        try {
            ReadWhereUsed there = other.bean(ReadWhereUsed.class);
            assertThat(there.of(other.actor("priya"), part, false).above()).hasSize(1);
            change(top, assembly("without"));
            assertThat(there.of(other.actor("priya"), part, false).above()).isEmpty();
            change(top, assembly("with", "np" + mark + ".stp", 5));
            assertThat(there.of(other.actor("priya"), part, false).above())
                    .extracting(a -> a.quantity().orElse(0L))
                    .containsExactly(5L);
        } finally {
            other.stop();
        }
    }
}
