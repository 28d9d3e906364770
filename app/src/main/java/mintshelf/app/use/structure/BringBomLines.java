package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomTableRows;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Service;

/**
 * Lines of a bill of materials from a table. What a table would do is found out by doing it, row by row, in a transaction that is taken
 * back: the plan and the act cannot differ.
 */
@Service
public class BringBomLines {
    private final KeepBomLines lines;
    private final ReadBom read;
    private final Numbered numbered;
    private final VariantNames variants;
    private final FactsChanged changed;
    private final Acts acts;

    public BringBomLines(
            KeepBomLines lines,
            ReadBom read,
            Numbered numbered,
            VariantNames variants,
            FactsChanged changed,
            Acts acts) {
        this.lines = lines;
        this.read = read;
        this.numbered = numbered;
        this.variants = variants;
        this.changed = changed;
        this.acts = acts;
    }

    /**
     * What a row does.
     *
     * @param says in words; empty for one that changes nothing, and for one that is refused
     */
    public record Row(BomTableRows.Row row, String says, Optional<Refusal> refusal) {}

    /** What a table does. */
    public record Plan(Seen top, List<Row> rows) {
        public List<Row> refused() {
            return rows.stream().filter(r -> r.refusal().isPresent()).toList();
        }

        public long changing() {
            return rows.stream().filter(r -> !r.says().isEmpty()).count();
        }

        public boolean opens() {
            return refused().isEmpty() && changing() > 0;
        }
    }

    /** The document whose lines a table may bring; refused where this person may not write them. */
    public Seen top(Actor actor, long item) {
        Seen top = read.top(actor, item);
        if (!top.all()) throw new NotThere();
        KeepBomLines.refusal(actor, top).ifPresent(r -> {
            throw new Refused(r);
        });
        return top;
    }

    /** What a table would do; nothing is changed. */
    public Plan plan(Actor actor, long item, byte[] file) {
        Seen top = top(actor, item);
        List<BomTableRows.Row> rows = rows(file);
        List<Row> done = new ArrayList<>();
        acts.rehearse(() -> done.addAll(carryOut(actor, lines.open(actor, item), rows)));
        return new Plan(top, done);
    }

    private static List<BomTableRows.Row> rows(byte[] file) {
        return BomTableRows.read(TableFiles.read(file, BomTableRows.MOST + 1).orElseThrow(Refused::new))
                .orElseThrow(Refused::new);
    }

    /** Does what a table says, all of it or nothing. */
    public String take(Actor actor, long item, String key, byte[] file) {
        List<BomTableRows.Row> rows = rows(file);
        return acts.once(actor, key, () -> {
            Seen seen = lines.open(actor, item);
            Plan plan = new Plan(seen, carryOut(actor, seen, rows));
            Refused.unlessEmpty(
                    plan.refused().stream().flatMap(r -> r.refusal().stream()).toList(),
                    "bom.table_refused",
                    "Nothing was changed.");
            if (plan.changing() > 0) {
                String first = plan.rows().stream()
                        .map(Row::says)
                        .filter(s -> !s.isEmpty())
                        .findFirst()
                        .orElse("");
                String more = plan.changing() > 1 ? ", and " + (plan.changing() - 1) + " more of its lines" : "";
                changed.noteLine(actor, seen, Texts.shorten("from a table " + first + more, 400));
            }
            return "/documents/" + item + "/bom";
        });
    }

    private List<Row> carryOut(Actor actor, Seen seen, List<BomTableRows.Row> rows) {
        List<Row> done = new ArrayList<>();
        Set<String> finds =
                rows.stream().map(r -> r.find().toUpperCase(Locale.ROOT)).collect(Collectors.toSet());
        Set<String> said = new HashSet<>();
        for (BomTableRows.Row row : rows) {
            try {
                row.refusal().ifPresent(r -> {
                    throw new Refused(r);
                });
                done.add(new Row(row, one(actor, seen, row, finds, said), Optional.empty()));
            } catch (Refused e) {
                done.add(new Row(row, "", Optional.of(e.refusal())));
            }
        }
        return done;
    }

    /**
     * What was done for a row, in words; empty where the line is so already.
     *
     * @param finds that rows of the table name: a line under one of them is that row's
     * @param said what rows without a find number were so far
     */
    private String one(Actor actor, Seen seen, BomTableRows.Row row, Set<String> finds, Set<String> said) {
        ReadBom.Read now = read.ofPending(actor, seen.spine().id());
        Bom bom = now.bom();
        Optional<Seen> document = document(actor, seen, row);
        long item = document.map(d -> d.spine().id()).orElse(0L);
        String variant = document.filter(d -> row.variant().isEmpty())
                .map(d -> variants.numbered(d, row.number()))
                .orElse(row.variant());
        String thing = item > 0 ? item + "/" + Texts.key(variant) : Texts.key(row.number() + "\n" + row.title());
        if (row.find().isEmpty() && !said.add(thing))
            throw Refused.because(
                    "bom.table_twice",
                    row.shown() + " stands in the table twice without a find number.",
                    "Say which line each row is, or make one row of them.");
        List<BomLine> same = bom.lines(0).stream()
                .filter(l -> is(bom.part(l.part()), item, row))
                .toList();
        // Of several lines of one thing, the one with the row's find number, else with its variant.
        Optional<BomLine> line = same.stream()
                .filter(l -> l.find().equalsIgnoreCase(row.find()))
                .findFirst()
                .or(() -> same.stream()
                        .filter(l -> !finds.contains(l.find()))
                        .filter(l -> bom.part(l.part()).variant().equals(variant))
                        .findFirst())
                .or(() -> same.stream()
                        .filter(l -> row.find().isEmpty() && !finds.contains(l.find()))
                        .findFirst());
        if (line.isEmpty()) {
            String title = document.isPresent() ? "" : row.title();
            return lines.put(actor, seen, typed(0, row, title, row.quantity(), row.unit(), variant, row.when()));
        }
        BomLine there = line.get();
        String unit = row.or("unit", row.unit(), there.unit());
        String called = row.columns().contains("variant") || !variant.isEmpty()
                ? variant
                : bom.part(there.part()).variant();
        Effectivity.Typed when = row.limits() ? row.when() : Effectivity.Typed.of(there.when());
        if (isSame(bom.part(there.part()), there, row, unit, called, when)) return "";
        if (there.byHand()) {
            Kept kept = kept(now.revision(), there).orElseThrow(NotThere::new);
            return lines.put(actor, seen, over(kept, document, row, unit, called, when));
        }
        // What the file counts stays what it counts, where the row says nothing else.
        boolean counted = kept(now.revision(), there).flatMap(Kept::measured).isEmpty() && isAmount(there, row, unit);
        return lines.putSaid(actor, seen, item, typed(0, row, "", counted ? "" : row.quantity(), unit, called, when));
    }

    private static Typed typed(
            int seq,
            BomTableRows.Row row,
            String title,
            String quantity,
            String unit,
            String variant,
            Effectivity.Typed when) {
        return new Typed(
                seq,
                row.find(),
                row.number(),
                title,
                quantity,
                unit,
                row.comes(),
                row.mass(),
                row.cost(),
                variant,
                when);
    }

    /** A line by hand as the row says it; what the table has no column for stays. */
    private static Typed over(
            Kept kept,
            Optional<Seen> document,
            BomTableRows.Row row,
            String unit,
            String variant,
            Effectivity.Typed when) {
        return new Typed(
                kept.seq(),
                row.find(),
                row.number(),
                document.isPresent() ? "" : row.title(),
                row.quantity(),
                unit,
                row.or("comes", row.comes(), kept.says().comes().word()),
                row.or("mass", row.mass(), amount(kept.says().mass())),
                row.or("cost", row.cost(), amount(kept.says().cost())),
                variant,
                when);
    }

    private Optional<Seen> document(Actor actor, Seen seen, BomTableRows.Row row) {
        if (row.number().isEmpty()) return Optional.empty();
        NumberKey key = NumberKey.of(row.number()).orElseThrow(Refused::new);
        Optional<Seen> found =
                numbered.leading(actor, seen.spine().id(), row.number()).or(() -> variants.describes(actor, key));
        if (found.isPresent()) return found;
        boolean itself = numbered.all(actor, row.number()).stream()
                .anyMatch(s -> s.spine().id() == seen.spine().id());
        if (itself)
            throw Refused.because(
                    "bom.ring",
                    row.number() + " is this document itself.",
                    "A thing cannot be part of its own parts; nothing was changed.");
        if (row.title().isEmpty())
            throw Refused.because(
                    "number.unknown",
                    "No other document that you see has the number " + row.number() + ".",
                    "Write what it is as its title, where it has no document.");
        return found;
    }

    private static boolean is(BomPart part, long item, BomTableRows.Row row) {
        if (item > 0) return part.item() == item;
        return part.item() < 0
                && Texts.key(part.number()).equals(Texts.key(row.number()))
                && Texts.key(part.title()).equals(Texts.key(row.title()));
    }

    private Optional<Kept> kept(long revision, BomLine line) {
        return lines.of(revision).stream()
                .filter(k -> k.ofFile() != line.byHand() && k.find().equals(line.find()))
                .findFirst();
    }

    private static boolean isAmount(BomLine line, BomTableRows.Row row, String unit) {
        return line.unit().equals(unit.isEmpty() ? BomUnits.PIECE : unit)
                && BomUnits.quantity(row.quantity())
                        .toOptional()
                        .filter(q -> q.compareTo(line.quantity()) == 0)
                        .isPresent();
    }

    private static boolean isSame(
            BomPart part, BomLine line, BomTableRows.Row row, String unit, String variant, Effectivity.Typed when) {
        String cost = amount(part.cost().own());
        boolean words = part.item() > 0
                || (isMass(part, row.or("mass", row.mass(), amount(part.mass().own())))
                        && row.or("cost", row.cost(), cost).equals(cost)
                        && (row.comes().isEmpty() || part.comes().word().equals(row.comes())));
        return words
                && (row.find().isEmpty() || line.find().equalsIgnoreCase(row.find()))
                && isAmount(line, row, unit)
                && part.variant().equals(variant)
                && line.when().equals(Effectivity.read(when).orElseThrow(Refused::new));
    }

    /** A table that was fetched says what a gram weighs, too. */
    private static boolean isMass(BomPart part, String mass) {
        return amount(part.mass().own()).equals(mass)
                || (part.mass().own().isEmpty()
                        && amount(BomUnits.in(BigDecimal.ONE, part.unit(), "kg"))
                                .equals(mass));
    }

    private static String amount(Optional<BigDecimal> value) {
        return value.map(Numbers::plain).orElse("");
    }
}
