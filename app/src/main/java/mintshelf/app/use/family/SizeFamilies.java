package mintshelf.app.use.family;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.FileName;
import mintshelf.core.family.SizeTable;
import org.springframework.stereotype.Service;

/** The size families of library shelves: tables of measures whose rows are parts. */
@Service
public class SizeFamilies {
    /** Larger tables are not read as families. */
    private static final long LARGEST = 1L << 20;
    /** Families that are asked where a measured length stands. */
    private static final int MOST_FAMILIES = 200;
    /** Rows that are shown. */
    private static final int MOST_ROWS = 100;
    /** How far a size may be from what was measured, as a part of it. */
    private static final double WITHIN = 0.05;

    private static final int ROOM_FOR_A_TABLE = 20;

    private final Sight sight;
    private final VersionStore versions;
    private final DocumentStore documents;
    private final Contents contents;
    private final Numbered numbered;
    private final ReadingRoom room;
    private final Map<String, Optional<SizeTable>> kept = Recent.most(MOST_FAMILIES);

    public SizeFamilies(
            Sight sight,
            VersionStore versions,
            DocumentStore documents,
            Contents contents,
            Numbered numbered,
            ReadingRoom room) {
        this.sight = sight;
        this.versions = versions;
        this.documents = documents;
        this.contents = contents;
        this.numbered = numbered;
        this.room = room;
    }

    /** Whether a document is a table on a library shelf: what is in it is read when a size is looked for. */
    public static boolean mayBe(Seen seen) {
        String ending = FileName.of(seen.document().fileName()).extension();
        return seen.document().place().library() && (ending.equals("csv") || ending.equals("xlsx"));
    }

    /** A row with the part that it names, where the actor sees it. */
    public record Line(SizeTable.Match match, Optional<Seen> part) {}

    /** @param more rows that are as far off or further, and not shown */
    public record View(Seen of, SizeTable table, List<Line> lines, int more) {}

    /**
     * A family with its sizes, those nearest to what is wanted first.
     *
     * @param wanted measures as they were typed, by name; what is no number is passed over
     */
    public View view(Actor actor, long item, Map<String, String> wanted) {
        Seen of = sight.of(actor, item);
        if (!mayBe(of)) throw new NotThere();
        SizeTable table = table(of)
                .orElseThrow(() -> Refused.because(
                        "family.none",
                        of.document().number() + " is no size family that can be read.",
                        "A size family has a column “number” and columns of measures, one part a row."));
        Map<String, Double> measures = new TreeMap<>();
        table.measures()
                .forEach(m ->
                        SizeTable.value(wanted.getOrDefault(m.name(), "")).ifPresent(v -> measures.put(m.name(), v)));
        List<SizeTable.Match> all = table.nearest(measures, SizeTable.MOST);
        List<SizeTable.Match> shown = all.subList(0, Math.min(MOST_ROWS, all.size()));
        Map<String, Seen> parts = parts(actor, shown);
        return new View(
                of,
                table,
                shown.stream()
                        .map(m -> new Line(
                                m, Optional.ofNullable(parts.get(m.size().number()))))
                        .toList(),
                all.size() - shown.size());
    }

    private Map<String, Seen> parts(Actor actor, Collection<SizeTable.Match> matches) {
        return numbered.named(
                actor,
                matches.stream()
                        .map(m -> m.size().number())
                        .filter(n -> !n.isEmpty())
                        .distinct()
                        .toList());
    }

    /** A size of a family that has a measured length. */
    public record Found(Seen family, SizeTable.Near near, Optional<Seen> part) {}

    /** Sizes of all families that the actor sees which have a measured length, the nearest first. */
    public List<Found> near(Actor actor, double measured) {
        List<Found> all = new ArrayList<>();
        for (Seen family :
                sight.of(actor, documents.tablesOfLibraries(MOST_FAMILIES)).values()) {
            table(family)
                    .ifPresent(table -> table.near(measured, WITHIN, MOST_ROWS)
                            .forEach(n -> all.add(new Found(family, n, Optional.empty()))));
        }
        all.sort(Comparator.comparingDouble(f -> f.near().match().off()));
        List<Found> shown = all.subList(0, Math.min(MOST_ROWS, all.size()));
        Map<String, Seen> parts =
                parts(actor, shown.stream().map(f -> f.near().match()).toList());
        return shown.stream()
                .map(f -> new Found(
                        f.family(),
                        f.near(),
                        Optional.ofNullable(parts.get(f.near().match().size().number()))))
                .toList();
    }

    /** The table of the version that the actor sees, of a document of a library. */
    private Optional<SizeTable> table(Seen seen) {
        if (!mayBe(seen)) return Optional.empty();
        VersionRow version = versions.version(seen.spine().id(), seen.version()).orElseThrow(NotThere::new);
        StoredContent content = version.content();
        if (content.size() > LARGEST) return Optional.empty();
        Optional<SizeTable> known = kept.get(content.hash().hex());
        if (known != null) return known;
        return room.apart(() -> {
            // For which there is no room now is read another time.
            if (!room.takes(ROOM_FOR_A_TABLE * content.size())) return Optional.empty();
            Optional<SizeTable> read = read(content);
            kept.put(content.hash().hex(), read);
            return read;
        });
    }

    private Optional<SizeTable> read(StoredContent content) {
        byte[] bytes = contents.bytes(content, content.size());
        return TableFiles.read(bytes, SizeTable.MOST + 1) instanceof Outcome.Granted<List<List<String>>> rows
                        && SizeTable.of(rows.value()) instanceof Outcome.Granted<SizeTable> table
                ? Optional.of(table.value())
                : Optional.empty();
    }
}
