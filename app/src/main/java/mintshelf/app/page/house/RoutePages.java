package mintshelf.app.page.house;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.DraftStore;
import mintshelf.app.use.house.DrawRoutes;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.house.House;
import mintshelf.core.house.RouteRule;
import mintshelf.core.house.RuleDifference;
import mintshelf.core.house.Subject;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Gate;
import mintshelf.core.route.Gates;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteEdit;
import mintshelf.core.route.RouteMap;
import mintshelf.core.route.RouteWords;
import mintshelf.core.route.Scxml;
import mintshelf.core.route.StopRule;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** Routes: the map, its moves as sentences, and drawing the next edition on it. */
@Controller
public class RoutePages {
    private final ReadRules read;
    private final DrawRoutes draw;

    public RoutePages(ReadRules read, DrawRoutes draw) {
        this.read = read;
        this.draw = draw;
    }

    /** A route in the list, with its picture. */
    public record RouteLine(Route route, int edition, RouteMap map, ReadRules.OnRoute on) {}

    @GetMapping("/house/routes")
    String all(Actor actor, Model model) {
        model.addAttribute(
                "routes",
                read.all(actor, Subject.ROUTE).stream()
                        .map(e -> {
                            Route route = ReadRules.route(e);
                            return new RouteLine(route, e.number(), RouteMap.of(route), read.onRoute(actor, route));
                        })
                        .toList());
        return "house/routes";
    }

    /** A move in words. */
    public record Said(Move move, String says, boolean usual) {}

    private static List<Said> said(Route route, House house) {
        List<Said> said = new ArrayList<>();
        for (Move m : route.moves()) {
            said.add(new Said(
                    m,
                    RouteWords.says(route, m, house.signOffNames()),
                    route.from(m.from()).get(0).equals(m)
                            && route.from(m.from()).size() > 1));
        }
        return said;
    }

    @GetMapping("/house/routes/{code}")
    String one(Actor actor, @PathVariable String code, @RequestParam Optional<Integer> beside, Model model) {
        Route route = ReadRules.route(RulePages.editions(read, actor, Subject.ROUTE, code, beside, model)
                .get(0));
        House house = read.house(actor);
        model.addAttribute("route", route);
        model.addAttribute("map", RouteMap.of(route));
        model.addAttribute("on", read.onRoute(actor, route));
        model.addAttribute("said", said(route, house));
        model.addAttribute("draft", draw.draft(actor, code).orElse(null));
        model.addAttribute("others", draw.others(actor, code));
        return "house/route";
    }

    @GetMapping("/house/routes/{code}/scxml")
    ResponseEntity<byte[]> scxml(Actor actor, @PathVariable String code) {
        Route route = ReadRules.route(read.editions(actor, Subject.ROUTE, code).get(0));
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType("application/scxml+xml"))
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(code + ".scxml")
                                .build()
                                .toString())
                .body(Scxml.write(route).getBytes(StandardCharsets.UTF_8));
    }

    /** What is picked on the map that is drawn: a move, a stop, or nothing. */
    @GetMapping("/house/routes/{code}/draw")
    String draw(
            Actor actor,
            @PathVariable String code,
            @RequestParam Optional<String> move,
            @RequestParam Optional<String> stop,
            Model model) {
        Route latest = ReadRules.route(RulePages.editions(read, actor, Subject.ROUTE, code, Optional.empty(), model)
                .get(0));
        Optional<DraftStore.Draft> draft = draw.draft(actor, code);
        Route route = draft.map(DraftStore.Draft::route).orElse(latest);
        House house = read.house(actor);
        List<Refusal> wrong = new RouteRule(route).ask(house);
        model.addAttribute("route", route);
        model.addAttribute("draft", draft.orElse(null));
        model.addAttribute("others", draw.others(actor, code));
        model.addAttribute("map", RouteMap.of(route));
        model.addAttribute("wrong", wrong);
        model.addAttribute("noWayBack", noWayBack(route));
        model.addAttribute(
                "differences",
                RuleDifference.between(new RouteRule(latest).lines(house), new RouteRule(route).lines(house)));
        model.addAttribute("on", read.onRoute(actor, latest));
        model.addAttribute("said", said(route, house));
        model.addAttribute("gates", Gates.ALL);
        model.addAttribute("effects", Effect.values());
        model.addAttribute("rights", Right.values());
        model.addAttribute("classes", StageClass.values());
        model.addAttribute("signOffs", new TreeMap<>(house.signOffNames()));
        move.flatMap(route::move).ifPresent(m -> model.addAttribute("picked", m));
        stop.flatMap(s ->
                        route.stages().stream().filter(x -> x.code().equals(s)).findFirst())
                .ifPresent(s -> model.addAttribute("stop", s));
        return "house/draw";
    }

    private static List<Stage> noWayBack(Route route) {
        return route.stages().stream()
                .filter(s -> s.stageClass() == StageClass.DECIDING
                        && route.back(s.code()).isEmpty())
                .toList();
    }

    @PostMapping("/house/routes/{code}/draw")
    String step(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam String act,
            @RequestParam(defaultValue = "") String move,
            @RequestParam(defaultValue = "") String stop,
            @RequestParam(defaultValue = "") String name,
            @RequestParam MultiValueMap<String, String> form) {
        String to = switch (act) {
            case "back" -> draw.back(actor, actKey, code);
            case "rename" -> draw.step(actor, actKey, code, r -> RouteEdit.rename(r, name));
            case "pull-stop" ->
                draw.step(
                        actor,
                        actKey,
                        code,
                        r -> RouteEdit.pullStop(r, move, name, stageClass(form), first(form, "rule", "read")));
            case "add-stop" -> draw.step(actor, actKey, code, r -> RouteEdit.addStop(r, name, stageClass(form)));
            case "rename-stop" ->
                draw.step(actor, actKey, code, r -> RouteEdit.renameStop(r, stop, name, stageClass(form)));
            case "rule-stop" -> draw.step(actor, actKey, code, r -> RouteEdit.ruleStop(r, stop, rule(form)));
            case "take-stop" -> draw.step(actor, actKey, code, r -> RouteEdit.takeStop(r, stop));
            case "way-back" -> draw.step(actor, actKey, code, r -> RouteEdit.wayBack(r, stop));
            case "add-move" ->
                draw.step(
                        actor,
                        actKey,
                        code,
                        r -> RouteEdit.addMove(r, name, first(form, "from", ""), first(form, "to", ""), Right.CHANGE));
            case "take-move" -> draw.step(actor, actKey, code, r -> RouteEdit.takeMove(r, move));
            case "usual" -> draw.step(actor, actKey, code, r -> RouteEdit.usual(r, move));
            case "say" -> draw.step(actor, actKey, code, r -> say(r, move, name, form));
            default -> throw new NotThere();
        };
        boolean stays = List.of("say", "usual").contains(act);
        boolean atStop = act.equals("rule-stop");
        return "redirect:" + to
                + (stays ? "?move=" + URLEncoder.encode(move, StandardCharsets.UTF_8) : "")
                + (atStop ? "?stop=" + URLEncoder.encode(stop, StandardCharsets.UTF_8) : "");
    }

    private static String first(MultiValueMap<String, String> form, String field, String otherwise) {
        String value = form.getFirst(field);
        return value == null ? otherwise : value.strip();
    }

    private static StopRule rule(MultiValueMap<String, String> form) {
        String word = first(form, "fetch", "");
        Optional<Right> fetch =
                Arrays.stream(Right.values()).filter(r -> r.name().equals(word)).findFirst();
        return new StopRule(fetch, !first(form, "facts", "").equals("closed"));
    }

    private static StageClass stageClass(MultiValueMap<String, String> form) {
        String word = first(form, "class", "DECIDING");
        for (StageClass c : StageClass.values()) if (c.name().equals(word)) return c;
        throw new NotThere();
    }

    private static Outcome<Route> say(Route route, String move, String name, MultiValueMap<String, String> form) {
        List<Gate> gates = new ArrayList<>();
        for (Gate gate : Gates.ALL) {
            if (form.getOrDefault("gate", List.of()).contains(gate.code())) gates.add(gate);
        }
        List<Effect> effects = new ArrayList<>();
        for (Effect effect : Effect.values()) {
            if (form.getOrDefault("effect", List.of()).contains(effect.name())) effects.add(effect);
        }
        String who = first(form, "who", "CHANGE");
        Right right = Right.CHANGE;
        for (Right r : Right.values()) if (r.name().equals(who)) right = r;
        return RouteEdit.say(route, move, name, right, gates, effects, first(form, "signOff", ""));
    }

    @PostMapping("/house/routes/{code}/drop-draft")
    String drop(Actor actor, @PathVariable String code, @RequestParam String actKey) {
        return "redirect:" + draw.drop(actor, actKey, code);
    }

    @PostMapping("/house/routes/{code}")
    String keep(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam(defaultValue = "") String why) {
        return "redirect:" + draw.keep(actor, actKey, code, why);
    }

    @PostMapping("/house/routes/{code}/scxml")
    String takeIn(
            Actor actor,
            @PathVariable String code,
            @RequestParam String actKey,
            @RequestParam String text,
            Model model) {
        List<String> passed = draw.takeIn(actor, actKey, code, text).passed();
        String said = String.join(" ", passed);
        return "redirect:/house/routes/" + code + "/draw"
                + (said.isEmpty() ? "" : "?passed=" + URLEncoder.encode(said, StandardCharsets.UTF_8));
    }
}
