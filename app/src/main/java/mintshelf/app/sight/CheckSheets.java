package mintshelf.app.sight;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.house.CheckRuleStore.Edition;
import mintshelf.app.store.house.CheckRuleStore.Waiver;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.Reference.State;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.check.SheetCheck;
import mintshelf.core.reference.ReferenceRules;
import org.springframework.stereotype.Service;

/** What the rules of its kind say of a version's sheet. That the actor may see the version was asked before. */
@Service
public class CheckSheets {
    private static final int KEPT = 300;
    private static final int LONGEST_KEY = 500;

    private final Sheets sheets;
    private final ReadingRoom room;
    private final HouseStore house;
    private final DocumentStore documents;
    private final CheckRuleStore rules;
    private final ReferenceStore references;

    private record Key(String hash, Map<String, String> record, CheckRules rules) {}

    private final Map<Key, List<Finding>> kept = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, List<Finding>> eldest) {
            return size() > KEPT;
        }
    };

    public CheckSheets(
            Sheets sheets,
            ReadingRoom room,
            HouseStore house,
            DocumentStore documents,
            CheckRuleStore rules,
            ReferenceStore references) {
        this.references = references;
        this.sheets = sheets;
        this.room = room;
        this.house = house;
        this.documents = documents;
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

    /** The findings, those in the way first; nothing for what is no drawing and needs not be one. */
    public Optional<List<Held>> findings(Document document, VersionRow version) {
        Edition edition = rules(document);
        Map<String, String> record = new HashMap<>(documents.facts(version.revision()));
        record.put("number", document.number());
        record.put("title", documents.title(version.revision()));
        Key key = new Key(version.content().hash().hex(), Map.copyOf(record), edition.rules());
        Optional<List<Finding>> found;
        synchronized (kept) {
            found = Optional.ofNullable(kept.get(key));
        }
        if (found.isEmpty()) {
            found = room.apart(() -> read(document, version, edition, record));
            found.ifPresent(findings -> {
                synchronized (kept) {
                    kept.put(key, findings);
                }
            });
        }
        return found.map(findings -> held(findings, version));
    }

    private Optional<List<Finding>> read(
            Document document, VersionRow version, Edition edition, Map<String, String> record) {
        Optional<List<Finding>> found = sheets.opened(version.content())
                .map(drawing -> SheetCheck.check(drawing, edition.rules(), sheets.said(drawing), record));
        boolean asked = edition.rules().severities().containsKey(CheckRules.Rule.SHEET_READ);
        if (found.isPresent() || !asked || !isSheetDue(document, version)) return found;
        return Optional.of(SheetCheck.unread(
                edition.rules(), sheets.whyUnread(version.content()).orElse("")));
    }

    /** Of a drawing a sheet is expected, whatever its file is; of other documents where the file says that it is one. */
    private boolean isSheetDue(Document document, VersionRow version) {
        return version.content().kind() == ContentKind.DXF
                || house.kind(document.place().kind()).aspect() == Aspect.DRAWING;
    }

    private List<Held> held(List<Finding> findings, VersionRow version) {
        if (findings.isEmpty()) return List.of();
        List<Waiver> waivers = rules.waivers(version.revision());
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
     * What keeps a document's latest version from review and release: files that it refers to and that are not known, and findings
     * of binding rules. Asks nothing more of kinds whose rules are hints.
     *
     * @param review whether somebody is to look at the sheet: only then one that nobody can read is in the way
     */
    public List<Refusal> inTheWay(Document document, boolean review) {
        List<Refusal> inTheWay = new ArrayList<>();
        List<Reference> references = this.references.of(document.head().version());
        ReferenceRules.gate(document.number(), paths(references, State.MISSING), paths(references, State.AMBIGUOUS))
                .ifPresent(inTheWay::add);
        if (rules(document).rules().isBinding()) inTheWay.addAll(findingsInTheWay(document, review));
        return inTheWay;
    }

    private static List<String> paths(List<Reference> references, State state) {
        return references.stream()
                .filter(r -> r.state() == state)
                .map(r -> r.written().path())
                .toList();
    }

    private List<Refusal> findingsInTheWay(Document document, boolean review) {
        return documents
                .version(document.id(), document.head().number())
                .flatMap(version -> findings(document, version))
                .map(all -> all.stream()
                        .filter(Held::isInTheWay)
                        .filter(h -> review || h.finding().rule() != CheckRules.Rule.SHEET_READ)
                        .map(h -> refusal(document, h.finding()))
                        .toList())
                .orElse(List.of());
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
