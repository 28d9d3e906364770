package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import mintshelf.companion.machine.Machine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

/** Brings a folder that is to be taken in, file by file, and has it read; what becomes of it is looked at in the browser. */
@Command(
        name = "take-in",
        description = "brings a folder that is to be taken in; broken off and called again, it goes on where it stood")
final class TakeInCommand implements Callable<Integer> {
    @Parameters(index = "0", description = "the folder with all below it")
    private Path folder = Path.of("");

    @Option(names = "--to", required = true, description = "number of the taking-in, as its page shows it")
    private long takeIn;

    @Option(names = "--table", description = "a CSV or XLSX with a line for each file")
    private Path table = Path.of("");

    @Option(names = "--desk", description = "the desk whose pairing is used; this folder without")
    private Path desk = Path.of("");

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        try {
            ShelfClient client = DeskFolder.of(desk.toAbsolutePath()).client(Machine.here());
            if (!Files.isDirectory(folder)) throw new Companion.Unreadable(folder + " is no folder.");
            List<Path> files;
            try (Stream<Path> all = Files.walk(folder)) {
                files = all.filter(Files::isRegularFile)
                        .filter(f -> !isOfDesk(folder.relativize(f)))
                        .sorted()
                        .toList();
            }
            int sent = 0;
            for (Path file : files) {
                String path = folder.relativize(file).toString().replace('\\', '/');
                if (client.bring(
                        "/take-ins/" + takeIn + "/files", Map.of("path", path, "size", Files.size(file)), file)) {
                    sent++;
                }
                if (sent > 0 && sent % 500 == 0) {
                    out.println(sent + " of " + files.size() + " sent");
                    out.flush();
                }
            }
            if (!table.toString().isEmpty()) {
                client.put(
                        "/take-ins/" + takeIn + "/table?name="
                                + ShelfClient.encode(table.getFileName().toString()),
                        Files.readAllBytes(table));
            }
            JsonNode state = client.post("/take-ins/" + takeIn + "/reading", Map.of());
            out.println(files.size() + " files are there, " + sent + " of them sent now. They are read; look at "
                    + client.origin() + state.path("address").asString() + ".");
            out.flush();
            return 0;
        } catch (ShelfClient.Refusal e) {
            spec.commandLine().getErr().println(e.getMessage());
            return 1;
        }
    }

    /** What a desk keeps beside the files: its record, and what was saved on the way. */
    private static boolean isOfDesk(Path path) {
        for (Path part : path) if (part.toString().startsWith(".mint-desk")) return true;
        return false;
    }
}
