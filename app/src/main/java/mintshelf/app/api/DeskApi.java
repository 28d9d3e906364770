package mintshelf.app.api;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.desk.DeskStore;
import mintshelf.app.store.shelf.ShelfStore.Folder;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.desk.Desks;
import mintshelf.app.use.desk.Tokens;
import mintshelf.app.use.hold.BreakHold;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.hold.ReadHeld;
import mintshelf.app.use.trial.TrialHolds;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.Became;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Holds, check-ins, uploads and desks for programs. Acts carry an Idempotency-Key: sent twice they are done once. */
@RestController
@RequestMapping("/api/v1")
class DeskApi {
    private final CheckOut checkOut;
    private final BreakHold breakHold;
    private final CheckIn checkIn;
    private final ReadHeld held;
    private final Desks desks;
    private final Tokens tokens;
    private final ReceiveContent receive;
    private final Sight sight;
    private final TrialHolds trials;

    DeskApi(
            CheckOut checkOut,
            BreakHold breakHold,
            CheckIn checkIn,
            ReadHeld held,
            Desks desks,
            Tokens tokens,
            ReceiveContent receive,
            Sight sight,
            TrialHolds trials) {
        this.checkOut = checkOut;
        this.breakHold = breakHold;
        this.checkIn = checkIn;
        this.held = held;
        this.desks = desks;
        this.tokens = tokens;
        this.receive = receive;
        this.sight = sight;
        this.trials = trials;
    }

    /** The description of this interface, OpenAPI 3.1. */
    @GetMapping(path = "/openapi.json", produces = MediaType.APPLICATION_JSON_VALUE)
    String description() throws IOException {
        try (InputStream in = DeskApi.class.getResourceAsStream("openapi.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    record Pairing(@NotNull String code, @NotNull String desk) {}

    record Paired(String token) {}

    /** Gives a token for the code that the page Companion and tokens shows; good once, for ten minutes. */
    @PostMapping("/pairings")
    Paired pair(@Valid @RequestBody Pairing pairing, HttpServletRequest request) {
        return tokens.redeem(pairing.code(), pairing.desk(), request.getRemoteAddr())
                .map(Paired::new)
                .orElseThrow(() -> Refused.because(
                        "pairing.code", "That code is wrong, used, or older than ten minutes.", "Show a new one."));
    }

    @GetMapping("/holds")
    List<DocumentApi.Document> holds(Actor actor) {
        return held.held(actor, List.of()).stream()
                .map(s -> DocumentApi.Document.of(actor, s))
                .toList();
    }

    /** @param line what the line of a trial is called on all of them: "t1"; their main lines where none is said */
    record Take(@NotNull List<@NotNull Long> documents, String desk, String purpose, String line) {}

    /** Checks documents out, on their main lines or on that of a trial: all of them, or none. */
    @PostMapping("/holds")
    List<DocumentApi.Document> take(
            Actor actor, @RequestHeader("Idempotency-Key") String key, @Valid @RequestBody Take take) {
        Optional<String> trial = DocumentApi.trial(take.line());
        if (trial.isPresent()) {
            return trials
                    .takeOn(actor, trial.get(), ids(take.documents()), key, said(take.desk()), said(take.purpose()))
                    .stream()
                    .map(s -> DocumentApi.Document.of(actor, s))
                    .toList();
        }
        checkOut.take(actor, ids(take.documents()), key, said(take.desk()), said(take.purpose()));
        return sight.of(actor, take.documents()).values().stream()
                .map(s -> DocumentApi.Document.of(actor, s))
                .toList();
    }

    record GiveBack(@NotNull List<@NotNull Long> documents, String line) {}

    /** Gives holds back unchanged. */
    @PostMapping("/holds/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(Actor actor, @RequestHeader("Idempotency-Key") String key, @Valid @RequestBody GiveBack back) {
        List<Long> items = ids(back.documents());
        DocumentApi.trial(back.line())
                .ifPresentOrElse(
                        line -> trials.undoOn(actor, line, items, key), () -> checkOut.undo(actor, items, key));
    }

    /**
     * @param upload token of the file that came; none when the desk has what the shelf has
     * @param copies tokens of the neutral copies that came with it; none where there are none
     */
    record InRow(long document, String upload, Long hold, String comment, List<@NotNull String> copies) {}

    record In(
            @NotNull List<@NotNull @Valid InRow> rows,
            String comment,
            Boolean keepHold,
            Boolean keepSaves,
            String desk) {}

    /** @param what version, unchanged, only-saved or stray, with its number */
    record Row(long document, String what, long number) {}

    @PostMapping("/check-ins")
    List<Row> checkIn(Actor actor, @RequestHeader("Idempotency-Key") String key, @Valid @RequestBody In in) {
        List<CheckIn.Row> rows = in.rows().stream()
                .map(r -> new CheckIn.Row(
                        r.document(),
                        Optional.ofNullable(r.upload()),
                        r.hold() == null ? 0 : r.hold(),
                        said(r.comment()),
                        r.copies() == null ? List.of() : r.copies()))
                .toList();
        List<Became> became = checkIn.take(
                actor,
                rows,
                key,
                new CheckIn.Options(
                        said(in.comment()),
                        Boolean.TRUE.equals(in.keepHold()),
                        Boolean.TRUE.equals(in.keepSaves()),
                        desks.worked(actor, said(in.desk()))));
        desks.checkedIn(actor, said(in.desk()), became);
        return became.stream()
                .map(b -> new Row(b.document(), b.fate().word(), b.number()))
                .toList();
    }

    record Question(String message) {}

    /** Asks the holder for a document. */
    @PostMapping("/documents/{id}/ask")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void ask(
            Actor actor,
            @PathVariable long id,
            @RequestHeader("Idempotency-Key") String key,
            @Valid @RequestBody Question question) {
        breakHold.ask(actor, id, key, said(question.message()));
    }

    @PostMapping("/uploads")
    UploadApi.Progress open(Actor actor, @RequestParam String name, @RequestParam long size) {
        return UploadApi.Progress.of(receive.upload(actor, receive.open(actor, name, size)));
    }

    @GetMapping("/uploads/{token}")
    UploadApi.Progress progress(Actor actor, @PathVariable String token) {
        return UploadApi.Progress.of(receive.upload(actor, token));
    }

    /** Takes bytes from {@code from} on; the answer says where to go on. */
    @PutMapping("/uploads/{token}")
    UploadApi.Progress send(
            Actor actor, @PathVariable String token, @RequestParam long from, HttpServletRequest request)
            throws IOException {
        return UploadApi.Progress.of(receive.receive(actor, token, from, request.getInputStream()));
    }

    record Desk(String name, String seen) {}

    @GetMapping("/desks")
    List<Desk> desks(Actor actor) {
        return desks.of(actor).stream().map(DeskApi::desk).toList();
    }

    private static Desk desk(DeskStore.Desk d) {
        return new Desk(d.name(), d.seen().map(Object::toString).orElse(null));
    }

    /** Makes a desk, or gives the one of that name. */
    @PutMapping("/desks/{name}")
    Desk openDesk(Actor actor, @PathVariable String name) {
        return desk(desks.open(actor, name));
    }

    /** Gives a desk up; files stay where they lie. */
    @DeleteMapping("/desks/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeDesk(Actor actor, @PathVariable String name) {
        desks.remove(actor, name);
    }

    record DiskFile(
            @NotNull String path,
            @NotNull @Pattern(regexp = "[0-9a-fA-F]{64}") String sha256) {}

    record Disk(@NotNull List<@NotNull @Valid DiskFile> files) {}

    /**
     * @param line what the line of a trial is called on which the desk works with it, {@code trial} its id; null for the main one
     * @param version number of the version that the person gets on that line, {@code gets} as addresses name it
     * @param base number of the version that was brought, 0 where none was, {@code had} as addresses name it
     * @param word even, behind, ahead, strayed, new, absent, set
     * @param act the one that is proposed
     * @param remarks open ones on its sheet, for who sees work in preparation
     * @param comes whether it lies in a folder that comes to every desk of its shelf
     */
    record Standing(
            String path,
            String word,
            String act,
            String says,
            Long document,
            String number,
            String title,
            String line,
            Long trial,
            Integer version,
            String gets,
            int base,
            String had,
            String belongs,
            long hold,
            String heldBy,
            Long shelf,
            Long folder,
            String revision,
            String stage,
            String stageClass,
            int remarks,
            boolean comes) {}

    /** How what lies on a desk stands to the shelf. */
    @PostMapping("/desks/{name}/status")
    List<Standing> status(Actor actor, @PathVariable String name, @Valid @RequestBody Disk disk) {
        List<Desks.OnDisk> files = disk.files().stream()
                .map(f -> new Desks.OnDisk(f.path(), ContentHash.ofHex(f.sha256())))
                .toList();
        return desks.status(actor, name, files).stream()
                .map(l -> new Standing(
                        l.path(),
                        l.standing().word().name().toLowerCase(Locale.ROOT),
                        l.standing().act().name().toLowerCase(Locale.ROOT).replace('_', '-'),
                        l.standing().act().words(),
                        l.seen().map(s -> s.spine().id()).orElse(null),
                        l.seen().map(s -> s.document().ownNumber()).orElse(null),
                        l.seen().map(s -> s.document().title()).orElse(null),
                        l.seen().map(s -> DocumentApi.lineOf(s.document())).orElse(null),
                        l.trial().orElse(null),
                        l.seen().map(s -> s.version()).orElse(null),
                        l.seen().map(s -> s.name().address()).orElse(null),
                        l.base().map(VersionName::number).orElse(0),
                        l.base().map(VersionName::address).orElse(null),
                        l.belongs().orElse(null),
                        l.hold(),
                        l.seen()
                                .filter(Seen::all)
                                .flatMap(s -> s.document().holder())
                                .map(Holder::name)
                                .orElse(null),
                        l.seen()
                                .map(s -> s.document().place().shelf())
                                .or(() -> l.goesTo().map(Folder::shelf))
                                .orElse(null),
                        l.seen()
                                .map(s -> s.spine().folder())
                                .or(() -> l.goesTo().map(Folder::id))
                                .orElse(null),
                        l.seen().map(s -> s.current().shown()).orElse(null),
                        l.seen().map(s -> s.current().stage().name()).orElse(null),
                        l.seen()
                                .map(s ->
                                        s.current().stage().stageClass().name().toLowerCase(Locale.ROOT))
                                .orElse(null),
                        l.seen().filter(Seen::all).map(s -> s.spine().remarks()).orElse(0),
                        l.comes()))
                .toList();
    }

    /**
     * @param version as addresses name it: 7, "t1-2"
     * @param line the trial on whose line the desk works with it from now on, "t1", where the version is the one at which that begins
     */
    record BroughtFile(
            long document, @NotNull String version, @NotNull String path, Boolean onPurpose, String line) {}

    record Brought(@NotNull List<@NotNull @Valid BroughtFile> files) {}

    /** Notes what was brought to a desk. */
    @PostMapping("/desks/{name}/files")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void brought(Actor actor, @PathVariable String name, @Valid @RequestBody Brought brought) {
        desks.brought(
                actor,
                name,
                brought.files().stream()
                        .map(f -> new Desks.Bring(
                                f.document(),
                                VersionName.of(f.version()).orElseThrow(NotThere::new),
                                trial(f.line()),
                                f.path(),
                                Boolean.TRUE.equals(f.onPurpose())))
                        .toList());
    }

    record Cleared(@NotNull List<@NotNull Long> documents) {}

    /** Forgets files that were cleared off a desk. */
    @PostMapping("/desks/{name}/cleared")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cleared(Actor actor, @PathVariable String name, @Valid @RequestBody Cleared cleared) {
        desks.cleared(actor, name, ids(cleared.documents()));
    }

    private static int trial(String line) {
        return DocumentApi.trial(line)
                .map(l -> VersionName.line(l).orElseThrow(NotThere::new))
                .orElse(0);
    }

    private static List<Long> ids(List<Long> documents) {
        if (documents == null || documents.isEmpty()) throw new NotThere();
        return documents.stream().distinct().toList();
    }

    private static String said(String text) {
        return text == null ? "" : text;
    }
}
