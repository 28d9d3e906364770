package mintshelf.app.page.people;

import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.person.GroupStore.Group;
import mintshelf.app.use.person.AddPeople;
import mintshelf.app.use.person.ReadGroup;
import mintshelf.app.use.person.ReadPeople;
import mintshelf.app.use.person.TakeDirectory;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** A group: who is in it and what that gives; somebody new in it; a directory of people. */
@Controller
public class GroupPages {
    private final ReadGroup read;
    private final ReadPeople people;
    private final AddPeople adding;
    private final TakeDirectory directory;

    public GroupPages(ReadGroup read, ReadPeople people, AddPeople adding, TakeDirectory directory) {
        this.read = read;
        this.people = people;
        this.adding = adding;
        this.directory = directory;
    }

    @GetMapping("/people/groups/{group}")
    String group(Actor actor, @PathVariable long group, Model model) {
        model.addAttribute("view", read.group(actor, group));
        model.addAttribute("mayAdd", HouseRules.keeps(actor));
        return "people/group";
    }

    /** Somebody new, in the group from the start. */
    @PostMapping("/people/groups/{group}/people")
    String add(
            Actor actor,
            @PathVariable long group,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String login,
            @RequestParam(defaultValue = "") String mail,
            Model model) {
        ReadGroup.View view = read.group(actor, group);
        Group of = view.group();
        try {
            AddPeople.Invited invited = adding.addTo(actor, of, name, login, mail);
            model.addAttribute("card", people.card(actor, invited.person()));
            model.addAttribute("token", invited.token());
            return "people/added";
        } catch (Refused e) {
            if (e.refusal().code().equals("access.missing")) throw e;
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("view", view);
            model.addAttribute("mayAdd", true);
            model.addAttribute("typedName", name);
            model.addAttribute("typedLogin", login);
            model.addAttribute("typedMail", mail);
            return "people/group";
        }
    }

    @GetMapping("/house/people/directory")
    String directory(Actor actor, Model model) {
        HouseRules.ask(actor);
        model.addAttribute("text", "");
        return "people/directory";
    }

    /** The plan of a directory; nothing is changed. */
    @PostMapping("/house/people/directory/plan")
    String plan(Actor actor, @RequestParam(defaultValue = "") String text, Model model) {
        HouseRules.ask(actor);
        model.addAttribute("text", text);
        try {
            model.addAttribute("plan", directory.plan(actor, text));
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
        }
        return "people/directory";
    }

    @PostMapping("/house/people/directory")
    String take(
            Actor actor,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "false") boolean invite,
            Model model) {
        model.addAttribute("taken", directory.take(actor, actKey, text, invite));
        model.addAttribute("text", "");
        return "people/directory";
    }
}
