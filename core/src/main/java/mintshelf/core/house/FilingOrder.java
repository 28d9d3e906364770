package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;

/** The filing rules in their order, of which the first that fits gives a new file its kind; and what kind a changed copy gets. */
public record FilingOrder(List<Sentence> sentences, Copies copies) implements Rule {
    /** The one order of a house. */
    public static final String CODE = "filing";

    private static final int MOST = 200;

    /** What kind a file gets that is filed as a changed copy of a document. */
    public enum Copies {
        KEEP_KIND("keeps the kind of what it was copied from"),
        BY_RULE("goes by the sentences above");

        private final String words;

        Copies(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public FilingOrder {
        sentences = List.copyOf(sentences);
    }

    /** Copies keep their kind. */
    public FilingOrder(List<Sentence> sentences) {
        this(sentences, Copies.KEEP_KIND);
    }

    /**
     * A rule.
     *
     * @param contents what the content must be one of; none for any
     * @param named form found in the file's name; empty for any
     * @param kind code of the kind that such files get
     */
    public record Sentence(List<ContentKind> contents, String named, String kind) {
        public Sentence {
            contents = List.copyOf(contents);
        }

        String says(House house) {
            String what = contents.isEmpty()
                    ? "A file"
                    : "A "
                            + String.join(
                                    " or ",
                                    contents.stream().map(ContentKind::words).toList());
            return what + (named.isEmpty() ? "" : " with " + named + " in its name") + " is filed as "
                    + House.name(house.kinds(), kind) + ".";
        }
    }

    @Override
    public Subject subject() {
        return Subject.FILING;
    }

    @Override
    public String code() {
        return CODE;
    }

    @Override
    public String name() {
        return "Filing rules";
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>(sentences.stream()
                .map(s -> s.says(house))
                .distinct()
                .map(says -> new RuleLine(says, "", says))
                .toList());
        lines.add(new RuleLine("copies", "", "A changed copy of a document " + copies.words() + "."));
        return List.copyOf(lines);
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        if (sentences.size() > MOST) {
            return List.of(Refusal.of("filing.many", "There are more than " + MOST + " rules.", "Take some away."));
        }
        Set<Sentence> seen = new HashSet<>();
        int at = 0;
        boolean all = false;
        for (Sentence s : sentences) {
            at++;
            if (!house.kinds().containsKey(s.kind())) {
                wrong.add(Refusal.of("filing.kind", "Rule " + at + " names a kind that is not there.", "Choose one."));
            } else if (house.parts().contains(s.kind())) {
                wrong.add(Refusal.of(
                        "filing.part",
                        "Rule " + at + " makes files what has none: " + House.name(house.kinds(), s.kind()) + ".",
                        "Choose another kind."));
            }
            if (!s.named().isEmpty())
                Rule.form("The name in rule " + at, s.named()).ifPresent(wrong::add);
            if (!seen.add(s)) {
                wrong.add(Refusal.of("filing.twice", "Rule " + at + " stands twice.", "Take one away."));
            } else if (all) {
                wrong.add(Refusal.of(
                        "filing.never",
                        "Rule " + at + " is never reached: an earlier one takes every file.",
                        "Put it before that one."));
            }
            all |= s.contents().isEmpty() && s.named().isEmpty();
        }
        return List.copyOf(wrong);
    }
}
