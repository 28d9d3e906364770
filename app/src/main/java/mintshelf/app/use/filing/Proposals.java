package mintshelf.app.use.filing;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.effect.FactPresets;
import mintshelf.app.effect.ReserveNumbers;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.FileFacts;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.app.store.house.RuleStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.filing.Proposal;
import mintshelf.core.house.FilingOrder;
import org.springframework.stereotype.Component;

/** What files that came could be: their kinds by the filing rules, their numbers, titles and facts by their names and sheets. */
@Component
public class Proposals {
    private final ContentStore contents;
    private final VersionStore versions;
    private final ListStore lists;
    private final HouseStore house;
    private final FactPresets presets;
    private final RuleStore editions;
    private final FileFacts files;
    private final ReadingRoom room;
    private final ReserveNumbers numbers;

    public Proposals(
            ContentStore contents,
            VersionStore versions,
            ListStore lists,
            HouseStore house,
            FactPresets presets,
            RuleStore editions,
            FileFacts files,
            ReadingRoom room,
            ReserveNumbers numbers) {
        this.contents = contents;
        this.versions = versions;
        this.lists = lists;
        this.house = house;
        this.presets = presets;
        this.editions = editions;
        this.files = files;
        this.room = room;
        this.numbers = numbers;
    }

    /** What a file could be filed as in a folder. */
    Row propose(Actor actor, Upload upload, Folder folder, List<FilingRule> rules) {
        FileName name = FileName.of(upload.fileName());
        ContentKind content = upload.kind().orElse(ContentKind.OTHER);
        Proposal proposal =
                Proposal.of(FilingRule.first(rules, name, content.name()), name, sheetFacts(upload, content));
        Optional<Long> same = contents.sealed(upload.hash().orElseThrow())
                .map(known -> versions.withContent(known.id()))
                .flatMap(items -> lists.visibleOne(items, actor.access()));
        return new Row(
                0,
                upload.id(),
                same.isEmpty(),
                proposal.kind(),
                proposal.kindWhy(),
                proposal.number(),
                proposal.numberWhy(),
                proposal.title(),
                proposal.titleWhy(),
                proposal.revision(),
                proposal.revisionWhy(),
                folder.id(),
                taken(proposal.facts()),
                same,
                Optional.empty());
    }

    /** A changed copy of a document gets a number of its own, and its kind as the house wants it. */
    Row copy(Row row, Seen of) {
        Row fresh = row.withNumber("", "a new one, for it is a new document");
        return editions.copies() == FilingOrder.Copies.KEEP_KIND
                ? fresh.withKind(
                        of.document().place().kind(), "as " + of.document().number() + ", of which it is a copy")
                : fresh;
    }

    /** What a sheet says is taken over where the house wants it to be. */
    private Map<String, String> taken(Map<String, String> said) {
        if (said.isEmpty()) return said;
        Map<String, String> taken = new TreeMap<>(said);
        house.facts().stream().filter(f -> !f.use().source().isRead()).forEach(f -> taken.remove(f.name()));
        return taken;
    }

    /** What facts are where nobody says otherwise, of every kind. */
    Map<String, String> presets(Actor actor, Collection<List<KindFact>> sheets) {
        return presets.of(
                actor.login(), sheets.stream().flatMap(List::stream).distinct().toList());
    }

    /** By row the numbers that are kept for those that say none. */
    Map<Long, String> kept(List<Row> rows) {
        return numbers.kept(rows.stream().map(Row::id).toList());
    }

    /** Keeps a number of its series for each row that says none itself, and gives back what is not needed. */
    void reserve(Actor actor, long shelf, List<Row> rows) {
        Map<Long, List<KindFact>> sheets = house.factSheets();
        Map<Long, String> had = kept(rows);
        List<ReserveNumbers.Wanted> wanted = rows.stream()
                .filter(r -> r.isDocument() && r.item().isEmpty() && r.kind().isPresent())
                .filter(r -> r.number().isBlank() || r.number().strip().equalsIgnoreCase(had.get(r.id())))
                .map(r -> new ReserveNumbers.Wanted(
                        r.id(),
                        r.kind().get(),
                        presets.said(actor.login(), sheets.getOrDefault(r.kind().get(), List.of()), r.facts())))
                .toList();
        numbers.settle(actor.person(), shelf, rows.stream().map(Row::id).toList(), wanted);
    }

    /** Gives back what is kept for the rows of a sheet that is given up. */
    void giveBack(Actor actor, List<Row> rows) {
        numbers.giveBack(actor.person(), rows.stream().map(Row::id).toList());
    }

    private Map<String, String> sheetFacts(Upload upload, ContentKind kind) {
        StoredContent content =
                new StoredContent(upload.content(), upload.hash().orElseThrow(), upload.size(), kind);
        return room.apart(() -> files.said(content));
    }
}
