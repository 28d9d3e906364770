package mintshelf.app.page.document;

import java.util.Map;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Facts kept, a document dropped and brought back. */
@Controller
public class DocumentActs {
    private final KeepFacts keep;
    private final DropDocument drop;

    public DocumentActs(KeepFacts keep, DropDocument drop) {
        this.keep = keep;
        this.drop = drop;
    }

    @PostMapping("/documents/{id}/facts")
    String facts(Actor actor, @PathVariable long id, @RequestParam Map<String, String> form) {
        Map<String, String> typed = new TreeMap<>();
        Map<String, String> was = new TreeMap<>();
        form.forEach((name, value) -> {
            if (name.startsWith("fact.")) typed.put(name.substring(5), value);
            if (name.startsWith("was.")) was.put(name.substring(4), value);
        });
        return "redirect:"
                + keep.keep(
                        actor,
                        id,
                        form.getOrDefault("actKey", ""),
                        form.getOrDefault("title", ""),
                        typed,
                        was,
                        form.getOrDefault("why", ""));
    }

    @PostMapping("/documents/{id}/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam String why) {
        return "redirect:" + drop.drop(actor, id, actKey, why);
    }

    @PostMapping("/documents/{id}/bring-back")
    String bringBack(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + drop.bringBack(actor, id, actKey);
    }
}
