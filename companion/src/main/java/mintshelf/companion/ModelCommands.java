package mintshelf.companion;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import mintshelf.core.model.step.StepRename;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Commands on a model. */
@Command(
        name = "model",
        subcommands = {ModelCommands.Structure.class, CompareModels.class, ModelCommands.Rename.class})
final class ModelCommands {
    private ModelCommands() {}

    /** Products, usages, external documents. */
    @Command(name = "structure", description = "products, usages, external documents")
    static final class Structure implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Option(names = "--json")
        private boolean json;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            StepModel model = open(file);
            PrintWriter out = spec.commandLine().getOut();
            if (json) Json.print(out, members(model));
            else words(model, out);
            out.flush();
            return 0;
        }

        private static StepModel open(Path file) {
            try (InputStream in = Files.newInputStream(file)) {
                return DrawingCommands.granted(file, StepReader.read(in));
            } catch (NoSuchFileException e) {
                throw new Unreadable(file + ": there is no such file");
            } catch (IOException e) {
                throw new Unreadable(file + ": " + e.getMessage());
            }
        }

        private static Map<String, Object> members(StepModel model) {
            Map<String, Object> all = new LinkedHashMap<>();
            all.put("schema", model.protocol());
            all.put(
                    "header",
                    Json.members(
                            "name", model.head().name(),
                            "timeStamp", model.head().timeStamp(),
                            "system", model.head().system()));
            all.put("lengthUnit", model.lengthUnit());
            all.put("instances", model.instances());
            all.put(
                    "products",
                    model.products().stream()
                            .map(p -> Json.members("id", p.id(), "name", p.name(), "version", p.version()))
                            .toList());
            all.put("usages", model.usages().stream().map(Structure::usage).toList());
            all.put(
                    "externalDocuments",
                    model.externals().stream().map(StepModel.External::name).toList());
            all.put("facts", model.facts());
            Map<String, Object> properties = new LinkedHashMap<>();
            model.properties().forEach((product, said) -> {
                Map<String, Object> of = new LinkedHashMap<>();
                said.forEach((name, value) -> of.put(name, value.shown()));
                properties.put(product, of);
            });
            all.put("properties", properties);
            all.put("said", model.said());
            return all;
        }

        private static Map<String, Object> usage(StepModel.Usage usage) {
            Map<String, Object> one = new LinkedHashMap<>();
            one.put("parent", usage.parent());
            one.put("child", usage.child());
            one.put("count", usage.count());
            return one;
        }

        private static void words(StepModel model, PrintWriter out) {
            out.println(model.protocol() + ", " + model.instances() + " instances"
                    + (model.lengthUnit().isEmpty() ? "" : ", in " + model.lengthUnit()));
            model.products()
                    .forEach(p -> out.println(p.id()
                            + (p.name().equals(p.id()) ? "" : ", " + p.name())
                            + (p.version().isBlank() ? "" : ", version " + p.version())));
            model.usages().forEach(u -> out.println(u.parent() + " has " + u.count() + " of " + u.child()));
            model.properties()
                    .forEach((product, said) ->
                            said.forEach((name, value) -> out.println(product + ": " + name + " " + value.shown())));
            model.externals().forEach(e -> out.println("refers to " + e.name()));
            model.said().forEach(out::println);
        }
    }

    /** External document names rewritten, everything else byte for byte. */
    @Command(name = "rename", description = "external document names rewritten, everything else byte for byte")
    static final class Rename implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Parameters(index = "1")
        private Path target;

        @Option(names = "--reference", required = true, description = "OLD=NEW")
        private Map<String, String> names = new LinkedHashMap<>();

        @Override
        public Integer call() throws IOException {
            byte[] bytes = DrawingCommands.bytes(file);
            Files.write(target, DrawingCommands.granted(file, StepRename.externals(bytes, names)));
            return 0;
        }
    }
}
