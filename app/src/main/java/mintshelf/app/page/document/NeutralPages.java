package mintshelf.app.page.document;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.FileAnswer;
import mintshelf.app.store.document.NeutralStore.Copy;
import mintshelf.app.use.document.FetchFiles;
import mintshelf.app.use.neutral.BringNeutral;
import mintshelf.core.document.NeutralForm;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Neutral copies: fetched, brought, taken away. */
@Controller
public class NeutralPages {
    private final BringNeutral neutral;
    private final FetchFiles fetch;
    private final FileAnswer files;

    public NeutralPages(BringNeutral neutral, FetchFiles fetch, FileAnswer files) {
        this.neutral = neutral;
        this.fetch = fetch;
        this.files = files;
    }

    @GetMapping("/documents/{id}/versions/{number}/copies/{form}")
    void copy(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @PathVariable String form,
            HttpServletRequest request,
            HttpServletResponse response)
            throws IOException {
        Copy copy = neutral.copy(actor, id, fetch.fetch(actor, id, number), form(form));
        files.send(copy.content(), copy.fileName(), true, request, response);
    }

    @PostMapping("/documents/{id}/versions/{number}/copies")
    String bring(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @RequestParam String actKey,
            @RequestParam List<String> uploads) {
        return "redirect:" + neutral.bring(actor, id, number, actKey, uploads);
    }

    @PostMapping("/documents/{id}/versions/{number}/copies/{name}/remove")
    String remove(
            Actor actor,
            @PathVariable long id,
            @PathVariable int number,
            @PathVariable String name,
            @RequestParam String actKey) {
        return "redirect:" + neutral.remove(actor, id, number, actKey, form(name));
    }

    private static NeutralForm form(String word) {
        return Stream.of(NeutralForm.values())
                .filter(f -> f.name().equals(word.toUpperCase(Locale.ROOT)))
                .findFirst()
                .orElseThrow(NotThere::new);
    }
}
