package mintshelf.core.house;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteProof;
import mintshelf.core.route.RouteWords;
import mintshelf.core.route.SignOffLine;

/** A route as a rule of the house: its stops, and its moves as sentences. */
public record RouteRule(Route route) implements Rule {
    private static final String FIELD = "[a-z0-9_]{0,40}";
    private static final int MOST_DAYS = 250;
    private static final int MOST_NEEDED = 50;

    @Override
    public Subject subject() {
        return Subject.ROUTE;
    }

    @Override
    public String code() {
        return route.code();
    }

    @Override
    public String name() {
        return route.name();
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of("Name", route.name()));
        for (Stage stage : route.stages()) {
            lines.add(new RuleLine(
                    "stop " + stage.code(), "Stop " + stage.name(), RouteWords.stands(stage.stageClass())));
        }
        for (Move move : route.moves()) {
            lines.add(new RuleLine("move " + move.code(), move.name(), RouteWords.says(route, move, house.roles())));
        }
        return List.copyOf(lines);
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        Rule.named(route.name(), 100).ifPresent(wrong::add);
        route.stages().forEach(s -> Rule.named(s.name(), 60).ifPresent(wrong::add));
        for (Move move : route.moves()) {
            Rule.named(move.name(), 60).ifPresent(wrong::add);
            for (SignOffLine line : move.signOffs()) {
                if (!house.roles().containsKey(line.role())) {
                    wrong.add(Refusal.of(
                            "route.role",
                            move.name() + " asks a role that is not there: " + line.role() + ".",
                            "Choose one."));
                }
                Rule.named(line.meaning(), 60).ifPresent(wrong::add);
                if (!line.fact().matches(FIELD) || !line.day().matches(FIELD)) {
                    wrong.add(Refusal.of(
                            "route.field",
                            move.name() + " writes into a field whose name is none.",
                            "Small letters, digits and _, at most 40; empty for none."));
                }
                if (line.days() < 0 || line.days() > MOST_DAYS || line.needed() > MOST_NEEDED) {
                    wrong.add(Refusal.of(
                            "route.line",
                            move.name() + " asks more than " + MOST_NEEDED + " people, or gives more than " + MOST_DAYS
                                    + " days.",
                            "Ask fewer, or sooner."));
                }
            }
        }
        wrong.addAll(RouteProof.ask(route));
        return List.copyOf(wrong);
    }
}
