package mintshelf.app.use.record;

import java.io.IOException;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import mintshelf.app.store.record.RecordQuestionStore;
import mintshelf.app.store.record.RecordQuestionStore.Place;
import mintshelf.core.audit.RecordChain;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import org.springframework.stereotype.Service;

/** Lays an export of the record that was taken earlier beside the record of today: whether anything was rewritten since. */
@Service
public class VerifyExport {
    private static final int PORTION = 500;
    /** Problems that are listed; there can be as many as lines. */
    private static final int MOST = 100;

    private final RecordQuestionStore record;

    public VerifyExport(RecordQuestionStore record) {
        this.record = record;
    }

    /** What was found. */
    public record Findings(long entries, long wrong, List<String> problems) {
        public String says() {
            return Numbers.count(entries, "entry", "entries") + " of the export: "
                    + (wrong == 0 ? "nothing was rewritten since" : Numbers.count(wrong, "problem", "problems"));
        }
    }

    private static final class Found {
        private long entries;
        private long wrong;
        private final List<String> problems = new ArrayList<>();

        void problem(String says) {
            wrong++;
            if (problems.size() < MOST) problems.add(says);
        }
    }

    /**
     * O(lines), in portions. Each line's hash is computed anew from what the line says, and looked up in the record.
     *
     * @param export CSV, or JSON where its name ends so
     */
    public Findings verify(Path export) throws IOException {
        boolean json = export.toString().toLowerCase(Locale.ROOT).endsWith(".json");
        Found found = new Found();
        List<RecordExport.Line> portion = new ArrayList<>();
        try (Reader in = Files.newBufferedReader(export, StandardCharsets.UTF_8)) {
            RecordExport.read(in, json, line -> {
                portion.add(line);
                if (portion.size() == PORTION) compare(portion, found);
            });
        }
        compare(portion, found);
        return new Findings(found.entries, found.wrong, List.copyOf(found.problems));
    }

    private void compare(List<RecordExport.Line> portion, Found found) {
        Map<Place, ContentHash> now = record.hashes(portion.stream()
                .map(l -> new Place(l.entry().stream(), l.entry().seq()))
                .toList());
        for (RecordExport.Line line : portion) {
            found.entries++;
            Place place = new Place(line.entry().stream(), line.entry().seq());
            String named = "entry " + place.seq() + " of stream " + place.stream();
            if (!RecordChain.next(line.previous(), line.entry()).equals(line.hash())) {
                found.problem(named + " was changed in the export");
            } else if (!now.containsKey(place)) {
                found.problem(named + " is not in the record any more");
            } else if (!line.hash().equals(now.get(place))) {
                found.problem(named + " is another one in the record now");
            }
        }
        portion.clear();
    }
}
