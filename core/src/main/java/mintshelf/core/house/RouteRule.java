package mintshelf.core.house;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.RouteProof;
import mintshelf.core.route.RouteWords;

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
            String more = route.rule(stage.code()).says();
            lines.add(new RuleLine(
                    "stop " + stage.code(),
                    "Stop " + stage.name(),
                    RouteWords.stands(stage.stageClass()) + (more.isEmpty() ? "" : "; " + more)));
        }
        for (Move move : route.moves()) {
            lines.add(new RuleLine(
                    "move " + move.code(), move.name(), RouteWords.says(route, move, house.signOffNames())));
        }
        if (!route.foreign().isEmpty()) {
            int letters =
                    route.foreign().values().stream().mapToInt(String::length).sum();
            lines.add(new RuleLine(
                    "foreign " + route.foreign().hashCode(),
                    "For other readers",
                    Numbers.count(letters, "letter", "letters") + " of a state chart, given out with it"));
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
            if (move.asksSignOffs() && !house.signOffs().containsKey(move.signOff())) {
                wrong.add(Refusal.of(
                        "route.sign_off",
                        move.name() + " asks by a sign-off rule that is not there: " + move.signOff() + ".",
                        "Choose one."));
            }
        }
        List<Refusal> unsound = RouteProof.ask(route);
        wrong.addAll(unsound);
        if (unsound.isEmpty()) wrong.addAll(overwritten(house));
        return List.copyOf(wrong);
    }

    /** Signatures of one reading after another stand on one sheet: two that write one field would overwrite each other. */
    public List<Refusal> overwritten(House house) {
        List<Refusal> wrong = new ArrayList<>();
        for (Move move : route.moves()) {
            Set<String> written = fields(move, house);
            for (Move later : RouteProof.later(route, move)) {
                fields(later, house).stream()
                        .filter(written::contains)
                        .forEach(field -> wrong.add(Refusal.of(
                                "route.fact_twice",
                                "“" + later.name() + "” writes into " + field + " again, as “" + move.name()
                                        + "” does.",
                                "Give each sign-off rule a field of its own.")));
            }
        }
        return wrong.stream().distinct().toList();
    }

    private static Set<String> fields(Move move, House house) {
        SignOffRule rule = house.signOffs().get(move.signOff());
        if (rule == null) return Set.of();
        Set<String> fields = new LinkedHashSet<>();
        rule.asked().forEach(line -> fields.addAll(List.of(line.fact(), line.day())));
        fields.remove("");
        return fields;
    }
}
