package mintshelf.app.effect.deed;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.change.PaperPages;
import mintshelf.core.document.Document;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Makes the readable page of an order of what its signed version says, within the act that carries it out. */
@Component
class WriteOrderPage {
    private static final String RECIPE = "order-1";

    private final Contents contents;
    private final KeepContent keep;
    private final WriteNotice texts;
    private final SheetPdf pdf;
    private final OutputStore outputs;
    private final JsonMapper json;

    WriteOrderPage(
            Contents contents,
            KeepContent keep,
            WriteNotice texts,
            SheetPdf pdf,
            OutputStore outputs,
            JsonMapper json) {
        this.contents = contents;
        this.keep = keep;
        this.texts = texts;
        this.pdf = pdf;
        this.outputs = outputs;
        this.json = json;
    }

    void write(Seen paper, Round board, Instant now) {
        Document order = paper.document();
        // An order of five hundred lines is some hundred kilobytes.
        byte[] signed =
                contents.bytes(paper.spine().content(), paper.spine().content().size());
        Map<String, Object> says = json.readValue(signed, new TypeReference<LinkedHashMap<String, Object>>() {});
        byte[] page = pdf.write(
                PaperPages.pages(says, order.head().content().hex(), texts.decided(board)),
                order.number() + " " + order.title());
        outputs.keep(order.head().version(), "PDF", RECIPE, keep.keep(page).id(), now);
    }
}
