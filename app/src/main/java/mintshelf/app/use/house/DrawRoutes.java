package mintshelf.app.use.house;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.DraftStore;
import mintshelf.app.store.house.RouteStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.house.RouteRule;
import mintshelf.core.route.Route;
import mintshelf.core.route.Scxml;
import org.springframework.stereotype.Service;

/** Writing the next edition of a route, step by step: each is kept as one goes, can be taken back, and is nobody's rule before it is kept. */
@Service
public class DrawRoutes {
    private final DraftStore drafts;
    private final RouteStore routes;
    private final KeepRules keep;
    private final Acts acts;
    private final Clock clock;

    DrawRoutes(DraftStore drafts, RouteStore routes, KeepRules keep, Acts acts, Clock clock) {
        this.drafts = drafts;
        this.routes = routes;
        this.keep = keep;
        this.acts = acts;
        this.clock = clock;
    }

    private long id(String code) {
        return routes.route(code).orElseThrow(NotThere::new);
    }

    /** What somebody is writing of a route; empty where they are not. */
    public Optional<DraftStore.Draft> draft(Actor actor, String code) {
        HouseRules.ask(actor);
        id(code);
        return drafts.of(actor.person(), code);
    }

    /** Who else writes an edition of it now. */
    public List<String> others(Actor actor, String code) {
        HouseRules.ask(actor);
        return drafts.writers(code, actor.person());
    }

    /** One step of drawing; the first one begins the draft from the edition in force. */
    public String step(Actor actor, String key, String code, Function<Route, Outcome<Route>> step) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            long id = id(code);
            Route now = drafts.of(actor.person(), code)
                    .map(DraftStore.Draft::route)
                    .orElseGet(() -> begun(actor, id, code));
            Route next = step.apply(now).orElseThrow(Refused::new);
            if (!next.equals(now)) drafts.step(actor.person(), id, next);
            return "/house/routes/" + code + "/draw";
        });
    }

    private Route begun(Actor actor, long id, String code) {
        Route latest = routes.latest(id);
        drafts.begin(actor.person(), id, routes.latestNumber(code), latest, clock.instant());
        return drafts.of(actor.person(), code).orElseThrow().route();
    }

    /** Takes the last step back. */
    public String back(Actor actor, String key, String code) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            if (drafts.of(actor.person(), code).isPresent()) drafts.back(actor.person(), id(code));
            return "/house/routes/" + code + "/draw";
        });
    }

    /** Drops what was written; the edition in force was never touched. */
    public String drop(Actor actor, String key, String code) {
        HouseRules.ask(actor);
        return acts.once(actor, key, () -> {
            drafts.drop(actor.person(), id(code));
            return "/house/routes/" + code;
        });
    }

    /** Keeps what was written as the next edition; what is unsound, or was written from an edition that is not the latest, is not. */
    public String keep(Actor actor, String key, String code, String why) {
        HouseRules.ask(actor);
        String said = Texts.optional("The reason", why, 300).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            DraftStore.Draft draft = drafts.of(actor.person(), code).orElseThrow(NotThere::new);
            String to = keep.kept(actor, new RouteRule(draft.route()), draft.base(), said);
            drafts.drop(actor.person(), id(code));
            return to;
        });
    }

    /** Takes a state chart in as what is being written now: seen, mended and kept like any other step. */
    public Scxml.Read takeIn(Actor actor, String key, String code, String text) {
        Scxml.Read read = Scxml.read(code, text).orElseThrow(Refused::new);
        step(
                actor,
                key,
                code,
                now -> Outcome.granted(new Route(
                        now.edition(),
                        now.code(),
                        now.name(),
                        read.route().stages(),
                        read.route().moves(),
                        read.route().rules(),
                        read.route().foreign())));
        return read;
    }
}
