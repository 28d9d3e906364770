package mintshelf.core.reference;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;

/** What references ask of a document before it goes on. */
public final class ReferenceRules {
    /** Paths that a refusal names; the others are counted. */
    private static final int NAMED = 3;

    private ReferenceRules() {}

    /**
     * What keeps a document from review and release: files that it refers to and that the shelf does not know.
     *
     * @param missing paths whose file is nowhere
     * @param ambiguous paths whose file name several documents have
     */
    public static Optional<Refusal> gate(String number, List<String> missing, List<String> ambiguous) {
        int lost = missing.size() + ambiguous.size();
        if (lost == 0) return Optional.empty();
        StringBuilder reason = new StringBuilder(number + " refers to " + Numbers.count(lost, "file", "files"));
        reason.append(lost == 1 ? " that is" : " that are").append(ambiguous.isEmpty() ? " missing" : " not found");
        List<String> all = Stream.concat(missing.stream(), ambiguous.stream()).toList();
        reason.append(": ").append(String.join(", ", all.subList(0, Math.min(NAMED, lost))));
        if (lost > NAMED) reason.append(" and ").append(lost - NAMED).append(" more");
        return Optional.of(Refusal.of(
                "gate.references",
                reason.append('.').toString(),
                ambiguous.isEmpty()
                        ? "File what is missing and look again, or say which document is meant, under Refers to."
                        : "Say which documents are meant, under Refers to."));
    }
}
