package mintshelf.app.page.notice;

import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.notice.FollowStore.Kind;
import mintshelf.app.use.notice.Follow;
import mintshelf.app.use.notice.ShowTo;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.notice.NoticeKind;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Following something, all that one follows and when mails come, and showing a page to a colleague. */
@Controller
public class FollowPages {
    private final Follow follow;
    private final ShowTo showTo;

    public FollowPages(Follow follow, ShowTo showTo) {
        this.follow = follow;
        this.showTo = showTo;
    }

    private static Kind kind(String word) {
        for (Kind kind : Kind.values()) if (kind.name().toLowerCase(Locale.ROOT).equals(word)) return kind;
        throw new NotThere();
    }

    @GetMapping("/follow/{what}/{id}")
    String subject(Actor actor, @PathVariable String what, @PathVariable long id, Model model) {
        model.addAttribute("subject", follow.subject(actor, kind(what), id));
        model.addAttribute("what", what);
        return "notice/follow";
    }

    @PostMapping("/follow/{what}/{id}")
    String follow(
            Actor actor,
            @PathVariable String what,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") List<String> moment) {
        Set<Moment> moments = EnumSet.noneOf(Moment.class);
        for (Moment m : Moment.values()) if (moment.contains(m.name())) moments.add(m);
        return "redirect:" + follow.follow(actor, actKey, kind(what), id, moments);
    }

    @GetMapping("/follows")
    String mine(Actor actor, Model model) {
        model.addAttribute("follows", follow.mine(actor));
        model.addAttribute("mails", follow.mails(actor));
        return "notice/follows";
    }

    @PostMapping("/follows/drop")
    String drop(Actor actor, @RequestParam String what, @RequestParam long id) {
        follow.drop(actor, kind(what), id);
        return "redirect:/follows";
    }

    /** Fields {@code ASKED}, {@code ROUND} …: when mails of that kind come. */
    @PostMapping("/follows/mails")
    String mails(Actor actor, @RequestParam Map<String, String> form) {
        Map<NoticeKind, MailTime> times = new EnumMap<>(NoticeKind.class);
        for (NoticeKind kind : NoticeKind.values()) {
            MailTime.named(form.getOrDefault(kind.name(), "")).ifPresent(t -> times.put(kind, t));
        }
        follow.chooseMails(actor, times);
        return "redirect:/follows?mails";
    }

    /** @param page what is shown: the page that one came from */
    @GetMapping("/documents/{id}/show-to")
    String showing(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "") String page, Model model) {
        model.addAttribute("showing", showTo.showing(actor, id));
        model.addAttribute("page", page.isEmpty() ? "/documents/" + id : page);
        return "notice/show-to";
    }

    @PostMapping("/documents/{id}/show-to")
    String show(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam long person,
            @RequestParam(defaultValue = "") String text,
            @RequestParam String page) {
        return "redirect:" + showTo.show(actor, actKey, id, person, text, page);
    }
}
