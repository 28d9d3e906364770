package mintshelf.app.use.hold;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.use.Actor;
import mintshelf.app.use.Acts;
import mintshelf.app.use.FallingSignOffs;
import mintshelf.app.use.NotThere;
import mintshelf.app.use.Recorder;
import mintshelf.app.use.Refused;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sheets;
import mintshelf.app.use.Sight;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionDigest;
import mintshelf.core.fact.FactReader;
import mintshelf.core.fact.FactValue;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.hold.Returned;
import mintshelf.core.hold.ReturnedFile;
import org.springframework.stereotype.Service;

/** Takes files back: each becomes a new version, ends an unchanged check-out, or is kept as a stray. Work is never lost. */
@Service
public class CheckIn {
    /** A comment of several lines may be long, but not without end. */
    static final int LONGEST_COMMENT = 10_000;

    private final Sight sight;
    private final DocumentStore documents;
    private final ContentStore contents;
    private final HoldStore holds;
    private final StrayStore strays;
    private final ListStore lists;
    private final HouseStore house;
    private final FallingSignOffs signOffs;
    private final OrderStore orders;
    private final Sheets sheets;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public CheckIn(
            Sight sight,
            DocumentStore documents,
            ContentStore contents,
            HoldStore holds,
            StrayStore strays,
            ListStore lists,
            HouseStore house,
            FallingSignOffs signOffs,
            OrderStore orders,
            Sheets sheets,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.documents = documents;
        this.contents = contents;
        this.holds = holds;
        this.strays = strays;
        this.lists = lists;
        this.house = house;
        this.signOffs = signOffs;
        this.orders = orders;
        this.sheets = sheets;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A row of a check-in: the document, the file that came, the hold that the page showed. */
    public record Row(long item, String uploadToken, long hold) {}

    /** The documents of a check-in page: the asked ones, or all that the actor holds. */
    public List<Seen> held(Actor actor, List<Long> items) {
        List<Long> ids = items.isEmpty() ? lists.heldBy(actor.person(), CheckOut.MOST) : items;
        return List.copyOf(sight.of(actor, ids).values());
    }

    /** To which of the actor's holds a file that came belongs; empty or several: the person is asked. */
    public List<Long> match(Actor actor, String fileName) {
        List<ReturnedFile.Held> held = sight.of(actor, lists.heldBy(actor.person(), CheckOut.MOST)).values().stream()
                .map(s -> new ReturnedFile.Held(s.spine().id(), s.document().fileName()))
                .toList();
        return ReturnedFile.match(fileName, held);
    }

    /**
     * Takes all rows in one transaction.
     *
     * @param keepHold whether the holds go on, standing on the new versions
     * @return the address of the page that says what became of each
     */
    public String take(Actor actor, List<Row> rows, String key, String comment, boolean keepHold) {
        String words =
                Texts.optionalLines("The comment", comment, LONGEST_COMMENT).orElseThrow(Refused::new);
        if (rows.isEmpty()) {
            throw Refused.because("check_in.none", "No file was brought.", "Drop the changed files on their rows.");
        }
        return acts.once(actor, key, () -> {
            List<Row> sorted =
                    rows.stream().sorted(Comparator.comparingLong(Row::item)).toList();
            documents.lock(sorted.stream().map(Row::item).toList());
            List<String> outcome = new ArrayList<>();
            for (Row row : sorted) outcome.add(takeOne(actor, row, words, keepHold));
            return "/check-in/done?rows=" + String.join(",", outcome);
        });
    }

    private String takeOne(Actor actor, Row row, String comment, boolean keepHold) {
        Seen seen = sight.of(actor, row.item());
        if (!seen.all()) throw new NotThere();
        Document document = seen.document();
        Upload upload = contents.upload(row.uploadToken())
                .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                .orElseThrow(() -> Refused.because(
                        "upload.missing",
                        "The file for " + document.number() + " did not arrive whole.",
                        "Drop it again; nothing was checked in."));
        Returned returned =
                HoldRules.checkIn(document, actor.access(), upload.hash().orElseThrow(), row.hold());
        StoredContent content = contents.seal(upload);
        Instant now = clock.instant();
        if (returned instanceof Returned.KeptAsStray stray) {
            long id = keepStray(actor, document, content, upload.fileName(), comment, stray.refusal(), now);
            return row.item() + "s" + id;
        }
        Holder holder = document.holder().orElseThrow();
        if (returned instanceof Returned.Unchanged) {
            if (!keepHold) holds.end(holder.hold(), HoldStore.Ending.CHECKED_IN, actor.person(), "", now);
            recorder.note(
                    actor,
                    row.item(),
                    "hold.undone",
                    document.head().number(),
                    "brought back the same bytes; no version was made",
                    comment);
            return row.item() + "u" + document.head().number();
        }
        String taken = takeFacts(document, content);
        int number = addVersion(
                actor,
                document,
                content,
                comment,
                VersionRow.MadeBy.CHECKED_IN,
                Optional.of(holder.baseVersion()),
                Optional.empty(),
                now);
        if (keepHold)
            holds.rebase(
                    holder.hold(), sight.of(actor, row.item()).document().head().version());
        else holds.end(holder.hold(), HoldStore.Ending.CHECKED_IN, actor.person(), "", now);
        recorder.note(
                actor,
                row.item(),
                "version.added",
                number,
                "checked in version " + number + " (" + Numbers.size(content.size()) + ")"
                        + (taken.isEmpty() ? "" : "; from its title block: " + taken)
                        + Optional.ofNullable(orders.open(List.of(row.item())).get(row.item()))
                                .map(on -> "; for " + on.number())
                                .orElse(""),
                comment);
        return row.item() + "v" + number;
    }

    /**
     * Takes over what the designer changed in the title block. What stands there as it stood before leaves the record alone, for
     * somebody may have put it right there meanwhile.
     *
     * @return what was taken over, in words; empty for nothing
     */
    private String takeFacts(Document document, StoredContent content) {
        Map<String, String> now = sheets.facts(content);
        if (now.isEmpty()) return "";
        Map<String, String> before = sheets.facts(documents
                .version(document.id(), document.head().number())
                .orElseThrow()
                .content());
        long revision = document.pending().orElseThrow().id();
        Map<String, String> kept = documents.facts(revision);
        List<String> taken = new ArrayList<>();
        for (KindFact fact : house.factSheets().getOrDefault(document.place().kind(), List.of())) {
            String name = fact.fact().name();
            String said = now.get(name);
            if (said == null || said.equals(before.get(name)) || said.equals(kept.get(name))) continue;
            if (!(FactReader.read(fact.fact(), said) instanceof Outcome.Granted<Optional<FactValue>> read)) continue;
            documents.setFact(revision, fact.fact().id(), read.value());
            taken.add(fact.fact().label() + " “" + Texts.shorten(said, 60) + "”");
        }
        return Texts.shorten(String.join(", ", taken), 300);
    }

    private int addVersion(
            Actor actor,
            Document document,
            StoredContent content,
            String comment,
            VersionRow.MadeBy madeBy,
            Optional<Long> base,
            Optional<Long> copyOf,
            Instant now) {
        long revision = document.pending().orElseThrow().id();
        Map<String, String> facts = documents.facts(revision);
        int number = documents.addVersion(
                new DocumentStore.NewVersion(
                        document.id(),
                        revision,
                        content.id(),
                        document.fileName(),
                        VersionDigest.of(content.hash(), facts),
                        comment,
                        actor.person(),
                        madeBy,
                        base,
                        copyOf,
                        facts),
                now);
        lists.noteRecent(actor.person(), document.id(), "changed", now);
        signOffs.changed(actor, document.id(), "version " + number + " came");
        return number;
    }

    private long keepStray(
            Actor actor,
            Document document,
            StoredContent content,
            String fileName,
            String comment,
            Refusal refusal,
            Instant now) {
        Optional<Long> base =
                document.holder().filter(h -> h.person() == actor.person()).map(Holder::baseVersion);
        long id = strays.keep(
                document, content.id(), FileName.of(fileName).name(), base, actor.person(), comment, refusal, now);
        recorder.note(
                actor,
                document.id(),
                "stray.kept",
                document.head().number(),
                "brought a file that was kept as a stray: " + refusal.reason(),
                comment);
        return id;
    }

    /** What is in the way of making a stray the next version; a document that the actor holds takes it under the hold. */
    public static Optional<Refusal> adoptRefusal(Actor actor, Document document) {
        return HoldRules.checkOut(document, actor.access())
                .filter(r -> !r.code().equals("hold.mine"));
    }

    /** Makes a stray the next version of its document. */
    public String adopt(Actor actor, long strayId, String key, int expectedVersion, String comment) {
        String words =
                Texts.optionalLines("The comment", comment, LONGEST_COMMENT).orElseThrow(Refused::new);
        StrayStore.Stray known = strays.stray(strayId).orElseThrow(NotThere::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, known.item());
            StrayStore.Stray stray = open(seen, strayId);
            Sight.expectVersion(seen, expectedVersion);
            Document document = seen.document();
            boolean mine =
                    document.holder().filter(h -> h.person() == actor.person()).isPresent();
            adoptRefusal(actor, document).ifPresent(r -> {
                throw new Refused(r);
            });
            Instant now = clock.instant();
            String said = words.isEmpty() ? "adopted the stray of " + stray.authorName() : words;
            int number = addVersion(
                    actor,
                    document,
                    stray.content(),
                    said,
                    VersionRow.MadeBy.ADOPTED,
                    Optional.of(document.head().version()),
                    Optional.empty(),
                    now);
            long version = sight.of(actor, known.item()).document().head().version();
            if (mine) holds.rebase(document.holder().orElseThrow().hold(), version);
            strays.decide(strayId, "ADOPTED", actor.person(), Optional.of(version), now);
            recorder.note(
                    actor,
                    known.item(),
                    "version.added",
                    number,
                    "made the stray of " + stray.authorName() + " version " + number,
                    words);
            return "/documents/" + known.item();
        });
    }

    /** Drops a stray: its author, or who keeps the shelf. */
    public String drop(Actor actor, long strayId, String key) {
        StrayStore.Stray known = strays.stray(strayId).orElseThrow(NotThere::new);
        return acts.once(actor, key, () -> {
            Seen seen = sight.locked(actor, known.item());
            StrayStore.Stray stray = open(seen, strayId);
            boolean keeper = actor.access()
                    .may(mintshelf.core.access.Right.KEEP_SHELF, seen.document().place());
            if (stray.author() != actor.person() && !keeper) {
                throw Refused.because(
                        "access.missing",
                        "Only " + stray.authorName() + " or a data manager drops this stray.",
                        "Ask one of them.");
            }
            strays.decide(strayId, "DROPPED", actor.person(), Optional.empty(), clock.instant());
            recorder.note(actor, known.item(), "stray.dropped", "dropped the stray of " + stray.authorName(), "");
            return "/documents/" + known.item();
        });
    }

    private StrayStore.Stray open(Seen seen, long strayId) {
        if (!seen.all()) throw new NotThere();
        return strays.stray(strayId)
                .filter(s -> s.state().equals("KEPT"))
                .orElseThrow(() -> Refused.because(
                        "stray.decided", "Somebody decided on this stray meanwhile.", "Look at the document again."));
    }
}
