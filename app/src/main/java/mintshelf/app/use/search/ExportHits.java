package mintshelf.app.use.search;

import java.util.ArrayList;
import java.util.List;
import mintshelf.app.effect.TableFiles;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.search.Ask;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import org.springframework.stereotype.Service;

/** Hits as a table. */
@Service
public class ExportHits {
    private static final int PORTION = 500;
    private static final List<String> HEAD =
            List.of("number", "title", "revision", "version", "stage", "held by", "kind", "folder", "file", "changed");

    private final Search search;

    ExportHits(Search search) {
        this.search = search;
    }

    /** All hits, as CSV or XLSX; refused where they are more than a table takes: a part of them would pass for all. */
    public byte[] table(Actor actor, String q, Ask.Order order, boolean csv) {
        List<List<String>> rows = new ArrayList<>(List.of(HEAD));
        int from = 0;
        int total;
        do {
            Search.Found found = search.find(actor, new Search.Wish(q, order, false, from, PORTION, false));
            total = found.total();
            if (total > Search.MOST) {
                throw Refused.because(
                        "search.many",
                        total + " documents fit; a table takes " + Search.MOST + ".",
                        "Narrow the search down.");
            }
            found.hits().forEach(h -> rows.add(row(h.seen())));
            from += PORTION;
        } while (from < total);
        return csv ? TableFiles.csv(rows) : TableFiles.xlsx("Hits", rows);
    }

    private static List<String> row(Seen seen) {
        var d = seen.document();
        List<String> path = new ArrayList<>();
        for (Folder folder : seen.spine().path()) path.add(0, folder.name());
        return List.of(
                d.number(),
                d.title(),
                seen.current().shown(),
                Integer.toString(seen.version()),
                seen.current().stage().name(),
                seen.all() ? d.holder().map(h -> h.name()).orElse("") : "",
                seen.spine().kindName(),
                String.join("/", path),
                d.fileName(),
                seen.spine().changed().toString());
    }
}
