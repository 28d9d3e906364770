package mintshelf.app.use.document;

import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.HouseSeal;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SuccessorStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.output.OutputStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.document.OutOfForce;
import mintshelf.core.document.Revision;
import org.springframework.stereotype.Service;

/** What stands across the margin of sheets that are not in force any more, wherever they are opened. */
@Service
public class ReadMargin {
    private final RevisionStore revisions;
    private final SuccessorStore successors;
    private final OutputStore outputs;
    private final Sight sight;
    private final Contents contents;
    private final ReadingRoom room;
    private final MayFetch may;
    private final SheetPdf pages;
    private final HouseSeal seal;

    ReadMargin(
            RevisionStore revisions,
            SuccessorStore successors,
            OutputStore outputs,
            Sight sight,
            Contents contents,
            ReadingRoom room,
            MayFetch may,
            SheetPdf pages,
            HouseSeal seal) {
        this.seal = seal;
        this.revisions = revisions;
        this.successors = successors;
        this.outputs = outputs;
        this.sight = sight;
        this.contents = contents;
        this.room = room;
        this.may = may;
        this.pages = pages;
    }

    /**
     * Words across a margin.
     *
     * @param successor what took its place, where the reader sees it
     */
    public record Mark(String says, Optional<Seen> successor) {}

    /** Nothing for a version of a revision that is in force, or was not yet. */
    public Optional<Mark> of(Actor actor, Seen seen, VersionRow version) {
        // A trial was never in force.
        if (version.name().isTrial()) return Optional.empty();
        Revision of = revision(seen, version);
        if (OutOfForce.says(of, seen.document(), Optional.empty()).isEmpty()) return Optional.empty();
        Optional<Seen> successor = seen.document().released().isPresent()
                ? Optional.empty()
                : successors
                        .of(seen.spine().id())
                        .flatMap(id ->
                                sight.of(actor, List.of(id)).values().stream().findFirst());
        return OutOfForce.says(
                        of, seen.document(), successor.map(s -> s.document().number()))
                .map(says -> new Mark(says, successor));
    }

    /** A PDF that was made of a version, with its mark; nothing where it has none. */
    public Optional<byte[]> marked(Actor actor, Seen seen, VersionRow version, StoredContent pdf) {
        return of(actor, seen, version)
                .map(mark -> room.within(() -> contents.whole(pdf)
                                .map(bytes -> seal.on(pages.marked(bytes, mark.says()), mark.says())))
                        .orElseThrow(() -> Refused.because(
                                "pdf.large",
                                "The PDF has " + Numbers.size(pdf.size()) + ", too much to be marked “" + mark.says()
                                        + "”.",
                                "Look at the sheet here, or fetch the file.")));
    }

    /** Refuses a copy that cannot say that it is not in force any more. */
    public void refuseOutOfForce(Actor actor, Seen seen, VersionRow version) {
        of(actor, seen, version).ifPresent(mark -> {
            throw Refused.because(
                    "copy.out_of_force",
                    seen.document().number() + ", version " + version.number() + ": " + mark.says() + ".",
                    "Fetch its PDF, which says so, or the copy of what is in force.");
        });
    }

    /** What the shelf made of a version when it was in force and can say that it is not any more, for who may fetch it. */
    public List<OutputStore.Output> made(Actor actor, Seen seen, VersionRow version) {
        if (may.refusal(actor, seen, version).isPresent()) return List.of();
        return outputs.of(version.id()).stream()
                .filter(OutputStore.Output::isMade)
                .filter(o -> o.format().equals("PDF"))
                .toList();
    }

    private Revision revision(Seen seen, VersionRow version) {
        if (version.revision() == seen.current().id()) return seen.current();
        return revisions.revisions(seen.spine().id()).stream()
                .map(RevisionRow::revision)
                .filter(r -> r.id() == version.revision())
                .findFirst()
                .orElse(seen.current());
    }
}
