package mintshelf.app.use.mail;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.MayFetch;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.outbox.OutboxStore.Delivery;
import mintshelf.app.store.output.OutputStore;
import mintshelf.app.store.output.OutputStore.Output;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Document;
import mintshelf.core.document.FileName;
import mintshelf.core.document.OutputFormat;
import org.springframework.stereotype.Component;

/**
 * The files that go with news of what is in force, where the house's distribution says so: of the revision that is in force when the mail
 * goes, and to whoever may fetch it at that moment. What does not go is said, with the link.
 */
@Component
class Enclosures {
    /** A release's outputs are made within seconds; after this a mail goes without. */
    private static final Duration PATIENCE = Duration.ofMinutes(20);

    private final SpineStore spines;
    private final VersionStore versions;
    private final OutputStore outputs;
    private final Contents contents;
    private final MayFetch may;
    private final Settings settings;
    private final Clock clock;

    Enclosures(
            SpineStore spines,
            VersionStore versions,
            OutputStore outputs,
            Contents contents,
            MayFetch may,
            Settings settings,
            Clock clock) {
        this.spines = spines;
        this.versions = versions;
        this.outputs = outputs;
        this.contents = contents;
        this.may = may;
        this.settings = settings;
        this.clock = clock;
    }

    /** A file of a letter, of a document. Its bytes are read when the mail goes: of forty letters together few files go. */
    record Enclosure(long item, String name, StoredContent content) {}

    /** What goes with a letter, and what is said of it; both empty where nothing was to go. */
    record Enclosed(Optional<Enclosure> file, String says) {
        static final Enclosed NOTHING = new Enclosed(Optional.empty(), "");

        static Enclosed only(String says) {
            return new Enclosed(Optional.empty(), says);
        }
    }

    /** Whether the page that is to go with it is being made. */
    boolean waits(Delivery delivery) {
        Optional<OutputFormat> format = delivery.way().format();
        if (format.isEmpty() || delivery.item().isEmpty()) return false;
        if (delivery.at().isBefore(clock.instant().minus(PATIENCE))) return false;
        return spines.spine(delivery.item().get())
                .flatMap(this::inForce)
                .filter(v -> outputs.of(v.id()).stream()
                        .anyMatch(o -> o.format().equals(format.get().name()) && o.isWaiting()))
                .isPresent();
    }

    Enclosed of(Delivery delivery, Actor actor, Seen seen) {
        if (!delivery.way().sends()) return Enclosed.NOTHING;
        Document document = seen.document();
        Optional<VersionRow> version = inForce(seen.spine());
        if (document.released().isEmpty() || version.isEmpty()) {
            return Enclosed.only("Nothing of it is in force any more, so no file comes with this.");
        }
        Optional<Refusal> refused = may.refusal(actor, seen, version.get());
        if (refused.isPresent())
            return Enclosed.only("No file comes with this. " + refused.get().reason());
        Optional<OutputFormat> format = delivery.way().format();
        Optional<StoredContent> content = format.isPresent()
                ? made(version.get(), format.get())
                : Optional.of(version.get().content());
        if (content.isEmpty()) {
            return Enclosed.only("There is no " + format.orElseThrow().name() + " of it; fetch the file there.");
        }
        String label = document.released().get().shown();
        String name = document.number() + " " + label + "."
                + format.map(OutputFormat::ending).orElseGet(() -> extension(version.get()));
        long size = content.get().size();
        if (size > settings.largestMail()) {
            return Enclosed.only(name + " has " + Numbers.size(size) + ", too much for a mail ("
                    + Numbers.size(settings.largestMail()) + "): fetch it there.");
        }
        return new Enclosed(
                Optional.of(new Enclosure(document.id(), name.replaceAll("[\\\\/:\\p{Cntrl}]", "-"), content.get())),
                "With it: " + name + " (" + Numbers.size(size) + ").");
    }

    private static String extension(VersionRow version) {
        String extension = FileName.of(version.fileName()).extension();
        return extension.isEmpty() ? "bin" : extension;
    }

    /** What the release made in a format; a PDF is its own, where the file is one. */
    private Optional<StoredContent> made(VersionRow version, OutputFormat format) {
        if (format == OutputFormat.PDF && version.content().kind() == ContentKind.PDF) {
            return Optional.of(version.content());
        }
        List<Output> made = outputs.of(version.id());
        return made.stream()
                .filter(o -> o.format().equals(format.name()))
                .flatMap(o -> o.content().stream())
                .findFirst();
    }

    /** The version with which the revision in force was released. */
    private Optional<VersionRow> inForce(Spine spine) {
        return spine.releasedVersion().flatMap(number -> versions.version(spine.id(), number));
    }

    byte[] bytes(Enclosure file) {
        return contents.bytes(file.content(), settings.largestMail());
    }
}
