package mintshelf.core.document;

import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.revision.StageClass;

/** Who brings a neutral copy of which version, and whether one is current. */
public final class NeutralRules {
    private NeutralRules() {}

    /**
     * A version to which a copy is to be brought.
     *
     * @param main its own file
     * @param out whether a revision was released with it: what is out is added to, and nothing of it is replaced
     * @param there whether it has a copy of that form
     */
    public record To(FileName main, ContentKind kind, int number, boolean out, boolean there) {}

    /**
     * Why nobody brings a copy of a version of this document now; nothing where somebody may.
     *
     * @param document as its row is locked, where it is asked within an act
     * @param out whether a revision was released with the version: what everybody works with is for who keeps the shelf
     */
    public static Optional<Refusal> bring(
            Document document, Access access, FileName main, ContentKind kind, boolean out) {
        if (document.dropped()) {
            return Optional.of(Refusal.of("neutral.dropped", document.number() + " was dropped.", ""));
        }
        if (!NeutralForm.isWanted(kind, main)) {
            return Optional.of(Refusal.of(
                    "neutral.own",
                    document.number() + " is shown as it is.",
                    "A neutral copy lies beside a file that only its own program reads."));
        }
        Optional<Refusal> missing = access.ask(out ? Right.KEEP_SHELF : Right.CHANGE, document.place());
        if (missing.isPresent()) return missing;
        // Who signs has looked at what is there: nobody lays another picture under the signature.
        boolean decided = document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.DECIDING)
                .isPresent();
        if (decided && !out) {
            return Optional.of(Refusal.of(
                    "neutral.decides",
                    document.number() + " is being decided on.",
                    "Bring it when it comes back, or with the next revision."));
        }
        return document.holder()
                .filter(h -> h.person() != access.person())
                .map(h -> Refusal.of(
                        "hold.taken",
                        document.number() + " is held by " + h.name() + ".",
                        "Ask " + h.name() + " to bring it with the check-in."));
    }

    /** Why this file is not taken as a copy of that version. */
    public static Optional<Refusal> take(To to, FileName copy, Optional<NeutralForm> form) {
        if (form.isEmpty()) {
            return Optional.of(Refusal.of(
                    "neutral.form",
                    "“" + copy.name() + "” is in no open form.",
                    "Bring a STEP, DXF, PDF, SVG, 3MF or STL file, or a picture."));
        }
        if (to.out() && to.there()) {
            return Optional.of(Refusal.of(
                    "neutral.out",
                    "Version " + to.number() + " was released with its "
                            + form.get().words() + ".",
                    "What is released stays as it was; bring another with the next revision."));
        }
        return Optional.empty();
    }

    /** Whether a file could be the copy of another by its name: the same but for the ending. */
    public static boolean belongs(FileName main, FileName copy) {
        return !main.key().equals(copy.key())
                && FileName.of(main.stem())
                        .key()
                        .equals(FileName.of(copy.stem()).key());
    }

    /**
     * What keeps a document whose latest version has no copy of its own.
     *
     * @param shown number of the version that its latest copy shows; empty where it never had one
     */
    public static Refusal notCurrent(String number, int latest, Optional<Integer> shown) {
        String reason = shown.map(n ->
                        "The neutral copy of " + number + " shows version " + n + ", the file is at " + latest + ".")
                .orElse(number + " has no neutral copy.");
        return Refusal.of("gate.neutral", reason, "Bring the neutral copy of version " + latest + ".");
    }
}
