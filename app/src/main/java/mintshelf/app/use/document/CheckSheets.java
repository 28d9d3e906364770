package mintshelf.app.use.document;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.Seen;
import mintshelf.app.use.Sheets;
import mintshelf.core.drawing.check.CheckRules;
import mintshelf.core.drawing.check.Finding;
import mintshelf.core.drawing.check.SheetCheck;
import org.springframework.stereotype.Service;

/** What the rules say of a version's sheet. That the actor may see the version was asked before. */
@Service
public class CheckSheets {
    private static final int KEPT = 300;

    private final Sheets sheets;
    private final DocumentStore documents;

    private record Key(String hash, Map<String, String> record) {}

    private final Map<Key, List<Finding>> kept = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, List<Finding>> eldest) {
            return size() > KEPT;
        }
    };

    public CheckSheets(Sheets sheets, DocumentStore documents) {
        this.sheets = sheets;
        this.documents = documents;
    }

    /** The findings, as hints; nothing for what is no drawing that can be read. */
    public Optional<List<Finding>> findings(Seen seen, VersionRow version) {
        Map<String, String> record = new HashMap<>(documents.facts(version.revision()));
        record.put("number", seen.document().number());
        record.put("title", seen.document().title());
        Key key = new Key(version.content().hash().hex(), Map.copyOf(record));
        synchronized (kept) {
            List<Finding> known = kept.get(key);
            if (known != null) return Optional.of(known);
        }
        Optional<List<Finding>> found = sheets.opened(version.content())
                .map(drawing -> SheetCheck.check(drawing, CheckRules.hints(), sheets.said(drawing), record));
        found.ifPresent(findings -> {
            synchronized (kept) {
                kept.put(key, findings);
            }
        });
        return found;
    }
}
