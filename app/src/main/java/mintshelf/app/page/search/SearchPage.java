package mintshelf.app.page.search;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.OneNumber;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.search.Ask.Order;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.use.columns.FactColumns;
import mintshelf.app.use.search.ExportHits;
import mintshelf.app.use.search.FindAlike;
import mintshelf.app.use.search.KeptSearches;
import mintshelf.app.use.search.LookUp;
import mintshelf.app.use.search.Search;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** Search results as a page and as a table, and a few of them while typing. */
@Controller
public class SearchPage {
    private static final int PAGE = 50;
    private static final int HINTS = 8;
    private final Search search;
    private final KeptSearches searches;
    private final FindAlike alike;
    private final FactColumns columns;
    private final LookUp lookUp;
    private final ExportHits export;

    SearchPage(
            Search search,
            KeptSearches searches,
            FactColumns columns,
            FindAlike alike,
            LookUp lookUp,
            ExportHits export) {
        this.alike = alike;
        this.columns = columns;
        this.searches = searches;
        this.search = search;
        this.lookUp = lookUp;
        this.export = export;
    }

    /** A document with what of it fits: a line of its words, or some of its versions. */
    public record Row(Seen seen, String says, List<VersionStore.Brief> versions) {}

    @GetMapping("/search")
    String results(
            Actor actor,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "fit") String by,
            @RequestParam(defaultValue = "false") boolean versions,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam Optional<Long> kept,
            @RequestParam(required = false) List<String> columns,
            Model model) {
        Order order = order(by);
        Search.Wish wish = new Search.Wish(q, order, versions, from, PAGE, true);
        Search.Found found = search.find(actor, wish);
        model.addAttribute("q", q);
        model.addAttribute("found", found);
        model.addAttribute("rows", rows(found.hits()));
        model.addAttribute(
                "others",
                OneNumber.of(found.hits().stream().map(Search.Hit::seen).toList()));
        Optional<KeptSearchStore.Kept> shown = kept.map(id -> searches.kept(actor, id));
        List<Seen> seen = found.hits().stream().map(Search.Hit::seen).distinct().toList();
        Optional<List<String>> own = Optional.ofNullable(columns)
                .map(this.columns::known)
                .or(() -> shown.map(KeptSearchStore.Kept::columns).filter(c -> !c.isEmpty()));
        model.addAttribute(
                "columns", own.map(c -> this.columns.of(c, seen)).orElseGet(() -> this.columns.of(actor, seen)));
        model.addAttribute("ownColumns", own.map(c -> String.join(",", c)).orElse(null));
        model.addAttribute("by", order.name().toLowerCase(Locale.ROOT));
        model.addAttribute("versions", versions);
        model.addAttribute("from", wish.from());
        model.addAttribute("page", PAGE);
        model.addAttribute("most", Search.MOST);
        int behind = found.total() - wish.from() - PAGE;
        model.addAttribute("next", wish.from() + PAGE > Search.MOST ? 0 : Math.max(0, Math.min(PAGE, behind)));
        model.addAttribute("kept", shown.orElse(null));
        model.addAttribute("groups", found.question().isEmpty() ? Map.of() : searches.groups(actor));
        model.addAttribute("searches", found.question().isEmpty() ? searches.lines(actor) : List.of());
        return "search/page";
    }

    static Order order(String by) {
        for (Order order : Order.values()) {
            if (order.name().equalsIgnoreCase(by)) return order;
        }
        return Order.FIT;
    }

    /** Versions of one document that stand side by side are one row. */
    private static List<Row> rows(List<Search.Hit> hits) {
        Map<Long, List<Search.Hit>> byItem = new LinkedHashMap<>();
        hits.forEach(h -> byItem.computeIfAbsent(h.seen().spine().id(), i -> new ArrayList<>())
                .add(h));
        return byItem.values().stream()
                .map(of -> new Row(
                        of.get(0).seen(),
                        of.get(0).version().isPresent() ? "" : of.get(0).says(),
                        of.stream()
                                .map(Search.Hit::version)
                                .flatMap(Optional::stream)
                                .toList()))
                .toList();
    }

    /** Documents like one. */
    @GetMapping("/documents/{id}/like")
    String like(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("view", alike.like(actor, id));
        return "search/like";
    }

    /** All hits as a table that table programs open. */
    @GetMapping("/search/hits.{form:csv|xlsx}")
    ResponseEntity<byte[]> table(
            Actor actor,
            @PathVariable String form,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(defaultValue = "fit") String by) {
        boolean csv = form.equals("csv");
        byte[] file = export.table(actor, q, order(by), csv);
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("hits." + form)
                                .build()
                                .toString())
                .contentType(MediaType.parseMediaType(
                        csv
                                ? "text/csv;charset=UTF-8"
                                : "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"))
                .body(file);
    }

    /** Whom a field could name. */
    @GetMapping("/look-up/people")
    @ResponseBody
    List<LookUp.Found> people(Actor actor, @RequestParam(defaultValue = "") String q) {
        return lookUp.people(actor, q);
    }

    /** What a field could name. */
    @GetMapping("/look-up/documents")
    @ResponseBody
    List<LookUp.Found> documents(Actor actor, @RequestParam(defaultValue = "") String q) {
        return lookUp.documents(actor, q);
    }

    @GetMapping("/search/hints")
    String hints(Actor actor, @RequestParam(defaultValue = "") String q, Model model) {
        model.addAttribute("q", q);
        model.addAttribute("found", search.find(actor, Search.Wish.first(q, HINTS)));
        return "search/_hints :: hints";
    }
}
