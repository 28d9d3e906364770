package mintshelf.app.page.shelf;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.WayBack;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.ListStore.Filter;
import mintshelf.app.store.document.ListStore.Order;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.use.columns.FactColumns;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.person.Choices;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.access.Right;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;

/** The shelves, and a shelf with its documents as spines, loaded as one scrolls. */
@Controller
public class ShelfPage {
    /** Rows in one go: a screen and a half at 34 px a row. */
    static final int PAGE = 60;

    private final ReadShelf shelves;
    private final Choices choices;
    private final DropDocument drop;
    private final FactColumns columns;

    public ShelfPage(ReadShelf shelves, Choices choices, DropDocument drop, FactColumns columns) {
        this.columns = columns;
        this.drop = drop;
        this.shelves = shelves;
        this.choices = choices;
    }

    /** A row of the list: a folder's heading or a document. */
    public record ShelfRow(Folder heading, int count, Seen seen) {}

    @GetMapping("/shelves")
    String all(Actor actor, Model model) {
        model.addAttribute("shelves", shelves.shelves(actor));
        model.addAttribute("mayAdd", actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES));
        return "shelf/shelves";
    }

    @PostMapping("/shelves")
    String add(
            Actor actor,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String note,
            @RequestParam(defaultValue = "false") boolean library) {
        return "redirect:/shelves/" + shelves.addShelf(actor, name, note, library);
    }

    @PostMapping("/shelves/{id}/folders")
    String addFolder(
            Actor actor, @PathVariable long id, @RequestParam String name, @RequestParam Optional<Long> parent) {
        shelves.addFolder(actor, id, parent.map(OptionalLong::of).orElse(OptionalLong.empty()), name);
        return "redirect:/shelves/" + id;
    }

    @PostMapping("/shelves/{id}/being-revised")
    String hideRevising(Actor actor, @PathVariable long id, @RequestParam boolean hide) {
        shelves.hideRevising(actor, id, hide);
        return "redirect:/shelves/" + id;
    }

    @GetMapping("/shelves/{id}")
    String show(
            Actor actor,
            @PathVariable long id,
            @RequestParam Optional<String> order,
            @RequestParam Optional<String> show,
            @RequestParam Optional<Long> folder,
            Model model) {
        Map<String, String> mine = choices.settings(actor.person());
        Order by = order(order.orElse(mine.getOrDefault("shelf_order", "number")));
        if (order.isPresent() && !order.get().equals(mine.get("shelf_order"))) {
            choices.choose(actor, "shelf_order", name(by));
        }
        Filter filter = filter(show.orElse("everything"));
        ReadShelf.View view = shelves.shelf(actor, id, filter, true);
        model.addAttribute("view", view);
        model.addAttribute("order", name(by));
        model.addAttribute("show", name(filter));
        model.addAttribute("folder", folder.orElse(null));
        model.addAttribute(
                "folderName",
                folder.map(f -> view.folders().stream()
                                .filter(x -> x.id() == f)
                                .findFirst()
                                .orElseThrow(NotThere::new)
                                .name())
                        .orElse(null));
        model.addAttribute(
                "everyDesk", folder.filter(f -> shelves.isOnEveryDesk(id, f)).isPresent());
        model.addAttribute("dropped", drop.ofShelf(actor, id));
        fill(actor, by, filter, folder, OptionalLong.empty(), 0, view, model);
        return "shelf/page";
    }

    /** More rows behind the document {@code after}. */
    @GetMapping("/shelves/{id}/rows")
    String rows(
            Actor actor,
            @PathVariable long id,
            @RequestParam String order,
            @RequestParam String show,
            @RequestParam Optional<Long> folder,
            @RequestParam long after,
            @RequestParam(defaultValue = "0") long in,
            Model model) {
        Filter filter = filter(show);
        ReadShelf.View view = shelves.shelf(actor, id, filter, false);
        model.addAttribute("view", view);
        model.addAttribute("order", name(order(order)));
        model.addAttribute("show", name(filter));
        model.addAttribute("folder", folder.orElse(null));
        fill(actor, order(order), filter, folder, OptionalLong.of(after), in, view, model);
        return "shelf/_rows :: rows";
    }

    private void fill(
            Actor actor,
            Order order,
            Filter filter,
            Optional<Long> folder,
            OptionalLong after,
            long folderBefore,
            ReadShelf.View view,
            Model model) {
        OptionalLong only = folder.map(OptionalLong::of).orElse(OptionalLong.empty());
        List<Seen> rows = shelves.rows(actor, view, order, filter, only, after, PAGE + 1); // one more: is there more?
        boolean more = rows.size() > PAGE;
        List<Seen> shown = more ? rows.subList(0, PAGE) : rows;
        model.addAttribute("columns", columns.of(actor, shown));
        model.addAttribute("lines", lines(shown, order, view, folderBefore));
        model.addAttribute("returned", List.copyOf(shelves.returned(shown)));
        model.addAttribute("toSign", shelves.toSign(actor));
        model.addAttribute("next", more ? shown.get(shown.size() - 1).spine() : null);
    }

    private static List<ShelfRow> lines(List<Seen> rows, Order order, ReadShelf.View view, long folderBefore) {
        List<ShelfRow> lines = new ArrayList<>();
        Map<Long, Folder> folders = new HashMap<>();
        view.folders().forEach(f -> folders.put(f.id(), f));
        Map<Long, Integer> counts = null;
        long last = folderBefore;
        for (Seen seen : rows) {
            long in = seen.spine().folder();
            Folder folder = folders.get(in);
            if (order == Order.NUMBER && in != last && folder != null && !folder.isRoot()) {
                if (counts == null) counts = view.inFolder().get();
                lines.add(new ShelfRow(folder, counts.getOrDefault(in, 0), null));
            }
            last = in;
            lines.add(new ShelfRow(null, 0, seen));
        }
        return lines;
    }

    private static Order order(String text) {
        return switch (text) {
            case "number" -> Order.NUMBER;
            case "title" -> Order.TITLE;
            case "changed" -> Order.CHANGED;
            default -> throw new NotThere();
        };
    }

    private static Filter filter(String text) {
        for (Filter filter : Filter.values()) if (name(filter).equals(text)) return filter;
        throw new NotThere();
    }

    private static String name(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** What can be a column of one's lists; a part of pages that list. */
    @GetMapping("/me/columns")
    String columns(Actor actor, @RequestParam(required = false) List<String> chosen, Model model) {
        model.addAttribute("choices", chosen == null ? columns.choices(actor) : columns.choices(chosen));
        return "shelf/_columns :: columns";
    }

    @PostMapping("/me/columns")
    String chooseColumns(
            Actor actor,
            @RequestParam(defaultValue = "") List<String> column,
            @RequestParam(defaultValue = "/today") String back) {
        String to = WayBack.within(back);
        // The list of a kept search has columns of its own, which are kept with it.
        if (to.startsWith("/search?") && to.contains("kept=")) {
            String others = Arrays.stream(to.substring("/search?".length()).split("&"))
                    .filter(p -> !p.startsWith("columns=") && !p.isEmpty())
                    .collect(Collectors.joining("&"));
            return "redirect:/search?" + others + "&columns=" + String.join(",", columns.known(column));
        }
        columns.choose(actor, column);
        return "redirect:" + to;
    }

    /** How wide the columns of a list are for oneself. */
    @PostMapping("/me/widths")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void widen(Actor actor, @RequestParam String list, @RequestParam(defaultValue = "") String widths) {
        columns.widen(actor, list, widths);
    }

    /** A setting of one's own: density, theme, keys. */
    @PostMapping("/me/settings")
    String choose(
            Actor actor,
            @RequestParam String name,
            @RequestParam String value,
            @RequestParam(defaultValue = "/today") String back) {
        if (!List.of("density", "theme", "keys", "peek", "spines").contains(name)) throw new NotThere();
        choices.choose(actor, name, value);
        return "redirect:" + WayBack.within(back);
    }
}
