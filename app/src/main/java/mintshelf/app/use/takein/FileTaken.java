package mintshelf.app.use.takein;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.DrawNumbers;
import mintshelf.app.effect.Links;
import mintshelf.app.effect.PastRevisions;
import mintshelf.app.effect.PastRevisions.Past;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import mintshelf.core.base.Days;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.fact.FactValue;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionSeries;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.takein.RevisionTable;
import mintshelf.core.takein.Taking;
import org.springframework.stereotype.Component;

/** Makes a document of the files of its revisions, within the caller's transaction. */
@Component
class FileTaken {
    private final TakenFileStore files;
    private final UploadStore uploads;
    private final TakeKinds kinds;
    private final TakenFacts facts;
    private final DrawNumbers draw;
    private final NumberStore numbers;
    private final PastRevisions past;
    private final Links links;
    private final Recorder recorder;

    FileTaken(
            TakenFileStore files,
            UploadStore uploads,
            TakeKinds kinds,
            TakenFacts facts,
            DrawNumbers draw,
            NumberStore numbers,
            PastRevisions past,
            Links links,
            Recorder recorder) {
        this.files = files;
        this.uploads = uploads;
        this.kinds = kinds;
        this.facts = facts;
        this.draw = draw;
        this.numbers = numbers;
        this.past = past;
        this.links = links;
        this.recorder = recorder;
    }

    /**
     * What is the same for all documents of a portion.
     *
     * @param folders by path
     * @param name of the taking-in, for the record
     */
    record Within(
            Actor actor,
            long takeIn,
            String name,
            Map<String, Folder> folders,
            Map<Long, Kind> kinds,
            Map<Long, List<KindFact>> sheets,
            TakeDays days) {}

    Within within(Actor actor, long takeIn, String name, Map<String, Folder> folders, Folder top, TakeDays days) {
        Map<Long, Kind> known = new HashMap<>();
        kinds.known(actor, top).keySet().forEach(id -> known.put(id, kinds.kind(id)));
        return new Within(actor, takeIn, name, folders, known, facts.sheets(), days);
    }

    /** @param revisions files of one document, the oldest revision first */
    void file(Within within, List<TakenFile> revisions) {
        Taking latest = taking(revisions.get(revisions.size() - 1));
        Kind kind = within.kinds().get(latest.kind().orElseThrow());
        Folder folder = within.folders().get(latest.folder());
        if (kind == null || folder == null) {
            throw Refused.because(
                    "access.missing",
                    "It may not be filed there as what it is any more.",
                    "Look at the dry run again, or ask a data manager for the role.");
        }
        Map<String, StoredContent> contents = contents(revisions);
        List<KindFact> sheet = within.sheets().getOrDefault(kind.id(), List.of());
        RevisionSeries series = ShippedSeries.of(kind.revisionSeries());
        List<Past> all = new ArrayList<>();
        for (TakenFile file : revisions) {
            Map<KindFact, FactValue> values =
                    facts.read(within.actor(), sheet, taking(file).facts()).values();
            all.add(past(within, file, kind, series, values, contents));
        }
        Actor actor = within.actor();
        Map<String, String> words = new LinkedHashMap<>();
        all.get(all.size() - 1)
                .facts()
                .forEach((fact, value) -> words.put(fact.fact().name(), value.text()));
        NumberKey number = draw.take(actor.person(), kind, folder.shelf(), latest.number(), words)
                .orElseThrow(Refused::new);
        PastRevisions.Made made = past.file(
                actor,
                kind,
                folder,
                number,
                all,
                table(revisions.get(revisions.size() - 1)),
                within.days().now());
        for (TakenFile file : revisions) {
            for (String former : taking(file).former()) {
                numbers.claimFormer(
                        kind.aspect(),
                        NumberKey.of(former).orElseThrow(Refused::new),
                        made.item(),
                        within.days().now());
            }
        }
        for (int i = 0; i < revisions.size(); i++) {
            files.filed(
                    within.takeIn(),
                    revisions.get(i).at(),
                    made.item(),
                    made.versions().get(i));
        }
        links.byNumber(actor, made.item());
        recorder.noteQuietly(
                actor,
                made.item(),
                "taken.in",
                revisions.size(),
                says(number, kind, revisions, all, within.name()),
                "");
    }

    /** What the sheet of a file says of the document's revisions. */
    private static List<Map<String, String>> table(TakenFile file) {
        return RevisionTable.rows(file.says().getOrDefault(RevisionTable.KEY, ""));
    }

    /** What its own sheet says that a revision was made for. */
    private static String why(TakenFile file, Optional<String> label) {
        return table(file).stream()
                .filter(row -> label.filter(row.getOrDefault("revision", "")::equalsIgnoreCase)
                        .isPresent())
                .map(row -> Texts.shorten(row.getOrDefault("description", ""), 200))
                .findFirst()
                .orElse("");
    }

    private static Taking taking(TakenFile file) {
        return file.taking().orElseThrow();
    }

    private Map<String, StoredContent> contents(List<TakenFile> revisions) {
        List<Upload> all = new ArrayList<>();
        for (TakenFile file : revisions) {
            all.add(uploads.upload(file.upload().orElseThrow())
                    .filter(u -> u.state() == Upload.State.COMPLETE)
                    .orElseThrow(() -> Refused.because(
                            "upload.gone", "Its bytes are not here any more.", "Bring the file once more.")));
        }
        Map<String, StoredContent> byToken = uploads.seal(all);
        Map<String, StoredContent> contents = new HashMap<>();
        for (int i = 0; i < all.size(); i++) {
            contents.put(revisions.get(i).raw(), byToken.get(all.get(i).token()));
        }
        return contents;
    }

    private static Past past(
            Within within,
            TakenFile file,
            Kind kind,
            RevisionSeries series,
            Map<KindFact, FactValue> values,
            Map<String, StoredContent> contents) {
        Taking taking = taking(file);
        boolean labelled = kind.labelAtStart() || taking.stands().wasOut();
        Optional<String> label = taking.label().isEmpty()
                ? labelled ? Optional.of(series.first()) : Optional.empty()
                : Optional.of(taking.label());
        return new Past(
                label,
                taking.title(),
                FileName.of(file.path()),
                contents.get(file.raw()),
                file.refersTo(),
                values,
                taking.stands(),
                taking.date().map(within.days()::at).orElseGet(within.days()::now),
                comment(file, taking),
                why(file, label));
    }

    /** "Taken in: old/TG40-3030_A.dxf, released 14 Mar 2019, signed by H. Voss". */
    private static String comment(TakenFile file, Taking taking) {
        return "Taken in: " + Texts.shorten(file.path(), 300)
                + (taking.stands().wasOut()
                        ? taking.date().map(d -> ", released " + Days.words(d)).orElse(", as released")
                        : taking.date().map(d -> ", of " + Days.words(d)).orElse(""))
                + (taking.signers().isEmpty() ? "" : ", signed by " + taking.signers());
    }

    private static String says(NumberKey number, Kind kind, List<TakenFile> revisions, List<Past> all, String name) {
        Past last = all.get(all.size() - 1);
        List<String> labels = all.stream().flatMap(p -> p.label().stream()).toList();
        String which = revisions.size() == 1
                ? last.label().map(l -> ", revision " + l).orElse("")
                : ", " + Numbers.count(revisions.size(), "revision", "revisions") + " from " + labels.get(0) + " to "
                        + last.label().orElse("the one in preparation");
        return "took in " + number.number() + " as a " + kind.name() + which + ", "
                + last.stands().words().toLowerCase(Locale.ROOT) + " as it was, with “" + name + "”";
    }
}
