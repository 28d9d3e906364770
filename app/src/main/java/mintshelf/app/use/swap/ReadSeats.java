package mintshelf.app.use.swap;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.model.compare.ModelFile;
import mintshelf.core.model.compare.Seats;
import mintshelf.core.model.compare.Seats.Fate;
import mintshelf.core.model.compare.Seats.Round;
import mintshelf.core.model.compare.Seats.Seat;
import mintshelf.core.model.step.StepAssembly.Placed;
import mintshelf.core.reuse.Swaps.Pair;
import org.springframework.stereotype.Service;

/** Where what goes out is seated in a parent, and which of these seats what comes in keeps: seen before it is done. */
@Service
public class ReadSeats {
    /** Files of components that are read for one parent, and bytes of one. */
    private static final int MOST_FILES = 60;

    private static final long LARGEST = 8L << 20;
    private static final int KEPT = 300;
    private static final int SPREAD = 10;

    private final Sight sight;
    private final References references;
    private final ContentStore contents;
    private final ReadingRoom room;
    private final Map<String, List<Round>> kept = Recent.most(KEPT);

    public ReadSeats(Sight sight, References references, ContentStore contents, ReadingRoom room) {
        this.sight = sight;
        this.references = references;
        this.contents = contents;
        this.room = room;
    }

    /**
     * @param seats those that are lost first
     * @param known whether the parent and what stands in it can be read at all
     */
    public record Seated(List<Seat> seats, boolean known) {
        /** "6 seats fit, 1 does not". */
        public String says() {
            if (!known) return "It is not known where it is seated.";
            if (seats.isEmpty()) return "Nothing round meets it on one axis.";
            int lost = count(Fate.LOST);
            int otherwise = count(Fate.OTHERWISE);
            int fits = count(Fate.FITS);
            List<String> parts = new ArrayList<>();
            if (fits > 0) parts.add(fits == 1 ? "1 seat fits" : fits + " seats fit");
            if (otherwise > 0) parts.add(otherwise == 1 ? "1 fits otherwise" : otherwise + " fit otherwise");
            if (lost > 0) parts.add(lost == 1 ? "1 does not" : lost + " do not");
            return String.join(", ", parts) + ".";
        }

        private int count(Fate fate) {
            return (int) seats.stream().filter(s -> s.fate() == fate).count();
        }
    }

    /** The seats of what goes out in a document's latest version, of which the actor sees all. */
    public Seated of(Actor actor, long parent, List<Pair> pairs) {
        Seen seen = sight.of(actor, parent);
        if (!seen.all()) throw new NotThere();
        StoredContent content = seen.spine().content();
        Optional<ModelFile> file =
                content.kind() == ContentKind.STEP && content.size() <= LARGEST ? read(content) : Optional.empty();
        if (file.isEmpty()) return new Seated(List.of(), false);
        Map<String, Long> meant = new HashMap<>();
        for (Reference r : references.of(seen.document().head().version()))
            r.component().ifPresent(c -> meant.put(r.written().path(), c.item()));
        Map<Long, Long> comesIn = new HashMap<>();
        pairs.forEach(p -> comesIn.put(p.old(), p.now()));
        List<Long> all = new ArrayList<>(meant.values());
        all.addAll(comesIn.values());
        Map<Long, Seen> components = sight.of(actor, all);
        List<Round> old = new ArrayList<>();
        List<Round> now = new ArrayList<>();
        List<Round> others = new ArrayList<>();
        Map<Long, List<Round>> rounds = new HashMap<>();
        for (Placed placed : file.get().placed()) {
            Long item = meant.get(placed.file().strip());
            if (item == null || !components.containsKey(item)) continue;
            List<Round> own = rounds(rounds, components.get(item));
            Long in = comesIn.get(item);
            for (Round r : own) (in == null ? others : old).add(r.in(placed.matrix()));
            if (in == null || !components.containsKey(in)) continue;
            for (Round r : rounds(rounds, components.get(in))) now.add(r.in(placed.matrix()));
        }
        List<Seat> seats = new ArrayList<>(Seats.compare(old, now, others));
        seats.sort((a, b) -> b.fate().compareTo(a.fate()));
        return new Seated(List.copyOf(seats), true);
    }

    private List<Round> rounds(Map<Long, List<Round>> known, Seen component) {
        long item = component.spine().id();
        List<Round> there = known.get(item);
        if (there != null) return there;
        List<Round> found = known.size() < MOST_FILES ? rounds(component) : List.of();
        known.put(item, found);
        return found;
    }

    private List<Round> rounds(Seen component) {
        StoredContent content = component.spine().content();
        if (content.kind() != ContentKind.STEP || content.size() > LARGEST) return List.of();
        String key = content.hash().hex();
        List<Round> local = kept.get(key);
        if (local == null) {
            local = read(content)
                    .map(f -> f.bodies().stream()
                            .flatMap(b -> Seats.of("", b).stream())
                            .toList())
                    .orElse(List.of());
            kept.put(key, local);
        }
        String number = component.document().number();
        return local.stream()
                .map(r -> new Round(number, r.hollow(), r.diameter(), r.at(), r.axis(), r.from(), r.to()))
                .toList();
    }

    private Optional<ModelFile> read(StoredContent content) {
        return room.apart(() -> {
            if (!room.takes(SPREAD * content.size())) return Optional.empty();
            try {
                Outcome<ModelFile> read =
                        ModelFile.read(() -> new ContentInput(contents, content.id(), content.size()));
                return read.toOptional();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }
}
