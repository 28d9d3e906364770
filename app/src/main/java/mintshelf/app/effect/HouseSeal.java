package mintshelf.app.effect;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.output.SealStore;
import mintshelf.core.drawing.pdf.PdfSeal;
import org.springframework.stereotype.Component;

/** The house's seal: its own where one is set, else one that the shelf made and keeps. */
@Component
public class HouseSeal {
    private final SealStore store;
    private final Settings settings;
    private final UnitOfWork unit;
    private final Clock clock;
    private volatile Optional<PdfSeal> known = Optional.empty();

    public HouseSeal(SealStore store, Settings settings, UnitOfWork unit, Clock clock) {
        this.store = store;
        this.settings = settings;
        this.unit = unit;
        this.clock = clock;
    }

    private PdfSeal seal() {
        Optional<PdfSeal> seal = known;
        if (seal.isEmpty()) {
            seal = Optional.of(settings.seal().file().isEmpty() ? own() : set());
            known = seal;
        }
        return seal.get();
    }

    private PdfSeal set() {
        try {
            return PdfSeal.read(
                    Files.readAllBytes(Path.of(settings.seal().file())),
                    settings.seal().password().toCharArray());
        } catch (IOException e) {
            throw new UncheckedIOException("The file of the seal cannot be read", e);
        }
    }

    private PdfSeal own() {
        Optional<byte[]> kept = store.seal();
        if (kept.isEmpty()) {
            String host =
                    Optional.ofNullable(URI.create(settings.origin()).getHost()).orElse("this server");
            PdfSeal made = PdfSeal.made("Mint Shelf on " + host, clock.instant());
            kept = Optional.of(unit.run(() -> store.keep(made.kept(), clock.instant())));
        }
        return PdfSeal.read(kept.get(), new char[0]);
    }

    /** A PDF with the seal. */
    public byte[] on(byte[] pdf, String reason) {
        return seal().on(pdf, reason, clock.instant());
    }

    /** Its certificate (DER). */
    public byte[] certificate() {
        return seal().certificate();
    }

    public String name() {
        return seal().name();
    }

    /** What a PDF that somebody has proves, and whether the seal on it is this house's. */
    public Optional<PdfSeal.Proof> proof(byte[] pdf) {
        return PdfSeal.proof(pdf).filter(p -> p.isBy(seal()));
    }
}
