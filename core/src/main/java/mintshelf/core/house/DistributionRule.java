package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.notice.Moment;
import mintshelf.core.signoff.Asked;

/** Who is told of which moments of which documents, without having asked for it: the shop of what comes into force. */
public record DistributionRule(List<Sentence> sentences) implements Rule {
    /** The one distribution of a house. */
    public static final String CODE = "distribution";

    public static final int MOST = 100;

    public DistributionRule {
        sentences = List.copyOf(sentences);
    }

    /**
     * One sentence of it.
     *
     * @param kind code of the kind that it is about; empty for every one
     * @param shelf number of the shelf, as text; empty for every one
     * @param who who is told
     */
    public record Sentence(Moment moment, String kind, String shelf, Asked who) {
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
                    + " is told.";
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
            if (!seen.add(s)) wrong.add(no("A sentence stands twice.", "Take one away."));
        }
        return wrong.stream().distinct().toList();
    }

    private static Refusal no(String reason, String remedy) {
        return Refusal.of("distribution.rule", reason, remedy);
    }
}
