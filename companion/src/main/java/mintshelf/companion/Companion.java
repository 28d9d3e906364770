package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.Attributes;
import mintshelf.core.drawing.dxf.Attributes.Attribute;
import mintshelf.core.drawing.dxf.DxfTags;
import mintshelf.core.drawing.titleblock.SheetMap;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Commands on files. Exit status 0 = done, 2 = wrong call, 3 = the file could not be read (one line on standard error). */
@Command(name = "shelf", subcommands = Companion.Drawing.class)
public final class Companion {
    private Companion() {}

    public static void main(String[] arguments) {
        System.exit(commandLine().execute(arguments));
    }

    static CommandLine commandLine() {
        return new CommandLine(new Companion());
    }

    /** Commands on a drawing. */
    @Command(name = "drawing", subcommands = Facts.class)
    static final class Drawing {}

    /** What the drawing says: its version, its code page, its attributes, its title block. */
    @Command(name = "facts", description = "what the drawing says")
    static final class Facts implements Callable<Integer> {
        @Parameters(index = "0")
        private Path file;

        @Option(names = "--json")
        private boolean json;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() {
            PrintWriter err = spec.commandLine().getErr();
            PrintWriter out = spec.commandLine().getOut();
            byte[] bytes;
            try {
                bytes = Files.readAllBytes(file);
            } catch (NoSuchFileException e) {
                err.println(file + ": there is no such file");
                return 3;
            } catch (IOException e) {
                err.println(file + ": " + e.getMessage());
                return 3;
            }
            Outcome<DxfTags> read = DxfTags.read(bytes);
            if (!(read instanceof Outcome.Granted<DxfTags> granted)) {
                err.println(file + ": " + read.refusal().orElseThrow().reason());
                return 3;
            }
            DxfTags tags = granted.value();
            List<Attribute> attributes = Attributes.of(tags);
            Map<String, String> title = SheetMap.readyMade().read(tags);
            if (json) out.println(Json.of(tags, attributes, title));
            else title.forEach((name, value) -> out.println(name + ": " + value));
            out.flush();
            return 0;
        }
    }
}
