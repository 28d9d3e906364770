package mintshelf.app.use.hold;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.NeutralCopies;
import mintshelf.app.effect.NewVersions;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.Became.Fate;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.hold.Returned;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/** Takes one file that came back, within the act that takes them all. */
@Component
class TakeRow {
    private final HoldStore holds;
    private final Strays strays;
    private final NewVersions versions;
    private final FactValues values;
    private final References references;
    private final OnlySaved onlySaved;
    private final Recorder recorder;
    private final NeutralCopies neutral;

    TakeRow(
            HoldStore holds,
            Strays strays,
            NewVersions versions,
            FactValues values,
            References references,
            OnlySaved onlySaved,
            Recorder recorder,
            NeutralCopies neutral) {
        this.neutral = neutral;
        this.holds = holds;
        this.strays = strays;
        this.versions = versions;
        this.values = values;
        this.references = references;
        this.onlySaved = onlySaved;
        this.recorder = recorder;
    }

    /** Reads what a model says, before anything is locked: a large one takes seconds. */
    void look(StoredContent content) {
        if (content.kind() == ContentKind.STEP) values.look(content);
    }

    /**
     * Takes a row: a new version, nothing, or a stray.
     *
     * @param worked versions that the desk has, by document; what is made here is added
     * @param ended holds that end with the act
     */
    Became take(
            Actor actor,
            CheckIn.Row row,
            CheckIn.Options options,
            Map<Long, Long> worked,
            Brought set,
            List<Long> ended) {
        Seen seen = set.seen().get(row.item());
        Document document = seen.document();
        if (document.isTried() && !row.copies().isEmpty())
            throw Refused.because(
                    "trial.copies",
                    "Neutral copies lie beside versions of documents, not beside those of trials.",
                    "Bring " + document.number() + " without them; nothing was checked in.");
        String comment = row.comment().isBlank() ? options.comment() : row.comment();
        Optional<StoredContent> brought = row.upload().map(set.contents()::get);
        StoredContent content = brought.orElse(seen.spine().content());
        List<Reference> before = set.before(document);
        // What came with no bytes stands on the desk as it stands on the shelf: it refers to what that refers to.
        List<Written> written =
                brought.isPresent() && !content.hash().equals(document.head().content())
                        ? set.read().getOrDefault(row.upload().get(), List.of())
                        : before.stream().map(Reference::written).toList();
        Optional<Long> trial = Optional.ofNullable(set.tried().get(row.item()))
                .map(t -> t.line().trial());
        Outcome<List<Reference>> resolved = references.resolve(
                row.item(), written, Optional.of(document.head().version()), worked, trial);
        List<Reference> refersTo = resolved instanceof Outcome.Granted<List<Reference>> g ? g.value() : List.of();
        boolean saved =
                !options.keepSaves() && onlySaved.differ(content, seen.spine().content());
        Returned returned = HoldRules.checkIn(
                document,
                actor.access(),
                new HoldRules.Brought(content.hash(), saved, resolved.refusal(), References.moved(before, refersTo)),
                row.hold());
        if (returned instanceof Returned.KeptAsStray stray) {
            // Without bytes there is nothing to keep: the desk has what the shelf has.
            if (brought.isEmpty()) throw new Refused(stray.refusal());
            String fileName = set.files().get(row.upload().get()).fileName();
            long id = strays.keep(actor, document, content, fileName, comment, stray.refusal());
            return new Became(row.item(), Fate.STRAY, id, 0);
        }
        Holder holder = document.holder().orElseThrow();
        int head = document.head().number();
        if (!options.keepHold()) ended.add(holder.hold());
        if (returned instanceof Returned.Unchanged) {
            note(actor, document, "hold.undone", head, "brought back the same bytes; no version was made", comment);
            lay(actor, row, document.head().version(), head, set);
            return new Became(row.item(), Fate.UNCHANGED, head, document.head().version());
        }
        if (returned instanceof Returned.OnlySaved) {
            strays.keepSaved(
                    actor,
                    document,
                    content,
                    set.files().get(row.upload().orElseThrow()).fileName(),
                    comment);
            note(
                    actor,
                    document,
                    "hold.undone",
                    head,
                    "brought it back saved once more, with nothing else changed; no version was made, the file is kept for 30 days",
                    comment);
            lay(actor, row, document.head().version(), head, set);
            return new Became(row.item(), Fate.ONLY_SAVED, head, document.head().version());
        }
        // What a trial says of itself is no fact of its document.
        String taken = brought.isPresent() && trial.isEmpty() ? values.takeOver(actor, document, content) : "";
        String says = returned instanceof Returned.TakesUp up ? References.tookUp(up.components()) : "";
        VersionStore.Added added = versions.add(
                actor,
                document,
                new NewVersions.Made(
                        content,
                        refersTo,
                        comment.isBlank() ? says : comment,
                        VersionRow.MadeBy.CHECKED_IN,
                        Optional.of(holder.baseVersion()),
                        Optional.empty(),
                        ""));
        worked.replace(row.item(), added.version());
        if (options.keepHold()) holds.rebase(holder.hold(), added.version());
        note(
                actor,
                document,
                "version.added",
                added.number(),
                "checked in version " + new VersionName(document.trial(), added.number()).says()
                        + (says.isEmpty() ? " (" + Numbers.size(content.size()) + ")" : ", which " + says)
                        + (taken.isEmpty() ? "" : "; from " + FileFacts.place(content.kind()) + ": " + taken)
                        + Optional.ofNullable(set.orders().get(row.item()))
                                .map(on -> "; for " + on.number())
                                .orElse(""),
                comment);
        lay(actor, row, added.version(), added.number(), set);
        return new Became(row.item(), trial.isPresent() ? Fate.TRIAL : Fate.VERSION, added.number(), added.version());
    }

    /** On the line of a trial without the number, which is none of the document's, and as what happened to the trial. */
    private void note(Actor actor, Document document, String act, int number, String says, String why) {
        if (!document.isTried()) recorder.note(actor, document.id(), act, number, says, why);
        else recorder.note(actor, document.id(), "trial." + act, VersionName.line(document.trial()) + ": " + says, why);
    }

    /** Beside what it became: of a stray nothing is shown. */
    private void lay(Actor actor, CheckIn.Row row, long version, int number, Brought set) {
        Seen seen = set.seen().get(row.item());
        StoredContent main =
                row.upload().map(set.contents()::get).orElse(seen.spine().content());
        neutral.lay(
                actor,
                new NeutralCopies.To(
                        row.item(), version, number, seen.document().fileName(), main.kind()),
                row.copies().stream().map(set.files()::get).toList(),
                set.contents());
    }
}
