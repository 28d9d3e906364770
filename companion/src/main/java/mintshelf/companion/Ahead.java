package mintshelf.companion;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.OptionalInt;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.model.compare.ModelCompare;
import mintshelf.core.model.compare.ModelFile;

/** How far a file is from the version that was brought, counted on this machine: nothing is sent for it. */
final class Ahead {
    /** Larger files are not read for a notice. */
    private static final long LARGEST = 64L << 20;

    private Ahead() {}

    /** How many differences there are; unknown for what is no drawing and no model that can be read. */
    static OptionalInt differences(Path before, Path now, String name) {
        try {
            if (Files.size(before) > LARGEST || Files.size(now) > LARGEST) return OptionalInt.empty();
            String small = name.toLowerCase(Locale.ROOT);
            if (small.endsWith(".dxf")) return drawings(before, now);
            if (small.endsWith(".stp") || small.endsWith(".step")) return models(before, now);
            return OptionalInt.empty();
        } catch (IOException | RuntimeException | StackOverflowError | OutOfMemoryError e) {
            return OptionalInt.empty(); // what cannot be read is not counted; that it is ahead is told anyway
        }
    }

    private static OptionalInt drawings(Path before, Path now) throws IOException {
        Outcome<DxfDrawing> old = DxfDrawing.read(Files.readAllBytes(before));
        Outcome<DxfDrawing> fresh = DxfDrawing.read(Files.readAllBytes(now));
        if (!(old instanceof Outcome.Granted<DxfDrawing> a) || !(fresh instanceof Outcome.Granted<DxfDrawing> b))
            return OptionalInt.empty();
        return DrawingCommands.compared(a.value(), b.value())
                .map(c -> OptionalInt.of(c.differences().size()))
                .orElse(OptionalInt.empty());
    }

    private static OptionalInt models(Path before, Path now) throws IOException {
        Outcome<ModelFile> old = model(before);
        Outcome<ModelFile> fresh = model(now);
        if (!(old instanceof Outcome.Granted<ModelFile> a) || !(fresh instanceof Outcome.Granted<ModelFile> b))
            return OptionalInt.empty();
        return OptionalInt.of(
                ModelCompare.compare(a.value(), b.value()).differences().size());
    }

    private static Outcome<ModelFile> model(Path file) throws IOException {
        return ModelFile.read(() -> new BufferedInputStream(Files.newInputStream(file)));
    }
}
