package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import mintshelf.app.effect.FactValues;
import mintshelf.app.effect.FactsChanged;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.store.structure.BomLineStore.Measured;
import mintshelf.app.store.structure.BomLineStore.Named;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.FindNumbers;
import mintshelf.core.bom.Variant;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.StageClass;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/** Lines of a bill of materials that people write: what no file refers to, and other find numbers and quantities for what one does. */
@Service
public class KeepBomLines {
    /** Lines of one BOM that are written by hand. */
    public static final int MOST = 500;

    private final Sight sight;
    private final Numbered numbered;
    private final ReadBom read;
    private final BomLineStore lines;
    private final VariantNames variants;
    private final FactsChanged changed;
    private final Acts acts;

    public KeepBomLines(
            Sight sight,
            Numbered numbered,
            ReadBom read,
            BomLineStore lines,
            VariantNames variants,
            FactsChanged changed,
            Acts acts) {
        this.sight = sight;
        this.numbered = numbered;
        this.read = read;
        this.lines = lines;
        this.variants = variants;
        this.changed = changed;
        this.acts = acts;
    }

    /**
     * A line as somebody typed it.
     *
     * @param seq of a line that is kept; 0 for a new one
     * @param number of a document, or of what has none
     * @param title of what has no document; empty where the number is a document's
     * @param variant of the document; empty where the number is that of a variant, or the document has none
     * @param when limits of which products it is part
     */
    public record Typed(
            int seq,
            String find,
            String number,
            String title,
            String quantity,
            String unit,
            String comes,
            String mass,
            String cost,
            String variant,
            Effectivity.Typed when) {
        public Typed(
                int seq,
                String find,
                String number,
                String title,
                String quantity,
                String unit,
                String comes,
                String mass,
                String cost) {
            this(seq, find, number, title, quantity, unit, comes, mass, cost, "", Effectivity.Typed.NOTHING);
        }

        /** What is said of a line of the file. */
        public static Typed said(String find, String quantity, String unit) {
            return new Typed(0, find, "", "", quantity, unit, "", "", "");
        }

        public Typed {
            find = Objects.requireNonNullElse(find, "");
            number = Objects.requireNonNullElse(number, "");
            title = Objects.requireNonNullElse(title, "");
            quantity = Objects.requireNonNullElse(quantity, "");
            unit = Objects.requireNonNullElse(unit, "");
            comes = Objects.requireNonNullElse(comes, "");
            mass = Objects.requireNonNullElse(mass, "");
            cost = Objects.requireNonNullElse(cost, "");
            variant = Objects.requireNonNullElse(variant, "");
            when = Objects.requireNonNullElse(when, Effectivity.Typed.NOTHING);
        }
    }

    /** Why lines of what this person sees are not written; nothing where they may be. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen) {
        Optional<Refusal> missing =
                actor.access().ask(Right.CHANGE, seen.document().place());
        if (missing.isPresent()) return missing;
        if (seen.pending().isEmpty())
            return Optional.of(Refusal.of(
                    "bom.frozen",
                    "The bill of materials of " + seen.document().number() + " was released as it is.",
                    "Start the next revision first."));
        if (seen.current().stage().stageClass() != StageClass.PREPARING)
            return Optional.of(Refusal.of(
                    "bom.in_review",
                    seen.document().number() + " is in review with the lines that it has.",
                    "Take it back to work first."));
        return FactValues.heldByAnother(actor, seen.document());
    }

    /** Writes a line of what no file refers to, a new one or another one in its place. */
    public String write(Actor actor, long item, String key, Typed typed) {
        return acts.once(actor, key, () -> {
            Seen seen = open(actor, item);
            changed.noteLine(actor, seen, put(actor, seen, typed));
            return "/documents/" + item + "/bom";
        });
    }

    /** As {@link #write}, of a document that is open; what was done, in words. Within the caller's transaction. */
    String put(Actor actor, Seen seen, Typed typed) {
        long revision = numbered(seen);
        List<Kept> kept = of(revision);
        Optional<Kept> before =
                kept.stream().filter(k -> k.seq() == typed.seq() && !k.ofFile()).findFirst();
        if (typed.seq() > 0 && before.isEmpty()) throw new NotThere();
        if (before.isEmpty() && kept.stream().filter(k -> !k.ofFile()).count() >= MOST)
            throw Refused.because(
                    "bom.many", "It has " + MOST + " lines by hand already.", "Take some away; nothing was changed.");
        Kept line = line(actor, seen.spine().id(), typed);
        line = line.withFind(find(actor, seen, typed, line, before));
        lines.keep(revision, line);
        return (before.isEmpty() ? "wrote line " : "changed line ") + says(line, typed);
    }

    private String says(Kept line, Typed typed) {
        String what = line.component().isPresent()
                ? typed.number().strip()
                : (line.says().number() + " " + line.says().title()).strip();
        return line.find() + " of its bill of materials: "
                + line.measured()
                        .map(m -> m.quantity().toPlainString() + " " + m.unit() + " ")
                        .orElse("")
                + what
                + which(line.variant(), line.when());
    }

    /** Of which variant it is and of which products, behind what it is; empty where it is always the same. */
    private static String which(String variant, Effectivity when) {
        return (variant.isEmpty() ? "" : ", " + variant) + (when.isAlways() ? "" : ", " + when.says());
    }

    /** Takes a line away that was written by hand. */
    public String drop(Actor actor, long item, String key, int seq) {
        return acts.once(actor, key, () -> {
            Seen seen = open(actor, item);
            long revision = seen.current().id();
            Kept line = of(revision).stream()
                    .filter(k -> k.seq() == seq && !k.ofFile())
                    .findFirst()
                    .orElseThrow(NotThere::new);
            lines.drop(revision, seq);
            changed.noteLine(actor, seen, "took line " + line.find() + " out of its bill of materials");
            return "/documents/" + item + "/bom";
        });
    }

    /**
     * Says under which find number a component stands, and how much of it, where that is not what the file counts.
     *
     * @param typed its find number, quantity (empty for what the file counts), variant and limits
     */
    public String say(Actor actor, long item, String key, long component, Typed typed) {
        return acts.once(actor, key, () -> {
            Seen seen = open(actor, item);
            changed.noteLine(actor, seen, putSaid(actor, seen, component, typed));
            return "/documents/" + item + "/bom";
        });
    }

    /** As {@link #say}, of a document that is open; what was done, in words. Within the caller's transaction. */
    String putSaid(Actor actor, Seen seen, long component, Typed typed) {
        long revision = numbered(seen);
        ReadBom.Read now = read.ofPending(actor, seen.spine().id());
        BomLine line = now.bom().lines(0).stream()
                .filter(l -> !l.byHand() && now.bom().part(l.part()).item() == component)
                .findFirst()
                .orElseThrow(NotThere::new);
        Optional<Measured> measured =
                typed.quantity().isBlank() ? Optional.empty() : Optional.of(measured(typed.quantity(), typed.unit()));
        Effectivity when = Effectivity.read(typed.when()).orElseThrow(Refused::new);
        String number = FindNumbers.read(typed.find().isBlank() ? line.find() : typed.find())
                .orElseThrow(Refused::new);
        String variant = variants.named(sight.of(actor, component), typed.variant());
        int seq = of(revision).stream()
                .filter(k -> k.ofFile() && k.component().equals(Optional.of(component)))
                .mapToInt(Kept::seq)
                .findFirst()
                .orElse(0);
        Kept said = new Kept(seq, true, Optional.of(component), number, measured, Named.NOTHING, variant, when);
        free(seen, now, number, said, l -> !l.equals(line));
        lines.keep(revision, said);
        return "line " + number + " of its bill of materials is "
                + measured.map(m -> m.quantity().toPlainString() + " " + m.unit() + " ")
                        .orElse("")
                + now.bom().part(line.part()).shown()
                + which(variant, when);
    }

    /**
     * What the form of a line shows.
     *
     * @param component of a line that the file has
     * @param counted what the file counts of it
     */
    public record Form(
            Seen top,
            Optional<Refusal> refusal,
            Typed typed,
            Optional<BomPart> component,
            String counted,
            List<Variant> variants) {}

    /** @param find number of a line of the BOM that is being prepared; empty for a new one */
    public Form form(Actor actor, long item, String find) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) throw new NotThere();
        Optional<Refusal> refusal = refusal(actor, seen);
        Typed none = new Typed(0, "", "", "", "", BomUnits.PIECE, Comes.BOUGHT.word(), "", "");
        if (find.isEmpty()) return new Form(seen, refusal, none, Optional.empty(), "", List.of());
        ReadBom.Read now = read.ofPending(actor, item);
        BomLine line = now.bom().lines(0).stream()
                .filter(l -> l.find().equals(find))
                .findFirst()
                .orElseThrow(NotThere::new);
        BomPart part = now.bom().part(line.part());
        Optional<Kept> kept = of(now.revision()).stream()
                .filter(k -> k.find().equals(find) && k.ofFile() != line.byHand())
                .findFirst();
        String quantity = line.quantity().toPlainString();
        if (!line.byHand()) {
            if (part.item() < 0) throw new NotThere();
            boolean said = kept.flatMap(Kept::measured).isPresent();
            Typed typed = new Typed(
                    0,
                    find,
                    part.number(),
                    part.title(),
                    said ? quantity : "",
                    line.unit(),
                    "",
                    "",
                    "",
                    part.variant(),
                    Effectivity.Typed.of(line.when()));
            List<Variant> known = variants.of(sight.of(actor, part.item()));
            return new Form(seen, refusal, typed, Optional.of(part), said ? "" : quantity, known);
        }
        Kept own = kept.orElseThrow(NotThere::new);
        Named says = own.says();
        Typed typed = new Typed(
                own.seq(),
                find,
                own.component().isPresent()
                        ? sight.of(actor, own.component().get()).document().number()
                        : says.number(),
                says.title(),
                quantity,
                line.unit(),
                says.comes().word(),
                says.mass().map(BigDecimal::toPlainString).orElse(""),
                says.cost().map(BigDecimal::toPlainString).orElse(""),
                own.variant(),
                Effectivity.Typed.of(own.when()));
        List<Variant> known =
                own.component().map(c -> variants.of(sight.of(actor, c))).orElse(List.of());
        return new Form(seen, refusal, typed, Optional.empty(), "", known);
    }

    /** The document under its lock, whose lines this person may write; refused else. */
    Seen open(Actor actor, long item) {
        Seen seen = sight.locked(actor, item);
        if (!seen.all()) throw new NotThere();
        refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        return seen;
    }

    /** The revision under way, of which the file's lines keep the numbers that they have now: those by hand are to stand behind or between them. */
    private long numbered(Seen seen) {
        long revision = seen.current().id();
        lines.freeze(revision, seen.document().head().version());
        return revision;
    }

    private static Measured measured(String quantity, String unit) {
        return new Measured(
                BomUnits.quantity(quantity).orElseThrow(Refused::new),
                BomUnits.unit(unit).orElseThrow(Refused::new));
    }

    private Kept line(Actor actor, long item, Typed typed) {
        Measured measured = measured(typed.quantity(), typed.unit());
        Effectivity when = Effectivity.read(typed.when()).orElseThrow(Refused::new);
        if (typed.title().isBlank()) {
            Seen document = component(actor, item, typed.number());
            String variant = typed.variant().isBlank()
                    ? variants.numbered(document, typed.number())
                    : variants.named(document, typed.variant());
            return new Kept(
                    typed.seq(),
                    false,
                    Optional.of(document.spine().id()),
                    "",
                    Optional.of(measured),
                    Named.NOTHING,
                    variant,
                    when);
        }
        String title = Texts.required("What it is", typed.title(), 200).orElseThrow(Refused::new);
        String number = Texts.optional("Its number", typed.number(), 60).orElseThrow(Refused::new);
        Comes comes = Comes.of(typed.comes().isBlank() ? Comes.BOUGHT.word() : typed.comes())
                .orElseThrow(NotThere::new);
        return new Kept(
                typed.seq(),
                false,
                Optional.empty(),
                "",
                Optional.of(measured),
                new Named(number, title, comes, amount("Its mass", typed.mass()), amount("Its cost", typed.cost())),
                "",
                when);
    }

    private static Optional<BigDecimal> amount(String what, String typed) {
        return BomUnits.amount(what, typed).orElseThrow(Refused::new);
    }

    /** A document that can stand below another one. */
    private Seen component(Actor actor, long item, String number) {
        NumberKey key = NumberKey.of(number).orElseThrow(Refused::new);
        Seen found = numbered.leading(actor, item, number)
                .or(() -> variants.describes(actor, key).filter(s -> s.spine().id() != item))
                .orElseThrow(() -> Refused.because(
                        "number.unknown",
                        "No other document that you see has the number " + number.strip() + ".",
                        "Write what it is, where it has no document; nothing was changed."));
        boolean above = read.of(actor, found.spine().id(), StructureView.LATEST, Optional.empty(), LocalDate.EPOCH)
                .filter(r -> contains(r.bom(), item))
                .isPresent();
        if (above)
            throw Refused.because(
                    "bom.ring",
                    found.document().number() + " contains this document itself.",
                    "A thing cannot be part of its own parts; nothing was changed.");
        return found;
    }

    private static boolean contains(Bom bom, long item) {
        for (int i = 0; i < bom.size(); i++) if (bom.part(i).item() == item) return true;
        return false;
    }

    private String find(Actor actor, Seen seen, Typed typed, Kept line, Optional<Kept> before) {
        ReadBom.Read now = read.ofPending(actor, seen.spine().id());
        String was = before.map(Kept::find).orElse("");
        if (typed.find().isBlank()) {
            if (!was.isEmpty()) return was;
            List<String> given = new ArrayList<>();
            now.bom().lines(0).forEach(l -> given.add(l.find()));
            of(now.revision()).forEach(k -> given.add(k.find()));
            out(seen).forEach(k -> given.add(k.find()));
            return String.valueOf(FindNumbers.highest(given) + 1);
        }
        String find = FindNumbers.read(typed.find()).orElseThrow(Refused::new);
        free(seen, now, find, line, l -> !(l.byHand() && l.find().equals(was)));
        return find;
    }

    List<Kept> of(long revision) {
        return lines.of(List.of(revision)).getOrDefault(revision, List.of());
    }

    /** Lines of the revision in force, whose sheets are out. */
    private List<Kept> out(Seen seen) {
        return seen.document().released().map(r -> of(r.id())).orElse(List.of());
    }

    /**
     * Refuses a find number that another line has, or had: of a line that is gone it stays, for sheets that are out say it. A line that
     * comes back has its own again.
     */
    private void free(Seen seen, ReadBom.Read now, String find, Kept line, Predicate<BomLine> others) {
        boolean taken = now.bom().lines(0).stream()
                .filter(others)
                .anyMatch(l -> l.find().equals(find));
        boolean kept = of(now.revision()).stream().anyMatch(k -> k.find().equals(find) && k.seq() != line.seq());
        boolean out = out(seen).stream().anyMatch(k -> k.find().equals(find) && !isSame(k, line));
        boolean own = of(now.revision()).stream().anyMatch(k -> k.find().equals(find) && k.seq() == line.seq());
        if (taken || kept || (out && !own))
            throw Refused.because(
                    "bom.find_taken",
                    "Find number " + find + (taken ? " is another line's." : " was another line's before."),
                    "Take another one; nothing was changed.");
    }

    private static boolean isSame(Kept one, Kept other) {
        return one.component().isPresent()
                ? one.component().equals(other.component())
                : one.says().title().equals(other.says().title())
                        && other.component().isEmpty();
    }
}
