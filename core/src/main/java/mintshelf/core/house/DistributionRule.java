package mintshelf.core.house;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.OutputFormat;
import mintshelf.core.notice.MailTime;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Asked;

/** Who is told of which moments of which documents, without having asked for it: the shop of what comes into force. */
public record DistributionRule(List<Sentence> sentences) implements Rule {
    /** The one distribution of a house. */
    public static final String CODE = "distribution";

    public static final int MOST = 100;

    /** When the house may let mails go, whatever each chose. */
    public static final List<MailTime> TIMES = List.of(MailTime.AT_ONCE, MailTime.HOURLY, MailTime.DAILY);

    public DistributionRule {
        sentences = List.copyOf(sentences);
    }

    /** What goes with the mail. */
    public enum Way {
        LINK("a link"),
        PDF("the sheet as PDF"),
        DXF("the DXF with its margin line"),
        STEP("the STEP copy"),
        FILE("the file");

        private final String words;

        Way(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** Which output goes; nothing of a link, and of the file itself. */
        public Optional<OutputFormat> format() {
            return Arrays.stream(OutputFormat.values())
                    .filter(f -> f.name().equals(name()))
                    .findFirst();
        }

        /** Whether bytes leave the shelf with it. */
        public boolean sends() {
            return this != LINK;
        }
    }

    /**
     * One sentence of it.
     *
     * @param kind code of the kind that it is about; empty for every one
     * @param shelf number of the shelf, as text; empty for every one
     * @param who who is told
     * @param way what goes with the mail
     * @param when the mail goes; empty as each of them chose
     */
    public record Sentence(Moment moment, String kind, String shelf, Asked who, Way way, Optional<MailTime> when) {
        /** Editions that were kept before there was a choice tell by link, when each chose. */
        public Sentence {
            way = Objects.requireNonNullElse(way, Way.LINK);
            when = Objects.requireNonNullElse(when, Optional.empty());
        }

        public Sentence(Moment moment, String kind, String shelf, Asked who) {
            this(moment, kind, shelf, who, Way.LINK, Optional.empty());
        }

        /** Whether it is about a moment of a document. */
        public boolean isAbout(Moment of, String ofKind, long onShelf) {
            return moment == of
                    && (kind.isEmpty() || kind.equals(ofKind))
                    && (shelf.isEmpty() || shelf.equals(Long.toString(onShelf)));
        }

        String says(House house) {
            String of = kind.isEmpty() ? "of any document" : "of a " + House.name(house.kinds(), kind);
            String on = shelf.isEmpty() ? "" : " on " + House.name(house.shelves(), shelf);
            String to = SignOffRule.name(who, house);
            String kindOf = who.kind().words();
            return "When " + moment.words() + ", " + of + on + ": " + (kindOf.isEmpty() ? to : kindOf + " " + to)
                    + " is told" + when.map(t -> " " + t.words()).orElse("")
                    + (way.sends() ? ", with " + way.words() : "") + ".";
        }
    }

    @Override
    public Subject subject() {
        return Subject.DISTRIBUTION;
    }

    @Override
    public String code() {
        return CODE;
    }

    @Override
    public String name() {
        return "Distribution";
    }

    @Override
    public List<RuleLine> lines(House house) {
        return sentences.stream()
                .map(s -> s.says(house))
                .distinct()
                .map(says -> new RuleLine(says, "", says))
                .toList();
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        if (sentences.size() > MOST) wrong.add(no("There are more than " + MOST + " sentences.", "Take some away."));
        Set<Sentence> seen = new HashSet<>();
        for (Sentence s : sentences) {
            if (!s.kind().isEmpty() && !house.kinds().containsKey(s.kind())) {
                wrong.add(no("A sentence names a kind that is not there.", "Choose one."));
            }
            if (!s.shelf().isEmpty() && !house.shelves().containsKey(s.shelf())) {
                wrong.add(no("A sentence names a shelf that is not there.", "Choose one."));
            }
            if (!house.knows(s.who()))
                wrong.add(
                        no("A sentence tells whom nobody knows here: " + s.who().code() + ".", "Choose somebody."));
            if (s.way().sends() && s.moment() != Moment.RELEASE) {
                wrong.add(no(
                        "A sentence sends files of what is not in force.",
                        "Tell of it by link: whoever may, looks at it here."));
            }
            if (s.when().filter(t -> !TIMES.contains(t)).isPresent()) {
                wrong.add(no("A sentence tells nobody by mail.", "Choose at once, together, or as each chose."));
            }
            if (!seen.add(s)) wrong.add(no("A sentence stands twice.", "Take one away."));
        }
        return wrong.stream().distinct().toList();
    }

    private static Refusal no(String reason, String remedy) {
        return Refusal.of("distribution.rule", reason, remedy);
    }
}
