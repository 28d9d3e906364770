package mintshelf.app.use.filing;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.filing.FilingStore.Filing;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.base.Refusal;
import mintshelf.core.reference.Written;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Service;

/** Files that were dropped become documents: a sheet of proposals, then all of it in one transaction, then a report. */
@Service
public class FileDocuments {
    private final FilingStore filings;
    private final UploadStore uploads;
    private final CheckRows check;
    private final FileRows files;
    private final ReferFiled refer;
    private final References references;
    private final StandsAs stands;
    private final Acts acts;
    private final Clock clock;

    public FileDocuments(
            FilingStore filings,
            UploadStore uploads,
            CheckRows check,
            FileRows files,
            ReferFiled refer,
            References references,
            StandsAs stands,
            Acts acts,
            Clock clock) {
        this.filings = filings;
        this.uploads = uploads;
        this.check = check;
        this.files = files;
        this.refer = refer;
        this.references = references;
        this.stands = stands;
        this.acts = acts;
        this.clock = clock;
    }

    /** What came of filing: the report's address, or what stands in the way of each row. */
    public record Result(String target, Map<Long, List<Refusal>> problems) {
        public boolean isFiled() {
            return problems.isEmpty();
        }
    }

    /** Files the ticked rows in one transaction, or none of them and says why. */
    public Result file(Actor actor, long id, String key, boolean hold) {
        Map<Long, List<Refusal>> problems = new LinkedHashMap<>();
        String target = "/filings/" + id;
        Filing before =
                filings.filing(id).filter(f -> f.person() == actor.person()).orElseThrow(NotThere::new);
        if (before.state() == FilingStore.State.FILED) return new Result(target, Map.of());
        Map<String, List<Written>> read = new HashMap<>();
        uploads
                .uploads(filings.rows(id).stream()
                        .filter(Row::included)
                        .map(Row::upload)
                        .toList())
                .values()
                .stream()
                .filter(u -> u.state() == Upload.State.COMPLETE)
                .forEach(u -> read.put(u.token(), references.read(u)));
        try {
            acts.once(actor, key, () -> {
                problems.clear();
                List<FileRows.Made> made = new ArrayList<>();
                Filing filing = filings.lock(id).orElseThrow(NotThere::new);
                if (!filing.isOpen()) return target;
                List<Row> all = filings.rows(id);
                List<Row> rows = all.stream().filter(Row::isDocument).toList();
                if (rows.isEmpty()) {
                    throw Refused.because(
                            "filing.none", "No row is ticked.", "Tick what is to be filed, or drop the sheet.");
                }
                Map<Long, List<KindFact>> factSheets = check.factSheets();
                for (Row row : rows) {
                    try {
                        Upload upload = uploads.upload(row.upload()).orElseThrow(NotThere::new);
                        check.ready(actor, filing, row, upload, factSheets, problems)
                                .ifPresent(ready -> {
                                    FileRows.Made one = files.file(actor, ready, upload, hold, filing.comment());
                                    files.lay(actor, one, upload, copies(all, row));
                                    made.add(one);
                                });
                    } catch (DuplicateKeyException e) {
                        CheckRows.refuse(
                                problems,
                                row,
                                "number.used",
                                "The number or the file name was taken at this moment.",
                                "Choose another one.");
                    }
                }
                if (!problems.isEmpty()) throw Refused.because("filing.problems", "Some rows cannot be filed.", "");
                refer.all(actor, made, read, filing.derivedFrom());
                made.stream().filter(FileRows.Made::out).forEach(m -> stands.settle(actor, m));
                filings.end(id, FilingStore.State.FILED, clock.instant());
                return target;
            });
        } catch (Refused e) {
            if (problems.isEmpty()) throw e;
        }
        return new Result(target, problems);
    }

    /** Uploads that come with the file of a row. */
    private List<Upload> copies(List<Row> all, Row row) {
        List<Long> ids = all.stream()
                .filter(r -> r.beside().filter(b -> b == row.id()).isPresent())
                .map(Row::upload)
                .toList();
        return ids.isEmpty() ? List.of() : List.copyOf(uploads.uploads(ids).values());
    }
}
