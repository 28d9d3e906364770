package mintshelf.app.page.hold;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.hold.StrayStore.Stray;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.Strays;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.core.access.Right;
import mintshelf.core.change.RequestRules;
import mintshelf.core.document.FileName;
import mintshelf.core.next.Act;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Strays: look at one, adopt it, file it as new, drop it. */
@Controller
public class StrayPages {
    private final Strays strays;
    private final ReadDocument read;
    private final ReadVersion readVersion;
    private final CompareSheets compare;
    private final ReadSheet sheets;
    private final ReadRecord record;
    private final ReceiveContent receive;
    private final FilingSheets filingSheets;
    private final Clock clock;

    public StrayPages(
            Strays strays,
            ReadDocument read,
            ReadVersion readVersion,
            CompareSheets compare,
            ReadSheet sheets,
            ReadRecord record,
            ReceiveContent receive,
            FilingSheets filingSheets,
            Clock clock) {
        this.strays = strays;
        this.read = read;
        this.readVersion = readVersion;
        this.compare = compare;
        this.sheets = sheets;
        this.record = record;
        this.receive = receive;
        this.filingSheets = filingSheets;
        this.clock = clock;
    }

    @GetMapping("/strays/{id}")
    String stray(Actor actor, @PathVariable long id, Model model) {
        Stray stray = readVersion.stray(actor, id);
        model.addAttribute("stray", stray);
        ReadDocument.View view = read.view(actor, stray.item());
        model.addAttribute("view", view);
        Seen on = strays.on(view.seen(), stray);
        model.addAttribute("on", on);
        var document = view.seen().document();
        model.addAttribute(
                "starts",
                view.next().act() == Act.START_REVISION && !on.document().isTried());
        model.addAttribute("open", stray.isOpen(actor.person(), clock.instant()));
        model.addAttribute(
                "compared", compare.draw(on.spine().content(), stray.content()).orElse(null));
        model.addAttribute("sheet", sheets.sheetSoon(stray.content()));
        model.addAttribute(
                "broken",
                record.lastBefore(actor, stray.item(), "hold.broken", stray.at())
                        .orElse(null));
        model.addAttribute(
                "adoptRefusal", strays.adoptRefusal(actor, view.seen(), stray).orElse(null));
        model.addAttribute(
                "mayDrop", stray.author() == actor.person() || actor.access().may(Right.KEEP_SHELF, document.place()));
        model.addAttribute("mayAsk", RequestRules.line(document, actor.access()).isEmpty());
        return "hold/stray";
    }

    @PostMapping("/strays/{id}/adopt")
    String adopt(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam int expected,
            @RequestParam(defaultValue = "") String comment) {
        return "redirect:" + strays.adopt(actor, id, actKey, expected, comment);
    }

    /** A stray comes once more, to be filed as a document of its own. */
    @PostMapping("/strays/{id}/file-as-new")
    String fileAsNew(Actor actor, @PathVariable long id) throws IOException {
        Stray stray = readVersion.stray(actor, id);
        Seen seen = read.view(actor, stray.item()).seen();
        FileName name = FileName.of(stray.fileName());
        String token = receive.again(actor, stray.content(), name.derived());
        return "redirect:/filings/"
                + filingSheets.open(
                        actor,
                        seen.document().place().shelf(),
                        OptionalLong.of(seen.spine().folder()),
                        List.of(token),
                        Optional.of(stray.item()));
    }

    @PostMapping("/strays/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + strays.drop(actor, id, actKey);
    }
}
