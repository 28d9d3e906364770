package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.UnderWay;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.change.Cause;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.change.PaperType;
import mintshelf.core.change.Priority;
import mintshelf.core.house.ChangeControlRule;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.NoticeFormRule;
import mintshelf.core.house.Subject;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFParagraph;
import org.junit.jupiter.api.Test;

/** What a house says of its papers: how notices look, which kinds of requests and orders it has, what is under way beside its change control. */
class NoticeFormHouseTest extends InAHouse {
    private final Orders orders = new Orders(server);
    private final Review review = new Review(server);

    private int edition(Subject subject, String code) {
        return latest(subject, code).number();
    }

    private byte[] noted(String note) {
        return EverydayWalksTest.sheet("NF-" + mark, "Ring", note);
    }

    /** A released drawing whose note says something. */
    private long sheet(String note) {
        long item = server.file("priya", server.shelf(), "drawing", "ring " + mark + ".dxf", noted(note), true);
        server.checkIn("priya", item, noted(note + " "), false);
        review.release(item);
        return item;
    }

    private Map<String, String> fields(NoticeForm form) {
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put("actKey", Server.key());
        fields.put("edition", Integer.toString(edition(Subject.NOTICE_FORM, NoticeFormRule.CODE)));
        for (int i = 0; i < form.blocks().size(); i++) {
            fields.put("show." + i, form.blocks().get(i).show().name());
            fields.put("at." + i, Integer.toString(i + 1));
            fields.put("text." + i, form.blocks().get(i).text());
        }
        return fields;
    }

    @Test
    void theNextNoticeIsMadeByTheHousesFormAndShowsWhatChanged() throws Exception {
        Web web = Web.as(server, "ines");
        Map<String, String> form = fields(NoticeForm.USUAL);
        form.put("at.3", "");
        assertThat(web.post("/house/notice-form", form).statusCode())
                .as("lines are on every notice")
                .isEqualTo(409);
        form = fields(NoticeForm.USUAL);
        form.put("show.20", "TEXT");
        form.put("at.20", "1,5");
        form.put("text.20", "Hang up beside {order}.");
        form.put("at.6", "");
        assertThat(web.post("/house/notice-form", form).statusCode()).isEqualTo(302);
        assertThat(server.bean(RuleStore.class).noticeForm().blocks())
                .extracting(b -> b.show())
                .containsExactly(
                        NoticeForm.Show.HEAD,
                        NoticeForm.Show.TEXT,
                        NoticeForm.Show.REASON,
                        NoticeForm.Show.REQUESTS,
                        NoticeForm.Show.LINES,
                        NoticeForm.Show.PICTURES,
                        NoticeForm.Show.OLD);
        assertThat(web.get("/house/notice-form").body()).contains("Hang up beside");
        long item = sheet("wall 2.5");
        long order = orders.ask("priya", item);
        orders.start(order);
        server.checkOut("priya", item);
        server.checkIn("priya", item, noted("wall 3, turned"), false);
        orders.signed(order);
        orders.carryOut(order);
        long notice = orders.view("priya", order).notice().orElseThrow().spine().id();
        String number = server.document(order).number();
        String text;
        try (var pdf = Loader.loadPDF(server.bytes(notice))) {
            text = new PDFTextStripper().getText(pdf);
        }
        assertThat(text).contains("Hang up beside " + number + ".").containsPattern("A → B: \\d+ difference");
        assertThat(text).as("without who decided").doesNotContain("signed, ");
        byte[] docx = Web.as(server, "priya")
                .bytes("/documents/" + notice + "/versions/1/docx")
                .body();
        try (XWPFDocument document = new XWPFDocument(new ByteArrayInputStream(docx))) {
            assertThat(document.getParagraphs().stream()
                            .map(XWPFParagraph::getText)
                            .collect(Collectors.joining("\n")))
                    .contains("Hang up beside " + number + ".")
                    .contains("difference");
        }
        keep(
                new NoticeFormRule(NoticeForm.USUAL.blocks()),
                edition(Subject.NOTICE_FORM, NoticeFormRule.CODE),
                "as before");
    }

    @Test
    void aHouseHasSeveralKindsOfRequestsAndTheLastUsedIsOfferedFirst() {
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "change-request", "deviation " + mark);
        String code = "deviation-" + mark;
        assertThat(((KindRule) latest(Subject.KIND, code).rule()).paper()).contains(PaperType.REQUEST);
        AskForChange ask = server.bean(AskForChange.class);
        assertThat(ask.kinds(server.actor("tomasz"), PaperType.REQUEST).get(0).code())
                .as("the house's first, where nobody asked before")
                .isEqualTo("change-request");
        long item = orders.released(server.shelf(), "deviating " + Server.key() + ".dxf");
        assertThat(code(() -> open(item, "no-such-kind"))).isEqualTo("paper.kind");
        String to = open(item, code);
        long request = Long.parseLong(to.substring("/requests/".length()));
        assertThat(server.document(request).number()).isNotBlank();
        assertThat(ask.kinds(server.actor("tomasz"), PaperType.REQUEST).get(0).code())
                .isEqualTo(code);
        assertThat(Web.as(server, "tomasz").get("/ask-for-change?items=" + item).body())
                .contains("What kind of request")
                .contains("deviation " + mark);
    }

    private String open(long item, String kind) {
        return server.bean(OpenRequest.class)
                .open(
                        server.actor("tomasz"),
                        List.of(item),
                        Server.key(),
                        new OpenRequest.Says(
                                "Bent tank",
                                "bent",
                                Optional.<Cause>empty(),
                                Priority.USUAL,
                                Map.of(),
                                List.of(),
                                Optional.of(kind)));
    }

    @Test
    void whatWasStartedByHandIsSeenBesideSentencesThatAskForAPaper() {
        long item = orders.released(server.shelf(), "by hand " + Server.key() + ".dxf");
        server.bean(StartRevisions.class)
                .start(server.actor("priya"), List.of(item), Server.key(), "by hand", "", false);
        UnderWay underWay = server.bean(UnderWay.class);
        assertThat(underWay.beside(server.actor("ines")).documents())
                .noneMatch(s -> s.spine().id() == item);
        long shelf = server.document(item).place().shelf();
        ChangeControlRule was = server.bean(RuleStore.class).changeControl();
        keep(
                new ChangeControlRule(List.of(new ChangeControlRule.Sentence(
                        "",
                        Long.toString(shelf),
                        ChangeControlRule.Starts.IN_ONE,
                        Optional.empty(),
                        Optional.empty()))),
                edition(Subject.CHANGE_CONTROL, ChangeControlRule.CODE),
                "");
        assertThat(underWay.beside(server.actor("ines")).documents())
                .anyMatch(s -> s.spine().id() == item);
        assertThat(Web.as(server, "ines").get("/house/change-control").body())
                .contains("started by hand")
                .contains(server.document(item).number());
        assertThat(code(() -> {
                    underWay.beside(server.actor("priya"));
                    return "";
                }))
                .isEqualTo("access.missing");
        orders.ask("priya", item);
        assertThat(underWay.beside(server.actor("ines")).documents())
                .noneMatch(s -> s.spine().id() == item);
        keep(was, edition(Subject.CHANGE_CONTROL, ChangeControlRule.CODE), "as before");
    }
}
