package mintshelf.core.search;

import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A search, understood: conditions that all hold.
 *
 * @param notUnderstood what is left out of it, each with why: an answer to another question would pass for the one to this
 */
public record Question(List<Condition> conditions, List<String> notUnderstood) {
    public Question {
        conditions = List.copyOf(conditions);
        notUnderstood = List.copyOf(notUnderstood);
    }

    /** What a text asks here and now. O(parts × names). */
    public static Question of(SearchText text, Known known, Instant now, ZoneId zone) {
        Understood understood = new Understood(known, new Spans(now, zone));
        List<Condition> conditions = new ArrayList<>();
        List<String> not = new ArrayList<>(text.leftOut());
        for (SearchText.Part part : text.parts()) {
            if (part instanceof SearchText.Said said) {
                List<String> words = SearchText.words(said.text());
                if (words.isEmpty()) continue; // signs alone say nothing
                String says = "“" + said.text() + "”";
                conditions.add(new Condition(
                        new Wanted.Words(Wanted.Where.ANYWHERE, said.text(), words, said.phrase()),
                        said.not(),
                        said.not() ? "without " + says : says,
                        said.source()));
            } else if (part instanceof SearchText.Asked asked) {
                Understood.Answer answer = understood.read(asked);
                answer.wanted()
                        .ifPresentOrElse(
                                wanted -> conditions.add(new Condition(
                                        wanted,
                                        asked.not(),
                                        asked.not() ? "not " + answer.says() : answer.says(),
                                        asked.source())),
                                () -> not.add(asked.source() + ": " + answer.says()));
            }
        }
        return new Question(conditions, not);
    }

    /** Whether anything is looked for. */
    public boolean isEmpty() {
        return conditions.isEmpty();
    }

    /** The words that are looked for in texts, without those that must not be there. */
    public List<String> words() {
        return conditions.stream()
                .filter(c -> !c.not() && c.wanted() instanceof Wanted.Words)
                .flatMap(c -> ((Wanted.Words) c.wanted()).words().stream())
                .distinct()
                .toList();
    }

    /** The search without one of its conditions, as text. */
    public String without(Condition left) {
        return conditions.stream()
                .filter(c -> !c.source().equals(left.source()))
                .map(Condition::source)
                .collect(Collectors.joining(" "));
    }

    /** The search with one more part, as text. */
    public String with(String source) {
        String all = conditions.stream().map(Condition::source).collect(Collectors.joining(" "));
        return all.isEmpty() ? source : all + " " + source;
    }

    /** The same of what has moved after a moment, to the millisecond. */
    public Question movedSince(Instant since) {
        List<Condition> more = new ArrayList<>(conditions);
        Instant after = since.truncatedTo(ChronoUnit.MILLIS).plusMillis(1);
        Wanted moved = new Wanted.Within(Wanted.Moment.CHANGED, Optional.of(after), Optional.empty());
        if (!more.isEmpty()) more.add(new Condition(moved, false, "moved since", ""));
        return new Question(more, notUnderstood);
    }

    /** A value as it is typed behind a name: in quotation marks where it has blanks or commas. */
    public static String typed(String value) {
        return value.matches("[^\\s,\"]+") ? value : "\"" + value.replace("\"", "") + "\"";
    }
}
