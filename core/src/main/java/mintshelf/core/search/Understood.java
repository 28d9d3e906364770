package mintshelf.core.search;

import static java.util.Map.entry;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import mintshelf.core.revision.StageClass;
import mintshelf.core.search.SearchText.Asked;
import mintshelf.core.search.SearchText.Compare;
import mintshelf.core.search.Wanted.Field;
import mintshelf.core.search.Wanted.Moment;
import mintshelf.core.search.Wanted.Where;

/** What the questions of a search mean where it is asked. */
final class Understood {
    /** Words for stages by what they are, whatever a house calls them. */
    private static final Map<String, Set<StageClass>> CLASSES = Map.of(
            "pending", Set.of(StageClass.PREPARING, StageClass.DECIDING),
            "released", Set.of(StageClass.RELEASED),
            "superseded", Set.of(StageClass.SUPERSEDED),
            "withdrawn", Set.of(StageClass.WITHDRAWN));

    private static final Map<String, Where> WORDS = Map.ofEntries(
            entry("text", Where.TEXT),
            entry("title", Where.TITLE),
            entry("file", Where.FILE),
            entry("comment", Where.COMMENT));

    private static final Map<String, Moment> MOMENTS =
            Map.of("changed", Moment.CHANGED, "released", Moment.RELEASED, "held", Moment.HELD);

    private final Known known;
    private final Spans spans;

    Understood(Known known, Spans spans) {
        this.known = known;
        this.spans = spans;
    }

    /** The test, and how it reads; without a test why there is none. */
    record Answer(Optional<Wanted> wanted, String says) {
        static Answer of(Wanted wanted, String says) {
            return new Answer(Optional.of(wanted), says);
        }

        static Answer not(String why) {
            return new Answer(Optional.empty(), why);
        }
    }

    Answer read(Asked asked) {
        String name = asked.name();
        if (asked.values().isEmpty()) return Answer.not("what?");
        // A fact of the house goes by its own name, also where the search has a word like it.
        Optional<FactDefinition> fact = fact(name);
        if (fact.isPresent()) return fact(fact.get(), asked);
        if (MOMENTS.containsKey(name) && (asked.compare() != Compare.IS || !name.equals("held"))) {
            return moment(MOMENTS.get(name), asked);
        }
        if (asked.compare() != Compare.IS) return Answer.not("only numbers and days are more or less");
        if (WORDS.containsKey(name)) return words(WORDS.get(name), asked);
        return switch (name) {
            case "number" -> Answer.of(new Wanted.Numbered(asked.values()), "number " + or(asked.values()));
            case "stage" -> named(Field.STAGE, "", asked, known::stages);
            case "kind" -> named(Field.KIND, "", asked, known::kinds);
            case "on", "shelf" -> named(Field.SHELF, "on ", asked, known::shelves);
            case "in", "folder" -> named(Field.FOLDER, "in ", asked, known::folders);
            case "rev", "revision" -> revision(asked);
            case "is" -> is(asked);
            case "format" -> format(asked);
            case "held" -> people(Field.HOLDER, "held", asked);
            case "by", "author" -> people(Field.AUTHOR, "filed", asked);
            case "waits" -> own(asked, Wanted.Mine.WAITS_FOR_ME, "waits for me");
            case "sent" -> own(asked, Wanted.Mine.SENT_BY_ME, "sent by me");
            default ->
                Answer.not("nothing here is called “" + name + "”; in quotation marks it is looked for as words");
        };
    }

    private Optional<FactDefinition> fact(String name) {
        return known.facts().stream()
                .filter(f -> key(f.name()).equals(key(name)) || key(f.label()).equals(key(name)))
                .findFirst();
    }

    private static String key(String name) {
        return Texts.key(name).replaceAll("[\\s_-]+", "-");
    }

    private Answer words(Where where, Asked asked) {
        String text = String.join(" ", asked.values());
        List<String> words = SearchText.words(text);
        if (words.isEmpty()) return Answer.not("no word in it");
        String says = switch (where) {
            case TITLE -> "title has ";
            case FILE -> "file name has ";
            case COMMENT -> "comment says ";
            default -> "says ";
        };
        boolean phrase = words.size() > 1;
        return Answer.of(new Wanted.Words(where, text, words, phrase), says + "“" + text + "”");
    }

    private Answer named(Field field, String before, Asked asked, Supplier<List<Known.Named>> all) {
        List<Known.Named> there = all.get();
        Set<String> terms = new LinkedHashSet<>();
        Set<String> names = new LinkedHashSet<>();
        for (String value : asked.values()) {
            List<Known.Named> meant = meant(value, there);
            if (meant.isEmpty()) {
                String some = there.stream()
                        .map(n -> n.name().toLowerCase(Locale.ROOT))
                        .distinct()
                        .limit(8)
                        .collect(Collectors.joining(", "));
                return Answer.not("“" + value + "” is none; there are " + (some.isEmpty() ? "none" : some));
            }
            meant.forEach(m -> {
                terms.add(m.term());
                names.add(field == Field.STAGE ? m.name().toLowerCase(Locale.ROOT) : m.name());
            });
        }
        return Answer.of(new Wanted.Among(field, terms), before + or(List.copyOf(names)));
    }

    /** Those of this name or code; where none is, those whose name begins so. */
    private static List<Known.Named> meant(String value, List<Known.Named> all) {
        String key = Texts.key(value);
        List<Known.Named> equal = all.stream()
                .filter(n ->
                        Texts.key(n.name()).equals(key) || Texts.key(n.code()).equals(key))
                .toList();
        if (!equal.isEmpty() || key.isEmpty()) return equal;
        return all.stream().filter(n -> Texts.key(n.name()).startsWith(key)).toList();
    }

    private static Answer revision(Asked asked) {
        Set<String> labels = new LinkedHashSet<>();
        asked.values().forEach(v -> labels.add(Texts.key(v)));
        return Answer.of(new Wanted.Among(Field.REVISION, labels), "revision " + or(asked.values()));
    }

    private static Answer is(Asked asked) {
        Set<String> terms = new LinkedHashSet<>();
        for (String value : asked.values()) {
            String key = Texts.key(value);
            if (key.equals("held") && asked.values().size() == 1) {
                return Answer.of(new Wanted.Among(Field.HOLDER, Set.of()), "held");
            }
            if (!CLASSES.containsKey(key)) {
                return Answer.not("“" + value + "” is none of pending, released, superseded, withdrawn, held");
            }
            CLASSES.get(key).forEach(c -> terms.add(c.name()));
        }
        return Answer.of(new Wanted.Among(Field.STAGE_CLASS, terms), or(asked.values()));
    }

    private static Answer format(Asked asked) {
        Set<String> terms = new LinkedHashSet<>();
        asked.values().forEach(v -> terms.add(v.toUpperCase(Locale.ROOT)));
        return Answer.of(new Wanted.Among(Field.FORMAT, terms), "format " + or(asked.values()));
    }

    private Answer people(Field field, String verb, Asked asked) {
        Set<String> terms = new LinkedHashSet<>();
        List<String> names = new ArrayList<>();
        for (String value : asked.values()) {
            String key = Texts.key(value);
            if (key.equals("anybody") && asked.values().size() == 1) {
                return Answer.of(new Wanted.Among(field, Set.of()), verb + " by anybody");
            }
            if (key.equals("me")) {
                terms.add(known.me().term());
                names.add("me");
            } else if (key.equals("nobody") && field == Field.HOLDER) {
                terms.add("nobody");
                names.add("nobody");
            } else {
                List<Known.Named> people = known.people(value);
                if (people.isEmpty()) return Answer.not("“" + value + "” is nobody here");
                people.forEach(p -> {
                    terms.add(p.term());
                    names.add(p.name());
                });
            }
        }
        return Answer.of(new Wanted.Among(field, terms), verb + " by " + or(names));
    }

    private static Answer own(Asked asked, Wanted.Mine mine, String says) {
        return asked.values().equals(List.of("me"))
                ? Answer.of(new Wanted.Own(mine), says)
                : Answer.not("only “me” can be asked for");
    }

    private Answer moment(Moment moment, Asked asked) {
        String value = asked.values().get(0);
        if (moment == Moment.HELD) return held(asked, value);
        Optional<Spans.Span> read = spans.read(value);
        if (read.isEmpty()) return Answer.not("“" + value + "” is no day such as 2026-11-23, 2026-11, today or 7d");
        Spans.Span span = read.get();
        String verb = moment.name().toLowerCase(Locale.ROOT) + " ";
        String when = span.isMoment() ? span.says() + " ago" : span.says();
        return switch (asked.compare()) {
            case IS ->
                span.isMoment()
                        ? Answer.of(from(moment, span.from()), verb + "in the last " + span.says())
                        : Answer.of(within(moment, span.from(), span.until()), verb + when);
            case MORE -> Answer.of(from(moment, span.until()), verb + after(span));
            case AT_LEAST ->
                Answer.of(from(moment, span.from()), verb + (span.isMoment() ? after(span) : "since " + when));
            case LESS -> Answer.of(until(moment, span.from()), verb + "before " + when);
            case AT_MOST -> Answer.of(until(moment, span.until()), verb + "until " + when);
        };
    }

    private static String after(Spans.Span span) {
        return span.isMoment() ? "in the last " + span.says() : "after " + span.says();
    }

    /** Of a hold the time is asked for that it lasts: longer than a week is taken before a week ago. */
    private Answer held(Asked asked, String value) {
        Optional<Spans.Length> length = spans.length(value);
        if (length.isEmpty()) return Answer.not("“" + value + "” is no time such as 7d or 2w");
        Instant then = spans.now().minus(length.get().is());
        return asked.compare() == Compare.MORE || asked.compare() == Compare.AT_LEAST
                ? Answer.of(
                        until(Moment.HELD, then),
                        "held for over " + length.get().says())
                : Answer.of(
                        from(Moment.HELD, then),
                        "held for under " + length.get().says());
    }

    private static Wanted within(Moment moment, Instant from, Instant until) {
        return new Wanted.Within(moment, Optional.of(from), Optional.of(until));
    }

    private static Wanted from(Moment moment, Instant from) {
        return new Wanted.Within(moment, Optional.of(from), Optional.empty());
    }

    private static Wanted until(Moment moment, Instant until) {
        return new Wanted.Within(moment, Optional.empty(), Optional.of(until));
    }

    private Answer fact(FactDefinition fact, Asked asked) {
        String value = asked.values().get(0);
        String label = fact.label().toLowerCase(Locale.ROOT);
        if (asked.compare() == Compare.IS && asked.values().size() == 1) {
            if (value.equals("*")) return Answer.of(new Wanted.FactFilled(fact), "with " + label);
        }
        return switch (fact.type()) {
            case NUMBER -> number(fact, asked, label);
            case DATE -> day(fact, asked, label);
            default -> {
                if (asked.compare() != Compare.IS) yield Answer.not("only numbers and days are more or less");
                List<String> texts = new ArrayList<>();
                for (String said : asked.values()) {
                    boolean me =
                            fact.type() == FactType.PERSON && Texts.key(said).equals("me");
                    texts.add(me ? known.me().code() : said);
                }
                yield Answer.of(new Wanted.FactSays(fact, texts), label + " " + or(asked.values()));
            }
        };
    }

    private static final double NEXT = 1e-9;

    private static Answer number(FactDefinition fact, Asked asked, String label) {
        String unit = fact.unit().isEmpty() ? "" : " " + fact.unit();
        double[] ends = new double[asked.values().size() * 2];
        for (int i = 0; i < asked.values().size(); i++) {
            String value = asked.values().get(i);
            String bare = value.endsWith(fact.unit())
                    ? value.substring(0, value.length() - fact.unit().length()).strip()
                    : value;
            String[] two = bare.split("\\.\\.", -1);
            try {
                ends[2 * i] = Double.parseDouble(two[0]);
                ends[2 * i + 1] = Double.parseDouble(two[two.length - 1]);
            } catch (NumberFormatException e) {
                return Answer.not("“" + value + "” is no number" + (unit.isEmpty() ? "" : " in" + unit));
            }
            if (two.length > 2 || !Double.isFinite(ends[2 * i]) || !Double.isFinite(ends[2 * i + 1])) {
                return Answer.not("“" + value + "” is no number");
            }
        }
        if (asked.values().size() > 1) return Answer.not("one number at a time, or 2..5 for those between");
        double low = ends[0];
        double high = ends[1];
        boolean range = low != high;
        if (range && asked.compare() != Compare.IS) return Answer.not("a range is asked for with a colon");
        String at = Numbers.plain(low);
        return switch (asked.compare()) {
            case IS ->
                Answer.of(
                        new Wanted.FactWithin(fact, low - near(low), high + near(high)),
                        label + " " + (range ? at + " to " + Numbers.plain(high) : at) + unit);
            case LESS ->
                Answer.of(
                        new Wanted.FactWithin(fact, Double.NEGATIVE_INFINITY, low - near(low)),
                        label + " under " + at + unit);
            case AT_MOST ->
                Answer.of(
                        new Wanted.FactWithin(fact, Double.NEGATIVE_INFINITY, low + near(low)),
                        label + " at most " + at + unit);
            case MORE ->
                Answer.of(
                        new Wanted.FactWithin(fact, low + near(low), Double.POSITIVE_INFINITY),
                        label + " over " + at + unit);
            case AT_LEAST ->
                Answer.of(
                        new Wanted.FactWithin(fact, low - near(low), Double.POSITIVE_INFINITY),
                        label + " at least " + at + unit);
        };
    }

    /** Decimals that are kept exactly are compared as binary ones: what is nearer than this is the same. */
    private static double near(double n) {
        return Math.max(NEXT, Math.abs(n) * NEXT);
    }

    private Answer day(FactDefinition fact, Asked asked, String label) {
        Optional<Spans.Span> read = spans.read(asked.values().get(0));
        if (read.isEmpty()) return Answer.not("“" + asked.values().get(0) + "” is no day such as 2026-11-23");
        Spans.Span span = read.get();
        double first = day(span.from());
        double last = span.isMoment() ? first : day(span.until()) - 1;
        String at = span.isMoment() ? span.says() + " ago" : span.says();
        double none = Double.NEGATIVE_INFINITY;
        double all = Double.POSITIVE_INFINITY;
        return switch (asked.compare()) {
            case IS -> Answer.of(new Wanted.FactWithin(fact, first, last), label + " " + at);
            case LESS -> Answer.of(new Wanted.FactWithin(fact, none, first - 1), label + " before " + at);
            case AT_MOST -> Answer.of(new Wanted.FactWithin(fact, none, last), label + " until " + at);
            case MORE -> Answer.of(new Wanted.FactWithin(fact, last + 1, all), label + " after " + at);
            case AT_LEAST -> Answer.of(new Wanted.FactWithin(fact, first, all), label + " since " + at);
        };
    }

    private double day(Instant at) {
        return LocalDate.ofInstant(at, spans.zone()).toEpochDay();
    }

    private static String or(List<String> names) {
        return names.size() > 4
                ? String.join(", ", names.subList(0, 3)) + " or " + (names.size() - 3) + " others"
                : String.join(" or ", names);
    }
}
