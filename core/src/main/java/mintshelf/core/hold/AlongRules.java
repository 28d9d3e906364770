package mintshelf.core.hold;

import java.util.List;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;

/** What becomes of each document of a check-out that takes others along. */
public final class AlongRules {
    private AlongRules() {}

    /** Why a document is in a plan. */
    public enum Via {
        /** It was asked for. */
        ASKED("asked for"),
        /** It stands in what was asked for. */
        COMPONENT("component"),
        /** It is a drawing that shows what was asked for. */
        DRAWING("drawing"),
        /** It is what a drawing shows that was asked for. */
        MODEL("model"),
        /** What was asked for stands in it. */
        PARENT("stands above");

        private final String words;

        Via(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What a row may become. */
    public enum Fate {
        /** The person will hold it. */
        HOLD("check out"),
        /** It comes as a read-only copy. */
        COPY("copy"),
        /** It stays where it is. */
        STAY("stays");

        private final String words;

        Fate(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A row's verdict.
     *
     * @param fates what may be chosen, the proposed one first
     * @param why why it cannot be checked out; empty where it can
     */
    public record Verdict(List<Fate> fates, Optional<Refusal> why) {
        public Verdict {
            fates = List.copyOf(fates);
        }

        public Fate proposed() {
            return fates.get(0);
        }

        public boolean mayHold() {
            return fates.contains(Fate.HOLD);
        }

        public boolean isChoice() {
            return fates.size() > 1;
        }
    }

    /**
     * What may become of a document. What was asked for is checked out or stays; what goes along can always come as a copy.
     *
     * @param library whether it lies on a shelf that serves others: such documents come as copies unless asked for
     * @param holds whether components and parents that can be checked out are proposed to be, not copied
     */
    public static Verdict verdict(Document document, Access access, Via via, boolean library, boolean holds) {
        Optional<Refusal> refusal = HoldRules.checkOut(document, access);
        boolean copy = refusal.filter(r -> r.code().equals("access.library")).isPresent();
        if (via == Via.ASKED && !copy) {
            return refusal.isEmpty()
                    ? new Verdict(List.of(Fate.HOLD), refusal)
                    : new Verdict(List.of(Fate.STAY), refusal);
        }
        if (library && !copy) {
            return new Verdict(
                    List.of(Fate.COPY, Fate.STAY),
                    Optional.of(Refusal.of(
                            "library.copy",
                            "It lies on a library shelf.",
                            "Library documents come as copies; check it out from its own page.")));
        }
        if (refusal.isPresent()) return new Verdict(List.of(Fate.COPY, Fate.STAY), refusal);
        return holds || via == Via.DRAWING || via == Via.MODEL
                ? new Verdict(List.of(Fate.HOLD, Fate.COPY, Fate.STAY), refusal)
                : new Verdict(List.of(Fate.COPY, Fate.HOLD, Fate.STAY), refusal);
    }

    /**
     * What may become of a document that is brought for a parent: it comes as a copy unless somebody wants to hold it, and can. What the person holds
     * lies on the desk already, and what the parent stands in cannot stand in the parent.
     *
     * @param parent the parent's number
     * @param around whether the parent stands in the document
     */
    public static Verdict brought(Document document, Access access, String parent, boolean around) {
        if (around) {
            return new Verdict(
                    List.of(Fate.STAY),
                    Optional.of(Refusal.of(
                            "structure.ring",
                            parent + " stands in it: it cannot stand in " + parent + ".",
                            "Choose another parent.")));
        }
        if (document.holder().filter(h -> h.person() == access.person()).isPresent()) {
            return new Verdict(
                    List.of(Fate.STAY), Optional.of(Refusal.of("hold.mine", "You hold it: it lies on your desk.", "")));
        }
        Optional<Refusal> refusal = HoldRules.checkOut(document, access);
        return refusal.isPresent()
                ? new Verdict(List.of(Fate.COPY, Fate.STAY), refusal)
                : new Verdict(List.of(Fate.COPY, Fate.HOLD, Fate.STAY), refusal);
    }

    /** What a plan comes to, in one sentence: "2 will be held by you, 5 come as copies, 1 stays." */
    public static String sentence(long held, long copies, long stay) {
        StringBuilder says = new StringBuilder(Numbers.count(held, "document", "documents") + " will be held by you");
        if (copies > 0) says.append(", ").append(copies).append(copies == 1 ? " comes as a copy" : " come as copies");
        if (stay > 0) says.append(", ").append(stay).append(stay == 1 ? " stays" : " stay");
        return says.append('.').toString();
    }
}
