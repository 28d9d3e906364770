package mintshelf.app.use.filing;

import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
    /** Rows in one transaction: nobody else waits long for a number. */
    static final int PORTION = 100;

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

    /**
     * Files the ticked rows: up to {@value #PORTION} in one transaction, or none of them and says why. More go in portions, each whole, what is
     * referred to before what refers to it; all are asked before the first one is filed, and what a portion left goes with the next try.
     */
    public Result file(Actor actor, long id, String key, boolean hold) {
        String target = "/filings/" + id;
        Filing before =
                filings.filing(id).filter(f -> f.person() == actor.person()).orElseThrow(NotThere::new);
        if (before.state() == FilingStore.State.FILED) return new Result(target, Map.of());
        List<Row> all = filings.rows(id);
        List<Row> ticked =
                all.stream().filter(r -> r.isDocument() && r.item().isEmpty()).toList();
        Map<Long, Upload> files =
                uploads.uploads(ticked.stream().map(Row::upload).toList());
        Map<String, List<Written>> read = new HashMap<>();
        files.values().stream()
                .filter(u -> u.state() == Upload.State.COMPLETE)
                .forEach(u -> read.put(u.token(), references.read(u)));
        List<Row> order = ticked.size() > PORTION ? ComponentsFirst.of(ticked, files, read) : ticked;
        if (order.size() > PORTION) {
            Map<Long, List<Refusal>> problems = rehearse(actor, id, order);
            if (!problems.isEmpty()) return new Result(target, problems);
        }
        for (int at = 0; at == 0 || at < order.size(); at += PORTION) {
            List<Long> portion = order.subList(at, Math.min(order.size(), at + PORTION)).stream()
                    .map(Row::id)
                    .toList();
            // Sent again, each portion is known by what begins it.
            String own = at == 0 ? key : Acts.following(key + " " + portion.get(0));
            Map<Long, List<Refusal>> problems =
                    portion(actor, id, own, hold, portion, read, at + PORTION >= order.size());
            if (!problems.isEmpty()) return new Result(target, problems);
        }
        return new Result(target, Map.of());
    }

    /** What is in the way of any row, before one of many is filed. */
    private Map<Long, List<Refusal>> rehearse(Actor actor, long id, List<Row> rows) {
        Map<Long, List<Refusal>> problems = new LinkedHashMap<>();
        Set<String> names = new HashSet<>();
        acts.rehearse(() -> {
            problems.clear();
            names.clear();
            Filing filing = filings.lock(id).orElseThrow(NotThere::new);
            Map<Long, List<KindFact>> factSheets = check.factSheets();
            for (Row row : rows) {
                Upload upload = uploads.upload(row.upload()).orElseThrow(NotThere::new);
                check.ready(actor, filing, row, upload, factSheets, problems)
                        .filter(ready -> {
                            boolean number = names.add(
                                    ready.kind().aspect() + " " + ready.number().key());
                            boolean file = names.add(
                                    ready.folder().id() + "/" + ready.file().key());
                            return !number || !file;
                        })
                        .ifPresent(ready -> CheckRows.refuse(
                                problems,
                                row,
                                "number.used",
                                "Another row has the same number, or the same file name in the same folder.",
                                "Choose another one, or leave one of them out."));
            }
        });
        return problems;
    }

    private Map<Long, List<Refusal>> portion(
            Actor actor,
            long id,
            String key,
            boolean hold,
            List<Long> portion,
            Map<String, List<Written>> read,
            boolean last) {
        Map<Long, List<Refusal>> problems = new LinkedHashMap<>();
        Set<Long> due = new HashSet<>(portion);
        try {
            acts.once(actor, key, () -> {
                problems.clear();
                List<FileRows.Made> made = new ArrayList<>();
                Filing filing = filings.lock(id).orElseThrow(NotThere::new);
                if (!filing.isOpen()) return "/filings/" + id;
                List<Row> all = filings.rows(id);
                List<Row> rows = all.stream()
                        .filter(r -> r.isDocument() && r.item().isEmpty() && due.contains(r.id()))
                        .toList();
                if (all.stream().noneMatch(Row::isDocument)) {
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
                if (last) {
                    check.giveBack(actor, all);
                    filings.end(id, FilingStore.State.FILED, clock.instant());
                }
                return "/filings/" + id;
            });
        } catch (Refused e) {
            if (problems.isEmpty()) throw e;
        }
        return problems;
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
