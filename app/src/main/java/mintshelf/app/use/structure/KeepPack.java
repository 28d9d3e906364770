package mintshelf.app.use.structure;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.pack.PackStore;
import mintshelf.app.store.pack.PackStore.Pack;
import mintshelf.app.use.structure.PackStructure.Asked;
import mintshelf.app.use.structure.PackStructure.Entry;
import mintshelf.app.use.structure.PackStructure.Plan;
import mintshelf.core.base.Days;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.TablePages;
import org.springframework.stereotype.Service;

/** Keeps what was packed, for whom and what for; packs it again as it was. */
@Service
public class KeepPack {
    private static final List<TablePages.Column> LIST = List.of(
            new TablePages.Column("number", 20),
            new TablePages.Column("title", 30),
            new TablePages.Column("version", 8),
            new TablePages.Column("kind", 16),
            new TablePages.Column("file", 46),
            new TablePages.Column("note", 26));

    private final PackStructure structure;
    private final PackStore packs;
    private final RewriteReferences rewrite;
    private final SheetPdf pages;
    private final Sight sight;
    private final Recorder recorder;
    private final Acts acts;
    private final Settings settings;
    private final Clock clock;

    public KeepPack(
            PackStructure structure,
            PackStore packs,
            RewriteReferences rewrite,
            SheetPdf pages,
            Sight sight,
            Recorder recorder,
            Acts acts,
            Settings settings,
            Clock clock) {
        this.settings = settings;
        this.structure = structure;
        this.packs = packs;
        this.rewrite = rewrite;
        this.pages = pages;
        this.sight = sight;
        this.recorder = recorder;
        this.acts = acts;
        this.clock = clock;
    }

    /** Keeps that it was packed; gives the pack's id. Each document's record says for whom. */
    public long keep(Actor actor, long item, String key, Asked asked, String receiver, String purpose) {
        String who = Texts.required("Who gets it", receiver, 200).orElseThrow(Refused::new);
        String why = Texts.required("What it is for", purpose, 500).orElseThrow(Refused::new);
        // Asked before: the structure's mirror is not there within a transaction.
        Plan plan = structure.plan(actor, item, asked);
        if (plan.entries().isEmpty())
            throw Refused.because("pack.empty", "Nothing of it may be packed by you.", "Ask a data manager.");
        return Long.parseLong(acts.once(actor, key, () -> {
            long id = packs.add(
                    new Pack(
                            0,
                            actor.person(),
                            "",
                            clock.instant(),
                            item,
                            plan.version(),
                            plan.shown(),
                            asked.layout().code(),
                            asked.pages(),
                            asked.neutral(),
                            who,
                            why),
                    plan.entries().stream()
                            .map(e -> new PackStore.Row(
                                    e.seen().spine().id(), e.version().number(), e.path()))
                            .toList());
            for (Entry entry : plan.entries())
                recorder.note(
                        actor,
                        entry.seen().spine().id(),
                        "version.packed",
                        entry.version().number(),
                        "packed version " + entry.version().number() + " for " + who,
                        why);
            return Long.toString(id);
        }));
    }

    /**
     * A pack as it was kept.
     *
     * @param entries what of it the actor may have now, {@code absent} what not and why
     */
    public record Kept(Pack pack, Optional<Seen> top, List<Entry> entries, List<String> absent) {
        public String name() {
            return top.map(t -> t.document().number()).orElse("pack") + " for " + pack.receiver();
        }
    }

    /** One's own; not there for others. */
    public Kept kept(Actor actor, long id) {
        Pack pack = packs.pack(id).filter(p -> p.person() == actor.person()).orElseThrow(NotThere::new);
        List<String> absent = new ArrayList<>();
        List<Entry> entries = structure.entries(actor, packs.rows(id), absent);
        return new Kept(
                pack, Optional.ofNullable(sight.of(actor, List.of(pack.item())).get(pack.item())), entries, absent);
    }

    /** The actor's own, the latest first. */
    public List<Pack> mine(Actor actor, long before, int most) {
        return packs.of(actor.person(), before, most);
    }

    /**
     * Its files, each made when it is its turn: names of others written as they lie in the pack; behind all of them pages of drawings and neutral
     * copies.
     *
     * @param left takes what could not be made as it was meant, by path, while they are made
     */
    public List<Packed> files(Kept kept, Map<String, String> left) {
        List<Packed> files = new ArrayList<>();
        List<Packed> beside = new ArrayList<>();
        for (Entry entry : kept.entries()) {
            StoredContent content = entry.version().content();
            String folder = entry.path().substring(0, entry.path().lastIndexOf('/') + 1);
            files.add(
                    entry.isRewritten()
                            ? new Packed(
                                    entry.path(),
                                    content,
                                    Optional.of(() -> made(rewrite.packed(content, entry.paths()), entry.path(), left)),
                                    false)
                            : new Packed(entry.path(), content));
            String page = entry.path().replaceFirst("\\.[^./]*$", "") + ".pdf";
            if (kept.pack().pages() && content.kind() == ContentKind.DXF)
                beside.add(new Packed(page, content, Optional.of(() -> made(page(entry), page, left)), true));
            if (kept.pack().neutral())
                entry.version()
                        .neutral()
                        .filter(VersionRow.Neutral::current)
                        .ifPresent(n -> beside.add(new Packed(folder + n.fileName(), n.content())));
        }
        files.addAll(beside);
        return files;
    }

    private static Optional<byte[]> made(Outcome<byte[]> made, String path, Map<String, String> left) {
        made.refusal().ifPresent(r -> left.put(path, r.says()));
        return made.toOptional();
    }

    private Outcome<byte[]> page(Entry entry) {
        String number = entry.seen().document().number();
        String margin = number + " · v" + entry.version().number() + " · uncontrolled when printed";
        return pages.write(entry.version().content(), number, margin).map(w -> w.bytes());
    }

    /**
     * The pack as a table: a head, then a line for each document.
     *
     * @param left what could not be made as it was meant, by path
     */
    public List<List<String>> table(Kept kept, Map<String, String> left) {
        List<List<String>> rows = new ArrayList<>();
        rows.add(List.of("number", "title", "version", "kind", "file", "SHA-256 of the shelf's file", "note"));
        for (Entry entry : kept.entries())
            rows.add(List.of(
                    entry.seen().document().number(),
                    entry.seen().document().title(),
                    Integer.toString(entry.version().number()),
                    entry.seen().spine().kindName(),
                    entry.path(),
                    entry.version().content().hash().hex(),
                    note(entry, left)));
        return rows;
    }

    /** As {@link #table}, on pages to be printed: what it is, for whom and what for, and a line for each document; without the hashes. */
    public byte[] list(Kept kept, Map<String, String> left) {
        Pack pack = kept.pack();
        List<String> says = new ArrayList<>();
        says.add(pack.shown());
        says.add("for " + pack.receiver() + ": " + pack.purpose());
        says.add("packed by " + pack.personName() + ", " + Days.words(LocalDate.ofInstant(pack.at(), settings.zone())));
        says.addAll(kept.absent());
        List<List<String>> rows = new ArrayList<>();
        for (Entry entry : kept.entries())
            rows.add(List.of(
                    entry.seen().document().number(),
                    entry.seen().document().title(),
                    Integer.toString(entry.version().number()),
                    entry.seen().spine().kindName(),
                    entry.path(),
                    note(entry, left)));
        return pages.write(TablePages.of("Pack " + pack.id(), says, LIST, rows), kept.name());
    }

    private static String note(Entry entry, Map<String, String> left) {
        String why =
                left.getOrDefault(entry.path(), entry.left().map(r -> r.says()).orElse(""));
        if (!why.isEmpty()) return "names in it lead elsewhere: " + why;
        return entry.isRewritten() ? "names in it are written for this pack" : "";
    }
}
