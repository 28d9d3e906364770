package mintshelf.app.api;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.OptionalLong;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.takein.TakenFileStore.Filter;
import mintshelf.app.use.takein.BringTaken;
import mintshelf.app.use.takein.TakeIns;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Taking in what a company has, for programs: begun, brought file by file, read, looked at; it is filed where a person looks. */
@RestController
@RequestMapping("/api/v1")
class TakeInApi {
    private static final int TABLE_MOST = 12 << 20;

    private final TakeIns takeIns;
    private final BringTaken bring;

    TakeInApi(TakeIns takeIns, BringTaken bring) {
        this.takeIns = takeIns;
        this.bring = bring;
    }

    record Begun(@NotNull String name, @Nullable Long folder) {}

    record Coming(@NotNull String path, long size) {}

    /** How far a taking-in is, and what becomes of its files by number. */
    record TakenIn(
            long id,
            String name,
            String state,
            int done,
            int total,
            String says,
            int files,
            int go,
            int documents,
            int stops,
            int waits,
            int leftOut,
            int filed,
            List<Note> notes,
            String address) {}

    /** What is worth a look and belongs to no file. */
    record Note(String code, String reason, String remedy) {}

    @PostMapping("/shelves/{shelf}/take-ins")
    TakenIn begin(Actor actor, @PathVariable long shelf, @Valid @RequestBody Begun begun) {
        Long folder = begun.folder();
        OptionalLong to = folder == null ? OptionalLong.empty() : OptionalLong.of(folder);
        return takeIn(actor, takeIns.begin(actor, shelf, to, begun.name()));
    }

    @GetMapping("/take-ins/{id}")
    TakenIn takeIn(Actor actor, @PathVariable long id) {
        TakeIns.View view = takeIns.view(actor, id);
        var counts = view.counts();
        return new TakenIn(
                id,
                view.takeIn().name(),
                view.takeIn().state().name().toLowerCase(Locale.ROOT),
                view.takeIn().done(),
                view.takeIn().total(),
                view.takeIn().says(),
                counts.get(Filter.ALL),
                counts.get(Filter.GOES),
                view.documents(),
                counts.get(Filter.STOPS),
                counts.get(Filter.WAITS),
                counts.get(Filter.LEFT_OUT),
                view.filed(),
                view.takeIn().general().stream().map(TakeInApi::note).toList(),
                "/take-ins/" + id);
    }

    private static Note note(Refusal general) {
        return new Note(general.code(), general.reason(), general.remedy());
    }

    /** Its bytes follow by the token, as those of any upload; of one that is there whole none are wanted. */
    @PostMapping("/take-ins/{id}/files")
    UploadApi.Progress file(Actor actor, @PathVariable long id, @Valid @RequestBody Coming coming) {
        BringTaken.Coming opened = bring.open(actor, id, coming.path(), coming.size());
        return new UploadApi.Progress(opened.token(), opened.size(), opened.received(), opened.complete());
    }

    @PutMapping("/take-ins/{id}/table")
    TakenIn table(Actor actor, @PathVariable long id, @RequestParam String name, HttpServletRequest request)
            throws IOException {
        byte[] table = request.getInputStream().readNBytes(TABLE_MOST + 1);
        if (table.length > TABLE_MOST) {
            throw Refused.because(
                    "table.large",
                    "The table has more than " + Numbers.size(TABLE_MOST) + ".",
                    "Leave columns out that mean nothing here; the table of before stays.");
        }
        takeIns.setTable(actor, id, name, table);
        return takeIn(actor, id);
    }

    @PostMapping("/take-ins/{id}/reading")
    TakenIn read(Actor actor, @PathVariable long id) {
        takeIns.read(actor, id);
        return takeIn(actor, id);
    }
}
