package mintshelf.app.page.pin;

import java.util.Locale;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.WayBack;
import mintshelf.app.store.pin.PinStore.Kind;
import mintshelf.app.store.pin.PinStore.Pin;
import mintshelf.app.use.pin.Pins;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Pins, and what was open last. */
@Controller
class PinPages {
    private final Pins pins;

    PinPages(Pins pins) {
        this.pins = pins;
    }

    /** All of what is at hand. */
    @GetMapping("/at-hand")
    String show(Actor actor, Model model) {
        model.addAttribute("pins", pins.lines(actor));
        model.addAttribute("recent", pins.recent(actor));
        return "pin/page";
    }

    /** The button that pins, or takes the pin away; a part of other pages. */
    @GetMapping("/pins/{kind}/{id}")
    String button(Actor actor, @PathVariable String kind, @PathVariable("id") long target, Model model) {
        Pin pin = pin(kind, target);
        model.addAttribute("pin", pin);
        model.addAttribute("pinned", pins.isPinned(actor, pin));
        return "pin/_button :: button";
    }

    @PostMapping("/pins/{kind}/{id}")
    String pin(
            Actor actor,
            @PathVariable String kind,
            @PathVariable("id") long target,
            @RequestParam(defaultValue = "/today") String back) {
        pins.pin(actor, pin(kind, target));
        return "redirect:" + WayBack.within(back);
    }

    @PostMapping("/pins/{kind}/{id}/drop")
    String unpin(
            Actor actor,
            @PathVariable String kind,
            @PathVariable("id") long target,
            @RequestParam(defaultValue = "/today") String back) {
        pins.unpin(actor, pin(kind, target));
        return "redirect:" + WayBack.within(back);
    }

    @PostMapping("/pins/{kind}/{id}/up")
    String up(Actor actor, @PathVariable String kind, @PathVariable("id") long target) {
        pins.up(actor, pin(kind, target));
        return "redirect:/at-hand";
    }

    private static Pin pin(String kind, long target) {
        for (Kind one : Kind.values()) {
            if (one.name().toLowerCase(Locale.ROOT).equals(kind)) return new Pin(one, target);
        }
        throw new NotThere();
    }
}
