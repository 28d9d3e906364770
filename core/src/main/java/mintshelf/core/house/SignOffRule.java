package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;

/** A sign-off rule: whom a move asks, line by line, and what a return does. Rounds keep the lines that they began with. */
public record SignOffRule(String code, String name, List<SignOffLine> asked, Policy policy) implements Rule {
    private static final String FIELD = "[a-z0-9_]{0,40}";
    public static final int MOST_LINES = 20;
    private static final int MOST_DAYS = 250;
    private static final int MOST_NEEDED = 50;

    public SignOffRule {
        asked = List.copyOf(asked);
    }

    @Override
    public Subject subject() {
        return Subject.SIGN_OFF;
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        lines.add(RuleLine.of("Name", name));
        int at = 1;
        for (SignOffLine line : asked) {
            lines.add(new RuleLine("line " + at++, "Step " + line.step(), says(line, house)));
        }
        lines.add(RuleLine.of("A return", policy.words()));
        return List.copyOf(lines);
    }

    /** "2 of the group Checking sign as checked, due in 2 working days; whoever prepared it does not count". */
    public static String says(SignOffLine line, House house) {
        StringBuilder says = new StringBuilder(whom(line, house));
        boolean many = line.needed() != 1;
        says.append(many ? " sign as " : " signs as ").append(line.meaning());
        says.append(", due in ").append(Numbers.count(line.days(), "working day", "working days"));
        says.append(line.fourEyes() ? "; whoever prepared it does not count" : "; whoever prepared it may sign too");
        if (line.password()) says.append("; the password is asked again");
        if (!line.fact().isEmpty())
            says.append("; the title block's ").append(line.fact()).append(" says who");
        return says.toString();
    }

    /** "2 of the group Checking", "Marit Solvang", "all of the role Board member". */
    public static String whom(SignOffLine line, House house) {
        Asked who = line.who();
        if (who.kind() == Asked.Kind.PERSON) return name(who, house);
        String number = line.asksEverybody() ? "all" : Integer.toString(line.needed());
        return number + " of " + who.kind().words() + " " + name(who, house);
    }

    /** What somebody asked is called; the code where nothing is called so any more. */
    public static String name(Asked who, House house) {
        return house.name(who);
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        Rule.named(name, 80).ifPresent(wrong::add);
        if (asked.isEmpty()) wrong.add(no("It asks nobody.", "Add a line."));
        if (asked.size() > MOST_LINES) wrong.add(no("It has more than " + MOST_LINES + " lines.", "Take some away."));
        Set<String> fields = new HashSet<>();
        int step = 0;
        for (SignOffLine line : asked) {
            who(line, house).ifPresent(wrong::add);
            Rule.named(line.meaning(), 60).ifPresent(wrong::add);
            for (String field : List.of(line.fact(), line.day())) {
                if (!field.matches(FIELD)) {
                    wrong.add(no(
                            "It writes into a field whose name is none.",
                            "Small letters, digits and _, at most 40; empty for none."));
                } else if (!field.isEmpty() && !fields.add(field)) {
                    wrong.add(no("Two lines write into " + field + ".", "Give each a field of its own."));
                }
            }
            if (line.days() < 0 || line.days() > MOST_DAYS || line.needed() < 0 || line.needed() > MOST_NEEDED) {
                wrong.add(no(
                        "It asks more than " + MOST_NEEDED + " people, or gives more than " + MOST_DAYS + " days.",
                        "Ask fewer, or sooner."));
            }
            if (line.step() < Math.max(1, step) || line.step() > step + 1) {
                wrong.add(no("Its steps are not in order.", "Number them from one, without a gap."));
            }
            step = Math.max(step, line.step());
        }
        if (wrong.isEmpty()) wrong.addAll(overwritten(house));
        return wrong.stream().distinct().toList();
    }

    /** What this edition would do to the routes that ask by it: two readings that write one field. */
    private List<Refusal> overwritten(House house) {
        House with = house.with(this);
        return house.routes().values().stream()
                .filter(route ->
                        route.moves().stream().anyMatch(m -> m.signOff().equals(code)))
                .flatMap(route -> new RouteRule(route)
                        .overwritten(with).stream()
                                .map(r -> Refusal.of(
                                        r.code(), "On the route " + route.name() + ": " + r.reason(), r.remedy())))
                .toList();
    }

    private static Optional<Refusal> who(SignOffLine line, House house) {
        Asked who = line.who();
        if (!house.knows(who))
            return Optional.of(no("It asks whom nobody knows here: " + who.code() + ".", "Choose somebody."));
        if (who.kind() == Asked.Kind.PERSON && line.needed() != 1) {
            return Optional.of(no("One person signs once.", "Ask a group or a role for more."));
        }
        return Optional.empty();
    }

    private static Refusal no(String reason, String remedy) {
        return Refusal.of("signoff.rule", reason, remedy);
    }
}
