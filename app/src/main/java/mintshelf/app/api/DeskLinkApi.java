package mintshelf.app.api;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.desk.DeskLinkStore.Act;
import mintshelf.app.use.desk.DeskLinks;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Links by which a page has the companion on its person's machine bring a file and open it. */
@RestController
@RequestMapping("/api/v1")
class DeskLinkApi {
    private final DeskLinks links;

    DeskLinkApi(DeskLinks links) {
        this.links = links;
    }

    /** @param tag by which the companion knows links that are for this desk */
    record DeskOpens(String tag) {}

    /** Lets pages of its person open files on a desk. */
    @PutMapping("/desks/{name}/opens")
    DeskOpens opens(Actor actor, @PathVariable String name) {
        return new DeskOpens(links.open(actor, name));
    }

    /** Pages open no more files there. */
    @DeleteMapping("/desks/{name}/opens")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void closes(Actor actor, @PathVariable String name) {
        links.close(actor, name);
    }

    /** @param act look or work */
    record Ask(
            long document,
            Integer version,
            @NotNull @Pattern(regexp = "look|work") String act,
            @NotNull String desk) {}

    record LinkMade(long id, String link) {}

    /** Makes a link to a document: good once, for two minutes. */
    @PostMapping("/desk-links")
    LinkMade offer(Actor actor, @Valid @RequestBody Ask ask) {
        DeskLinks.Offered made = links.offer(
                actor,
                ask.document(),
                Optional.ofNullable(ask.version()),
                Act.valueOf(ask.act().toUpperCase(Locale.ROOT)),
                ask.desk());
        return new LinkMade(made.id(), made.link());
    }

    record Take(@NotNull @Pattern(regexp = "[a-z2-7]{26}") String code) {}

    /** @param act look or work */
    record LinkWanted(long id, String desk, long document, String number, int version, String act) {}

    /** The companion takes a link by its code. */
    @PostMapping("/desk-links/take")
    LinkWanted take(Actor actor, @Valid @RequestBody Take take) {
        DeskLinks.Wanted w = links.take(actor, take.code());
        return new LinkWanted(
                w.id(),
                w.desk(),
                w.item(),
                w.number(),
                w.version(),
                w.act().name().toLowerCase(Locale.ROOT));
    }

    record Told(boolean done, @NotNull String says) {}

    /** The companion says what became of a link that it took. */
    @PostMapping("/desk-links/{id}/told")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void told(Actor actor, @PathVariable long id, @Valid @RequestBody Told told) {
        links.told(actor, id, told.done(), told.says());
    }

    /** @param state waiting, taken, done, refused or late */
    record LinkState(String state, String says) {}

    /** How far a link has come. */
    @GetMapping("/desk-links/{id}")
    LinkState how(Actor actor, @PathVariable long id) {
        DeskLinks.How how = links.how(actor, id);
        return new LinkState(how.state().name().toLowerCase(Locale.ROOT), how.says());
    }
}
