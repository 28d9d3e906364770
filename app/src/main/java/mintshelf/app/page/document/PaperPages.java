package mintshelf.app.page.document;

import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.use.document.ReadPaper;
import mintshelf.app.use.document.ReadVersion;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;

/** The chapters of a paper and where words stand in it, as a part of the page that shows it. */
@Controller
public class PaperPages {
    private final ReadVersion readVersion;
    private final ReadPaper papers;

    public PaperPages(ReadVersion readVersion, ReadPaper papers) {
        this.readVersion = readVersion;
        this.papers = papers;
    }

    @GetMapping("/documents/{id}/versions/{number}/chapters")
    String chapters(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(defaultValue = "") String q,
            Model model) {
        StoredContent content = readVersion.version(actor, id, number).drawn().content();
        if (!PdfSheets.isPaper(content)) throw new NotThere();
        model.addAttribute("at", "/documents/" + id + "/versions/" + number);
        model.addAttribute("q", q);
        model.addAttribute("chapters", papers.chapters(content));
        model.addAttribute("found", papers.find(content, q));
        return "document/_paper";
    }
}
