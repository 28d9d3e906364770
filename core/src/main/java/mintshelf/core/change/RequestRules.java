package mintshelf.core.change;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.access.Access;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Document;
import mintshelf.core.document.DropRules;

/** What a change may be asked of. */
public final class RequestRules {
    private RequestRules() {}

    /** Why no change is asked for of a document; nothing when it may be. Whoever sees what is released may ask. */
    public static Optional<Refusal> line(Document document, Access access) {
        Optional<Refusal> dropped = DropRules.refusal(document);
        if (dropped.isPresent()) return dropped;
        Optional<Refusal> missing = access.ask(Right.ASK, document.place());
        if (missing.isPresent()) return missing;
        if (document.released().isPresent()) return Optional.empty();
        return Optional.of(
                document.pending().isPresent()
                        ? Refusal.of(
                                "request.free",
                                document.number() + " was never released: it is changed freely.",
                                "Check it out, or leave a remark on its sheet.")
                        : Refusal.of(
                                "request.ended",
                                document.number() + " is "
                                        + document.current().stage().name().toLowerCase(Locale.ROOT) + ".",
                                "Nothing of it is in force to be changed."));
    }

    /** Why a request cannot go before the board; nothing when it can. */
    public static Optional<Refusal> ask(String reason, List<PaperLine> lines) {
        if (reason.isBlank()) {
            return Optional.of(Refusal.of("text.missing", "The reason is empty.", "Say what is wrong or wanted."));
        }
        if (lines.isEmpty()) {
            return Optional.of(
                    Refusal.of("request.lines", "It names no document.", "Name at least one that is to be changed."));
        }
        return Optional.empty();
    }
}
