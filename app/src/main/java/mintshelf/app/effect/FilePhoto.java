package mintshelf.app.effect;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Document;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.RevisionRules;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;

/**
 * Files a photo that somebody took for a paper of change: as a picture of its own, in force from then on, for a photo does not change.
 * It is written anew, so that nothing goes along that its maker did not show: where it was taken, by which device.
 */
@Component
public class FilePhoto {
    private static final String KIND = "picture";
    private static final int BYTES = 6 << 20;
    /** A page makes photos smaller than this before it sends them. */
    private static final long PIXELS = 8_000_000;

    private final FilePaper file;
    private final HouseStore house;
    private final SpineStore spines;
    private final RevisionStore revisions;
    private final Recorder recorder;
    private final Clock clock;

    public FilePhoto(
            FilePaper file,
            HouseStore house,
            SpineStore spines,
            RevisionStore revisions,
            Recorder recorder,
            Clock clock) {
        this.file = file;
        this.house = house;
        this.spines = spines;
        this.revisions = revisions;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** A photo as it is filed: JPEG, nothing in it but its pixels. Refused for what is none, or too large. */
    public static Outcome<byte[]> read(byte[] sent) {
        if (sent.length > BYTES) {
            return Outcome.refused("photo.large", "The photo is too large.", "Take one of less than 6 MB.");
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(sent))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) return none();
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                // Before it is unpacked: a small file may say that it is a huge picture.
                if ((long) reader.getWidth(0) * reader.getHeight(0) > PIXELS) {
                    return Outcome.refused("photo.large", "The photo has too many pixels.", "Take a smaller one.");
                }
                return Outcome.granted(jpeg(reader.read(0)));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            return none(); // whatever broken bytes make a reader throw
        }
    }

    private static byte[] jpeg(BufferedImage picture) throws IOException {
        BufferedImage plain = new BufferedImage(picture.getWidth(), picture.getHeight(), BufferedImage.TYPE_INT_RGB);
        Graphics2D paint = plain.createGraphics();
        paint.drawImage(picture, 0, 0, Color.WHITE, null);
        paint.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(plain, "jpg", out);
        return out.toByteArray();
    }

    private static Outcome<byte[]> none() {
        return Outcome.refused("photo.unread", "This is no photo that can be read.", "Take a JPEG or a PNG.");
    }

    /**
     * Files a photo beside a paper, on the shelf of that.
     *
     * @param jpeg as {@link #read} gives it
     * @return the id of its version
     */
    public long file(Actor actor, Document paper, byte[] jpeg) {
        Optional<Kind> kind = house.kindCalled(KIND);
        if (kind.isEmpty()) {
            throw Refused.because(
                    "photo.kind", "The house has no kind of pictures.", "File the photo, and name it as evidence.");
        }
        long shelf = paper.place().shelf();
        NumberKey number = file.number(kind.get(), shelf);
        long item = file.file(
                actor,
                kind.get(),
                shelf,
                number,
                "Photo for " + paper.number(),
                number.number() + ".jpg",
                jpeg,
                "taken for " + paper.number());
        Document filed = spines.spine(item).orElseThrow().document();
        Instant now = clock.instant();
        long version = filed.head().version();
        RevisionRules.firstLabel(ShippedSeries.of(kind.get().revisionSeries()), true, "")
                .orElseThrow(Refused::new)
                .ifPresent(label -> revisions.fixLabel(filed.current().id(), label));
        revisions.setStage(
                filed.current().id(),
                house.edition(filed.current().stage().edition())
                        .firstOf(StageClass.RELEASED)
                        .orElseThrow(),
                now);
        revisions.noteRelease(filed.current().id(), version, now);
        recorder.note(actor, item, "version.added", 1, "took it for " + paper.number(), "");
        return version;
    }
}
