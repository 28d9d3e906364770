package mintshelf.app.use.hold;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.run.RunStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.hold.Became;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Service;

/** Takes files back: each becomes a new version, ends an unchanged check-out, or is kept as a stray. Work is never lost. */
@Service
public class CheckIn {
    /** A comment of several lines may be long, but not without end. */
    static final int LONGEST_COMMENT = 10_000;

    private final SpineStore spines;
    private final UploadStore uploads;
    private final GatherBrought gather;
    private final TakeRow take;
    private final HoldStore holds;
    private final References references;
    private final Acts acts;
    private final RunStore runs;
    private final Clock clock;

    public CheckIn(
            SpineStore spines,
            UploadStore uploads,
            GatherBrought gather,
            TakeRow take,
            HoldStore holds,
            References references,
            Acts acts,
            RunStore runs,
            Clock clock) {
        this.spines = spines;
        this.uploads = uploads;
        this.gather = gather;
        this.take = take;
        this.holds = holds;
        this.references = references;
        this.acts = acts;
        this.runs = runs;
        this.clock = clock;
    }

    /**
     * A row of a check-in.
     *
     * @param upload token of the file that came; empty when the file is as the shelf has it
     * @param hold the hold that the page showed
     * @param comment its own one; empty for that of the set
     * @param copies tokens of the neutral copies that came with it
     */
    public record Row(long item, Optional<String> upload, long hold, String comment, List<String> copies) {
        public Row(long item, Optional<String> upload, long hold, String comment) {
            this(item, upload, hold, comment, List.of());
        }

        public Row(long item, String uploadToken, long hold) {
            this(item, Optional.of(uploadToken), hold, "");
        }

        /** All files that came for it. */
        Stream<String> files() {
            return Stream.concat(upload.stream(), copies.stream());
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
        boolean models = false;
        for (Upload u : uploads.uploads(tokens, false)) {
            if (!GatherBrought.arrived(actor, u)) continue;
            read.put(u.token(), references.read(u));
            models |= u.kind().filter(ContentKind.STEP::equals).isPresent();
        }
        // What they said before is read here too: under the lock others would wait for it.
        if (models) spines.spines(items).values().forEach(s -> take.look(s.content()));
        return Became.read(acts.once(actor, key, () -> {
            spines.lock(items);
            Brought brought = gather.of(actor, rows, items, read);
            List<Became> became = new ArrayList<>();
            Map<Long, Long> worked = new HashMap<>(options.worked());
            List<Long> ended = new ArrayList<>();
            for (Row row : brought.componentsFirst(rows))
                became.add(take.take(actor, row, options, worked, brought, ended));
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
                .map(b -> new Run.Row(
                        b.document(), b.fate().word(), b.fate() == Became.Fate.TRIAL ? b.version() : b.number()))
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
        count(parts, became, Became.Fate.TRIAL, "new version of a trial", "new versions of trials");
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
}
