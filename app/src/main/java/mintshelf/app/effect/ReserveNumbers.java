package mintshelf.app.effect;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.DrawNumbers.Drawn;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.ReservedStore;
import mintshelf.app.store.document.ReservedStore.Reserved;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.document.Aspect;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/**
 * Numbers that are kept for the rows of a filing sheet as long as it is open: what its page shows is what its documents get. A number that is not
 * needed any more goes back to its series. Within the caller's transaction.
 */
@Component
public class ReserveNumbers {
    private final DrawNumbers draw;
    private final NumberStore numbers;
    private final ReservedStore reserved;
    private final HouseStore house;
    private final Clock clock;

    public ReserveNumbers(
            DrawNumbers draw, NumberStore numbers, ReservedStore reserved, HouseStore house, Clock clock) {
        this.draw = draw;
        this.numbers = numbers;
        this.reserved = reserved;
        this.house = house;
        this.clock = clock;
    }

    /** A row that wants a number of its kind's series. */
    public record Wanted(long row, long kind, Map<String, String> facts) {}

    /** The numbers that are kept for rows, by row. */
    public Map<Long, String> kept(Collection<Long> rows) {
        return reserved.of(rows).values().stream()
                .collect(Collectors.toMap(Reserved::row, r -> r.number().number()));
    }

    /**
     * Keeps a number for each row that wants one, and gives back what the others had: one that fits still stays.
     *
     * @param rows all rows of the sheet
     */
    public void settle(long person, long shelf, Collection<Long> rows, List<Wanted> wanted) {
        Map<Long, Reserved> had = reserved.of(rows);
        Map<Long, Reserved> back = new HashMap<>(had);
        Map<Long, List<Wanted>> byKind =
                wanted.stream().collect(Collectors.groupingBy(Wanted::kind, LinkedHashMap::new, Collectors.toList()));
        Map<Long, List<Wanted>> missing = new LinkedHashMap<>();
        byKind.forEach((kind, those) -> {
            Set<Long> fit = fitting(house.kind(kind), shelf, those, had);
            back.keySet().removeAll(fit);
            missing.put(kind, those.stream().filter(w -> !fit.contains(w.row())).toList());
        });
        giveBack(back.values(), person);
        missing.forEach((kind, those) -> keep(house.kind(kind), shelf, those));
    }

    /** The rows whose number stays. */
    private Set<Long> fitting(Kind kind, long shelf, List<Wanted> those, Map<Long, Reserved> had) {
        List<Wanted> own = those.stream()
                .filter(w -> had.containsKey(w.row())
                        && Objects.requireNonNull(had.get(w.row())).aspect() == kind.aspect())
                .toList();
        List<Boolean> fit = draw.fit(
                kind,
                shelf,
                own.stream().map(Wanted::facts).toList(),
                own.stream()
                        .map(w -> drawn(Objects.requireNonNull(had.get(w.row()))))
                        .toList());
        Set<Long> rows = new HashSet<>();
        for (int i = 0; i < own.size(); i++) if (fit.get(i)) rows.add(own.get(i).row());
        return rows;
    }

    private static Drawn drawn(Reserved one) {
        return new Drawn(one.series(), one.scope(), one.value(), one.number());
    }

    private void keep(Kind kind, long shelf, List<Wanted> those) {
        if (those.isEmpty()) return;
        List<Optional<Drawn>> drawn =
                draw.draw(kind, shelf, those.stream().map(Wanted::facts).toList());
        List<Reserved> keep = new ArrayList<>();
        for (int i = 0; i < those.size(); i++) {
            long row = those.get(i).row();
            drawn.get(i)
                    .ifPresent(d ->
                            keep.add(new Reserved(row, kind.aspect(), d.number(), d.series(), d.scope(), d.value())));
        }
        if (keep.isEmpty()) return;
        numbers.reserve(kind.aspect(), keep.stream().map(Reserved::number).toList(), clock.instant());
        reserved.keep(keep);
    }

    /**
     * The number that is kept for a row, taken for its document; none where none is, or where it does not fit what the row says now.
     *
     * @param typed what stands in its field: empty, or the very number
     */
    public Optional<NumberKey> take(long row, String typed, Kind kind, long shelf, Map<String, String> facts) {
        Reserved own = reserved.of(List.of(row)).get(row);
        if (own == null) return Optional.empty();
        boolean asked = typed.isBlank()
                || NumberKey.of(typed)
                        .toOptional()
                        .filter(n -> n.key().equals(own.number().key()))
                        .isPresent();
        if (!asked
                || fitting(kind, shelf, List.of(new Wanted(row, kind.id(), facts)), Map.of(row, own))
                        .isEmpty()) return Optional.empty();
        free(List.of(own));
        return Optional.of(own.number());
    }

    /** Gives back what is kept for rows: their sheet is filed or given up. */
    public void giveBack(long person, Collection<Long> rows) {
        giveBack(reserved.of(rows).values(), person);
    }

    /** Gives back what is kept for rows whose files were not kept that long. */
    public void gone(Collection<Long> uploads) {
        Map<Long, Reserved> kept = reserved.ofUploads(uploads);
        Map<Long, Long> people = reserved.people(kept.keySet());
        kept.values().stream()
                .collect(Collectors.groupingBy(r -> people.get(r.row())))
                .forEach((person, those) -> giveBack(those, person));
    }

    private void giveBack(Collection<Reserved> those, long person) {
        if (those.isEmpty()) return;
        free(those);
        draw.giveBack(those.stream().map(ReserveNumbers::drawn).toList(), person);
    }

    private void free(Collection<Reserved> those) {
        reserved.free(those.stream().map(Reserved::row).toList());
        Map<Aspect, List<String>> keys = those.stream()
                .collect(Collectors.groupingBy(
                        Reserved::aspect, Collectors.mapping(r -> r.number().key(), Collectors.toList())));
        keys.forEach(numbers::free);
    }
}
