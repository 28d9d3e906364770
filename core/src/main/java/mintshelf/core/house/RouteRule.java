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
            }
        }
        wrong.addAll(RouteProof.ask(route));
        return List.copyOf(wrong);
    }
}
