package mintshelf.app.page.redline;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.FileAnswer;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.redline.GiveMarks;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.app.use.redline.TakeInRemarks;
import mintshelf.core.base.Texts;
import mintshelf.core.redline.RedlineSvg.Placed;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Remarks on their way to people outside and back. */
@Controller
public class SendRemarks {
    private final ReadRemarks read;
    private final GiveMarks give;
    private final TakeInRemarks takeIn;
    private final FetchFiles fetch;
    private final FileAnswer files;
    private final ReadingRoom room;

    public SendRemarks(
            ReadRemarks read,
            GiveMarks give,
            TakeInRemarks takeIn,
            FetchFiles fetch,
            FileAnswer files,
            ReadingRoom room) {
        this.read = read;
        this.give = give;
        this.takeIn = takeIn;
        this.fetch = fetch;
        this.files = files;
        this.room = room;
    }

    /**
     * A copy of a version with marks: all that stand on its sheet, or those named.
     *
     * @param layout of the drawing, or page; empty for the sheet
     * @param called how the file is called; empty for the usual name
     * @param sheet {@code no} to leave out what is drawn
     */
    @GetMapping("/documents/{id}/versions/{number}/marked.{form:dxf|pdf|json|html}")
    void marked(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @PathVariable String form,
            @RequestParam(defaultValue = "") String layout,
            @RequestParam(defaultValue = "") String ids,
            @RequestParam(defaultValue = "") String called,
            @RequestParam(defaultValue = "") String sheet,
            HttpServletResponse response)
            throws IOException {
        read.seen(actor, id);
        VersionRow version = fetch.fetch(actor, id, number);
        List<Long> chosen = ids.isEmpty() ? List.of() : Pages.ids(ids);
        GiveMarks.Form as = GiveMarks.Form.valueOf(form.toUpperCase(Locale.ROOT));
        byte[] copy = give.copy(actor, version, id, layout, chosen, as, !sheet.equals("no"));
        String name = called.isBlank() ? usualName(version) : Texts.shorten(Texts.line(called), 120);
        files.send(copy, name + "." + form, response);
    }

    private static String usualName(VersionRow version) {
        return version.fileName().replaceFirst("\\.[^.]*$", "") + ", version " + version.number() + " with remarks";
    }

    /**
     * A form in which remarks can be sent.
     *
     * @param with its size with the sheet, where it could be told soon; {@code without} likewise
     */
    public record Given(GiveMarks.Form form, Optional<Integer> with, Optional<Integer> without) {}

    /** What is to be sent to people outside: which remarks, in which form, with or without the sheet. */
    @GetMapping("/documents/{id}/versions/{number}/send-remarks")
    String send(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(defaultValue = "") String layout,
            @RequestParam(defaultValue = "") String ids,
            Model model) {
        Seen seen = read.seen(actor, id);
        VersionRow version = fetch.fetch(actor, id, number);
        ReadRemarks.OnSheet on = give.all(actor, version, id, layout);
        if (give.forms(on).isEmpty()) throw new NotThere();
        List<Placed> all = on.placed();
        List<Long> named = ids.isEmpty() ? List.of() : Pages.ids(ids);
        Set<Long> chosen = all.stream()
                .filter(p -> named.isEmpty()
                        ? p.remark().state().isOpen()
                        : named.contains(p.remark().id()))
                .map(p -> p.remark().id())
                .collect(Collectors.toCollection(LinkedHashSet::new));
        List<Given> forms = new ArrayList<>();
        for (GiveMarks.Form form : give.forms(on)) {
            forms.add(new Given(
                    form,
                    size(actor, on, chosen, form, true),
                    form.isWithOrWithout() ? size(actor, on, chosen, form, false) : Optional.empty()));
        }
        model.addAttribute("seen", seen);
        model.addAttribute("version", version);
        model.addAttribute("all", all);
        model.addAttribute("chosen", chosen);
        model.addAttribute("forms", forms);
        model.addAttribute("layout", layout);
        model.addAttribute("called", usualName(version));
        return "redline/send";
    }

    private Optional<Integer> size(
            Actor actor, ReadRemarks.OnSheet on, Set<Long> chosen, GiveMarks.Form form, boolean sheet) {
        if (chosen.isEmpty()) return Optional.empty();
        try {
            return room.soon(
                    () -> Optional.of(give.copy(
                                    actor,
                                    on.version(),
                                    on.seen().spine().id(),
                                    on.paper().layout(),
                                    chosen,
                                    form,
                                    sheet)
                            .length),
                    Optional.<Integer>empty());
        } catch (Refused e) {
            return Optional.empty(); // said when it is fetched
        }
    }

    /** Takes in what people outside wrote; answers with what became of it. */
    @PostMapping("/documents/{id}/versions/{number}/annotations")
    @ResponseBody
    Map<String, String> takeIn(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String layout,
            @RequestParam(defaultValue = "") String annotations) {
        return Map.of("says", takeIn.take(actor, id, number, layout, actKey, bytes(annotations)));
    }

    private static final String PDF = "data:application/pdf;base64,";

    /** Text as it is; a PDF comes in Base64 (RFC 4648, 4). */
    private static byte[] bytes(String sent) {
        if (!sent.startsWith(PDF)) return sent.getBytes(StandardCharsets.UTF_8);
        try {
            return Base64.getDecoder().decode(sent.substring(PDF.length()));
        } catch (IllegalArgumentException e) {
            return new byte[0];
        }
    }
}
