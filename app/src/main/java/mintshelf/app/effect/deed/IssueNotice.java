package mintshelf.app.effect.deed;

import java.time.Instant;
import java.util.List;
import mintshelf.app.effect.FilePaper;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.change.NoticeForm;
import mintshelf.core.change.PaperLine;
import mintshelf.core.change.PaperType;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Route;
import mintshelf.core.signoff.Round;
import org.springframework.stereotype.Component;

/** Issues change notices, within the act that carries their orders out. */
@Component
class IssueNotice {
    private final WriteNotice texts;
    private final FilePaper papers;
    private final SheetPdf pdf;
    private final KeepContent contents;
    private final SpineStore spines;
    private final RevisionStore revisions;
    private final HouseStore house;
    private final OutputStore outputs;
    private final Recorder recorder;

    IssueNotice(
            WriteNotice texts,
            FilePaper papers,
            SheetPdf pdf,
            KeepContent contents,
            SpineStore spines,
            RevisionStore revisions,
            HouseStore house,
            OutputStore outputs,
            Recorder recorder) {
        this.texts = texts;
        this.papers = papers;
        this.pdf = pdf;
        this.contents = contents;
        this.spines = spines;
        this.revisions = revisions;
        this.house = house;
        this.outputs = outputs;
        this.recorder = recorder;
    }

    private static final String RECIPE = "notice-4";

    /** Files the notice of an order that was carried out and lets every line's record name it; gives its id. */
    long issue(Actor actor, Seen paper, List<PaperLine> lines, Round board, Instant now) {
        Kind kind = house.kind(PaperType.NOTICE);
        NumberKey number = papers.number(kind, paper.document().place().shelf());
        ChangeNotice notice = texts.write(number.number(), paper, lines, board, now);
        NoticeForm form = texts.form();
        byte[] page = pdf.write(notice.pages(form), number.number() + " " + notice.title());
        long item = papers.file(
                actor,
                kind,
                paper.document().place().shelf(),
                number,
                notice.title(),
                number.number() + ".pdf",
                page,
                "issued by " + notice.order());
        Document filed = spines.spine(item).orElseThrow().document();
        long version = filed.head().version();
        NoticeFiles.all(notice, form)
                .forEach((format, bytes) -> outputs.keep(
                        version, format, RECIPE, contents.keep(bytes).id(), now));
        Route route = house.edition(filed.current().stage().edition());
        revisions.setStage(
                filed.current().id(), route.firstOf(StageClass.RELEASED).orElseThrow(), now);
        revisions.noteRelease(filed.current().id(), version, now);
        // As of anything that comes into force, the house's distribution and those who follow the folder learn of it.
        recorder.noteFiles(
                actor, item, "revision.issued", 1, "issued " + number.number() + " for " + notice.order(), "");
        for (PaperLine line : lines) {
            recorder.note(
                    actor,
                    line.item(),
                    "notice.issued",
                    "was announced by " + number.number() + ", order " + notice.order(),
                    line.reason());
        }
        return item;
    }
}
