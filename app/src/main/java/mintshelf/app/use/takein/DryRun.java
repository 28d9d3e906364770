package mintshelf.app.use.takein;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeInStore;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.app.store.takein.TakenFileStore;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.Found;
import mintshelf.core.takein.Grounds;
import mintshelf.core.takein.TakePlan;
import mintshelf.core.takein.TakeTable;
import org.springframework.stereotype.Component;

/** Finds out what becomes of the files of a taking-in that were not filed yet, and keeps it; nothing is filed. */
@Component
class DryRun {
    private final TakeInStore takeIns;
    private final TakenFileStore files;
    private final TakenFacts facts;
    private final ReadGrounds grounds;
    private final TakeDays days;

    DryRun(TakeInStore takeIns, TakenFileStore files, TakenFacts facts, ReadGrounds grounds, TakeDays days) {
        this.takeIns = takeIns;
        this.files = files;
        this.facts = facts;
        this.grounds = grounds;
        this.days = days;
    }

    Instant now() {
        return days.now();
    }

    /** Within the caller's transaction, under the lock of the taking-in. */
    void plan(Actor actor, TakeIn takeIn) {
        List<TakenFile> open = files.open(takeIn.id());
        List<Found> found = open.stream().map(TakenFile::found).toList();
        List<List<String>> rows = takeIns.table(takeIn.id());
        TakeTable table = rows.isEmpty()
                ? TakeTable.NONE
                : TakeTable.of(rows, facts.heads()).orElseThrow(Refused::new);
        Map<Integer, Map<Column, String>> mended = open.stream()
                .filter(f -> !f.mended().isEmpty())
                .collect(Collectors.toMap(TakenFile::at, TakenFile::mended));
        Grounds here = grounds.of(actor, takeIn, found, TakePlan.numbers(found, table, mended));
        TakePlan plan = TakePlan.of(found, table, takeIn.rules(), mended, here);
        files.plan(takeIn.id(), open, plan);
        takeIns.setGeneral(takeIn.id(), plan.general());
    }
}
