package mintshelf.app.page.people;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.person.PersonStore.Person;
import mintshelf.app.use.person.AddPeople;
import mintshelf.app.use.person.Leaving;
import mintshelf.app.use.person.People;
import mintshelf.app.use.person.ReadPeople;
import mintshelf.app.use.person.ReadReach;
import mintshelf.app.use.person.Sessions;
import mintshelf.app.use.person.SetAway;
import mintshelf.core.access.Right;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** People: the list, the contact card, adding one like another. */
@Controller
public class PeoplePage {
    private static final int PAGE = 50;
    private final People people;
    private final AddPeople adding;
    private final ReadPeople read;
    private final ReadReach reach;
    private final Leaving leaving;
    private static final int DEPUTIES = 300;

    private final Sessions sessions;
    private final SetAway away;

    public PeoplePage(
            People people,
            AddPeople adding,
            ReadPeople read,
            ReadReach reach,
            Leaving leaving,
            Sessions sessions,
            SetAway away) {
        this.reach = reach;
        this.leaving = leaving;
        this.away = away;
        this.sessions = sessions;
        this.people = people;
        this.adding = adding;
        this.read = read;
    }

    @GetMapping("/people")
    String all(
            Actor actor,
            @RequestParam(defaultValue = "") String after,
            @RequestParam(defaultValue = "0") long afterId,
            Model model) {
        List<Person> found = read.people(actor, after, afterId, PAGE + 1);
        List<Person> shown = found.size() > PAGE ? found.subList(0, PAGE) : found;
        model.addAttribute("people", shown);
        model.addAttribute("groups", read.groups(shown));
        model.addAttribute("next", found.size() > PAGE ? shown.get(PAGE - 1) : null);
        model.addAttribute("mayAdd", actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES));
        return "people/page";
    }

    @GetMapping("/people/{id}")
    String card(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("card", read.card(actor, id));
        model.addAttribute("mayAdd", actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES));
        model.addAttribute("own", actor.person() == id);
        model.addAttribute("maySetAway", SetAway.may(actor, id));
        if (SetAway.may(actor, id)) model.addAttribute("deputies", read.people(actor, "", 0, DEPUTIES));
        model.addAttribute("today", away.today());
        model.addAttribute("sessions", actor.person() == id ? sessions.of(actor) : List.of());
        boolean keeps = HouseRules.keeps(actor);
        model.addAttribute("reach", keeps ? reach.ofPerson(actor, id) : List.of());
        return "people/card";
    }

    /** Away from a day until a day, and who stands in. */
    @PostMapping("/people/{id}/away")
    String away(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam LocalDate from,
            @RequestParam LocalDate until,
            @RequestParam(defaultValue = "0") long standsin) {
        return "redirect:"
                + away.away(actor, actKey, id, from, until, standsin == 0 ? Optional.empty() : Optional.of(standsin));
    }

    @PostMapping("/people/{id}/back")
    String back(Actor actor, @PathVariable long id, @RequestParam String actKey) {
        return "redirect:" + away.back(actor, actKey, id);
    }

    /** One's own password. */
    @PostMapping("/me/password")
    String password(Actor actor, @RequestParam String old, @RequestParam String fresh) {
        people.changePassword(actor, old, fresh);
        return "redirect:/people/" + actor.person() + "?changed";
    }

    @PostMapping("/me/sessions/{name}/end")
    String endSession(Actor actor, @PathVariable String name) {
        sessions.end(actor, name);
        return "redirect:/people/" + actor.person();
    }

    @PostMapping("/people/{id}/invite")
    String inviteAgain(Actor actor, @PathVariable long id, Model model) {
        AddPeople.Invited invited = people.inviteAgain(actor, id);
        model.addAttribute("card", read.card(actor, id));
        model.addAttribute("token", invited.token());
        return "people/added";
    }

    /** What somebody's leaving would do, and who takes over. */
    @GetMapping("/people/{id}/leave")
    String leaving(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("plan", leaving.plan(actor, id));
        return "people/leave";
    }

    @PostMapping("/people/{id}/leave")
    String leave(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "0") long heir) {
        leaving.leave(actor, id, heir);
        return "redirect:/people/" + id;
    }

    /** The card alone, for the small window beside a name. */
    @GetMapping("/people/{id}/card")
    String small(Actor actor, @PathVariable long id, Model model) {
        model.addAttribute("card", read.card(actor, id));
        return "people/_card :: card";
    }

    @GetMapping("/people/{id}/like")
    String likePage(Actor actor, @PathVariable long id, Model model) {
        if (!actor.access().mayEverywhere(Right.KEEP_HOUSE_RULES)) {
            throw Refused.because(
                    "access.missing", "Only who keeps the house rules adds people.", "Ask a data manager.");
        }
        model.addAttribute("card", read.card(actor, id));
        return "people/like";
    }

    @PostMapping("/people/{id}/like")
    String add(
            Actor actor,
            @PathVariable long id,
            @RequestParam String name,
            @RequestParam(defaultValue = "") String login,
            @RequestParam(defaultValue = "") String mail,
            Model model) {
        try {
            AddPeople.Invited invited = adding.addLike(actor, id, name, login, mail);
            model.addAttribute("card", read.card(actor, invited.person()));
            model.addAttribute("token", invited.token());
            return "people/added";
        } catch (Refused e) {
            if (e.refusal().code().equals("access.missing")) throw e;
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("card", read.card(actor, id));
            model.addAttribute("typedName", name);
            model.addAttribute("typedLogin", login);
            model.addAttribute("typedMail", mail);
            return "people/like";
        }
    }
}
