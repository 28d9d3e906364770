package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.locks.LockSupport;
import mintshelf.app.effect.Habits;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.output.MakeOutputs;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.access.Scope;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.next.Act;
import mintshelf.core.revision.StageClass;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Round;
import mintshelf.core.stamp.SheetStamp;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

class RoundTest {
    private static final Server SERVER = Server.shared();
    private final Server server = SERVER;
    private final Review review = new Review(server);

    @BeforeAll
    static void aCheckerWithALetterThatOldCodePagesKnow() {
        SERVER.add("soren", "Søren Bødker", "checker");
    }

    private byte[] bytes(VersionRow version) {
        return server.bean(Contents.class).bytes(version.content(), Long.MAX_VALUE >> 1);
    }

    private VersionRow version(long item, int number) {
        return server.bean(VersionStore.class).version(item, number).orElseThrow();
    }

    private StageClass stage(long item) {
        return server.document(item).current().stage().stageClass();
    }

    private static String code(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    private void keepFact(long item, String fact, String value) {
        server.bean(KeepFacts.class)
                .keep(
                        server.actor("priya"),
                        item,
                        Server.key(),
                        server.document(item).title(),
                        Map.of(fact, value),
                        Map.of());
    }

    @Test
    void checkingInAndSendingToReviewIsOneActWhereNothingIsInTheWay() {
        long item =
                server.file("priya", server.shelf(), "drawing", "cap.dxf", Review.sheet("cap " + Server.key()), true);
        Web web = Web.as(server, "priya");
        server.bean(Habits.class).choseStraight(server.actor("priya"), true);
        String address = checkInAndSend(web, item);
        server.bean(Habits.class).choseStraight(server.actor("priya"), false);
        assertThat(address).startsWith("/rounds/");
        assertThat(server.document(item).head().number()).isEqualTo(2);
        assertThat(server.document(item).holder()).isEmpty();
        assertThat(stage(item)).isEqualTo(StageClass.DECIDING);

        long empty =
                server.file("priya", server.shelf(), "drawing", "bare.dxf", Review.sheet("b " + Server.key()), true);
        keepFact(empty, "material", "");
        assertThat(checkInAndSend(web, empty)).isEqualTo("/send-to-review?items=" + empty);
        assertThat(server.document(empty).head().number()).isEqualTo(2);
        assertThat(stage(empty)).isEqualTo(StageClass.PREPARING);
        assertThat(web.get("/send-to-review?items=" + empty).body()).contains("Material");
    }

    private String checkInAndSend(Web web, long item) {
        String upload = server.bring("priya", "cap.dxf", Review.sheet("next " + Server.key()));
        long hold = server.document(item).holder().orElseThrow().hold();
        return web.post(
                        "/check-in",
                        Map.of(
                                "actKey",
                                Server.key(),
                                "upload." + item,
                                upload,
                                "hold." + item,
                                "" + hold,
                                "comment",
                                "as sent",
                                "send",
                                "true"))
                .headers()
                .firstValue("Location")
                .orElseThrow()
                .replace(server.origin(), "");
    }

    @Test
    void twoPeopleSignAndTheLastSignOffReleases() {
        long item = review.drawing(server.shelf(), "gland.dxf");
        long round = review.send("priya", item);
        assertThat(stage(item)).isEqualTo(StageClass.DECIDING);
        assertThat(server.bean(ReadDocument.class)
                        .view(server.actor("hedda"), item)
                        .next()
                        .act())
                .isEqualTo(Act.SIGN);
        assertThat(server.bean(ReadDocument.class)
                        .view(server.actor("oluwaseun"), item)
                        .next()
                        .act())
                .isEqualTo(Act.LOOK);
        review.sign("hedda", round);
        assertThat(stage(item)).isEqualTo(StageClass.DECIDING);
        review.sign("oluwaseun", round);
        assertThat(stage(item)).isEqualTo(StageClass.RELEASED);
        assertThat(review.store().round(round).orElseThrow().state()).isEqualTo(Round.State.SIGNED);
        assertThat(server.bean(NoticeStore.class).open(server.actor("priya").person(), 50))
                .extracting(NoticeStore.Notice::code)
                .contains("round.signed");
    }

    @Test
    void theReleasedSheetCarriesTheRecordAndNothingElseDiffersFromTheSignedOne() throws IOException {
        long item = review.drawing(server.shelf(), "lid.dxf");
        long round = review.send("priya", item);
        review.sign("soren", round);
        review.sign("oluwaseun", round);
        VersionRow signed = version(item, 2);
        VersionRow out = version(item, 3);
        assertThat(out.madeBy()).isEqualTo(VersionRow.MadeBy.STAMPED);
        assertThat(server.bean(RevisionStore.class).revisions(item).get(0).releasedVersion())
                .contains(3);
        String before = new String(bytes(signed), Charset.forName("windows-1252"));
        String after = new String(bytes(out), Charset.forName("windows-1252"));
        List<String> changed = new ArrayList<>();
        String[] old = before.split("\r\n", -1);
        String[] now = after.split("\r\n", -1);
        for (int i = 0; i < old.length; i++) if (!old[i].equals(now[i])) changed.add(now[i]);
        assertThat(now).hasSameSizeAs(old);
        assertThat(changed).containsExactly(server.document(item).number(), "A", "Søren Bødker");

        OutputStore.Proof proof = server.bean(OutputStore.class).proof(out.id()).orElseThrow();
        assertThat(proof.signed()).isEqualTo(signed.content().hash());
        assertThat(proof.stamped()).isEqualTo(out.content().hash());
        var again = (Outcome.Granted<SheetStamp.Stamped>)
                SheetStamp.write(bytes(signed), SheetMap.readyMade(), proof.values());
        assertThat(again.value().hash()).isEqualTo(out.content().hash());

        makeOutputs();
        StoredContent pdf = server.bean(ReadVersion.class).output(server.actor("rafael"), item, 3, "PDF");
        try (PDDocument document = Loader.loadPDF(server.bean(Contents.class).bytes(pdf, pdf.size()))) {
            assertThat(new PDFTextStripper().getText(document)).contains("Søren Bødker", "Gland plate");
        }
    }

    private void makeOutputs() {
        MakeOutputs runs = server.bean(MakeOutputs.class);
        while (runs.makeNext()) {
            // until nothing waits
        }
        // What the server's own run took a moment before is made by it.
        long end = System.nanoTime() + 20_000_000_000L;
        while (server.db()
                                .fetchOne("select count(*) from output where state = 'WAITING'")
                                .get(0, Integer.class)
                        > 0
                && System.nanoTime() < end) {
            LockSupport.parkNanos(20_000_000);
        }
    }

    @Test
    void aPdfIsMadeOnceWhateverNumberOfRunsLookForIt() throws Exception {
        long item = review.drawing(server.shelf(), "once.dxf");
        review.release(item);
        var pool = Executors.newFixedThreadPool(4);
        MakeOutputs runs = server.bean(MakeOutputs.class);
        List<Callable<Boolean>> all = List.of(runs::makeNext, runs::makeNext, runs::makeNext, runs::makeNext);
        for (var done : pool.invokeAll(all)) done.get();
        pool.shutdown();
        makeOutputs();
        assertThat(server.bean(OutputStore.class).of(version(item, 3).id()))
                .singleElement()
                .matches(OutputStore.Output::isMade);
    }

    @Test
    void aFactThatChangesLetsTheSignOffFallAndTheSignerIsToldWhy() {
        long item = review.drawing(server.shelf(), "pulley.dxf");
        long round = review.send("priya", item);
        String seen = review.digest("hedda", round);
        review.sign("hedda", round);
        keepFact(item, "material", "304");
        Round now = review.store().round(round).orElseThrow();
        assertThat(now.signOffs()).singleElement().matches(s -> !s.stands());
        assertThat(now.signOffs().get(0).fellWhy()).contains("316L").contains("304");
        assertThat(now.waiting()).singleElement().matches(a -> a.line().who().isRole("checker"));
        assertThat(server.bean(NoticeStore.class).open(server.actor("hedda").person(), 50))
                .anyMatch(n -> n.code().equals("signoff.fell") && n.says().contains("304"));
        // An old page or mail shows the old material: it signs nothing.
        assertThat(code(() -> server.bean(SignRound.class)
                        .answer(server.actor("hedda"), round, Server.key(), seen, Decision.SIGNED, "")))
                .isEqualTo("page.old");
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(stage(item)).isEqualTo(StageClass.RELEASED);
    }

    @Test
    void aFactThatStaysLetsNothingFall() {
        long item = review.drawing(server.shelf(), "same.dxf");
        long round = review.send("priya", item);
        review.sign("hedda", round);
        keepFact(item, "material", "316L");
        assertThat(review.store().round(round).orElseThrow().signOffs()).allMatch(s -> s.stands());
    }

    @Test
    void whoWorkedOnItDoesNotSignIt() {
        server.add("karin", "Karin Both", "designer");
        server.bean(GrantStore.class).grantPerson(server.actor("karin").person(), "checker", Scope.EVERYWHERE);
        long item = review.drawing(server.shelf(), "own.dxf");
        server.checkOut("karin", item);
        server.checkIn("karin", item, Review.sheet("Karin's " + item), false);
        long round = review.send("priya", item);
        assertThat(code(() -> signs("ines", round))).isEqualTo("sign.role");
        assertThat(code(() -> signs("karin", round))).isEqualTo("sign.own");
        assertThat(code(() -> signs("oluwaseun", round))).isEqualTo("sign.role");
    }

    private String signs(String login, long round) {
        review.sign(login, round);
        return "";
    }

    @Test
    void returningNeedsAWordAndSendsItBackToItsAuthor() {
        long item = review.drawing(server.shelf(), "cone.dxf");
        long round = review.send("priya", item);
        assertThatThrownBy(() -> review.answer("hedda", round, Decision.RETURNED, " "))
                .isInstanceOf(Refused.class);
        review.answer("hedda", round, Decision.RETURNED, "weld sign missing");
        assertThat(stage(item)).isEqualTo(StageClass.PREPARING);
        assertThat(server.bean(NoticeStore.class).open(server.actor("priya").person(), 50))
                .anyMatch(n -> n.code().equals("round.returned") && n.says().contains("weld sign missing"));
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("weld sign " + item), false);
        long again = review.send("priya", item);
        assertThat(review.store().roundsOf(item, 9)).containsExactly(again, round);
        assertThat(code(() -> server.bean(SignRound.class)
                        .answer(
                                server.actor("hedda"),
                                round,
                                Server.key(),
                                review.digest("hedda", round),
                                Decision.SIGNED,
                                "")))
                .isEqualTo("round.ended");
    }

    @Test
    void takingBackEndsTheRoundAndItsSignOffs() {
        long item = review.drawing(server.shelf(), "back.dxf");
        long round = review.send("priya", item);
        review.sign("hedda", round);
        server.bean(MoveDocument.class)
                .move(server.actor("priya"), item, Server.key(), "take-back", 2, "one hole more");
        assertThat(stage(item)).isEqualTo(StageClass.PREPARING);
        assertThat(review.store().round(round).orElseThrow().signOffs()).noneMatch(s -> s.stands());
        assertThat(review.store().openRound(item)).isEmpty();
    }

    @Test
    void aBundleIsDecidedTogether() {
        long shelf = server.shelf();
        long a = review.drawing(shelf, "a.dxf");
        long b = review.drawing(shelf, "b.dxf");
        long round = review.send("priya", a, b);
        keepFact(b, "material", "VMQ");
        review.sign("hedda", round);
        keepFact(b, "material", "NBR");
        assertThat(review.store().round(round).orElseThrow().signOffs()).noneMatch(s -> s.stands());
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
        assertThat(List.of(stage(a), stage(b))).containsOnly(StageClass.RELEASED);
        assertThat(code(() -> review.send("priya", a))).isEqualTo("send.refused");
    }

    @Test
    void sendingEndsTheOwnCheckOutAndRefusesAnothers() {
        long shelf = server.shelf();
        long mine = review.drawing(shelf, "mine.dxf");
        server.checkOut("priya", mine);
        long round = review.send("priya", mine);
        assertThat(server.document(mine).holder()).isEmpty();
        assertThat(round).isPositive();
        long held = review.drawing(shelf, "held.dxf");
        server.checkOut("tomasz", held);
        long free = review.drawing(shelf, "free.dxf");
        assertThat(code(() -> review.send("priya", free, held))).isEqualTo("send.refused");
        assertThat(stage(free)).isEqualTo(StageClass.PREPARING);
        assertThat(review.store().openRound(free)).isEmpty();
    }

    @Test
    void contentDoesNotChangeWhileItIsDecidedOn() {
        long item = review.drawing(server.shelf(), "still.dxf");
        review.send("priya", item);
        assertThatThrownBy(() -> server.checkOut("tomasz", item))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("being decided");
        assertThat(server.document(item).holder()).isEmpty();
    }

    @Test
    void abstainingHandsTheQuestionOn() {
        long item = review.drawing(server.shelf(), "abstain.dxf");
        String to = server.bean(SendToReview.class)
                .send(
                        server.actor("priya"),
                        List.of(item),
                        Server.key(),
                        "",
                        Map.of(0, server.actor("hedda").person()),
                        Map.of(item, 2));
        long round = Long.parseLong(to.substring(8));
        assertThat(server.bean(ReadRounds.class)
                        .round(server.actor("soren"), round)
                        .mine())
                .isEmpty();
        review.answer("hedda", round, Decision.ABSTAINED, "");
        assertThat(server.bean(ReadRounds.class)
                        .round(server.actor("soren"), round)
                        .mine())
                .isPresent();
    }

    @Test
    void theSameFormPostedTwiceSignsOnce() {
        long item = review.drawing(server.shelf(), "twice.dxf");
        long round = review.send("priya", item);
        String key = Server.key();
        String seen = review.digest("hedda", round);
        SignRound sign = server.bean(SignRound.class);
        String first = sign.answer(server.actor("hedda"), round, key, seen, Decision.SIGNED, "");
        assertThat(sign.answer(server.actor("hedda"), round, key, seen, Decision.SIGNED, ""))
                .isEqualTo(first);
        assertThat(review.store().round(round).orElseThrow().signOffs()).hasSize(1);
    }

    @Test
    void ofTwoCheckersAtOnceOneSigns() throws Exception {
        for (int i = 0; i < 10; i++) {
            long item = review.drawing(server.shelf(), "race" + i + ".dxf");
            long round = review.send("priya", item);
            String seen = review.digest("hedda", round);
            List<Callable<String>> both = new ArrayList<>();
            for (String login : List.of("hedda", "soren")) {
                both.add(() -> code(() -> server.bean(SignRound.class)
                        .answer(server.actor(login), round, Server.key(), seen, Decision.SIGNED, "")));
            }
            var pool = Executors.newFixedThreadPool(2);
            List<String> said = new ArrayList<>();
            for (var done : pool.invokeAll(both)) said.add(done.get());
            pool.shutdown();
            assertThat(said).containsOnlyOnce("").hasSize(2);
            assertThat(review.store().round(round).orElseThrow().signOffs()).hasSize(1);
        }
    }

    @Test
    void theNextRevisionShowsItsLabelOnTheSheetAtOnceAndNobodysSignature() {
        long item = review.drawing(server.shelf(), "next.dxf");
        review.release(item);
        server.bean(StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "M6 glands", "", true);
        var said = ((Outcome.Granted<DxfDrawing>) DxfDrawing.read(bytes(version(item, 4)))).value();
        assertThat(SheetMap.readyMade().read(said))
                .containsEntry("revision", "B")
                .doesNotContainKey("checked_by");
        // What the shelf wrote is nobody's work: there is nothing to send yet.
        assertThat(code(() -> review.send("priya", item))).isEqualTo("send.refused");
        server.checkIn("priya", item, Review.sheet("M6 " + item), false);
        review.release(item);
        assertThat(server.bean(RevisionStore.class).revisions(item))
                .extracting(r -> r.revision().stage().stageClass())
                .containsExactly(StageClass.SUPERSEDED, StageClass.RELEASED);
    }

    @Test
    void theTitleBlockBecomesFactsWhereTheDesignerChangedIt() {
        long item = review.drawing(server.shelf(), "facts.dxf");
        keepFact(item, "material", "1.4462");
        server.checkOut("priya", item);
        // The sheet still says 316L as before: what was put right in the record stays.
        server.checkIn("priya", item, Review.sheet("other lines " + item), true);
        FactStore facts = server.bean(FactStore.class);
        long revision = server.document(item).current().id();
        assertThat(facts.facts(revision)).containsEntry("material", "1.4462");
        String changed =
                new String(Review.sheet("third " + item), Charset.forName("windows-1252")).replace("316L", "POM-C");
        server.checkIn("priya", item, changed.getBytes(Charset.forName("windows-1252")), false);
        assertThat(facts.facts(revision)).containsEntry("material", "POM-C");
    }
}
