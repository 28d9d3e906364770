package mintshelf.app.page.signin;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.HouseSignOn;
import mintshelf.app.setup.Security;
import mintshelf.app.setup.Settings;
import mintshelf.app.use.person.People;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Signing in, the first start of an empty server, and the link that sets a password. */
@Controller
public class SignInPage {
    private final People people;
    private final Settings settings;
    private final HouseSignOn signOn;
    private final List<Hint> hints;

    /** Somebody whom the demo offers to sign in as. */
    public record Hint(String login, String name, String does) {}

    /** What the demo puts on the sign-in page. */
    public interface Hints {
        List<Hint> hints();
    }

    public SignInPage(People people, ObjectProvider<Hints> hints, Settings settings, HouseSignOn signOn) {
        this.settings = settings;
        this.signOn = signOn;
        this.people = people;
        Hints given = hints.getIfAvailable();
        this.hints = given == null ? List.of() : given.hints();
    }

    @GetMapping("/sign-in")
    String signIn(Model model, HttpServletRequest request) {
        if (people.serverIsEmpty()) return "redirect:/first-start";
        model.addAttribute("hints", hints);
        model.addAttribute("wrong", request.getParameter("wrong") != null);
        model.addAttribute("braked", request.getParameter("braked") != null);
        model.addAttribute("out", request.getParameter("out") != null);
        model.addAttribute("ready", request.getParameter("ready") != null);
        model.addAttribute("signOn", signOn.name().orElse(""));
        model.addAttribute("stays", settings.staySignedIn());
        return "signin/page";
    }

    /** To the house's own sign-on, when it answers. */
    @GetMapping("/sign-in/house")
    String house() {
        if (signOn.name().isEmpty()) return "redirect:/sign-in";
        return "redirect:" + (signOn.answers() ? HouseSignOn.BEGINS : "/sign-in?away");
    }

    @GetMapping("/first-start")
    String firstStart() {
        return people.serverIsEmpty() ? "signin/first" : "redirect:/sign-in";
    }

    @PostMapping("/first-start")
    String begin(
            @RequestParam String name,
            @RequestParam String login,
            @RequestParam String password,
            @RequestParam(defaultValue = "") String code,
            @RequestParam(defaultValue = "UTC") String zone,
            HttpServletRequest request,
            Model model) {
        try {
            people.addFirst(name, login, password, zone, code, Security.address(request));
            return "redirect:/sign-in?ready";
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("name", name);
            model.addAttribute("login", login);
            model.addAttribute("code", code);
            return "signin/first";
        }
    }

    @GetMapping("/invitations/{token}")
    String invitation(@PathVariable String token, Model model) {
        model.addAttribute("open", people.isOpen(token));
        model.addAttribute("invited", people.invitedBy(token).orElse(null));
        return "signin/invitation";
    }

    @PostMapping("/invitations/{token}")
    String accept(@PathVariable String token, @RequestParam String password, HttpServletRequest request, Model model) {
        try {
            people.acceptInvitation(token, password, Security.address(request));
            return "redirect:/sign-in?ready";
        } catch (Refused e) {
            model.addAttribute("refusal", e.refusal());
            model.addAttribute("open", people.isOpen(token));
            model.addAttribute("invited", people.invitedBy(token).orElse(null));
            return "signin/invitation";
        }
    }
}
