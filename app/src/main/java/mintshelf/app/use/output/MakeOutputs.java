package mintshelf.app.use.output;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.output.OutputStore.Wanted;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.pdf.PdfWriter;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Makes the outputs that releases ask for: a run after the move, on whatever node, again after a crash, kept once for each
 * version, format and recipe.
 */
@Service
public class MakeOutputs {
    private static final Logger LOG = LoggerFactory.getLogger(MakeOutputs.class);
    private static final Duration LEASE = Duration.ofMinutes(2);
    private static final int TRIES = 3;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    private final OutputStore outputs;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final SpineStore spines;
    private final KeepContent contents;
    private final SheetPdf pages;
    private final ReadingRoom room;
    private final UnitOfWork unit;
    private final Settings settings;
    private final Clock clock;

    public MakeOutputs(
            OutputStore outputs,
            RevisionStore revisions,
            VersionStore versions,
            SpineStore spines,
            KeepContent contents,
            SheetPdf pages,
            ReadingRoom room,
            UnitOfWork unit,
            Settings settings,
            Clock clock) {
        this.outputs = outputs;
        this.revisions = revisions;
        this.versions = versions;
        this.spines = spines;
        this.contents = contents;
        this.pages = pages;
        this.room = room;
        this.unit = unit;
        this.settings = settings;
        this.clock = clock;
    }

    /** Makes all that waits, one after the other. */
    @Scheduled(initialDelayString = "PT2S", fixedDelayString = "PT2S")
    public void run() {
        while (makeNext()) {
            // until nothing waits
        }
    }

    /** Whether something waited. */
    public boolean makeNext() {
        Optional<Wanted> next =
                unit.run(() -> outputs.take(clock.instant(), clock.instant().plus(LEASE)));
        if (next.isEmpty()) return false;
        Wanted wanted = next.get();
        try {
            Outcome<PdfWriter.Written> pdf = room.within(() -> pdf(wanted));
            if (pdf instanceof Outcome.Granted<PdfWriter.Written> written) {
                unit.run(() -> {
                    StoredContent kept = contents.keep(written.value().bytes());
                    outputs.made(wanted, kept.id(), lacks(written.value()), clock.instant());
                });
            } else {
                unit.run(
                        () -> outputs.failed(wanted, pdf.refusal().orElseThrow().reason()));
            }
        } catch (Refused e) {
            return false; // no room now: the lease ends, and it is made then
        } catch (RuntimeException e) {
            LOG.warn(
                    "The {} of version {} was not made, try {}",
                    wanted.format(),
                    wanted.version(),
                    wanted.tries() + 1,
                    e);
            if (wanted.tries() + 1 >= TRIES) {
                unit.run(() -> outputs.failed(wanted, "It could not be made; the log of the server says why."));
            }
        }
        return true;
    }

    private static String lacks(PdfWriter.Written written) {
        if (written.missing().isEmpty()) return "";
        StringBuilder signs = new StringBuilder("Its font lacks: ");
        written.missing().stream().sorted().forEach(signs::appendCodePoint);
        return Texts.shorten(signs.toString(), 300);
    }

    private Outcome<PdfWriter.Written> pdf(Wanted wanted) {
        Document document = spines.spine(wanted.item()).orElseThrow().document();
        VersionRow version = versions.version(wanted.item(), wanted.number()).orElseThrow();
        RevisionRow revision = revisions.revisions(wanted.item()).stream()
                .filter(r -> r.revision().id() == version.revision())
                .findFirst()
                .orElseThrow();
        Instant at = revision.releasedAt().orElse(version.at());
        String margin = document.number() + " · " + revision.revision().shown() + " · released "
                + DAY.format(at.atZone(settings.zone())) + " · uncontrolled when printed";
        return pages.write(
                version.content(),
                document.number() + " " + revision.revision().shown() + " " + document.title(),
                margin);
    }
}
