package mintshelf.app.page.redline;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.redline.GiveMarks;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.ReadRemarks;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.core.change.RequestRules;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.RedlineSvg;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Remarks beside a sheet: the marks laid over it, the list, one thread, and what is done with them. */
@Controller
public class RedlinePages {
    private final ReadRemarks read;
    private final MakeRemark make;
    private final TalkOfRemarks talk;
    private final GiveMarks give;

    public RedlinePages(ReadRemarks read, MakeRemark make, TalkOfRemarks talk, GiveMarks give) {
        this.give = give;
        this.read = read;
        this.make = make;
        this.talk = talk;
    }

    /** What lies over and beside a version's sheet. */
    @GetMapping("/documents/{id}/versions/{number}/remarks")
    String panel(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam(defaultValue = "") String layout,
            @RequestParam(defaultValue = "false") boolean all,
            Model model) {
        ReadRemarks.OnSheet on = read.on(actor, id, number, layout);
        Redlines.Paper paper = on.paper();
        model.addAttribute("on", on);
        model.addAttribute(
                "panel", RemarkPanel.of(on.placed(), read.rounds(id), all ? Integer.MAX_VALUE : RemarkPanel.LISTED));
        model.addAttribute("svg", paper.isSpace() ? "" : RedlineSvg.over(on.placed(), paper.box(), paper.millimetre()));
        model.addAttribute("chapters", read.chapters(on));
        model.addAttribute("elsewhere", read.elsewhere(on, number));
        model.addAttribute("given", give.forms(on));
        model.addAttribute("number", number);
        model.addAttribute("mayMark", MakeRemark.refusal(actor, on.seen()).isEmpty());
        model.addAttribute("look", talk.look(actor));
        model.addAttribute("colours", Colour.values());
        model.addAttribute("letters", Look.LETTERS);
        return "redline/_panel";
    }

    /** Open marks as a transparent picture of the sheet or first page, to be laid over previews. */
    @GetMapping(value = "/documents/{id}/versions/{number}/marks", produces = "image/svg+xml")
    @ResponseBody
    String marks(Actor actor, @PathVariable long id, @PathVariable int number) {
        ReadRemarks.OnSheet on = read.on(actor, id, number, "");
        Redlines.Paper paper = on.paper();
        if (paper.isSpace()) throw new NotThere();
        List<RedlineSvg.Placed> open =
                on.placed().stream().filter(p -> p.remark().state().isOpen()).toList();
        return RedlineSvg.over(open, paper.box(), paper.millimetre());
    }

    /** A remark by its own address: on the version that the reader gets, where it stands now. */
    @GetMapping("/documents/{id}/remarks/{remark}")
    String remark(Actor actor, @PathVariable long id, @PathVariable long remark, @RequestParam Optional<Long> round) {
        // The address of a remark names it: it has a query.
        return "redirect:" + read.address(actor, talk.remark(actor, id, remark))
                + round.map(r -> "&round=" + r).orElse("");
    }

    /** The remarks of a document, whatever it is: the first that is open, else what can be marked. */
    @GetMapping("/documents/{id}/remarks")
    String remarks(Actor actor, @PathVariable long id) {
        return "redirect:" + read.first(actor, id);
    }

    /** What was said to a remark, and what the reader may do with it. */
    @GetMapping("/documents/{id}/remarks/{remark}/thread")
    String thread(Actor actor, @PathVariable long id, @PathVariable long remark, Model model) {
        Remark one = talk.remark(actor, id, remark);
        Seen seen = read.seen(actor, id);
        List<Remark.State> may = new ArrayList<>();
        for (Remark.State state : Remark.State.values()) {
            if (TalkOfRemarks.refusal(actor, seen, one, state).isEmpty()) may.add(state);
        }
        model.addAttribute("remark", one);
        model.addAttribute("may", may);
        model.addAttribute(
                "mayReply", TalkOfRemarks.replyRefusal(actor, seen, one).isEmpty());
        model.addAttribute("mayEdit", TalkOfRemarks.editRefusal(actor, one).isEmpty());
        model.addAttribute("kinds", Remark.Kind.values());
        model.addAttribute("document", seen.document().number());
        model.addAttribute(
                "mayAsk", RequestRules.line(seen.document(), actor.access()).isEmpty());
        return "redline/_thread";
    }

    /** A finished draft. Points are "x,y x,y" in the sheet's units, y upwards; strokes are parted by semicolons. */
    @PostMapping("/documents/{id}/versions/{number}/remarks")
    String make(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam String actKey,
            @RequestParam Map<String, String> form) {
        MakeRemark.Draft draft = new MakeRemark.Draft(
                form.getOrDefault("layout", ""),
                Tool.of(form.getOrDefault("tool", "")).orElseThrow(RedlinePages::bad),
                form.containsKey("space") ? List.of() : strokes(form.getOrDefault("points", "")),
                form.getOrDefault("text", ""),
                Remark.Kind.of(form.getOrDefault("kind", "")).orElseThrow(RedlinePages::bad),
                form.getOrDefault("line", ""),
                form.getOrDefault("description", ""),
                look(form),
                view(form.getOrDefault("view", "")),
                SpaceForm.read(form.getOrDefault("space", "")));
        return "redirect:" + make.make(actor, id, number, actKey, draft);
    }

    @PostMapping("/documents/{id}/remarks/{remark}/replies")
    String reply(
            Actor actor,
            @PathVariable long id,
            @PathVariable long remark,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String says) {
        return "redirect:" + talk.reply(actor, id, remark, actKey, says);
    }

    /** One's own remark in other words. */
    @PostMapping("/documents/{id}/remarks/{remark}")
    String edit(
            Actor actor,
            @PathVariable long id,
            @PathVariable long remark,
            @RequestParam String actKey,
            @RequestParam Map<String, String> form) {
        Remark.Kind kind = Remark.Kind.of(form.getOrDefault("kind", "")).orElseThrow(RedlinePages::bad);
        return "redirect:"
                + talk.edit(
                        actor,
                        id,
                        remark,
                        actKey,
                        kind,
                        form.getOrDefault("line", ""),
                        form.getOrDefault("description", ""));
    }

    /** Sets remarks, one or many. */
    @PostMapping("/documents/{id}/remarks")
    String set(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String ids,
            @RequestParam String to,
            @RequestParam(defaultValue = "") String why) {
        Remark.State state = Remark.State.of(to).orElseThrow(RedlinePages::bad);
        return "redirect:" + talk.set(actor, id, Pages.ids(ids), actKey, state, why);
    }

    /** How the reader's marks look: those named, and with {@code from} what they draw from now on. */
    @PostMapping("/documents/{id}/remarks/look")
    String look(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String ids,
            @RequestParam(defaultValue = "false") boolean from,
            @RequestParam Map<String, String> form) {
        return "redirect:" + talk.look(actor, id, ids.isEmpty() ? List.of() : Pages.ids(ids), actKey, look(form), from);
    }

    private static Look look(Map<String, String> form) {
        Colour colour = Colour.of(form.getOrDefault("colour", "")).orElseThrow(RedlinePages::bad);
        return new Look(colour, numbers(form.getOrDefault("letters", "3.5"), 1).orElseThrow(RedlinePages::bad)[0]);
    }

    private static Box view(String text) {
        return numbers(text, 4)
                .map(v -> new Box(v[0], v[1], v[2], v[3]))
                .filter(b -> b.width() > 0 && b.height() > 0)
                .orElse(Box.EMPTY);
    }

    /** That many numbers; nothing for another text. */
    static Optional<double[]> numbers(String text, int count) {
        String[] parts = text.strip().split("[ ,]+");
        if (parts.length != count || text.length() > 40 * count) return Optional.empty();
        double[] all = new double[count];
        try {
            for (int i = 0; i < count; i++) all[i] = Double.parseDouble(parts[i]);
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
        for (double v : all) if (!Double.isFinite(v)) return Optional.empty();
        return Optional.of(all);
    }

    /** Read until there are more points than a mark may have: the rule says no then. */
    private static List<List<Point>> strokes(String text) {
        List<List<Point>> strokes = new ArrayList<>();
        int points = 0;
        for (String stroke : text.split(";")) {
            List<Point> all = new ArrayList<>();
            for (String pair : stroke.strip().split("\\s+")) {
                if (points++ > Mark.MOST_POINTS) break;
                double[] xy = numbers(pair, 2).orElseThrow(RedlinePages::bad);
                all.add(new Point(xy[0], xy[1]));
            }
            strokes.add(all);
        }
        return strokes;
    }

    private static Refused bad() {
        return Refused.because(
                "mark.form", "What was drawn did not arrive as a mark.", "Draw it again; nothing was kept of it.");
    }
}
