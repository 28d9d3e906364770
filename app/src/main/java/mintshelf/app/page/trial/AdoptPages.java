package mintshelf.app.page.trial;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.page.ZipAnswer;
import mintshelf.app.sight.Compared;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadVersion;
import mintshelf.app.use.trial.AdoptTrial;
import mintshelf.app.use.trial.FetchTrial;
import mintshelf.app.use.trial.PlanAdoption;
import mintshelf.core.document.VersionName;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What leaves a trial: its files, and its result as the next versions of its documents. */
@Controller
public class AdoptPages {
    private final PlanAdoption plans;
    private final AdoptTrial adopt;
    private final ReadVersion versions;
    private final CompareSheets sheets;
    private final FetchTrial fetch;
    private final ZipAnswer zip;

    public AdoptPages(
            PlanAdoption plans,
            AdoptTrial adopt,
            ReadVersion versions,
            CompareSheets sheets,
            FetchTrial fetch,
            ZipAnswer zip) {
        this.fetch = fetch;
        this.zip = zip;
        this.plans = plans;
        this.adopt = adopt;
        this.versions = versions;
        this.sheets = sheets;
    }

    @GetMapping("/trials/{id}/adopt")
    String show(Actor actor, @PathVariable long id, Model model) {
        PlanAdoption.Plan plan = plans.plan(actor, id);
        Map<Long, String> pictures = new HashMap<>();
        for (PlanAdoption.Row row : plan.rows()) {
            if (row.way() != PlanAdoption.Way.SHEET) continue;
            var line = row.tried().line();
            VersionName from = VersionName.main(line.fromNumber());
            picture(actor, row.tried().item(), from, line.gets()).ifPresent(svg -> pictures.put(line.item(), svg));
        }
        model.addAttribute("plan", plan);
        model.addAttribute("pictures", pictures);
        return "trial/adopt";
    }

    private Optional<String> picture(Actor actor, long item, VersionName from, VersionName to) {
        return sheets.draw(
                        versions.version(actor, item, from).content(),
                        versions.version(actor, item, to).content())
                .map(Compared::svg);
    }

    @GetMapping("/trials/{id}/files.zip")
    void files(Actor actor, @PathVariable long id, HttpServletResponse response) throws IOException {
        FetchTrial.Bundle bundle = fetch.bundle(actor, id);
        zip.send(bundle.name(), bundle.files(), Optional.of(bundle.says()), response);
    }

    /** Fields {@code over.DOCUMENT} are numbers of differences. */
    @PostMapping("/trials/{id}/adopt")
    String adopt(
            Actor actor,
            @PathVariable long id,
            @RequestParam(required = false) List<Long> item,
            @RequestParam(required = false) List<Long> drop,
            @RequestParam(defaultValue = "") String comment,
            @RequestParam String shown,
            @RequestParam String actKey,
            @RequestParam MultiValueMap<String, String> form,
            Model model) {
        Map<Long, Set<Integer>> over = new HashMap<>();
        form.forEach((name, values) -> {
            if (!name.matches("over\\.\\d{1,18}")) return;
            Set<Integer> numbers = over.computeIfAbsent(Long.parseLong(name.substring(5)), k -> new HashSet<>());
            values.stream().filter(v -> v.matches("\\d{1,9}")).forEach(v -> numbers.add(Integer.parseInt(v)));
        });
        try {
            return "redirect:"
                    + adopt.adopt(
                            actor,
                            id,
                            new AdoptTrial.Choice(
                                    item == null ? Set.of() : new HashSet<>(item),
                                    over,
                                    drop == null ? new ArrayList<>() : drop,
                                    comment,
                                    shown),
                            actKey);
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("typed", comment);
            return show(actor, id, model);
        }
    }
}
