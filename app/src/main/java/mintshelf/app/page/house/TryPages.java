package mintshelf.app.page.house;

import java.io.IOException;
import java.io.InputStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.house.Tried;
import mintshelf.app.use.house.TryDocument;
import mintshelf.app.use.house.TryIt;
import mintshelf.app.use.person.ReadPeople;
import mintshelf.core.route.RouteMap;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the rules would make of a file, named or dropped, by whom, where, and what they make of a document. Nothing is stored. */
@Controller
public class TryPages {
    private static final int MOST = 500;
    private static final int PEOPLE = 200;
    private final TryIt tryIt;
    private final TryDocument tryDocument;
    private final ReadPeople people;

    public TryPages(TryIt tryIt, TryDocument tryDocument, ReadPeople people) {
        this.tryIt = tryIt;
        this.tryDocument = tryDocument;
        this.people = people;
    }

    @GetMapping("/house/try")
    String page(
            Actor actor,
            @RequestParam(defaultValue = "") String name,
            @RequestParam(defaultValue = "0") long person,
            @RequestParam(defaultValue = "0") long folder,
            Model model) {
        var spots = tryIt.spots(actor, MOST);
        model.addAttribute("spots", spots);
        model.addAttribute("people", people.people(actor, "", 0, PEOPLE));
        long by = person == 0 ? actor.person() : person;
        long in = folder == 0 && !spots.isEmpty() ? spots.get(0).folder() : folder;
        model.addAttribute("by", by);
        model.addAttribute("in", in);
        model.addAttribute("name", name);
        if (!name.isBlank() && in > 0) {
            // The number of a document is asked of the document; any other text is the name of a file.
            Tried tried = tryDocument.of(actor, name, by).orElseGet(() -> tryIt.of(actor, name, new byte[0], by, in));
            fill(tried, model);
        }
        return "house/try";
    }

    /** The file itself is the body; only so much of it is read as a sheet may have here. */
    @PostMapping("/house/try")
    String file(
            Actor actor,
            @RequestParam String name,
            @RequestParam long person,
            @RequestParam long folder,
            InputStream body,
            Model model)
            throws IOException {
        fill(tryIt.of(actor, name, body.readAllBytes(), person, folder), model);
        return "house/try :: answer";
    }

    private static void fill(Tried tried, Model model) {
        model.addAttribute("tried", tried);
        tried.route().ifPresent(r -> model.addAttribute("map", RouteMap.of(r)));
    }
}
