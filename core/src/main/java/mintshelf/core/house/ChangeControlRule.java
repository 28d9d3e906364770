package mintshelf.core.house;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Refusal;
import mintshelf.core.signoff.Asked;

/**
 * Who may start the next revision of what is in force, and who is told when somebody does: sentences by kind and shelf, of which the first
 * that fits decides.
 */
public record ChangeControlRule(List<Sentence> sentences) implements Rule {
    /** The one change control of a house. */
    public static final String CODE = "change-control";

    public static final int MOST = 100;

    /** How a next revision begins. */
    public enum Starts {
        BY_HAND("whoever may change it starts the next revision", "whoever may change it"),
        BY_REQUEST("a request that was accepted starts the next revision", "a request that was accepted"),
        BY_ORDER("an order over requests starts the next revision", "an order over requests"),
        IN_ONE("an order that is asked for itself starts the next revision", "an order that is asked for itself"),
        BY_SOME("of those who may change it, only these start the next revision:", "only these");

        private final String words;
        private final String called;

        Starts(String words, String called) {
            this.words = words;
            this.called = called;
        }

        /** Who or what starts it, as in "{called} starts the next revision". */
        public String called() {
            return called;
        }

        public String words() {
            return words;
        }

        /** Whether nobody starts it by hand. */
        public boolean isByPaper() {
            return this == BY_REQUEST || this == BY_ORDER || this == IN_ONE;
        }

        /** Whether who wants a change writes a request first; else they ask for the order itself. */
        public boolean asksFirst() {
            return this == BY_REQUEST || this == BY_ORDER;
        }
    }

    /** What holds where no sentence fits. */
    public static final Sentence USUAL = new Sentence("", "", Starts.BY_HAND, Optional.empty(), Optional.empty());

    public ChangeControlRule {
        sentences = List.copyOf(sentences);
    }

    /**
     * One sentence of it.
     *
     * @param kind code of the kind that it is about; empty for every one
     * @param shelf number of the shelf, as text; empty for every one
     * @param some who may, where only some may
     * @param told who is told of a revision that was started; empty for nobody but who follows it
     * @param above whether what a change revises keeps its number, so that what stands above takes it as it is; empty for yes
     */
    public record Sentence(
            String kind,
            String shelf,
            Starts starts,
            Optional<Asked> some,
            Optional<Asked> told,
            Optional<Boolean> above) {
        /** One that keeps numbers. */
        public Sentence(String kind, String shelf, Starts starts, Optional<Asked> some, Optional<Asked> told) {
            this(kind, shelf, starts, some, told, Optional.empty());
        }

        /** Whether a document that is revised because of what it refers to is interchangeable with what it was. */
        public boolean isInterchangeable() {
            return above.orElse(true);
        }

        boolean fits(String ofKind, long onShelf) {
            return (kind.isEmpty() || kind.equals(ofKind)) && (shelf.isEmpty() || shelf.equals(Long.toString(onShelf)));
        }

        /** Whether it fits wherever another one does. */
        boolean covers(Sentence other) {
            return (kind.isEmpty() || kind.equals(other.kind)) && (shelf.isEmpty() || shelf.equals(other.shelf));
        }

        String says(House house) {
            String of = kind.isEmpty() ? "Of any document" : "Of a " + House.name(house.kinds(), kind);
            String on = shelf.isEmpty() ? "" : " on " + House.name(house.shelves(), shelf);
            String who = some.map(s -> " " + called(s, house)).orElse("");
            return of + on + ": " + starts.words() + who
                    + told.map(t -> "; told is " + called(t, house)).orElse("")
                    + (isInterchangeable() ? "" : "; revised, it needs a new number") + ".";
        }

        private static String called(Asked who, House house) {
            String kindOf = who.kind().words();
            return kindOf.isEmpty() ? house.name(who) : kindOf + " " + house.name(who);
        }
    }

    @Override
    public Subject subject() {
        return Subject.CHANGE_CONTROL;
    }

    @Override
    public String code() {
        return CODE;
    }

    @Override
    public String name() {
        return "Change control";
    }

    /** The sentence that decides for documents of a kind on a shelf. */
    public Sentence of(String kind, long shelf) {
        return sentences.stream().filter(s -> s.fits(kind, shelf)).findFirst().orElse(USUAL);
    }

    @Override
    public List<RuleLine> lines(House house) {
        return sentences.stream()
                .map(s -> s.says(house))
                .distinct()
                .map(says -> new RuleLine(says, "", says))
                .toList();
    }

    /** The sentences that can be about documents of a kind, in their order; what is usual where there is none. */
    public List<String> lines(House house, String kind) {
        List<String> about = sentences.stream()
                .filter(s -> s.kind().isEmpty() || s.kind().equals(kind))
                .map(s -> s.says(house))
                .toList();
        return about.isEmpty() ? List.of(USUAL.says(house)) : about;
    }

    @Override
    public List<Refusal> ask(House house) {
        List<Refusal> wrong = new ArrayList<>();
        if (sentences.size() > MOST) wrong.add(no("There are more than " + MOST + " sentences.", "Take some away."));
        for (int i = 0; i < sentences.size(); i++) {
            Sentence s = sentences.get(i);
            if (!s.kind().isEmpty() && !house.kinds().containsKey(s.kind())) {
                wrong.add(no("Sentence " + (i + 1) + " names a kind that is not there.", "Choose one."));
            }
            if (!s.shelf().isEmpty() && !house.shelves().containsKey(s.shelf())) {
                wrong.add(no("Sentence " + (i + 1) + " names a shelf that is not there.", "Choose one."));
            }
            if ((s.starts() == Starts.BY_SOME) != s.some().isPresent()) {
                wrong.add(no("Sentence " + (i + 1) + " does not say who may.", "Choose a group, a role or a person."));
            }
            for (Optional<Asked> named : List.of(s.some(), s.told())) {
                if (named.isPresent() && !house.knows(named.get())) {
                    wrong.add(no(
                            "Sentence " + (i + 1) + " names whom nobody knows here: "
                                    + named.get().code() + ".",
                            "Choose somebody."));
                }
            }
            for (int k = 0; k < i; k++) {
                if (!sentences.get(k).covers(s)) continue;
                wrong.add(no(
                        "Sentence " + (i + 1) + " is never reached: sentence " + (k + 1) + " decides first.",
                        "Put it before that one, or take it out."));
                break;
            }
        }
        return wrong.stream().distinct().toList();
    }

    private static Refusal no(String reason, String remedy) {
        return Refusal.of("change.control", reason, remedy);
    }
}
