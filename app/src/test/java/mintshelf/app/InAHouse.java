package mintshelf.app;

import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Function;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.house.Edition;
import mintshelf.app.use.house.DrawRoutes;
import mintshelf.app.use.house.KeepRules;
import mintshelf.app.use.house.ReadRules;
import mintshelf.core.base.Outcome;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.Rule;
import mintshelf.core.house.Subject;
import mintshelf.core.route.Route;

/** Tests that change the rules of a house: on one of their own, which no other test sees. */
abstract class InAHouse {
    /** Started once for all of them. */
    static final Server server = Server.with();

    final KeepRules keep = server.bean(KeepRules.class);
    final ReadRules read = server.bean(ReadRules.class);
    final DrawRoutes draw = server.bean(DrawRoutes.class);
    final String mark = Server.key().substring(0, 6);

    Edition latest(Subject subject, String code) {
        return read.editions(server.actor("ines"), subject, code).get(0);
    }

    String keep(Rule rule, int shown, String why) {
        return keep.keep(server.actor("ines"), Server.key(), rule, shown, why);
    }

    static String code(Callable<?> act) {
        try {
            act.call();
            return "";
        } catch (Refused e) {
            return e.refusal().code();
        } catch (Exception e) {
            throw new AssertionError(e);
        }
    }

    static KindRule with(KindRule k, String series, String revisions, String route, List<KindRule.OnSheet> facts) {
        return new KindRule(
                k.code(),
                k.name(),
                k.aspect(),
                k.glyph(),
                series,
                revisions,
                k.labelAtStart(),
                route,
                k.paper(),
                facts);
    }

    static KindRule onRoute(KindRule k, String route) {
        return with(k, k.series(), k.revisions(), route, k.facts());
    }

    void step(String login, String route, Function<Route, Outcome<Route>> step) {
        draw.step(server.actor(login), Server.key(), route, step);
    }
}
