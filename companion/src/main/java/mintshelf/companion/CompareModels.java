package mintshelf.companion;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.core.model.compare.ModelCompare;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.model.compare.ModelComparison.Difference;
import mintshelf.core.model.compare.ModelFile;
import mintshelf.core.model.shape.Extent;
import mintshelf.core.model.shape.Vec;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What changed between two models, in words; 1 when something did. */
@Command(name = "compare", description = "what changed")
final class CompareModels implements Callable<Integer> {
    @Parameters(index = "0")
    private Path old;

    @Parameters(index = "1")
    private Path now;

    @Option(names = "--json")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        ModelComparison found = ModelCompare.compare(read(old), read(now));
        PrintWriter out = spec.commandLine().getOut();
        if (json) Json.print(out, members(found));
        else words(found, out);
        out.flush();
        return found.isEmpty() ? 0 : 1;
    }

    private static ModelFile read(Path file) {
        try {
            return DrawingCommands.granted(
                    file, ModelFile.read(() -> new BufferedInputStream(Files.newInputStream(file))));
        } catch (NoSuchFileException e) {
            throw new Unreadable(file + ": there is no such file");
        } catch (IOException e) {
            throw new Unreadable(file + ": " + e.getMessage());
        } catch (OutOfMemoryError e) {
            throw new Unreadable(file + ": it is larger than the memory of this program");
        }
    }

    private static Map<String, Object> members(ModelComparison found) {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("old", measures(found.old(), found.before()));
        all.put("new", measures(found.now(), found.after()));
        all.put("same", found.same());
        all.put("changed", found.changed());
        all.put("removed", found.removed());
        all.put("added", found.added());
        List<Map<String, Object>> differences = new ArrayList<>();
        for (Difference d : found.differences()) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("number", d.number());
            one.put("kind", word(d.kind()));
            one.put("says", d.says());
            if (!d.box().isEmpty()) one.put("box", box(d.box()));
            differences.add(one);
        }
        all.put("differences", differences);
        all.put("withoutWords", found.unsaid());
        all.put("unread", found.unread());
        return all;
    }

    private static Map<String, Object> measures(int faces, ModelComparison.Measures measures) {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("faces", faces);
        if (!measures.extent().isEmpty()) all.put("box", box(measures.extent()));
        measures.volume().ifPresent(v -> all.put("volume", v));
        measures.mass().ifPresent(m -> all.put("mass", m));
        return all;
    }

    private static List<Double> box(Extent box) {
        Vec low = box.low();
        Vec high = box.high();
        return List.of(low.x(), low.y(), low.z(), high.x(), high.y(), high.z());
    }

    private static String word(ModelComparison.Kind kind) {
        return switch (kind) {
            case CHANGED -> "changed";
            case MOVED -> "moved";
            case ONLY_IN_OLD -> "removed";
            case ONLY_IN_NEW -> "added";
        };
    }

    private static void words(ModelComparison found, PrintWriter out) {
        if (found.isEmpty()) {
            out.println("No difference.");
            return;
        }
        found.differences().forEach(d -> out.println(d.number() + " " + d.kind().words() + ": " + d.says()));
        if (found.before().volume().isPresent() || found.after().volume().isPresent())
            out.println("volume " + found.volumes());
        if (!found.masses().isEmpty()) out.println("mass " + found.masses());
        if (found.unsaid() > 0) out.println(found.unsaid() + " more faces differ.");
        if (found.unread() > 0) out.println(found.unread() + " faces could not be read.");
    }
}
