package mintshelf.app.page.record;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.app.use.record.ReadRecord;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The record of the whole house. */
@Controller
public class RecordPage {
    private static final int PAGE = 60;
    private static final Map<String, String> ACTS = new LinkedHashMap<>();

    static {
        ACTS.put("version.", "versions");
        ACTS.put("revision.", "revisions");
        ACTS.put("hold.", "holds");
        ACTS.put("stray.", "strays");
        ACTS.put("facts.", "facts");
        ACTS.put("house.", "house rules and grants");
        ACTS.put("person.", "people");
        ACTS.put("access.", "refused");
    }

    private final ReadRecord record;
    private final Clock clock;

    public RecordPage(ReadRecord record, Clock clock) {
        this.record = record;
        this.clock = clock;
    }

    @GetMapping("/record")
    String show(
            Actor actor,
            @RequestParam(name = "acts") Optional<String> asked,
            @RequestParam Optional<String> before,
            @RequestParam(defaultValue = "9223372036854775807") long stream,
            Model model) {
        Optional<String> acts = asked.filter(a -> !a.isEmpty());
        if (acts.isPresent() && !ACTS.containsKey(acts.get())) throw new NotThere();
        List<Shown> entries = record.ofHouse(
                actor, before.map(RecordPage::instant).orElse(clock.instant().plusSeconds(60)), stream, acts, PAGE + 1);
        List<Shown> shown = entries.size() > PAGE ? entries.subList(0, PAGE) : entries;
        model.addAttribute("entries", shown);
        model.addAttribute("acts", acts.orElse(""));
        model.addAttribute("kinds", ACTS);
        model.addAttribute("next", entries.size() > PAGE ? shown.get(PAGE - 1) : null);
        return "record/page";
    }

    private static Instant instant(String text) {
        try {
            return Instant.parse(text);
        } catch (DateTimeException e) {
            throw new NotThere();
        }
    }
}
