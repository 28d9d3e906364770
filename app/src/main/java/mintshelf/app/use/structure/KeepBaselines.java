package mintshelf.app.use.structure;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.BaselineStore;
import mintshelf.app.store.structure.BaselineStore.Baseline;
import mintshelf.app.store.structure.BaselineStore.Row;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.BaselineCompare;
import mintshelf.core.bom.BaselineCompare.Member;
import mintshelf.core.bom.Bom;
import mintshelf.core.document.Revision;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Service;

/**
 * Baselines: what a structure, or a set of documents, consists of at this moment, kept under a name for ever. They are work of those who
 * see all of the leading document; who reads what is released knows of none.
 */
@Service
public class KeepBaselines {
    /** Digits before the point of what is needed; of more nobody knows how much it is. */
    private static final int MOST_DIGITS = 20;

    private final Sight sight;
    private final ReadBom bom;
    private final BaselineStore baselines;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final MayFetch may;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public KeepBaselines(
            Sight sight,
            ReadBom bom,
            BaselineStore baselines,
            RevisionStore revisions,
            VersionStore versions,
            MayFetch may,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.bom = bom;
        this.baselines = baselines;
        this.revisions = revisions;
        this.versions = versions;
        this.may = may;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What a baseline is taken of: the structure of a document in a view, or documents as they are now. */
    public record Of(Optional<Long> top, StructureView view, LocalDate day, List<Long> items) {
        public static Of structure(long top, StructureView view, LocalDate day) {
            return new Of(Optional.of(top), view, day, List.of());
        }

        public static Of documents(List<Long> items) {
            return new Of(Optional.empty(), StructureView.LATEST, LocalDate.EPOCH, items);
        }
    }

    /**
     * A document in a version, as somebody sees it.
     *
     * @param differs from what it is compared with, in words; empty where it does not
     */
    public record Line(Seen seen, Row row, Optional<Revision> revision, String differs) {}

    /**
     * What would be kept.
     *
     * @param absent what is not in it, and why
     */
    public record Plan(Seen lead, List<Line> lines, List<String> absent) {}

    /**
     * A baseline as somebody sees it.
     *
     * @param with what it is compared with; empty for nothing
     * @param added what only the other one has
     * @param hidden how many documents of it are not for this person's eyes
     */
    public record Kept(Baseline baseline, Seen lead, List<Line> lines, String with, List<Line> added, int hidden) {
        public long differing() {
            return lines.stream().filter(l -> !l.differs().isEmpty()).count() + added.size();
        }
    }

    /** What would be in it now. */
    public Plan plan(Actor actor, Of of) {
        return of.top().isPresent() ? structure(actor, of.top().get(), of) : set(actor, of.items());
    }

    private Plan structure(Actor actor, long top, Of of) {
        ReadBom.Read read = bom.of(actor, top, of.view(), Optional.empty(), of.day())
                .orElseThrow(() -> Refused.because(
                        "baseline.none", "There is nothing in this view.", "Choose another one; nothing was kept."));
        if (!read.top().all()) throw new NotThere();
        Map<Integer, Optional<BigDecimal>> needed = new HashMap<>();
        needed.put(0, Optional.of(BigDecimal.ONE));
        read.bom()
                .flat(Bom.For.ENGINEERING)
                .forEach(t -> needed.put(t.place(), t.whole() ? Optional.of(t.needed()) : Optional.empty()));
        Map<Long, Line> lines = new LinkedHashMap<>();
        List<String> absent = new ArrayList<>();
        if (read.cut()) absent.add("There is more below than one baseline takes.");
        for (int i = 0; i < read.bom().size(); i++) {
            // What only lines of other products lead to is no part of this one.
            if (!read.bom().isReached(i)) continue;
            ReadBom.Stands stands = read.stands().get(i);
            var part = read.bom().part(i);
            if (stands.version() == 0 || stands.seen().isEmpty()) {
                absent.add(part.shown() + (stands.lacks().isEmpty() ? ": a line by hand" : ": " + stands.lacks()));
                continue;
            }
            Optional<BigDecimal> amount = needed.getOrDefault(i, Optional.<BigDecimal>empty())
                    .filter(n -> n.precision() - n.scale() <= MOST_DIGITS);
            Row row = new Row(part.item(), stands.version(), part.version(), 0, amount, part.unit());
            Line line = new Line(stands.seen().get(), row, Optional.empty(), "");
            Line before = lines.putIfAbsent(part.item(), line);
            if (before == null) continue;
            // Two variants of one version are one document.
            if (before.row().version() != line.row().version())
                absent.add("Of several versions the latest: " + part.shown());
            lines.put(part.item(), latest(before, line));
        }
        return new Plan(read.top(), ofRevisions(lines.values()), absent);
    }

    private static Line latest(Line one, Line other) {
        Line latest = one.row().number() > other.row().number() ? one : other;
        Optional<BigDecimal> both =
                one.row().needed().flatMap(n -> other.row().needed().map(n::add));
        Row row = latest.row();
        return new Line(
                latest.seen(),
                new Row(row.item(), row.version(), row.number(), row.revision(), both, row.unit()),
                latest.revision(),
                "");
    }

    private Plan set(Actor actor, List<Long> items) {
        Map<Long, Seen> seen = sight.of(actor, items);
        List<Line> lines = new ArrayList<>();
        for (long item : items) {
            Seen one = Optional.ofNullable(seen.get(item)).orElseThrow(NotThere::new);
            lines.add(new Line(
                    one,
                    new Row(item, one.document().head().version(), one.version(), 0, Optional.empty(), ""),
                    Optional.empty(),
                    ""));
        }
        if (lines.isEmpty() || !lines.get(0).seen().all()) throw new NotThere();
        return new Plan(lines.get(0).seen(), ofRevisions(lines), List.of());
    }

    /** With the revisions that the versions are of: one that has begun since has no version yet, and is not in a baseline. */
    private List<Line> ofRevisions(Collection<Line> lines) {
        Map<Long, Long> revision =
                versions.revisionsOf(lines.stream().map(l -> l.row().version()).toList());
        Map<Long, Revision> byId =
                revisions.revisionsById(revision.values().stream().distinct().toList());
        List<Line> found = new ArrayList<>();
        for (Line line : lines) {
            Row row = line.row();
            long of = revision.getOrDefault(row.version(), 0L);
            found.add(new Line(
                    line.seen(),
                    new Row(row.item(), row.version(), row.number(), of, row.needed(), row.unit()),
                    Optional.ofNullable(byId.get(of)),
                    ""));
        }
        return found;
    }

    /** Keeps it under a name; gives its address. */
    public String keep(Actor actor, String key, Of of, String name, String note) {
        return acts.once(actor, key, () -> {
            String called = Texts.required("The name", name, 120).orElseThrow(Refused::new);
            String said = Texts.optional("The note", note, 500).orElseThrow(Refused::new);
            Plan plan = plan(actor, of);
            long lead = plan.lead().spine().id();
            long id = baselines.add(
                    called,
                    said,
                    lead,
                    of.top().map(t -> of.view().code()),
                    actor.person(),
                    clock.instant(),
                    plan.lines().stream().map(Line::row).toList());
            recorder.note(
                    actor,
                    lead,
                    "baseline.kept",
                    "kept baseline “" + called + "” of " + plan.lines().size() + " documents",
                    said);
            return "/baselines/" + id;
        });
    }

    /** A list of baselines, and the id with which it goes on; 0 at its end. */
    public record Page(List<Baseline> baselines, Map<Long, Seen> leads, long next) {}

    /** Baselines whose leading document this person sees all of, the latest first. */
    public Page list(Actor actor, Optional<Long> of, long before, int most) {
        of.ifPresent(item -> lead(actor, item));
        long from = before > 0 ? before : Long.MAX_VALUE;
        List<Baseline> some =
                of.map(item -> baselines.of(item, from, most + 1)).orElseGet(() -> baselines.before(from, most + 1));
        boolean more = some.size() > most;
        List<Baseline> page = more ? some.subList(0, most) : some;
        Map<Long, Seen> leads = new HashMap<>(
                sight.of(actor, page.stream().map(Baseline::lead).distinct().toList()));
        leads.values().removeIf(s -> !s.all());
        return new Page(
                page.stream().filter(b -> leads.containsKey(b.lead())).toList(),
                leads,
                more ? page.get(page.size() - 1).id() : 0);
    }

    private Seen lead(Actor actor, long item) {
        Seen lead = sight.of(actor, item);
        if (!lead.all()) throw new NotThere();
        return lead;
    }

    /**
     * A baseline, compared.
     *
     * @param with another one's id, "now", or nothing
     */
    public Kept kept(Actor actor, long id, String with) {
        Baseline one = baselines.baseline(id).orElseThrow(NotThere::new);
        Seen lead = lead(actor, one.lead());
        List<Row> rows = baselines.rows(id);
        List<Line> lines = lines(actor, rows);
        int hidden = rows.size() - lines.size();
        if (with.isEmpty()) return new Kept(one, lead, lines, "", List.of(), hidden);
        String called = "now";
        List<Line> others;
        if (with.equals("now")) others = now(actor, one, lines);
        else {
            if (!with.matches("\\d{1,18}")) throw new NotThere();
            Baseline other = baselines.baseline(Long.parseLong(with)).orElseThrow(NotThere::new);
            lead(actor, other.lead());
            called = "“" + other.name() + "”";
            others = lines(actor, baselines.rows(other.id()));
        }
        Map<Long, BaselineCompare.Difference> differs = new HashMap<>();
        BaselineCompare.of(members(lines), members(others)).forEach(d -> differs.put(d.item(), d));
        List<Line> told = lines.stream()
                .map(l -> new Line(
                        l.seen(),
                        l.row(),
                        l.revision(),
                        Optional.ofNullable(differs.get(l.row().item()))
                                .map(BaselineCompare.Difference::says)
                                .orElse("")))
                .toList();
        List<Line> added = others.stream()
                .filter(l -> Optional.ofNullable(differs.get(l.row().item()))
                        .filter(d -> d.old().isEmpty())
                        .isPresent())
                .toList();
        return new Kept(one, lead, told, called, added, hidden);
    }

    /** The same structure as it is now, or the same documents. */
    private List<Line> now(Actor actor, Baseline one, List<Line> lines) {
        if (one.view().isPresent())
            return structure(actor, one.lead(), Of.structure(one.lead(), StructureView.LATEST, LocalDate.EPOCH))
                    .lines();
        return set(actor, lines.stream().map(l -> l.row().item()).toList()).lines();
    }

    private static List<Member> members(List<Line> lines) {
        return lines.stream()
                .map(l -> new Member(
                        l.row().item(),
                        l.row().number(),
                        l.revision().map(Revision::shown).orElse(""),
                        l.row().needed(),
                        l.row().unit()))
                .toList();
    }

    /** The rows whose documents this person sees all of, or in that very version. */
    private List<Line> lines(Actor actor, List<Row> rows) {
        Map<Long, Seen> seen = sight.of(actor, rows.stream().map(Row::item).toList());
        Map<Long, Revision> of = revisions.revisionsById(
                rows.stream().map(Row::revision).distinct().toList());
        List<Line> lines = new ArrayList<>();
        for (Row row : rows) {
            Seen one = seen.get(row.item());
            Optional<Revision> revision = Optional.ofNullable(of.get(row.revision()));
            if (one != null && (one.all() || one.document().head().version() == row.version()))
                lines.add(new Line(one, row, revision, ""));
        }
        lines.sort(Comparator.comparing((Line l) -> l.seen().document().number()));
        return lines;
    }

    /** Its files in the folders in which they lie on the shelves now; what is not there is said. */
    public FetchStructure.Bundle files(Actor actor, long id) {
        Kept kept = kept(actor, id, "");
        Map<Long, VersionRow> found = versions.versionsById(
                kept.lines().stream().map(l -> l.row().version()).toList());
        List<String> says = new ArrayList<>();
        says.add(kept.baseline().name());
        if (kept.hidden() > 0) says.add("Not here: " + kept.hidden() + " documents that you do not see");
        List<Packed> files = new ArrayList<>();
        for (Line line : kept.lines()) {
            VersionRow version =
                    Optional.ofNullable(found.get(line.row().version())).orElseThrow(NotThere::new);
            String path = Packed.folders(line.seen().spine()) + version.fileName();
            var refusal = may.refusal(actor, line.seen(), version);
            says.add(refusal.map(r -> "Not here: " + path + ". " + r.says()).orElse(path + "  v" + version.number()));
            if (refusal.isEmpty()) files.add(new Packed(path, version.content()));
        }
        return new FetchStructure.Bundle(
                Texts.shorten(kept.baseline().name().replaceAll("[\\\\/:*?\"<>|]", " "), 80) + ".zip",
                files,
                String.join("\n", says) + "\n");
    }
}
