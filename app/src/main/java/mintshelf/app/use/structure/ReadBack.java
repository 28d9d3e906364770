package mintshelf.app.use.structure;

import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.zip.ZipException;
import mintshelf.app.effect.Incoming;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.use.structure.KeepPack.Kept;
import mintshelf.app.use.structure.PackStructure.Entry;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.reference.PackBack;
import mintshelf.core.reference.PackBack.Match;
import mintshelf.core.reference.PackBack.Sent;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.springframework.stereotype.Service;

/** Reads what came back of a pack: which files of an archive or a folder have changed, with the names in them written back as the shelf has them. */
@Service
public class ReadBack {
    /** Files that come back at once. */
    public static final int MOST = 2_000;

    /** Bytes that it may unpack to for each of its own, beyond some: far more is no archive of drawings. */
    private static final long RATIO = 200;

    private static final long FREE = 64L << 20;

    /** What the pack itself laid beside the files. */
    private static final Set<String> OURS = Set.of("list.csv", "list.xlsx", "list.pdf", "contents.txt");

    private final KeepPack packs;
    private final UploadStore uploads;
    private final ContentStore contents;
    private final Incoming incoming;
    private final RewriteReferences rewrite;
    private final UnitOfWork unit;

    public ReadBack(
            KeepPack packs,
            UploadStore uploads,
            ContentStore contents,
            Incoming incoming,
            RewriteReferences rewrite,
            UnitOfWork unit) {
        this.packs = packs;
        this.uploads = uploads;
        this.contents = contents;
        this.incoming = incoming;
        this.rewrite = rewrite;
        this.unit = unit;
    }

    /** What becomes of a file that came back. */
    public enum Fate {
        /** It is as it was sent. */
        SAME,
        /** A new version: the actor holds the document, and it is at the version that was sent. */
        VERSION,
        /** Kept beside its document. */
        STRAY,
        /** The pack has none like it: it can be filed. */
        FRESH,
        /** It is not taken. */
        NOT
    }

    /**
     * A file that came back.
     *
     * @param entry what was sent as it; nothing for a new one
     * @param upload token of its bytes, names in it as the shelf has them; empty for what is not taken
     * @param hold under which it becomes a version; 0 for none
     * @param says why it is a stray, or not taken; that names could not be written back
     */
    public record Row(String path, Fate fate, Optional<Entry> entry, String upload, long hold, String says) {
        public boolean comes() {
            return fate == Fate.VERSION || fate == Fate.STRAY;
        }
    }

    /** @param ours how many files of it the pack had laid beside the others */
    public record Back(Kept kept, List<Row> rows, int ours) {
        /** Whether there is anything that could be taken. */
        public boolean takes() {
            return rows.stream().anyMatch(r -> r.comes() || r.fate() == Fate.FRESH);
        }
    }

    /** Reads an archive that the actor has brought; nothing is changed by it. */
    public Back read(Actor actor, long pack, String token) {
        Kept kept = packs.kept(actor, pack);
        Upload archive = uploads.upload(token)
                .filter(u -> u.person() == actor.person() && u.state() == Upload.State.COMPLETE)
                .orElseThrow(() -> Refused.because(
                        "upload.missing",
                        "The archive did not arrive whole.",
                        "Choose it again; nothing was changed."));
        try {
            Path copy = Files.createTempFile("mint-shelf-", ".zip");
            try {
                try (OutputStream out = Files.newOutputStream(copy)) {
                    contents.send(archive.content(), 0, archive.size(), out);
                }
                try (ZipFile zip = ZipFile.builder().setPath(copy).get()) {
                    List<CameBack> came = new ArrayList<>();
                    for (ZipArchiveEntry entry : Collections.list(zip.getEntries())) {
                        if (!entry.isDirectory() && !entry.isUnixSymlink())
                            came.add(new CameBack.Packed(zip, entry, incoming));
                    }
                    return read(actor, kept, came, Math.max(FREE, archive.size() * RATIO));
                } catch (ZipException | EOFException e) {
                    throw Refused.because(
                            "take.archive",
                            "“" + archive.fileName() + "” is no ZIP archive that can be read.",
                            "Pack it anew; nothing was changed.");
                }
            } finally {
                Files.deleteIfExists(copy);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Reads a folder that the actor has brought, file by file. Of what is as it was sent, and of what the pack had laid beside, the
     * uploads are given up: they would be in the way of others of theirs.
     *
     * @param paths of the files in the folder
     * @param tokens of their uploads, in the same order; empty for a file that did not come
     */
    public Back read(Actor actor, long pack, List<String> paths, List<String> tokens) {
        Kept kept = packs.kept(actor, pack);
        if (paths.size() != tokens.size()) throw new NotThere();
        askFor(paths.size());
        Map<String, Upload> own = new HashMap<>();
        for (Upload one : uploads.uploads(new HashSet<>(tokens), false))
            if (one.person() == actor.person() && one.hash().isPresent()) own.put(one.token(), one);
        List<CameBack> came = new ArrayList<>();
        for (int i = 0; i < paths.size(); i++)
            came.add(new CameBack.Brought(paths.get(i), Optional.ofNullable(own.get(tokens.get(i)))));
        try {
            Back back = read(actor, kept, came, Long.MAX_VALUE);
            Set<String> waiting = new HashSet<>();
            for (Row row : back.rows()) if (row.comes() || row.fate() == Fate.FRESH) waiting.add(row.path());
            for (int i = 0; i < paths.size(); i++) if (waiting.contains(paths.get(i))) own.remove(tokens.get(i));
            unit.run(() -> own.values().forEach(uploads::drop));
            return back;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void askFor(int files) {
        if (files > MOST)
            throw Refused.because(
                    "pack.many",
                    "It has more than " + Numbers.count(MOST, "file", "files") + ".",
                    "Bring what came back of this pack alone; nothing was changed.");
    }

    private Back read(Actor actor, Kept kept, List<CameBack> all, long most) throws IOException {
        Set<String> beside = beside(kept);
        List<CameBack> came = all.stream().filter(c -> !isIn(beside, c.path())).toList();
        askFor(came.size());
        Map<Long, Entry> byDocument = new HashMap<>();
        List<Sent> sent = new ArrayList<>();
        for (Entry entry : kept.entries()) {
            long id = entry.seen().spine().id();
            byDocument.put(id, entry);
            sent.add(new Sent(id, entry.seen().document().number(), entry.path()));
        }
        List<Match> matched =
                PackBack.match(sent, came.stream().map(CameBack::path).toList());
        List<Row> rows = new ArrayList<>();
        long left = most;
        for (int i = 0; i < came.size(); i++) {
            Match match = matched.get(i);
            Optional<Entry> entry = match.document().flatMap(d -> Optional.ofNullable(byDocument.get(d)));
            Row row =
                    match.refusal().map(r -> not(match.path(), entry, r.says())).orElse(null);
            if (row == null) {
                row = row(actor, came.get(i), entry, left);
                left -= came.get(i).size();
            }
            rows.add(row);
        }
        return new Back(kept, rows, all.size() - came.size());
    }

    /** Paths of what the pack laid beside its files: its lists, pages of drawings, neutral copies. */
    private static Set<String> beside(Kept kept) {
        Set<String> beside = new HashSet<>(OURS);
        for (Entry entry : kept.entries()) {
            String path = entry.path();
            if (kept.pack().pages() && entry.version().content().kind() == ContentKind.DXF)
                beside.add(path.replaceFirst("\\.[^./]*$", "") + ".pdf");
            if (kept.pack().neutral())
                entry.version()
                        .neutral()
                        .ifPresent(n -> beside.add(path.substring(0, path.lastIndexOf('/') + 1) + n.fileName()));
        }
        kept.entries().forEach(e -> beside.remove(e.path()));
        return beside;
    }

    /** Whether it is one of these, as it lay or in one folder more. */
    private static boolean isIn(Set<String> paths, String path) {
        return paths.contains(path) || paths.contains(path.substring(path.indexOf('/') + 1));
    }

    private Row row(Actor actor, CameBack came, Optional<Entry> entry, long left) {
        String path = came.path();
        Optional<String> trouble = came.trouble();
        if (trouble.isPresent()) return not(path, entry, trouble.get());
        if (came.size() > left) return not(path, entry, "It unpacks to more than an archive of drawings does.");
        try {
            if (entry.isPresent() && isAsSent(entry.get(), came.hash()))
                return new Row(path, Fate.SAME, entry, "", 0, "");
            Upload upload = came.keep(actor);
            if (entry.isEmpty()) return new Row(path, Fate.FRESH, entry, upload.token(), 0, "");
            StoredContent content = new StoredContent(
                    upload.content(),
                    upload.hash().orElseThrow(),
                    upload.size(),
                    upload.kind().orElseThrow());
            return known(actor, path, entry.get(), content, upload.token());
        } catch (Refused e) {
            return not(path, entry, e.refusal().says());
        } catch (IOException e) {
            return not(
                    path, entry, "Its bytes could not be read: it is broken, or waited for too long. Bring it again.");
        }
    }

    /** Whether it is what the shelf has, or that with the names that were written for the pack. */
    private boolean isAsSent(Entry entry, ContentHash now) {
        StoredContent was = entry.version().content();
        if (now.equals(was.hash())) return true;
        return entry.isRewritten()
                && rewrite.packed(was, entry.paths()) instanceof Outcome.Granted<byte[]> bytes
                && now.equals(ContentHash.compute(bytes.value()));
    }

    private static Row not(String path, Optional<Entry> entry, String why) {
        return new Row(path, Fate.NOT, entry, "", 0, why);
    }

    private Row known(Actor actor, String path, Entry entry, StoredContent content, String token) throws IOException {
        ContentHash was = entry.version().content().hash();
        String upload = token;
        ContentHash now = content.hash();
        String says = "";
        if (!now.equals(was) && entry.isRewritten()) {
            Outcome<byte[]> back = written(entry, content);
            if (back instanceof Outcome.Granted<byte[]> bytes) {
                now = ContentHash.compute(bytes.value());
                if (!now.equals(was)) {
                    Incoming.Opened opened =
                            incoming.open(actor, entry.version().fileName(), bytes.value().length, CameBack.KEPT);
                    incoming.receive(actor, opened, new ByteArrayInputStream(bytes.value()));
                    upload = opened.token();
                }
            } else {
                says = "The names in it stay as they were written for the pack: "
                        + back.refusal().map(Refusal::reason).orElse("");
            }
        }
        if (now.equals(was)) return new Row(path, Fate.SAME, Optional.of(entry), "", 0, "");
        Seen seen = entry.seen();
        if (!seen.all()) return not(path, Optional.of(entry), "You see released versions of its document only.");
        boolean mine = seen.document()
                .holder()
                .filter(h -> h.person() == actor.person())
                .isPresent();
        if (seen.version() != entry.version().number())
            return stray(
                    path,
                    entry,
                    upload,
                    "it was sent as version " + entry.version().number() + " and is at version " + seen.version()
                            + " now",
                    says);
        if (!mine)
            return stray(
                    path,
                    entry,
                    upload,
                    seen.document().holder().map(h -> "held by " + h.name()).orElse("nobody holds it"),
                    says);
        return new Row(
                path,
                Fate.VERSION,
                Optional.of(entry),
                upload,
                seen.document().holder().orElseThrow().hold(),
                says);
    }

    private static Row stray(String path, Entry entry, String upload, String why, String says) {
        return new Row(path, Fate.STRAY, Optional.of(entry), upload, 0, says.isEmpty() ? why : why + ". " + says);
    }

    /** With the names that the shelf's file has in the place of those that were written for the pack. */
    private Outcome<byte[]> written(Entry entry, StoredContent content) {
        Optional<Refusal> form = RewriteReferences.form(content);
        if (form.isPresent()) return Outcome.refused(form.get());
        Map<String, String> back = new HashMap<>();
        entry.paths().forEach((shelf, pack) -> back.putIfAbsent(pack, shelf));
        return rewrite.packed(content, back);
    }

    /** The document on top of a pack: where what is new would be filed beside. */
    public Seen top(Actor actor, long pack) {
        return packs.kept(actor, pack).top().orElseThrow(NotThere::new);
    }
}
