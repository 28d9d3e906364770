package mintshelf.app.page.structure;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.Pages;
import mintshelf.app.page.WayBack;
import mintshelf.app.use.columns.BomColumns;
import mintshelf.core.bom.Bom;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Which facts bills of materials show as columns. */
@Controller
public class BomColumnPages {
    private final BomColumns columns;

    public BomColumnPages(BomColumns columns) {
        this.columns = columns;
    }

    private static Bom.For who(String word) {
        return Bom.For.of(word).orElseThrow(NotThere::new);
    }

    @GetMapping("/me/bom-columns")
    String choices(Actor actor, @RequestParam String who, Model model) {
        model.addAttribute("c", columns.choices(actor, who(who)));
        model.addAttribute("who", who);
        return "structure/_bom-columns";
    }

    @PostMapping("/me/bom-columns")
    String choose(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String who,
            @RequestParam(defaultValue = "") List<String> column,
            @RequestParam(defaultValue = "") String group,
            @RequestParam(required = false) String forget,
            @RequestParam(defaultValue = "/today") String back) {
        if (forget != null) columns.forget(actor, actKey, who(who));
        else {
            Optional<Long> of = Pages.ids(group).stream().findFirst();
            if (of.isEmpty() && !group.isBlank()) throw new NotThere();
            columns.choose(actor, actKey, who(who), column, of);
        }
        return "redirect:" + WayBack.within(back);
    }
}
