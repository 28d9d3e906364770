package mintshelf.app.sight;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Recent;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.house.CheckRuleStore.Edition;
import mintshelf.app.store.house.CheckRuleStore.Waiver;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.NeutralRules;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.check.ModelCheck;
import mintshelf.core.drawing.check.SheetCheck;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.FactType;
import org.springframework.stereotype.Service;

/** What the rules of its kind say of a version's sheet, or of a model. That the actor may see the version was asked before. */
@Service
public class CheckSheets {
    private static final int KEPT = 300;
    private static final int LONGEST_KEY = 500;

    private final Sheets sheets;
    private final FileFacts files;
    private final ReadingRoom room;
    private final HouseStore house;
    private final RevisionStore revisions;
    private final FactStore facts;
    private final VersionStore versions;
    private final CheckRuleStore rules;

    private record Key(String hash, Map<String, String> record, CheckRules rules) {}

    private final Map<Key, List<Finding>> kept = Recent.most(KEPT);

    public CheckSheets(
            Sheets sheets,
            FileFacts files,
            ReadingRoom room,
            HouseStore house,
            RevisionStore revisions,
            FactStore facts,
            VersionStore versions,
            CheckRuleStore rules) {
        this.sheets = sheets;
        this.files = files;
        this.room = room;
        this.house = house;
        this.revisions = revisions;
        this.facts = facts;
        this.versions = versions;
        this.rules = rules;
    }

    /** A finding, and how it was let pass. */
    public record Held(Finding finding, Optional<Waiver> waiver) {
        /** Whether a review has to wait for it. */
        public boolean isInTheWay() {
            return finding.isBinding() && waiver.isEmpty();
        }
    }

    /** What a waiver names. */
    public static String key(Finding finding) {
        return Texts.shorten(finding.key(), LONGEST_KEY);
    }

    /** The rules of a document's kind. */
    public Edition rules(Document document) {
        return rules.latest(document.place().kind());
    }

    /**
     * What is to be known of a version before the rules of its kind are asked.
     *
     * @param record what the record says that a sheet should say too
     */
    public record Due(
            Document document, VersionRow version, Edition edition, Map<String, String> record, List<Waiver> waivers) {}

    /** Of the latest versions of documents, those whose kinds have binding rules; the number of statements does not grow with them. */
    public Map<Long, Due> due(Collection<Document> all) {
        Map<Long, Edition> editions =
                rules.latest(all.stream().map(d -> d.place().kind()).distinct().toList());
        List<Document> bound = all.stream()
                .filter(d -> editions.get(d.place().kind()).rules().isBinding())
                .toList();
        Map<Long, Due> due = new HashMap<>();
        if (bound.isEmpty()) return due;
        Map<Long, VersionRow> heads = versions.versionsById(
                bound.stream().map(d -> d.head().version()).toList());
        List<Long> revisions =
                heads.values().stream().map(VersionRow::revision).distinct().toList();
        Map<Long, Map<String, String>> facts = this.facts.facts(revisions);
        Map<Long, String> titles = this.revisions.titles(revisions);
        Map<Long, List<Waiver>> waivers = rules.waivers(revisions);
        for (Document document : bound) {
            VersionRow head = heads.get(document.head().version());
            Map<String, String> record = new HashMap<>(facts.getOrDefault(head.revision(), Map.of()));
            record.put("number", document.number());
            record.put("title", titles.get(head.revision()));
            due.put(
                    document.id(),
                    new Due(
                            document,
                            head,
                            editions.get(document.place().kind()),
                            Map.copyOf(record),
                            waivers.getOrDefault(head.revision(), List.of())));
        }
        return due;
    }

    /** What keeps documents whose latest file is shown by no neutral copy of its own; a statement, more where there are such files. */
    public Map<Long, Refusal> withoutNeutral(Collection<Document> all) {
        Map<Long, VersionRow> heads =
                versions.versionsById(all.stream().map(d -> d.head().version()).toList());
        Map<Long, Refusal> without = new HashMap<>();
        for (Document document : all) {
            VersionRow head = heads.get(document.head().version());
            Optional<VersionRow.Neutral> neutral = head.neutral();
            boolean wanted = NeutralForm.isWanted(head.content().kind(), FileName.of(head.fileName()));
            if (!wanted || neutral.filter(VersionRow.Neutral::current).isPresent()) continue;
            without.put(
                    document.id(),
                    NeutralRules.notCurrent(document.number(), head.number(), neutral.map(VersionRow.Neutral::number)));
        }
        return without;
    }

    /** The findings, those in the way first; nothing for what is neither a model nor a drawing and needs not be one. */
    public Optional<List<Held>> findings(Document document, VersionRow version) {
        Map<String, String> record = new HashMap<>(facts.facts(version.revision()));
        record.put("number", document.number());
        record.put("title", revisions.title(version.revision()));
        return findings(new Due(
                document,
                version,
                rules(document),
                Map.copyOf(record),
                rules.waivers(List.of(version.revision())).getOrDefault(version.revision(), List.of())));
    }

    private Optional<List<Held>> findings(Due due) {
        return found(due).map(findings -> held(findings, due.waivers()));
    }

    private Optional<List<Finding>> found(Due due) {
        StoredContent content = due.version().drawnNow().content();
        // What models say is kept already, and which facts are asked may change.
        if (isModel(due)) return room.apart(() -> ofModel(content, due));
        Key key = new Key(content.hash().hex(), due.record(), due.edition().rules());
        synchronized (kept) {
            List<Finding> known = kept.get(key);
            if (known != null) return Optional.of(known);
        }
        Optional<List<Finding>> found =
                room.apart(() -> read(due.document(), due.version(), due.edition(), due.record()));
        found.ifPresent(findings -> {
            synchronized (kept) {
                kept.put(key, findings);
            }
        });
        return found;
    }

    private boolean isModel(Due due) {
        return due.version().drawnNow().content().kind() == ContentKind.STEP
                && !isSheetDue(due.document(), due.version());
    }

    private static boolean isBinding(Due due, CheckRules.Rule rule) {
        return due.edition().rules().severities().get(rule) == CheckRules.Severity.BINDING;
    }

    private Optional<List<Finding>> ofModel(StoredContent content, Due due) {
        CheckRules asked = due.edition().rules();
        if (!asked.severities().containsKey(CheckRules.Rule.MODEL_RECORD)) return Optional.empty();
        Map<String, String> said = files.of(content);
        if (said.isEmpty()) return Optional.empty();
        return Optional.of(ModelCheck.check(asked, house.facts(), said, due.record()));
    }

    /** Names of the facts that are numbers, where the rules hold sheets against the record. */
    private Set<String> numbers(CheckRules rules) {
        if (!rules.severities().containsKey(CheckRules.Rule.TITLE_RECORD)) return Set.of();
        return house.facts().stream()
                .filter(f -> f.type() == FactType.NUMBER)
                .map(FactDefinition::name)
                .collect(Collectors.toSet());
    }

    private Optional<List<Finding>> read(
            Document document, VersionRow version, Edition edition, Map<String, String> record) {
        Optional<List<Finding>> found = sheets.opened(version.drawnNow().content())
                .map(drawing -> SheetCheck.check(
                        drawing, edition.rules(), sheets.said(drawing), record, numbers(edition.rules())));
        boolean asked = edition.rules().severities().containsKey(CheckRules.Rule.SHEET_READ);
        if (found.isPresent() || !asked || !isSheetDue(document, version)) return found;
        return Optional.of(SheetCheck.unread(
                edition.rules(), sheets.whyUnread(version.drawnNow().content()).orElse("")));
    }

    /** Of a drawing a sheet is expected, whatever its file is; of other documents where the file says that it is one. */
    private boolean isSheetDue(Document document, VersionRow version) {
        return version.drawnNow().content().kind() == ContentKind.DXF
                || house.kind(document.place().kind()).aspect() == Aspect.DRAWING;
    }

    private static List<Held> held(List<Finding> findings, List<Waiver> waivers) {
        return findings.stream()
                .map(f -> new Held(
                        f,
                        waivers.stream().filter(w -> w.finding().equals(key(f))).findFirst()))
                .sorted((a, b) -> Boolean.compare(b.isInTheWay(), a.isInTheWay()))
                .toList();
    }

    /** In short: "1 binding, 2 hints"; what was let pass is not counted. */
    public static String says(List<Held> findings) {
        long binding = findings.stream().filter(Held::isInTheWay).count();
        long hints = findings.stream().filter(h -> !h.finding().isBinding()).count();
        if (findings.isEmpty()) return "every rule is kept";
        if (binding + hints == 0) return "what is binding was let pass";
        String told = hints == 0 ? "" : Numbers.count(hints, "hint", "hints");
        if (binding == 0) return told;
        return binding + " binding" + (told.isEmpty() ? "" : ", " + told);
    }

    /**
     * The findings that keep a sheet from its way.
     *
     * @param review whether somebody is to look at the sheet: only then one that nobody can read is in the way
     */
    public List<Refusal> inTheWay(Due due, boolean review) {
        // A model is read as a whole to say what it says: not for what is a hint.
        if (isModel(due) && !isBinding(due, CheckRules.Rule.MODEL_RECORD)) return List.of();
        return findings(due).orElse(List.of()).stream()
                .filter(Held::isInTheWay)
                .filter(h -> review || h.finding().rule() != CheckRules.Rule.SHEET_READ)
                .map(h -> refusal(due.document(), h.finding()))
                .toList();
    }

    /** As {@link #inTheWay}, for a page that does not wait for a sheet that takes long: the act looks at it anyway. */
    public List<Refusal> inTheWaySoon(Due due, boolean review) {
        return room.soon(() -> inTheWay(due, review), List.of());
    }

    private static Refusal refusal(Document document, Finding finding) {
        String where = finding.zone().isEmpty() ? "" : " (zone " + finding.zone() + ")";
        String says = finding.says();
        return Refusal.of(
                "gate.checks",
                "A check of " + document.number() + where + ": "
                        + (says.endsWith(".") ? says.substring(0, says.length() - 1) : says) + ".",
                finding.remedy() + " Or let it pass in words, on the page of its checks.");
    }
}
