package mintshelf.app.use.hold;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
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
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.store.change.OrderStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.document.Holder;
import mintshelf.core.hold.AlongRules;
import mintshelf.core.hold.Became;
import mintshelf.core.hold.Became.Fate;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.hold.Returned;
import mintshelf.core.hold.ReturnedFile;
import mintshelf.core.reference.Written;
import mintshelf.core.structure.StructureGraph;
import org.springframework.stereotype.Service;

/** Takes files back: each becomes a new version, ends an unchanged check-out, or is kept as a stray. Work is never lost. */
@Service
public class CheckIn {
    /** A comment of several lines may be long, but not without end. */
    static final int LONGEST_COMMENT = 10_000;

    private final Sight sight;
    private final SpineStore spines;
    private final UploadStore uploads;
    private final HoldStore holds;
    private final Strays strays;
    private final ListStore lists;
    private final NewVersions versions;
    private final References references;
    private final OnlySaved onlySaved;
    private final TakeAlong along;
    private final HouseStore house;
    private final OrderStore orders;
    private final Acts acts;
    private final RunStore runs;
    private final Recorder recorder;
    private final Clock clock;

    public CheckIn(
            Sight sight,
            SpineStore spines,
            UploadStore uploads,
            HoldStore holds,
            Strays strays,
            ListStore lists,
            NewVersions versions,
            References references,
            OnlySaved onlySaved,
            TakeAlong along,
            HouseStore house,
            OrderStore orders,
            Acts acts,
            RunStore runs,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.spines = spines;
        this.uploads = uploads;
        this.holds = holds;
        this.strays = strays;
        this.lists = lists;
        this.versions = versions;
        this.references = references;
        this.onlySaved = onlySaved;
        this.along = along;
        this.house = house;
        this.orders = orders;
        this.acts = acts;
        this.runs = runs;
        this.recorder = recorder;
        this.clock = clock;
    }

    /**
     * A row of a check-in.
     *
     * @param upload token of the file that came; empty when the file is as the shelf has it
     * @param hold the hold that the page showed
     * @param comment its own one; empty for that of the set
     */
    public record Row(long item, Optional<String> upload, long hold, String comment) {
        public Row(long item, String uploadToken, long hold) {
            this(item, Optional.of(uploadToken), hold, "");
        }
    }

    /**
     * How a set is checked in.
     *
     * @param keepHold whether the holds go on, standing on the new versions
     * @param keepSaves whether files that were only saved once more become versions
     * @param worked ids of the versions that the desk has of documents: what references are captured at; else the latest
     */
    public record Options(String comment, boolean keepHold, boolean keepSaves, Map<Long, Long> worked) {}

    /** Of documents those that the actor still may see. */
    public List<Seen> still(Actor actor, List<Long> items) {
        return List.copyOf(sight.of(actor, items).values());
    }

    /** The documents of a check-in page: the asked ones, or all that the actor holds. */
    public List<Seen> held(Actor actor, List<Long> items) {
        List<Long> ids = items.isEmpty() ? lists.heldBy(actor.person(), CheckOut.MOST) : items;
        return List.copyOf(sight.of(actor, ids).values());
    }

    /**
     * A row of the check-in page.
     *
     * @param mine whether the actor holds it
     * @param along whether it was not asked for, but goes with what was
     * @param newer how many of its components are newer than it was saved with
     * @param sends whether it could be sent to review afterwards
     */
    public record Line(Seen seen, boolean mine, boolean along, int newer, boolean sends) {
        /** Where its file lies on a desk. */
        public String path() {
            return Packed.folders(seen.spine()) + seen.document().fileName();
        }
    }

    /** The rows of a check-in: the asked documents and what the actor holds of their structure, or all that the actor holds. */
    public List<Line> plan(Actor actor, List<Long> items) {
        List<Line> lines = new ArrayList<>();
        if (items.isEmpty()) {
            held(actor, items).forEach(s -> lines.add(line(actor, s, false)));
            return lines;
        }
        for (TakeAlong.Along a : along.gather(
                actor, sight.of(actor, items).keySet(), EnumSet.of(With.DRAWINGS, With.ALL_LEVELS, With.PARENTS))) {
            boolean asked = a.via() == AlongRules.Via.ASKED;
            Line line = line(actor, a.seen(), !asked);
            if (asked || line.mine()) lines.add(line);
        }
        return lines;
    }

    private Line line(Actor actor, Seen seen, boolean along) {
        boolean mine = seen.document()
                .holder()
                .filter(h -> h.person() == actor.person())
                .isPresent();
        List<Reference> refersTo = mine ? references.of(seen.document().head().version()) : List.of();
        return new Line(
                seen, mine, along, References.moved(refersTo, references.takenUp(refersTo)), mine && sends(seen));
    }

    /** Whether a document stands where its route leads into a review. */
    public boolean sends(Seen seen) {
        return seen.pending()
                .filter(r -> house.edition(r.stage().edition())
                        .opensRound(r.stage().code())
                        .isPresent())
                .isPresent();
    }

    /** To which of the actor's holds a file that came belongs; empty or several: the person is asked. */
    public List<Long> match(Actor actor, String fileName) {
        List<ReturnedFile.Held> held = sight.of(actor, lists.heldBy(actor.person(), CheckOut.MOST)).values().stream()
                .map(s -> new ReturnedFile.Held(s.spine().id(), s.document().fileName()))
                .toList();
        return ReturnedFile.match(fileName, held);
    }

    /** As {@link #take(Actor, List, String, Options)}, without a desk's record. */
    public List<Became> take(Actor actor, List<Row> rows, String key, String comment, boolean keepHold) {
        return take(actor, rows, key, new Options(comment, keepHold, false, Map.of()));
    }

    /**
     * Takes all rows in one transaction, components before what they stand in.
     *
     * @return what became of each, in the order in which they were taken
     */
    public List<Became> take(Actor actor, List<Row> rows, String key, Options asked) {
        Options options = new Options(words(asked.comment()), asked.keepHold(), asked.keepSaves(), asked.worked());
        rows.forEach(r -> words(r.comment()));
        if (rows.isEmpty()) {
            throw Refused.because("check_in.none", "No file was brought.", "Drop the changed files on their rows.");
        }
        List<Long> items = rows.stream().map(Row::item).sorted().distinct().toList();
        if (items.size() < rows.size()) {
            throw Refused.because(
                    "check_in.twice", "A document stands in this check-in twice.", "Bring one file for each.");
        }
        List<String> tokens = rows.stream().flatMap(r -> r.upload().stream()).toList();
        Map<String, List<Written>> read = new HashMap<>();
        for (Upload u : uploads.uploads(tokens, false)) {
            if (arrived(actor, u)) read.put(u.token(), references.read(u));
        }
        return Became.read(acts.once(actor, key, () -> {
            spines.lock(items);
            Brought brought = brought(actor, rows, items, read);
            List<Became> became = new ArrayList<>();
            Map<Long, Long> worked = new HashMap<>(options.worked());
            List<Long> ended = new ArrayList<>();
            for (Row row : componentsFirst(rows, brought))
                became.add(takeOne(actor, row, options, worked, brought, ended));
            if (!ended.isEmpty()) {
                holds.end(ended, HoldStore.Ending.CHECKED_IN, actor.person(), "", clock.instant());
            }
            runs.done(
                    actor.person(),
                    key,
                    Run.What.CHECK_IN,
                    says(became, brought.seen()),
                    rows(became),
                    clock.instant());
            return Became.join(became);
        }));
    }

    private static List<Run.Row> rows(List<Became> became) {
        return became.stream()
                .map(b -> new Run.Row(b.document(), b.fate().word(), b.number()))
                .toList();
    }

    /** In one sentence: "TG40-3030 came back: version 10", "TG40-3030 and 2 more came back: 2 new versions, 1 stray". */
    private static String says(List<Became> became, Map<Long, Seen> seen) {
        Became first = became.get(0);
        String number = seen.get(first.document()).document().number();
        if (became.size() == 1 && first.fate() == Became.Fate.VERSION)
            return number + " came back: version " + first.number();
        List<String> parts = new ArrayList<>();
        count(parts, became, Became.Fate.VERSION, "new version", "new versions");
        count(parts, became, Became.Fate.UNCHANGED, "unchanged", "unchanged");
        count(parts, became, Became.Fate.ONLY_SAVED, "only saved", "only saved");
        count(parts, became, Became.Fate.STRAY, "stray", "strays");
        String others = became.size() == 1 ? "" : " and " + (became.size() - 1) + " more";
        return number + others + " came back: " + String.join(", ", parts);
    }

    private static void count(List<String> parts, List<Became> became, Became.Fate fate, String one, String many) {
        long n = became.stream().filter(b -> b.fate() == fate).count();
        if (n > 0) parts.add(Numbers.count(n, one, many));
    }

    private static String words(String comment) {
        return Texts.optionalLines("The comment", comment, LONGEST_COMMENT).orElseThrow(Refused::new);
    }

    private static boolean arrived(Actor actor, Upload upload) {
        return upload.person() == actor.person() && upload.state() == Upload.State.COMPLETE;
    }

    /**
     * What is known of a set before its first row is taken, a statement or two for each kind of knowledge.
     *
     * @param seen the documents under their locks
     * @param files what came, by upload's token
     * @param contents of what came, sealed
     * @param read what the files refer to
     * @param before what the latest versions refer to, by version
     * @param orders the change orders that documents are on
     */
    private record Brought(
            Map<Long, Seen> seen,
            Map<String, Upload> files,
            Map<String, StoredContent> contents,
            Map<String, List<Written>> read,
            Map<Long, List<Reference>> before,
            Map<Long, OrderStore.On> orders) {
        List<Reference> before(Document document) {
            return before.getOrDefault(document.head().version(), List.of());
        }
    }

    private Brought brought(Actor actor, List<Row> rows, List<Long> items, Map<String, List<Written>> read) {
        Map<Long, Seen> seen = sight.of(actor, items);
        if (seen.size() != items.size() || !seen.values().stream().allMatch(Seen::all)) throw new NotThere();
        Map<String, Upload> files = new HashMap<>();
        for (Upload u :
                uploads.uploads(rows.stream().flatMap(r -> r.upload().stream()).toList(), true)) {
            if (arrived(actor, u)) files.put(u.token(), u);
        }
        for (Row row : rows) {
            if (row.upload().isEmpty() || files.containsKey(row.upload().get())) continue;
            throw Refused.because(
                    "upload.missing",
                    "The file for " + seen.get(row.item()).document().number() + " did not arrive whole.",
                    "Drop it again; nothing was checked in.");
        }
        return new Brought(
                seen,
                files,
                uploads.seal(files.values()),
                read,
                references.of(seen.values().stream()
                        .map(s -> s.document().head().version())
                        .toList()),
                orders.open(items));
    }

    private static List<Row> componentsFirst(List<Row> rows, Brought brought) {
        List<StructureGraph.Use> uses = new ArrayList<>();
        brought.seen()
                .forEach((item, s) -> brought.before(s.document())
                        .forEach(r -> r.component()
                                .ifPresent(c -> uses.add(new StructureGraph.Use(
                                        item, c.item(), r.written().quantity(), c.substance())))));
        long[] order = StructureGraph.of(uses)
                .upwards(brought.seen().keySet().stream()
                        .mapToLong(i -> i)
                        .sorted()
                        .toArray());
        Map<Long, Integer> places = new HashMap<>();
        for (int i = 0; i < order.length; i++) places.put(order[i], i);
        return rows.stream()
                .sorted(Comparator.comparingInt((Row r) -> places.getOrDefault(r.item(), -1))
                        .thenComparingLong(Row::item))
                .toList();
    }

    private Became takeOne(
            Actor actor, Row row, Options options, Map<Long, Long> worked, Brought set, List<Long> ended) {
        Seen seen = set.seen().get(row.item());
        Document document = seen.document();
        String comment = row.comment().isBlank() ? options.comment() : row.comment();
        Optional<StoredContent> brought = row.upload().map(set.contents()::get);
        StoredContent content = brought.orElse(seen.spine().content());
        List<Reference> before = set.before(document);
        // What came with no bytes stands on the desk as it stands on the shelf: it refers to what that refers to.
        List<Written> written =
                brought.isPresent() && !content.hash().equals(document.head().content())
                        ? set.read().getOrDefault(row.upload().get(), List.of())
                        : before.stream().map(Reference::written).toList();
        Outcome<List<Reference>> resolved = references.resolve(
                row.item(), written, Optional.of(document.head().version()), worked);
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
            return new Became(row.item(), Fate.STRAY, id);
        }
        Holder holder = document.holder().orElseThrow();
        int head = document.head().number();
        if (!options.keepHold()) ended.add(holder.hold());
        if (returned instanceof Returned.Unchanged) {
            recorder.note(
                    actor,
                    row.item(),
                    "hold.undone",
                    head,
                    "brought back the same bytes; no version was made",
                    comment);
            return new Became(row.item(), Fate.UNCHANGED, head);
        }
        if (returned instanceof Returned.OnlySaved) {
            strays.keepSaved(
                    actor,
                    document,
                    content,
                    set.files().get(row.upload().orElseThrow()).fileName(),
                    comment);
            recorder.note(
                    actor,
                    row.item(),
                    "hold.undone",
                    head,
                    "brought it back saved once more, with nothing else changed; no version was made, the file is kept for 30 days",
                    comment);
            return new Became(row.item(), Fate.ONLY_SAVED, head);
        }
        String taken = brought.isPresent() ? versions.takeFacts(document, content) : "";
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
        recorder.note(
                actor,
                row.item(),
                "version.added",
                added.number(),
                "checked in version " + added.number()
                        + (says.isEmpty() ? " (" + Numbers.size(content.size()) + ")" : ", which " + says)
                        + (taken.isEmpty() ? "" : "; from its title block: " + taken)
                        + Optional.ofNullable(set.orders().get(row.item()))
                                .map(on -> "; for " + on.number())
                                .orElse(""),
                comment);
        return new Became(row.item(), Fate.VERSION, added.number());
    }
}
