package mintshelf.app.page.house;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.Edition;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.house.House;
import mintshelf.core.house.Subject;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What the pages of all house rules share: editions beside each other, setting one back, a copy. */
@Controller
public class RulePages {
    private final ReadRules read;
    private final KeepRules keep;

    public RulePages(ReadRules read, KeepRules keep) {
        this.read = read;
        this.keep = keep;
    }

    @GetMapping("/house")
    String house() {
        return "redirect:/house/kinds";
    }

    static Subject subject(String word) {
        return switch (word) {
            case "kinds" -> Subject.KIND;
            case "series" -> Subject.SERIES;
            case "routes" -> Subject.ROUTE;
            case "facts" -> Subject.FACT;
            case "filing" -> Subject.FILING;
            case "sign-offs" -> Subject.SIGN_OFF;
            case "calendar" -> Subject.CALENDAR;
            case "distribution" -> Subject.DISTRIBUTION;
            case "change-control" -> Subject.CHANGE_CONTROL;
            case "notice-form" -> Subject.NOTICE_FORM;
            default -> throw new NotThere();
        };
    }

    /** Puts a rule's editions on its page, and what another one says otherwise where that is asked. */
    static List<Edition> editions(
            ReadRules read, Actor actor, Subject subject, String code, Optional<Integer> beside, Model model) {
        List<Edition> editions = read.editions(actor, subject, code);
        House house = read.house(actor);
        model.addAttribute("house", house);
        model.addAttribute("editions", editions);
        model.addAttribute("edition", editions.get(0));
        beside.ifPresent(number -> {
            Edition other = editions.stream()
                    .filter(e -> e.number() == number)
                    .findFirst()
                    .orElseThrow(NotThere::new);
            model.addAttribute("beside", other);
            model.addAttribute("differences", read.between(house, other, editions.get(0)));
        });
        return editions;
    }

    @PostMapping("/house/{word}/{code}/set-back")
    String setBack(
            Actor actor,
            @PathVariable String word,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam int number,
            @RequestParam int edition) {
        return "redirect:" + keep.setBack(actor, actKey, subject(word), code, number, edition);
    }

    /** Of what a house has one alone. */
    @PostMapping("/house/{word}/set-back")
    String setBackOne(
            Actor actor,
            @PathVariable String word,
            @RequestParam String actKey,
            @RequestParam int number,
            @RequestParam int edition) {
        Subject subject = subject(word);
        if (!subject.isOne()) throw new NotThere();
        return "redirect:" + keep.setBack(actor, actKey, subject, subject.code(), number, edition);
    }

    @PostMapping("/house/{word}/{code}/copy")
    String copy(
            Actor actor,
            @PathVariable String word,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam String name) {
        return "redirect:" + keep.copy(actor, actKey, subject(word), code, name);
    }
}
