package mintshelf.app.page.search;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.search.KeptSearchStore;
import mintshelf.app.use.columns.FactColumns;
import mintshelf.app.use.search.KeptSearches;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriComponentsBuilder;

/** Searches that are kept. */
@Controller
class KeptSearchPages {
    private final KeptSearches searches;
    private final FactColumns columns;

    KeptSearchPages(KeptSearches searches, FactColumns columns) {
        this.columns = columns;
        this.searches = searches;
    }

    /** Its hits; from now on they are not new any more. */
    @GetMapping("/searches/{id}")
    String show(Actor actor, @PathVariable long id) {
        KeptSearchStore.Kept kept = searches.look(actor, id);
        return "redirect:"
                + UriComponentsBuilder.fromPath("/search")
                        .queryParam("q", "{q}")
                        .queryParam("by", kept.order().name().toLowerCase(Locale.ROOT))
                        .queryParam("versions", kept.versions())
                        .queryParam("kept", id)
                        .encode()
                        .buildAndExpand(kept.q())
                        .toUriString();
    }

    @PostMapping("/searches")
    String keep(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String name,
            @RequestParam String q,
            @RequestParam(defaultValue = "fit") String by,
            @RequestParam(defaultValue = "false") boolean versions,
            @RequestParam Optional<Long> group,
            @RequestParam(defaultValue = "") List<String> columns,
            @RequestParam(defaultValue = "false") boolean told) {
        return "redirect:" + searches.keep(actor, actKey, kept(name, q, by, versions, group, columns), told);
    }

    @PostMapping("/searches/{id}")
    String change(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam String name,
            @RequestParam String q,
            @RequestParam(defaultValue = "fit") String by,
            @RequestParam(defaultValue = "false") boolean versions,
            @RequestParam Optional<Long> group,
            @RequestParam(defaultValue = "") List<String> columns) {
        return "redirect:" + searches.change(actor, actKey, id, kept(name, q, by, versions, group, columns));
    }

    private KeptSearchStore.New kept(
            String name, String q, String by, boolean versions, Optional<Long> group, List<String> columns) {
        return new KeptSearchStore.New(name, q, SearchPage.order(by), versions, group, this.columns.known(columns));
    }

    @PostMapping("/searches/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + searches.drop(actor, actKey, id);
    }

    @PostMapping("/searches/{id}/told")
    String told(Actor actor, @PathVariable long id, @RequestParam boolean told) {
        searches.tell(actor, id, told);
        return "redirect:/searches/" + id;
    }
}
