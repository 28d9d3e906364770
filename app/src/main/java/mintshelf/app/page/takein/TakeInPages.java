package mintshelf.app.page.takein;

import jakarta.servlet.http.HttpServletResponse;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.TableAnswer;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.TakeRules;
import mintshelf.core.takein.TakeRules.Stands;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;

/** Taking in what a company has: bringing, the dry run, its mending, the report. */
@Controller
public class TakeInPages {
    private static final int ROWS = 50;

    private final TakeIns takeIns;

    public TakeInPages(TakeIns takeIns) {
        this.takeIns = takeIns;
    }

    @GetMapping("/shelves/{shelf}/take-ins")
    String onShelf(Actor actor, @PathVariable long shelf, @RequestParam Optional<Long> folder, Model model) {
        model.addAttribute("on", takeIns.onShelf(actor, shelf));
        model.addAttribute("folder", folder.orElse(null));
        return "takein/shelf";
    }

    @PostMapping("/shelves/{shelf}/take-ins")
    String begin(
            Actor actor,
            @PathVariable long shelf,
            @RequestParam Optional<Long> folder,
            @RequestParam String name,
            Model model) {
        try {
            OptionalLong to = folder.map(OptionalLong::of).orElse(OptionalLong.empty());
            return "redirect:/take-ins/" + takeIns.begin(actor, shelf, to, name);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return onShelf(actor, shelf, folder, model);
        }
    }

    @GetMapping("/take-ins/{id}")
    String show(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<String> show,
            @RequestParam(defaultValue = "0") int from,
            @RequestHeader(name = "HX-Request", defaultValue = "false") boolean part,
            HttpServletResponse response,
            Model model) {
        // What is asked again and again while it works is loaded as a whole once it does not: its scripts belong to the
        // page.
        if (part && !takeIns.state(actor, id).isWorking()) response.setHeader("HX-Refresh", "true");
        return page(actor, id, show, from, model);
    }

    private String page(Actor actor, long id, Optional<String> show, int from, Model model) {
        TakeIns.View view = takeIns.view(actor, id);
        Filter filter = filter(show, view);
        List<TakenFile> rows = takeIns.files(actor, id, filter, from, ROWS + 1);
        model.addAttribute("view", view);
        model.addAttribute("show", filter);
        model.addAttribute("rows", rows.subList(0, Math.min(ROWS, rows.size())));
        model.addAttribute("next", rows.size() > ROWS ? rows.get(ROWS).at() : -1);
        model.addAttribute("from", Math.max(0, from));
        model.addAttribute("stands", Stands.values());
        model.addAttribute("all", Filter.ALL);
        model.addAttribute("kindColumn", Column.KIND);
        model.addAttribute("stageColumn", Column.STAGE);
        model.addAttribute("leaveColumn", Column.LEAVE_OUT);
        model.addAttribute(
                "kindNames",
                view.kinds().stream().collect(Collectors.toMap(TakeIns.KindName::id, TakeIns.KindName::name)));
        model.addAttribute("chips", chips(view));
        model.addAttribute(
                "columns",
                List.of(
                        Column.NUMBER,
                        Column.REVISION,
                        Column.TITLE,
                        Column.DATE,
                        Column.SIGNERS,
                        Column.FORMER,
                        Column.FOLDER));
        return "takein/page";
    }

    /** A filter that has something, with its words. */
    public record Chip(Filter filter, String words, int files) {
        public String code() {
            return Chip.code(filter);
        }

        static String code(Filter filter) {
            return filter.name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    private static List<Chip> chips(TakeIns.View view) {
        Map<Filter, String> words = new EnumMap<>(Filter.class);
        words.put(Filter.STOPS, "to be mended");
        words.put(Filter.WAITS, "wait for another revision");
        words.put(Filter.HINTED, "worth a look");
        words.put(Filter.GOES, "go");
        words.put(Filter.LEFT_OUT, "left out");
        words.put(Filter.FILED, "taken in");
        words.put(Filter.ALL, "all");
        return List.of(
                        Filter.STOPS,
                        Filter.WAITS,
                        Filter.HINTED,
                        Filter.GOES,
                        Filter.LEFT_OUT,
                        Filter.FILED,
                        Filter.ALL)
                .stream()
                .map(f -> new Chip(f, words.get(f), view.counts().get(f)))
                .filter(c -> c.files() > 0)
                .toList();
    }

    /** What is asked for, else what wants the most doing. */
    private static Filter filter(Optional<String> show, TakeIns.View view) {
        for (Filter filter : Filter.values()) {
            if (show.filter(Chip.code(filter)::equals).isPresent()) return filter;
        }
        return view.counts().get(Filter.STOPS) > 0 && !view.takeIn().isDone() ? Filter.STOPS : Filter.ALL;
    }

    @PostMapping("/take-ins/{id}/read")
    String read(Actor actor, @PathVariable long id, Model model) {
        return then(actor, id, model, Optional.empty(), () -> takeIns.read(actor, id));
    }

    @PostMapping("/take-ins/{id}/more")
    String more(Actor actor, @PathVariable long id, Model model) {
        return then(actor, id, model, Optional.empty(), () -> takeIns.bringMore(actor, id));
    }

    @PostMapping("/take-ins/{id}/stop")
    String stop(Actor actor, @PathVariable long id, Model model) {
        return then(actor, id, model, Optional.empty(), () -> takeIns.stop(actor, id));
    }

    @PostMapping("/take-ins/{id}/file")
    String file(Actor actor, @PathVariable long id, @RequestParam int documents, Model model) {
        return then(actor, id, model, Optional.empty(), () -> takeIns.file(actor, id, documents));
    }

    @PostMapping("/take-ins/{id}/table/drop")
    String dropTable(Actor actor, @PathVariable long id, Model model) {
        return then(actor, id, model, Optional.empty(), () -> takeIns.dropTable(actor, id));
    }

    @PostMapping("/take-ins/{id}/rules")
    String rules(
            Actor actor,
            @PathVariable long id,
            @RequestParam Stands stands,
            @RequestParam(defaultValue = "false") boolean doubles,
            @RequestParam(defaultValue = "false") boolean unknown,
            @RequestParam(defaultValue = "false") boolean folders,
            @RequestParam Optional<String> show,
            Model model) {
        TakeRules rules = new TakeRules(stands, doubles, unknown, folders);
        return then(actor, id, model, show, () -> takeIns.setRules(actor, id, rules));
    }

    /** What is said of one file by hand; what a field is left empty is not said. */
    @PostMapping("/take-ins/{id}/files/{at}")
    String mend(
            Actor actor,
            @PathVariable long id,
            @PathVariable int at,
            @RequestParam Map<String, String> form,
            @RequestParam Optional<String> show,
            Model model) {
        Map<Column, String> said = new EnumMap<>(Column.class);
        for (Column column : Column.values()) {
            if (form.containsKey(column.name())) said.put(column, form.get(column.name()));
        }
        return then(actor, id, model, show, () -> takeIns.mend(actor, id, at, said));
    }

    @PostMapping("/take-ins/{id}/end")
    String end(Actor actor, @PathVariable long id, Model model) {
        long shelf = takeIns.state(actor, id).shelf();
        try {
            takeIns.end(actor, id);
            return "redirect:/shelves/" + shelf + "/take-ins";
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return page(actor, id, Optional.empty(), 0, model);
        }
    }

    private String then(Actor actor, long id, Model model, Optional<String> show, Runnable act) {
        try {
            act.run();
            return "redirect:/take-ins/" + id
                    + show.filter(s -> s.matches("[a-z-]+"))
                            .map(s -> "?show=" + s)
                            .orElse("");
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            return page(actor, id, show, 0, model);
        }
    }

    /** @param format csv or xlsx */
    @GetMapping("/take-ins/{id}/table.{format}")
    ResponseEntity<byte[]> table(Actor actor, @PathVariable long id, @PathVariable String format) {
        List<List<String>> rows = takeIns.table(actor, id);
        return TableAnswer.of(takeIns.state(actor, id).name(), format, "Dry run", rows);
    }
}
