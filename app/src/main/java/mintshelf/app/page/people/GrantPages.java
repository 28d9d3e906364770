package mintshelf.app.page.people;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** People and grants: who is in which group, who has which role where, what a role gives. */
@Controller
public class GrantPages {
    private final KeepGrants keep;

    public GrantPages(KeepGrants keep) {
        this.keep = keep;
    }

    @GetMapping("/house/people")
    String page(Actor actor, Model model) {
        model.addAttribute("view", keep.view(actor));
        model.addAttribute("rights", Right.values());
        return "people/grants";
    }

    /**
     * @param who "g12" for a group, "p7" for a person
     * @param place "s3" for a shelf, "f9" for a folder; empty for everywhere
     */
    @PostMapping("/house/people/grants")
    String give(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam String who,
            @RequestParam String role,
            @RequestParam(defaultValue = "") String place,
            @RequestParam(defaultValue = "0") long kind) {
        if (!who.matches("[gp]\\d{1,18}") || !place.matches("([sf]\\d{1,18})?")) throw new NotThere();
        long id = Long.parseLong(who.substring(1));
        long where = place.isEmpty() ? 0 : Long.parseLong(place.substring(1));
        boolean group = who.startsWith("g");
        return "redirect:"
                + (place.startsWith("f")
                        ? keep.giveInFolder(actor, actKey, group, id, role, where, kind)
                        : keep.give(actor, actKey, group, id, role, where, kind));
    }

    @PostMapping("/house/people/grants/{grant}/take-away")
    String takeAway(Actor actor, @PathVariable long grant, @RequestParam String actKey) {
        return "redirect:" + keep.takeAway(actor, actKey, grant);
    }

    @PostMapping("/house/people/groups")
    String addGroup(Actor actor, @RequestParam String actKey, @RequestParam String name) {
        return "redirect:" + keep.addGroup(actor, actKey, name);
    }

    @PostMapping("/house/people/groups/{group}/join")
    String join(Actor actor, @PathVariable long group, @RequestParam String actKey, @RequestParam long person) {
        return "redirect:" + keep.join(actor, actKey, group, person);
    }

    @PostMapping("/house/people/groups/{group}/leave")
    String leave(Actor actor, @PathVariable long group, @RequestParam String actKey, @RequestParam long person) {
        return "redirect:" + keep.leaveGroup(actor, actKey, group, person);
    }

    @PostMapping("/house/people/roles")
    String keepRole(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String role,
            @RequestParam String name,
            @RequestParam(defaultValue = "") List<String> right) {
        Set<Right> rights = EnumSet.noneOf(Right.class);
        for (Right r : Right.values()) if (right.contains(r.name())) rights.add(r);
        return "redirect:" + keep.keepRole(actor, actKey, role, name, rights);
    }
}
