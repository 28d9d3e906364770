package mintshelf.app.use.structure;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import mintshelf.app.effect.KeepContent;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Recent;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.PictureStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Holder;
import mintshelf.core.document.VersionName;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.hold.HoldRules;
import mintshelf.core.model.picture.ModelLines;
import mintshelf.core.model.step.StepAssembly;
import mintshelf.core.model.step.StepEdges;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import org.springframework.stereotype.Service;

/** Models for the viewer: a file, or an assembly put together from the files on the shelf. */
@Service
public class ReadModel {
    /** Occurrences in one picture. */
    private static final int MOST = 3000;
    /** An assembly file beyond this is shown as it is, without its parts. */
    private static final long LARGEST_ASSEMBLY = 32L << 20;

    /** Bytes of a kept picture. */
    public static final int LARGEST_PICTURE = 400_000;

    private static final int DEEPEST = 20;
    private final Sight sight;
    private final VersionStore versions;
    private final ReferenceStore references;
    private final PictureStore pictures;
    private final ContentStore contents;
    private final Contents whole;
    private final KeepContent keep;
    private final UnitOfWork unit;
    private final Clock clock;

    public ReadModel(
            Sight sight,
            VersionStore versions,
            ReferenceStore references,
            PictureStore pictures,
            ContentStore contents,
            Contents whole,
            KeepContent keep,
            UnitOfWork unit,
            Clock clock) {
        this.sight = sight;
        this.versions = versions;
        this.references = references;
        this.pictures = pictures;
        this.contents = contents;
        this.whole = whole;
        this.keep = keep;
        this.unit = unit;
        this.clock = clock;
    }

    /** Larger ones show themselves in the viewer only. */
    private static final long LARGEST_DRAWN = 4L << 20;
    /** Components of one small picture: an assembly of more shows its first ones. */
    private static final int MOST_DRAWN = 300;
    /** Edges of a part with more points are read again each time: what is kept has to stay small. */
    private static final int LARGEST_KEPT = 60_000;

    /** Pictures are at most some tens of kilobytes each. */
    private final Map<String, Optional<String>> drawn = Recent.most(300);

    private final Map<String, List<double[]>> edges = Recent.most(40);
    /** One model is read at a time, for its points are many while it is. */
    private final ReentrantLock reading = new ReentrantLock();

    /** A file to be loaded, once however often it is placed. */
    public record File(String url, String format, long size) {}

    /**
     * A node of the tree.
     *
     * @param depth below the top
     * @param file index of the file that it shows; -1 for an assembly and for what is not there
     * @param matrix 4 × 4 by rows, in millimetres, from the file to the picture
     * @param says why it is not shown; empty where it is
     * @param stage of what is shown; empty for what is not there
     * @param holder who holds it, of those whose work the person sees
     * @param takes whether the person may check it out now
     * @param mine whether they hold it
     */
    public record Node(
            int depth,
            String number,
            String title,
            long item,
            int version,
            int file,
            double[] matrix,
            String says,
            String stage,
            String holder,
            boolean takes,
            boolean mine) {
        static Node gone(int depth, String name, double[] matrix, String says) {
            return new Node(depth, "", name, 0, 0, -1, matrix, says, "", "", false, false);
        }
    }

    /** What the viewer shows. */
    public record Model(List<File> files, List<Node> nodes, boolean cut) {}

    /**
     * A version's model with its components.
     *
     * @param latest whether components are shown in their latest versions; else in those that it was saved with
     * @param exchanged documents that are shown in the place of others, by those, in their latest versions
     */
    public Model model(Actor actor, long item, VersionName number, boolean latest, Map<Long, Long> exchanged) {
        Building building = build(actor, item, number, latest, MOST, exchanged);
        return new Model(List.copyOf(building.files.values()), building.nodes, building.cut);
    }

    private Building build(
            Actor actor, long item, VersionName number, boolean latest, int most, Map<Long, Long> exchanged) {
        Seen seen = sight.of(actor, item);
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        Building building = new Building(actor, latest && seen.all(), most, exchanged);
        building.add(seen, version, StepAssembly.identity(), 0, new ArrayList<>(List.of(item)));
        return building;
    }

    /**
     * A picture of a model by its edges.
     *
     * @param tag the same as long as the picture is
     */
    public record Lines(String tag, Supplier<Optional<String>> svg) {}

    /** What a model of this format looks like, of those of its components that the actor sees; nothing for meshes. */
    public Optional<Lines> lines(Actor actor, long item, VersionName number) {
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        if (version.drawn().content().kind() != ContentKind.STEP) return Optional.empty();
        Building building = build(actor, item, number, false, MOST_DRAWN, Map.of());
        StringBuilder placed = new StringBuilder();
        building.nodes.stream()
                .filter(n -> n.file() >= 0)
                .forEach(n -> placed.append(
                                building.contents.get(n.file()).hash().hex())
                        .append(Arrays.toString(n.matrix())));
        String tag = ContentHash.compute(placed.toString().getBytes(StandardCharsets.UTF_8))
                .hex();
        return Optional.of(new Lines(tag, () -> drawn(tag, building)));
    }

    private Optional<String> drawn(String tag, Building building) {
        synchronized (drawn) {
            Optional<String> known = drawn.get(tag);
            if (known != null) return known;
        }
        ModelLines lines = new ModelLines();
        building.nodes.stream().filter(n -> n.file() >= 0).forEach(n -> {
            StoredContent content = building.contents.get(n.file());
            lines.add(edges(content), n.matrix());
        });
        Optional<String> svg = lines.isEmpty() ? Optional.empty() : Optional.of(SvgWriter.thumbnail(lines.scene()));
        synchronized (drawn) {
            drawn.put(tag, svg);
        }
        return svg;
    }

    private List<double[]> edges(StoredContent content) {
        if (content.size() > LARGEST_DRAWN) return List.of();
        synchronized (edges) {
            List<double[]> known = edges.get(content.hash().hex());
            if (known != null) return known;
        }
        reading.lock();
        try {
            List<double[]> read =
                    StepEdges.read(new ContentInput(contents, content.id(), content.size()), millimetres(content));
            if (read.stream().mapToInt(line -> line.length).sum() <= LARGEST_KEPT) {
                synchronized (edges) {
                    edges.put(content.hash().hex(), read);
                }
            }
            return read;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            reading.unlock();
        }
    }

    private final class Building {
        private final Actor actor;
        private final boolean latest;
        private final int most;
        private final Map<String, File> files = new LinkedHashMap<>();
        private final List<StoredContent> contents = new ArrayList<>();
        private final Map<Long, StepAssembly.Assembly> assemblies = new HashMap<>();
        private final Map<Long, Optional<Seen>> known = new HashMap<>();
        // The same file stands in many places: what the database says of it is asked once.
        private final Map<Long, List<Reference>> read = new HashMap<>();
        private final Map<String, Optional<VersionRow>> versions = new HashMap<>();
        private final List<Node> nodes = new ArrayList<>();
        private boolean cut;

        private final Map<Long, Long> exchanged;

        Building(Actor actor, boolean latest, int most, Map<Long, Long> exchanged) {
            this.exchanged = exchanged;
            this.most = most;
            this.actor = actor;
            this.latest = latest;
        }

        void add(Seen seen, VersionRow own, double[] at, int depth, List<Long> path) {
            VersionRow version = own.drawn();
            if (nodes.size() >= most) {
                cut = true;
                return;
            }
            List<Reference> refersTo = this.read.computeIfAbsent(version.id(), references::of);
            boolean assembly = !refersTo.isEmpty()
                    && version.content().kind() == ContentKind.STEP
                    && version.content().size() <= LARGEST_ASSEMBLY;
            StepAssembly.Assembly placed =
                    assembly ? assembly(version) : new StepAssembly.Assembly(List.of(), true, false);
            cut |= placed.cut();
            int file = placed.ownShape() ? file(seen, version) : -1;
            String says = file < 0 && !assembly ? "no model that can be shown" : "";
            nodes.add(new Node(
                    depth,
                    seen.document().number(),
                    seen.document().title(),
                    seen.spine().id(),
                    version.number(),
                    file,
                    at,
                    says,
                    seen.current().stage().name(),
                    seen.all() ? seen.document().holder().map(Holder::name).orElse("") : "",
                    seen.all()
                            && HoldRules.checkOut(seen.document(), actor.access())
                                    .isEmpty(),
                    seen.all()
                            && seen.document()
                                    .holder()
                                    .filter(h -> h.person() == actor.person())
                                    .isPresent()));
            if (depth >= DEEPEST) return;
            Map<String, Reference> byPath = new HashMap<>();
            refersTo.forEach(r -> byPath.put(r.written().path(), r));
            for (StepAssembly.Placed one : placed.placed()) {
                below(one, Optional.ofNullable(byPath.get(one.file().strip())), at, depth + 1, path);
            }
        }

        private void below(
                StepAssembly.Placed placed, Optional<Reference> reference, double[] at, int depth, List<Long> path) {
            double[] matrix = StepAssembly.times(at, placed.matrix());
            Optional<Reference.Component> component = reference.flatMap(Reference::component);
            Optional<Long> item = component.map(c -> exchanged.getOrDefault(c.item(), c.item()));
            Optional<Seen> seen = item.flatMap(i -> known.computeIfAbsent(
                    i, id -> sight.of(actor, List.of(id)).values().stream().findFirst()));
            if (seen.isEmpty() || path.contains(item.orElseThrow())) {
                String says = component.isEmpty()
                        ? "missing"
                        : seen.isEmpty() ? "on a shelf that you do not see" : "stands above itself";
                nodes.add(Node.gone(depth, placed.name(), matrix, says));
                return;
            }
            Reference.Component c = component.orElseThrow();
            long shown = item.orElseThrow();
            boolean asLatest = !seen.get().all() || latest || shown != c.item();
            // What was captured may be on the line of a trial: it is found by what it is, not by its number.
            Optional<VersionRow> version = asLatest
                    ? versions.computeIfAbsent(
                            shown + " latest",
                            k -> ReadModel.this.versions.version(
                                    shown, seen.get().version()))
                    : versions.computeIfAbsent(
                            "captured " + c.version(),
                            k -> Optional.ofNullable(ReadModel.this
                                    .versions
                                    .versionsById(List.of(c.version()))
                                    .get(c.version())));
            if (version.isEmpty()) return;
            path.add(shown);
            add(seen.get(), version.get(), matrix, depth, path);
            path.remove(path.size() - 1);
        }

        private int file(Seen seen, VersionRow version) {
            Optional<String> format = ModelFormat.of(version);
            if (format.isEmpty()) return -1;
            String url = "/documents/" + seen.spine().id() + "/versions/"
                    + version.name().address() + "/model-file";
            if (files.putIfAbsent(
                            url, new File(url, format.get(), version.content().size()))
                    == null) {
                contents.add(version.content());
            }
            return List.copyOf(files.keySet()).indexOf(url);
        }

        private StepAssembly.Assembly assembly(VersionRow version) {
            return assemblies.computeIfAbsent(version.content().id(), id -> {
                try {
                    double millimetres = millimetres(version.content());
                    return StepAssembly.read(
                            new ContentInput(
                                    ReadModel.this.contents,
                                    id,
                                    version.content().size()),
                            millimetres);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }

    private double millimetres(StoredContent content) throws IOException {
        Outcome<StepModel> model = StepReader.read(new ContentInput(contents, content.id(), content.size()));
        return model instanceof Outcome.Granted<StepModel> read ? read.value().millimetres() : 1;
    }

    /** The kept picture of a content. */
    public Optional<byte[]> picture(StoredContent content) {
        return pictures.of(content.id()).map(p -> whole.bytes(p, LARGEST_PICTURE));
    }

    /** Whether a picture that this person's browser makes would be kept. */
    public boolean wantsPicture(Actor actor, Seen seen, StoredContent content) {
        return actor.access().may(Right.CHANGE, seen.document().place())
                && pictures.of(content.id()).isEmpty();
    }

    /** Keeps a picture of a version's model that a browser made; only who may change the document is believed. */
    public void keepPicture(Actor actor, long item, VersionName number, byte[] png) {
        Seen seen = sight.of(actor, item);
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        if (!seen.all() || ModelFormat.of(version).isEmpty()) throw new NotThere();
        actor.access().ask(Right.CHANGE, seen.document().place()).ifPresent(r -> {
            throw new Refused(r);
        });
        if (!isPicture(png)) {
            throw Refused.because("picture.bad", "That is no small PNG picture.", "Nothing was kept.");
        }
        unit.run(() -> {
            StoredContent kept = keep.keep(png);
            pictures.keep(version.drawn().content().id(), kept.id(), actor.person(), clock.instant());
        });
    }

    private static boolean isPicture(byte[] png) {
        if (png.length > LARGEST_PICTURE || ContentKind.of(png) != ContentKind.PNG) return false;
        try {
            BufferedImage image = ImageIO.read(new ByteArrayInputStream(png));
            return image != null && image.getWidth() <= 1000 && image.getHeight() <= 800;
        } catch (IOException | RuntimeException e) {
            return false;
        }
    }
}
