package mintshelf.app.use.takein;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Iterator;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.zip.ZipException;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.content.UploadStore;
import mintshelf.app.store.takein.TakeIn;
import mintshelf.app.store.takein.TakeInStore;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.springframework.stereotype.Component;

/**
 * Brings the files of an archive (ZIP, ISO/IEC 21320-1) as if somebody brought them one by one. What it says of their sizes is not
 * believed: bytes are counted as they come. Folders without files are passed over; archives in it stay files.
 */
@Component
class UnpackTaken {
    /** Bytes that an archive may unpack to for each of its own, beyond some: far more is no archive of drawings. */
    private static final long RATIO = 200;

    private static final long FREE = 64L << 20;

    private final ContentStore contents;
    private final UploadStore uploads;
    private final TakeInStore takeIns;
    private final BringTaken bring;

    UnpackTaken(ContentStore contents, UploadStore uploads, TakeInStore takeIns, BringTaken bring) {
        this.contents = contents;
        this.uploads = uploads;
        this.takeIns = takeIns;
        this.bring = bring;
    }

    /**
     * Unpacks what is not there yet.
     *
     * @param goesOn asked before each file: whether it is the caller's to go on with still
     * @return whether all of it is there now
     */
    boolean unpack(Actor actor, TakeIn takeIn, BooleanSupplier goesOn) throws IOException {
        Upload archive = uploads.upload(takeIn.archive().orElseThrow())
                .filter(u -> u.state() == Upload.State.COMPLETE)
                .orElseThrow(() ->
                        Refused.because("take.archive", "The archive is not here any more.", "Bring it once more."));
        boolean all = unpack(actor, takeIn, archive, goesOn);
        // What is unpacked lies there twice.
        if (all) takeIns.dropArchive(takeIn.id());
        return all;
    }

    private boolean unpack(Actor actor, TakeIn takeIn, Upload archive, BooleanSupplier goesOn) throws IOException {
        Path copy = Files.createTempFile("mint-shelf-", ".zip");
        try {
            try (OutputStream out = Files.newOutputStream(copy)) {
                contents.send(archive.content(), 0, archive.size(), out);
            }
            try (ZipFile zip = ZipFile.builder().setPath(copy).get()) {
                return unpack(actor, takeIn, zip, Math.max(FREE, archive.size() * RATIO), goesOn);
            } catch (ZipException | EOFException e) {
                throw Refused.because(
                        "take.archive",
                        "“" + archive.fileName() + "” is no ZIP archive that can be read.",
                        "Pack it anew, or bring the folder itself.");
            }
        } finally {
            Files.deleteIfExists(copy);
        }
    }

    private boolean unpack(Actor actor, TakeIn takeIn, ZipFile zip, long most, BooleanSupplier goesOn)
            throws IOException {
        List<ZipArchiveEntry> entries = new ArrayList<>();
        for (Iterator<ZipArchiveEntry> all = zip.getEntries().asIterator(); all.hasNext(); ) {
            ZipArchiveEntry entry = all.next();
            if (!entry.isDirectory() && !entry.isUnixSymlink()) entries.add(entry);
            if (entries.size() > BringTaken.MOST) throw BringTaken.tooMany();
        }
        entries.sort(Comparator.comparing(ZipArchiveEntry::getName));
        takeIns.setTotal(takeIn.id(), entries.size());
        long unpacked = 0;
        for (ZipArchiveEntry entry : entries) {
            if (!goesOn.getAsBoolean()) return false;
            if (!zip.canReadEntryData(entry) || entry.getGeneralPurposeBit().usesEncryption()) {
                bring.note(
                        takeIn,
                        entry.getName(),
                        Math.max(0, entry.getSize()),
                        "It is encrypted, or packed in a way that is not read here.");
                continue;
            }
            try (InputStream in = zip.getInputStream(entry)) {
                unpacked +=
                        bring.take(actor, takeIn, entry.getName(), Math.max(0, entry.getSize()), in, most - unpacked);
            }
        }
        return true;
    }
}
