package mintshelf.app.use.output;

import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import mintshelf.app.effect.SheetPdf;
import mintshelf.app.setup.Settings;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.output.OutputStore.Wanted;
import mintshelf.core.base.Outcome;
import mintshelf.core.document.Document;
import mintshelf.core.drawing.pdf.PdfWriter;
import org.springframework.stereotype.Component;

/** The PDF of a released version, with what its margin says. */
@Component
class ReleasedPdf {
    private final SpineStore spines;
    private final VersionStore versions;
    private final RevisionStore revisions;
    private final SheetPdf pages;
    private final Settings settings;

    ReleasedPdf(SpineStore spines, VersionStore versions, RevisionStore revisions, SheetPdf pages, Settings settings) {
        this.spines = spines;
        this.versions = versions;
        this.revisions = revisions;
        this.pages = pages;
        this.settings = settings;
    }

    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM yyyy", Locale.ENGLISH);

    Outcome<PdfWriter.Written> pdf(Wanted wanted) {
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
