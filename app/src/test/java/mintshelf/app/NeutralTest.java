package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NeutralStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.LetBytesGo;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.neutral.BringNeutral;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.hold.Became;
import org.junit.jupiter.api.Test;

/** Open forms beside files that only their own programs read. */
class NeutralTest {
    private static final byte[] STEP =
            "ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n".getBytes(StandardCharsets.US_ASCII);

    private final Server server = Server.shared();
    private final BringNeutral neutral = server.bean(BringNeutral.class);
    private final VersionStore versions = server.bean(VersionStore.class);
    private final FilingSheets sheets = server.bean(FilingSheets.class);
    private final Actor priya = server.actor("priya");

    /** A file of which nobody here knows the form. */
    private static byte[] foreign() {
        return ("\0\1part " + UUID.randomUUID()).getBytes(StandardCharsets.US_ASCII);
    }

    private String bring(String name, byte[] bytes) {
        return server.bring("priya", name, bytes);
    }

    private VersionRow version(long item, int number) {
        return versions.version(item, number).orElseThrow();
    }

    private long part(long shelf, boolean hold) {
        return server.file("priya", shelf, "drawing", "NC" + shelf + "-10 plate.prt", foreign(), hold);
    }

    private void lay(long item, int number, String name, byte[] bytes) {
        neutral.bring(priya, item, number, Server.key(), List.of(bring(name, bytes)));
    }

    private String code(Runnable act) {
        try {
            act.run();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        }
    }

    private Became checkIn(long item, byte[] main, String... copies) {
        long hold = server.document(item).holder().orElseThrow().hold();
        Optional<String> upload = main.length == 0 ? Optional.empty() : Optional.of(bring("plate.prt", main));
        List<String> tokens = List.of(copies).stream()
                .map(name -> bring(name, name.endsWith("stp") ? STEP : Review.sheet("of " + UUID.randomUUID())))
                .toList();
        return server.bean(CheckIn.class)
                .take(
                        priya,
                        List.of(new CheckIn.Row(item, upload, hold, "", tokens)),
                        Server.key(),
                        new CheckIn.Options("", true, false, Map.of()))
                .get(0);
    }

    @Test
    void aFileIsShownAndComparedByItsCopyAndThePictureSaysOfWhichVersion() {
        long item = part(server.shelf(), true);
        assertThat(version(item, 1).neutral()).isEmpty();
        lay(item, 1, "plate.dxf", Review.sheet("first"));
        VersionRow first = version(item, 1);
        assertThat(first.neutral())
                .hasValueSatisfying(n -> assertThat(n.current()).isTrue());
        assertThat(first.drawn().fileName()).isEqualTo("plate.dxf");
        assertThat(first.content().kind().name()).as("its own file stays").isEqualTo("OTHER");

        assertThat(checkIn(item, foreign()).fate()).isEqualTo(Became.Fate.VERSION);
        assertThat(version(item, 2).neutral())
                .hasValueSatisfying(
                        n -> assertThat(n.number() + " " + n.current()).isEqualTo("1 false"));
        assertThat(version(item, 2).drawnNow().content())
                .isEqualTo(version(item, 2).content());

        assertThat(checkIn(item, foreign(), "plate.stp", "plate.dxf").number()).isEqualTo(3);
        assertThat(neutral.view(priya, server.bean(Sight.class).of(priya, item), version(item, 3))
                        .orElseThrow()
                        .copies())
                .extracting(NeutralStore.Copy::form)
                .as("what shows most comes first")
                .containsExactly(NeutralForm.DXF, NeutralForm.STEP);
        assertThat(server.bean(CompareSheets.class).toBefore(item, version(item, 3)))
                .as("sheets of two versions are compared by their copies")
                .isPresent();
    }

    @Test
    void aModelIsTurnedByItsCopy() {
        long item = part(server.shelf(), false);
        assertThat(ModelFormat.of(version(item, 1))).isEmpty();
        lay(item, 1, "plate.stp", STEP);
        assertThat(ModelFormat.of(version(item, 1))).hasValue("step");
    }

    @Test
    void bytesThatComeBackBringTheirPictureAlong() {
        long item = part(server.shelf(), true);
        lay(item, 1, "plate.dxf", Review.sheet("kept"));
        checkIn(item, foreign());
        server.bean(CheckOut.class).undo(priya, List.of(item), Server.key());
        server.bean(Reinstate.class).reinstate(priya, item, Server.key(), 1, 2, "the old one was right");
        int latest = server.document(item).head().number();
        assertThat(version(item, latest).neutral())
                .hasValueSatisfying(n -> assertThat(n.current()).isTrue());
    }

    @Test
    void aCopyAloneMakesNoVersion() {
        long item = part(server.shelf(), true);
        Became became = checkIn(item, new byte[0], "plate.stp");
        assertThat(became.fate()).isEqualTo(Became.Fate.UNCHANGED);
        assertThat(version(item, 1).neutral()).isPresent();
        assertThat(server.document(item).head().number()).isEqualTo(1);
    }

    @Test
    void filesOfOneNameAreFiledAsOneDocument() {
        long shelf = server.shelf();
        List<String> tokens = List.of(
                bring("FN" + shelf + "-20 cone.stp", STEP),
                bring("FN" + shelf + "-20 cone.prt", foreign()),
                bring("FN" + shelf + "-20 cone.pdf", "%PDF-1.4\n".getBytes(StandardCharsets.US_ASCII)),
                bring("other.stp", STEP));
        long sheet = sheets.open(priya, shelf, OptionalLong.empty(), tokens);
        FilingSheets.Sheet open = sheets.sheet(priya, sheet);
        assertThat(open.documents()).hasSize(2);
        FilingSheets.FilingLine main = open.documents().get(0);
        assertThat(open.copies(main)).hasSize(2);
        // One of them is a document of its own after all.
        Row paper = open.copies(main).stream()
                .map(FilingSheets.FilingLine::row)
                .filter(r -> open.lines().stream()
                        .anyMatch(l ->
                                l.row().id() == r.id() && l.upload().fileName().endsWith("pdf")))
                .findFirst()
                .orElseThrow();
        Row byItself = paper.beside(Optional.empty())
                .withKind(server.kind("report"), "")
                .withNumber("FN" + shelf + "-21", "");
        sheets.keep(priya, sheet, List.of(byItself));
        Row other = sheets.sheet(priya, sheet).documents().stream()
                .map(FilingSheets.FilingLine::row)
                .filter(r -> r.id() != main.row().id() && r.id() != paper.id())
                .findFirst()
                .orElseThrow();
        sheets.keep(
                priya,
                sheet,
                List.of(
                        main.row().withKind(server.kind("drawing"), ""),
                        other.withKind(server.kind("part-model"), "").withNumber("FN" + shelf + "-22", "")));
        FileDocuments.Result filed = server.bean(FileDocuments.class).file(priya, sheet, Server.key(), false);
        assertThat(filed.problems()).isEmpty();
        Map<String, Long> made = new HashMap<>();
        sheets.sheet(priya, sheet)
                .lines()
                .forEach(l -> l.made()
                        .ifPresent(m -> made.put(
                                l.upload().fileName().replaceAll(".*\\.", ""),
                                m.spine().id())));
        assertThat(made).hasSize(3).containsKeys("prt", "pdf", "stp");
        assertThat(server.bean(NeutralStore.class).of(List.of(made.get("prt"))))
                .singleElement()
                .satisfies(c -> assertThat(c.form()).isEqualTo(NeutralForm.STEP));
    }

    @Test
    void whatIsReleasedIsAddedToAndShowsNothingElse() {
        long shelf = server.shelf();
        long item = server.file("priya", shelf, "picture", "NR" + shelf + "-30 plate.prt", foreign(), true);
        lay(item, 1, "plate.dxf", Review.sheet("never out"));
        checkIn(item, foreign());
        server.bean(CheckOut.class).undo(priya, List.of(item), Server.key());
        server.release("priya", item);
        int out = server.document(item).head().number();
        assertThat(version(item, out).neutral())
                .as("readers do not learn of work by its picture")
                .isEmpty();
        Actor rafael = server.actor("rafael");
        ReadDocument.View seen = server.bean(ReadDocument.class).view(rafael, item);
        assertThat(seen.versions()).allMatch(v -> v.neutral().isEmpty());
        assertThat(code(() -> lay(item, out, "plate.dxf", Review.sheet("out"))))
                .as("what everybody works with is for who keeps the shelf")
                .isEqualTo("access.missing");
        Actor ines = server.actor("ines");
        neutral.bring(ines, item, out, Server.key(), List.of(server.bring("ines", "plate.dxf", Review.sheet("out"))));
        assertThat(version(item, out).neutral()).isPresent();
        assertThat(code(() -> neutral.bring(
                        ines,
                        item,
                        out,
                        Server.key(),
                        List.of(server.bring("ines", "plate.dxf", Review.sheet("another"))))))
                .isEqualTo("neutral.out");
        assertThat(code(() -> neutral.remove(ines, item, out, Server.key(), NeutralForm.DXF)))
                .isEqualTo("neutral.out");
        assertThat(neutral.copy(rafael, item, version(item, out), NeutralForm.DXF)
                        .fileName())
                .isEqualTo("plate.dxf");
        server.bean(StartRevisions.class).start(priya, List.of(item), Server.key(), "next", "", true);
        checkIn(item, foreign(), "plate.stp");
        assertThat(server.bean(ReadDocument.class)
                        .view(rafael, item)
                        .shownVersion()
                        .neutral())
                .hasValueSatisfying(n -> assertThat(n.number()).isEqualTo(out));
        assertThatThrownBy(() -> neutral.bring(rafael, item, out, Server.key(), List.of("x")))
                .isInstanceOf(RuntimeException.class);
    }

    @Test
    void whatIsBeingDecidedOnKeepsItsPicture() {
        Review review = new Review(server);
        long item = part(server.shelf(), true);
        lay(item, 1, "plate.dxf", Review.sheet("signed"));
        checkIn(item, foreign(), "plate.dxf");
        server.bean(CheckOut.class).undo(priya, List.of(item), Server.key());
        server.bean(KeepFacts.class).keep(priya, item, Server.key(), "Plate", Map.of("material", "316L"), Map.of());
        review.send("priya", item);
        int head = server.document(item).head().number();
        assertThat(code(() -> lay(item, head, "plate.dxf", Review.sheet("another"))))
                .isEqualTo("neutral.decides");
        assertThat(code(() -> neutral.remove(priya, item, head, Server.key(), NeutralForm.DXF)))
                .isEqualTo("neutral.decides");
    }

    @Test
    void whatIsNoOpenFormOrNotWantedIsRefused() {
        long shelf = server.shelf();
        long item = part(shelf, false);
        assertThat(code(() -> lay(item, 1, "plate.doc", foreign()))).isEqualTo("neutral.form");
        assertThat(code(() -> neutral.bring(priya, item, 1, Server.key(), List.of())))
                .isEqualTo("neutral.files");
        assertThat(code(() -> neutral.bring(priya, item, 1, Server.key(), List.of("no-such-upload"))))
                .isEqualTo("upload.missing");
        long text = server.file("priya", shelf, "NT" + shelf + "-1 a.txt", "text " + shelf, false);
        assertThat(code(() -> lay(text, 1, "a.pdf", "%PDF-1.4\n".getBytes(StandardCharsets.US_ASCII))))
                .isEqualTo("neutral.own");
        assertThat(code(() ->
                        neutral.bring(server.actor("hedda"), item, 1, Server.key(), List.of(bring("plate.stp", STEP)))))
                .isEqualTo("access.missing");
        server.checkOut("tomasz", item);
        assertThat(code(() -> lay(item, 1, "plate.stp", STEP))).isEqualTo("hold.taken");
        assertThatThrownBy(() -> lay(item, 9, "plate.stp", STEP)).isInstanceOf(RuntimeException.class);
    }

    @Test
    void aCopyIsTakenAwayAndTheBytesOfWhatWasDroppedGo() {
        long item = part(server.shelf(), false);
        lay(item, 1, "plate.stp", STEP);
        neutral.remove(priya, item, 1, Server.key(), NeutralForm.STEP);
        assertThat(version(item, 1).neutral()).isEmpty();
        assertThatThrownBy(() -> neutral.remove(priya, item, 1, Server.key(), NeutralForm.STEP))
                .isInstanceOf(NotThere.class);
        lay(item, 1, "plate.dxf", Review.sheet("goes with it"));
        server.bean(DropDocument.class).drop(priya, item, Server.key(), "by mistake");
        server.db().execute("update item set dropped_at = date_sub(now(), interval 200 day) where id = ?", item);
        server.bean(LetBytesGo.class).letGo();
        assertThat(server.bean(NeutralStore.class).of(List.of(item))).isEmpty();
    }

    @Test
    void bytesThatACopyHoldsStayWhenAnotherDocumentLetsThemGo() {
        byte[] sheet = Review.sheet("shared " + UUID.randomUUID());
        long item = part(server.shelf(), false);
        lay(item, 1, "plate.dxf", sheet);
        long other = server.file("priya", server.shelf(), "drawing", "NB plate.dxf", sheet, false);
        server.bean(DropDocument.class).drop(priya, other, Server.key(), "by mistake");
        server.db().execute("update item set dropped_at = date_sub(now(), interval 200 day) where id = ?", other);
        server.bean(LetBytesGo.class).letGo();
        assertThat(server.bytes(version(item, 1).drawn().content())).isEqualTo(sheet);
    }

    @Test
    void theGateAsksForACopyOfTheLatestVersion() {
        long item = part(server.shelf(), true);
        CheckSheets checks = server.bean(CheckSheets.class);
        assertThat(checks.withoutNeutral(List.of(server.document(item)))
                        .get(item)
                        .code())
                .isEqualTo("gate.neutral");
        lay(item, 1, "plate.dxf", Review.sheet("one"));
        assertThat(checks.withoutNeutral(List.of(server.document(item)))).isEmpty();
        checkIn(item, foreign());
        assertThat(checks.withoutNeutral(List.of(server.document(item)))
                        .get(item)
                        .reason())
                .contains("shows version 1, the file is at 2");
        long drawn = server.file("priya", server.shelf(), "drawing", "ND 1.dxf", Review.sheet("own"), false);
        assertThat(checks.withoutNeutral(List.of(server.document(drawn)))).isEmpty();
    }

    @Test
    void aDroppedFileFindsTheDocumentBesideWhichItLies() {
        long item = part(server.shelf(), true);
        String file = server.document(item).fileName();
        ReadHeld held = server.bean(ReadHeld.class);
        assertThat(held.beside(priya, file.replace(".prt", ".STP"))).containsExactly(item);
        assertThat(held.beside(priya, file)).isEmpty();
        assertThat(held.beside(server.actor("tomasz"), file.replace(".prt", ".stp")))
                .isEmpty();
    }
}
