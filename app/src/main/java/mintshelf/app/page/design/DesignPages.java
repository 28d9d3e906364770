package mintshelf.app.page.design;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.IntoFolders;
import mintshelf.app.store.run.Run;
import mintshelf.app.use.design.DesignTree.Row;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.Outline;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.app.use.design.ReadDesign.View;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.Aspect;
import mintshelf.core.reuse.Design.Becomes;
import mintshelf.core.reuse.Design.Verdict;
import mintshelf.core.revision.StageClass;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A new design from another one: the tree in which the number is the control, and what will be made. */
@Controller
public class DesignPages {
    static final List<StructureView> VIEWS =
            List.of(StructureView.AS_SAVED, StructureView.LATEST, StructureView.LATEST_RELEASED);

    /** Things on one part of the page. */
    private static final int SHOWN = 200;

    private final ReadDesign read;
    private final ActOverSet over;
    private final IntoFolders into;
    private final ReadRuns runs;

    public DesignPages(ReadDesign read, ActOverSet over, IntoFolders into, ReadRuns runs) {
        this.runs = runs;
        this.read = read;
        this.over = over;
        this.into = into;
    }

    /**
     * A thing of the tree.
     *
     * @param cell what stands in its number cell, {@code was} what the page puts there when nothing is typed
     * @param open whether it has a cell, {@code files} what its files will be called
     */
    public record Line(Row row, Verdict verdict, String cell, String was, boolean open, String so, String files) {
        /** What it is, as its line is marked; empty until anything is said. */
        public String marks() {
            String word = "is-" + verdict.becomes().name().toLowerCase(Locale.ROOT);
            return so.isEmpty() ? "" : verdict.refused().isPresent() ? word + " is-refused" : word;
        }
    }

    /** Documents of one aspect that are made. */
    public record Made(long count, String words) {}

    @GetMapping("/documents/{id}/new-design")
    String begin(Actor actor, @PathVariable long id, Model model) {
        return shown(actor, id, read.first(actor, id), 0, model);
    }

    /** The same with what was typed so far. */
    @PostMapping("/documents/{id}/new-design/plan")
    String plan(Actor actor, @PathVariable long id, @RequestParam MultiValueMap<String, String> form, Model model) {
        DesignForm typed = new DesignForm(form);
        return shown(actor, id, typed.asked(id), typed.part(), model);
    }

    @PostMapping("/documents/{id}/new-design")
    String make(Actor actor, @PathVariable long id, @RequestParam MultiValueMap<String, String> form, Model model) {
        DesignForm typed = new DesignForm(form);
        // Sent again it is done once: its numbers are taken by now.
        Optional<String> begun = runs.begun(actor, typed.key());
        if (begun.isPresent()) return "redirect:" + begun.get();
        Asked asked = typed.asked(id);
        try {
            View view = read.of(actor, asked);
            if (!asked.begun()) throw new NotThere();
            Refused.unlessEmpty(view.refusals(), "design.refused", "Nothing was made.");
            Outline outline = view.outline();
            if (!seen(outline).equals(typed.seen()))
                throw Refused.because(
                        "page.old",
                        "What would be made is something else by now.",
                        "Look at it as it stands below; nothing was made.");
            List<Long> items = outline.copies().stream().map(c -> c.from().id()).toList();
            return "redirect:/runs/"
                    + over.begin(
                            actor,
                            Run.What.NEW_DESIGN,
                            items,
                            Wish.design(MakeDesign.said(asked.wish(), outline)),
                            Optional.empty(),
                            typed.key());
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return shown(actor, id, asked, typed.part(), model);
        }
    }

    private String shown(Actor actor, long id, Asked asked, int wanted, Model model) {
        View view = read.of(actor, asked);
        Outline outline = view.outline();
        if (into.of(actor).isEmpty()) throw new NotThere();
        List<Row> rows = outline.tree().rows();
        int parts = (rows.size() + SHOWN - 1) / SHOWN;
        int part = Math.min(wanted, parts - 1);
        model.addAttribute("id", id);
        model.addAttribute("asked", asked);
        model.addAttribute("view", view);
        model.addAttribute("outline", outline);
        model.addAttribute("top", outline.tree().top());
        model.addAttribute(
                "lines",
                rows.stream()
                        .skip((long) part * SHOWN)
                        .limit(SHOWN)
                        .map(r -> line(asked, outline, r))
                        .toList());
        model.addAttribute("part", part);
        model.addAttribute("parts", parts);
        model.addAttribute("shown", SHOWN);
        model.addAttribute("typed", DesignForm.joined(asked.wish().numbers()));
        model.addAttribute("views", VIEWS);
        model.addAttribute("targets", into.of(actor));
        model.addAttribute("seen", seen(outline));
        model.addAttribute("made", made(outline));
        model.addAttribute("becomes", becomes(outline));
        model.addAttribute("settled", asked.begun() ? outline.settled() : List.of());
        model.addAttribute("refused", asked.begun() ? view.refusals() : List.of());
        model.addAttribute("opens", asked.begun() && view.refusals().isEmpty());
        return "design/page";
    }

    private static Line line(Asked asked, Outline outline, Row row) {
        Verdict verdict = outline.verdict(row);
        // Until anything is said every number stands as it is, and can be typed over.
        if (!asked.begun())
            return new Line(row, verdict, row.main().number(), row.main().number(), true, "", "");
        String typed = asked.wish().numbers().get(row.id());
        String was = typed == null
                ? verdict.number()
                : outline.proposed().getOrDefault(row.id(), row.main().number());
        String files = outline.copies().stream()
                .filter(c -> c.thing() == row.id())
                .map(Outline.Copy::fileName)
                .collect(Collectors.joining(", "));
        return new Line(
                row,
                verdict,
                typed == null ? was : typed,
                was,
                verdict.becomes() != Becomes.WITHIN,
                so(row, verdict),
                files);
    }

    /** "new, by the rule", "is shared, though it is withdrawn". */
    private static String so(Row row, Verdict verdict) {
        if (verdict.refused().isPresent()) return verdict.refused().get().reason();
        boolean gone = row.main().seen().current().stage().stageClass() == StageClass.WITHDRAWN;
        return switch (verdict.becomes()) {
            case NEW ->
                verdict.settled()
                                .map(r -> "new; " + r.reason())
                                .orElseGet(() -> "new, " + verdict.by().words())
                        + (row.main().isBehind()
                                ? ", from version " + row.main().version().number() + ", not "
                                        + row.main().seen().version()
                                : "");
            case SHARED ->
                "is shared" + verdict.settled().map(r -> "; " + r.reason()).orElse("")
                        + (gone ? ", though it is withdrawn" : "");
            case EXCHANGED -> "is exchanged for another";
            case LEFT_OUT -> "is left out";
            case WITHIN -> "stands only in what is not made anew";
        };
    }

    private static List<Made> made(Outline outline) {
        Map<Aspect, Long> counts = new LinkedHashMap<>();
        outline.copies().forEach(c -> counts.merge(c.from().aspect(), 1L, Long::sum));
        List<Made> made = new ArrayList<>();
        counts.forEach((aspect, n) -> {
            String word = aspect.name().toLowerCase(Locale.ROOT);
            made.add(new Made(n, n == 1 ? word : word + "s"));
        });
        return made;
    }

    /** "5 become new, 4 are shared, 1 is left out". */
    private static String becomes(Outline outline) {
        List<String> parts = new ArrayList<>();
        for (Becomes one : Becomes.values()) {
            long n = outline.count(one);
            if (n == 0 || one == Becomes.WITHIN) continue;
            String verb = one == Becomes.NEW ? (n == 1 ? " becomes " : " become ") : n == 1 ? " is " : " are ";
            parts.add(n + verb + one.words());
        }
        return String.join(", ", parts) + ".";
    }

    /** By which it is known whether what would be made is what was looked at. */
    private static String seen(Outline outline) {
        StringBuilder all = new StringBuilder();
        for (Outline.Copy c : outline.copies())
            all.append(c.from().id())
                    .append(' ')
                    .append(c.from().version().number())
                    .append(' ')
                    .append(c.number())
                    .append(' ')
                    .append(c.fileName())
                    .append(' ')
                    .append(c.title())
                    .append('\n');
        outline.verdicts().forEach((id, v) -> all.append(id).append(v.becomes()).append(v.number()));
        return ContentHash.compute(all.toString().getBytes(StandardCharsets.UTF_8))
                .hex()
                .substring(0, 32);
    }
}
