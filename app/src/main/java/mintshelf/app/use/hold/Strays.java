package mintshelf.app.use.hold;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Service;

/** What came back without a valid hold: kept beside its document, adopted as the next version, or dropped. */
@Service
public class Strays {
    private final Sight sight;
    private final StrayStore strays;
    private final Trials trials;
    private final NewVersions versions;
    private final References references;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public Strays(
            Sight sight,
            StrayStore strays,
            Trials trials,
            NewVersions versions,
            References references,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.strays = strays;
        this.trials = trials;
        this.versions = versions;
        this.references = references;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** Keeps a content beside its document, within the caller's transaction. */
    long keep(Actor actor, Document document, StoredContent content, String fileName, String comment, Refusal refusal) {
        Optional<Long> base =
                document.holder().filter(h -> h.person() == actor.person()).map(Holder::baseVersion);
        long id = strays.keep(
                document,
                content.id(),
                FileName.of(fileName).name(),
                base,
                actor.person(),
                comment,
                refusal,
                StrayStore.State.KEPT,
                clock.instant());
        if (document.isTried())
            recorder.note(
                    actor,
                    document.id(),
                    "trial.stray.kept",
                    VersionName.line(document.trial()) + ": brought a file that was kept as a stray: "
                            + refusal.reason(),
                    comment);
        else
            recorder.note(
                    actor,
                    document.id(),
                    "stray.kept",
                    document.head().number(),
                    "brought a file that was kept as a stray: " + refusal.reason(),
                    comment);
        return id;
    }

    /**
     * Keeps for its author what was taken for only saved once more, within the caller's transaction: should that be wrong, the work is
     * not lost.
     */
    void keepSaved(Actor actor, Document document, StoredContent content, String fileName, String comment) {
        strays.keep(
                document,
                content.id(),
                FileName.of(fileName).name(),
                document.holder().map(Holder::baseVersion),
                actor.person(),
                comment,
                Refusal.of(
                        "check_in.only_saved",
                        "It was taken for only saved once more; no version was made.",
                        "If more than that was changed, make it a version."),
                StrayStore.State.SAVED,
                clock.instant());
    }

    /**
     * What is in the way of making a stray the next version. Under a hold, the actor's own too, it would slip a version between the
     * hold's base and what comes back.
     */
    public static Optional<Refusal> adoptRefusal(Actor actor, Document document) {
        return HoldRules.between(document, actor.access());
    }

    /** The document as a stray would become a version of it: on the line to which it came back. */
    public Seen on(Seen seen, StrayStore.Stray stray) {
        return trials.onLine(seen, stray.line()).map(Trials.Tried::tried).orElse(seen);
    }

    /** As {@link #adoptRefusal(Actor, Document)}, on the line to which it came back; nothing comes to a trial that is over. */
    public Optional<Refusal> adoptRefusal(Actor actor, Seen seen, StrayStore.Stray stray) {
        Optional<Trials.Tried> tried = trials.onLine(seen, stray.line());
        if (tried.isPresent() && !trials.isUnderWay(tried.get().line()))
            return Optional.of(Refusal.of(
                    "trial.ended",
                    "The trial that it came back to is over.",
                    "Fetch it, and bring it back under a check-out of the document itself."));
        return adoptRefusal(actor, on(seen, stray).document());
    }

    /** Makes a stray the next version of its document, on the line to which it came back. */
    public String adopt(Actor actor, long strayId, String key, int expectedVersion, String comment) {
        String words = Texts.optionalLines("The comment", comment, CheckIn.LONGEST_COMMENT)
                .orElseThrow(Refused::new);
        StrayStore.Stray known = strays.stray(strayId).orElseThrow(NotThere::new);
        List<Written> written = references.read(known.content());
        return acts.once(actor, key, () -> {
            Seen main = sight.locked(actor, known.item());
            StrayStore.Stray stray = open(actor, main, strayId);
            Optional<Long> trial =
                    trials.onLine(main, stray.line()).map(t -> t.line().trial());
            Seen seen = on(main, stray);
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            adoptRefusal(actor, main, stray).ifPresent(r -> {
                throw new Refused(r);
            });
            String said = words.isEmpty() ? "adopted the stray of " + stray.authorName() : words;
            Optional<Long> head = Optional.of(document.head().version());
            VersionStore.Added added = versions.add(
                    actor,
                    document,
                    new NewVersions.Made(
                            stray.content(),
                            references
                                    .resolve(known.item(), written, head, Map.of(), trial)
                                    .orElseThrow(Refused::new),
                            said,
                            VersionRow.MadeBy.ADOPTED,
                            head,
                            Optional.empty(),
                            ""));
            strays.decide(
                    strayId, StrayStore.State.ADOPTED, actor.person(), Optional.of(added.version()), clock.instant());
            String made = "made the stray of " + stray.authorName() + " version "
                    + new VersionName(document.trial(), added.number()).says();
            if (trial.isPresent()) {
                recorder.note(actor, known.item(), "trial.version.added", made, words);
                return "/trials/" + trial.get();
            }
            recorder.note(actor, known.item(), "version.added", added.number(), made, words);
            return "/documents/" + known.item();
        });
    }

    /** Drops a stray: its author, or who keeps the shelf. */
    public String drop(Actor actor, long strayId, String key) {
        StrayStore.Stray known = strays.stray(strayId).orElseThrow(NotThere::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, known.item());
            StrayStore.Stray stray = open(actor, seen, strayId);
            boolean keeper =
                    actor.access().may(Right.KEEP_SHELF, seen.document().place());
            if (stray.author() != actor.person() && !keeper) {
                throw Refused.because(
                        "access.missing",
                        "Only " + stray.authorName() + " or a data manager drops this stray.",
                        "Ask one of them.");
            }
            strays.decide(strayId, StrayStore.State.DROPPED, actor.person(), Optional.empty(), clock.instant());
            recorder.note(actor, known.item(), "stray.dropped", "dropped the stray of " + stray.authorName(), "");
            return "/documents/" + known.item();
        });
    }

    private StrayStore.Stray open(Actor actor, Seen seen, long strayId) {
        if (!seen.all()) throw new NotThere();
        return strays.stray(strayId)
                .filter(s -> s.isOpen(actor.person(), clock.instant()))
                .orElseThrow(() -> Refused.because(
                        "stray.decided", "Somebody decided on this stray meanwhile.", "Look at the document again."));
    }
}
