package mintshelf.companion;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import mintshelf.companion.machine.Machine;
import mintshelf.core.document.VersionName;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

/** Commands on the desk in which one stands. */
@Command(
        name = "desk",
        description = "the desk: status, fetch, check-out, check-in, undo, watch, drafts, register, doctor",
        subcommands = {
            DeskCommands.Pair.class,
            DeskCommands.Status.class,
            DeskCommands.Fetch.class,
            DeskCommands.Out.class,
            DeskCommands.In.class,
            DeskCommands.Undo.class,
            WatchCommand.class,
            OpenCommand.class,
            ActCommand.class,
            DraftsCommand.class,
            RegisterCommand.class,
            DoctorCommand.class
        })
final class DeskCommands {
    private DeskCommands() {}

    /** Makes the folder a desk, by the code that the page Companion and tokens shows. */
    @Command(name = "pair", description = "makes this folder a desk")
    static final class Pair implements Callable<Integer> {
        @Parameters(index = "0")
        private String origin;

        @Parameters(index = "1")
        private String code;

        @Option(names = "--name", description = "the desk's name")
        private String name = "desk";

        @Option(names = "--desk")
        private Path folder = Path.of("");

        @Option(names = "--certificate", description = "of the house, where its server has none that everybody trusts")
        private Optional<Path> certificate = Optional.empty();

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws IOException {
            try {
                Machine machine = ((Companion) spec.root().userObject()).machine();
                JsonNode paired = new ShelfClient(machine, origin, "", certificate)
                        .post("/pairings", Map.of("code", code, "desk", name));
                DeskFolder desk = DeskFolder.make(
                        folder.toAbsolutePath(), origin, paired.path("token").asString(), name, certificate);
                desk.client(machine).put("/desks/" + ShelfClient.encode(name));
                spec.commandLine().getOut().println(name + " is paired with " + origin + ".");
                spec.commandLine().getOut().flush();
                return 0;
            } catch (ShelfClient.Refusal e) {
                spec.commandLine().getErr().println(e.getMessage());
                return 1;
            }
        }
    }

    /** How each file stands. */
    @Command(name = "status", description = "how each file stands to the shelf")
    static final class Status extends OnDesk {
        @Option(names = "--json")
        private boolean json;

        @Override
        int run() {
            DeskFolder desk = DeskFolder.of(folder);
            JsonNode status = status(desk, desk.client(machine()));
            if (json) out().println(status);
            else print(out(), status);
            return 0;
        }
    }

    /** A command on documents on a line. */
    abstract static class OnLine extends OnDesk {
        @Option(names = "--line", description = "a trial's line, as t1; main leads back to the main line")
        String line = "";
    }

    /** Brings copies, without a hold. */
    @Command(name = "fetch", description = "brings copies; without words what is behind or absent")
    static final class Fetch extends OnLine {
        @Parameters(arity = "0..*")
        private List<String> said = List.of();

        @Option(
                names = "--components",
                description = "with what they consist of, in the versions that they were saved with")
        private boolean components;

        @Option(names = "--version", description = "an older version on purpose")
        private Integer version;

        @Option(names = "--aside", description = "set changed files aside under another name")
        private boolean aside;

        @Override
        int run() throws IOException {
            DeskFolder desk = DeskFolder.of(folder);
            ShelfClient client = desk.client(machine());
            JsonNode status = status(desk, client);
            Map<String, JsonNode> standings = byPath(status);
            List<Map<String, Object>> brought = new ArrayList<>();
            if (said.isEmpty()) {
                for (JsonNode s : status) {
                    if (!s.path("act").asString().equals("bring")) continue;
                    JsonNode d = document(client, s);
                    bring(out(), desk, client, standings, d, d.path("gets").asString(), aside, brought);
                }
            }
            for (String one : said) {
                JsonNode d = onLine(client, standings, document(desk, client, one), line);
                String on = d.path("line").asString("");
                String wanted = version == null
                        ? d.path("gets").asString()
                        : on.isEmpty() ? Integer.toString(version) : on + "-" + version;
                bring(out(), desk, client, standings, d, wanted, aside, brought);
                if (!components) continue;
                for (JsonNode c : components(client, d, wanted)) {
                    if (c.path("document").isNull() || c.path("version").isNull()) {
                        out().println("Not to be had: " + c.path("path").asString());
                        continue;
                    }
                    long id = c.path("document").asLong();
                    if (brought.stream().anyMatch(b -> b.get("document").equals(id))) continue;
                    bring(
                            out(),
                            desk,
                            client,
                            standings,
                            client.get("/documents/" + id),
                            c.path("gets").asString(),
                            aside,
                            brought);
                }
            }
            note(desk, client, brought);
            out().println(brought.size() == 1 ? "1 file is here." : brought.size() + " files are here.");
            return 0;
        }
    }

    /** Takes holds and brings the files. */
    @Command(name = "check-out", description = "takes holds and brings the files")
    static final class Out extends OnLine {
        @Parameters(arity = "1..*")
        private List<String> said = List.of();

        @Option(names = {"-m", "--purpose"})
        private String purpose = "";

        @Option(names = "--aside")
        private boolean aside;

        @Override
        int run() throws IOException {
            DeskFolder desk = DeskFolder.of(folder);
            ShelfClient client = desk.client(machine());
            Map<String, JsonNode> standings = byPath(status(desk, client));
            List<JsonNode> asked = new ArrayList<>();
            for (String one : said) asked.add(onLine(client, standings, document(desk, client, one), line));
            for (Map.Entry<String, List<Long>> on : byLine(asked, "id").entrySet()) {
                List<Map<String, Object>> brought = new ArrayList<>();
                for (JsonNode d : hold(desk, client, on.getValue(), on.getKey(), purpose)) {
                    out().println("You hold " + called(d) + ", version "
                            + VersionName.of(d.path("gets").asString())
                                    .map(VersionName::says)
                                    .orElse("")
                            + ".");
                    bring(out(), desk, client, standings, d, d.path("gets").asString(), aside, brought);
                }
                // Before the next line, which may be refused.
                note(desk, client, brought);
            }
            return 0;
        }
    }

    /** Brings changed files back, in one act. */
    @Command(name = "check-in", description = "checks in what is ahead, or what is named")
    static final class In extends OnDesk {
        @Parameters(arity = "0..*")
        private List<String> said = List.of();

        @Option(names = {"-m", "--comment"})
        private String comment = "";

        @Option(names = "--keep", description = "keep the holds")
        private boolean keep;

        @Option(names = "--take", description = "take strayed files too: the hold is taken and the change kept")
        private boolean take;

        @Override
        int run() throws IOException {
            DeskFolder desk = DeskFolder.of(folder);
            ShelfClient client = desk.client(machine());
            JsonNode status = status(desk, client);
            List<JsonNode> coming = new ArrayList<>();
            List<JsonNode> taking = new ArrayList<>();
            for (JsonNode s : status) {
                boolean named = said.isEmpty()
                        || said.contains(s.path("number").asString(""))
                        || said.contains(called(s))
                        || said.stream()
                                .anyMatch(one -> desk.path(Path.of(one))
                                        .orElse(one)
                                        .equals(s.path("path").asString()));
                if (!named) continue;
                String act = s.path("act").asString();
                boolean held = s.path("hold").asLong() > 0;
                if (act.equals("take") && take) taking.add(s);
                if (act.equals("check-in") || (act.equals("take") && take) || (held && !said.isEmpty())) coming.add(s);
            }
            if (coming.isEmpty()) throw new ShelfClient.Refusal("Nothing here is ahead of the shelf.");
            if (!taking.isEmpty()) {
                byLine(taking, "document").forEach((on, ids) -> hold(desk, client, ids, on, ""));
                Map<String, JsonNode> anew = byPath(status(desk, client));
                coming.replaceAll(s -> anew.get(s.path("path").asString()));
            }
            Set<Path> own = new HashSet<>();
            for (JsonNode s : status) {
                if (s.path("document").asLong() > 0)
                    own.add(desk.place(s.path("path").asString()));
            }
            List<Map<String, Object>> rows = new ArrayList<>();
            for (JsonNode s : coming) {
                Map<String, Object> row = new LinkedHashMap<>();
                row.put("document", s.path("document").asLong());
                row.put("hold", s.path("hold").asLong());
                if (!s.path("word").asString().equals("even")) {
                    Path file = desk.place(s.path("path").asString());
                    row.put("upload", client.upload(file));
                    List<String> copies = new ArrayList<>();
                    for (Path copy : BesideFile.of(file, own)) copies.add(client.upload(copy));
                    if (!copies.isEmpty()) row.put("copies", copies);
                }
                rows.add(row);
            }
            JsonNode became = client.post(
                    "/check-ins",
                    Map.of(
                            "rows",
                            rows,
                            "comment",
                            comment,
                            "keepHold",
                            keep,
                            "keepSaves",
                            false,
                            "desk",
                            desk.name()));
            List<Map<String, Object>> brought = new ArrayList<>();
            int strays = 0;
            for (JsonNode b : became) {
                JsonNode s = coming.stream()
                        .filter(c -> c.path("document").asLong()
                                == b.path("document").asLong())
                        .findFirst()
                        .orElseThrow();
                String what = b.path("what").asString();
                int number = b.path("number").asInt();
                String on = s.path("line").asString("");
                out().println(called(s)
                        + switch (what) {
                            case "version" -> ": version " + number;
                            case "trial" -> ": version " + new VersionName(line(on), number).says();
                            case "stray" -> ": kept as a stray, see its page";
                            case "only-saved" -> ": only saved once more; no version";
                            default -> ": nothing changed; no version";
                        });
                if (what.equals("stray")) strays++;
                if (what.equals("version") || what.equals("trial")) {
                    brought.add(Map.of(
                            "document",
                            b.path("document").asLong(),
                            "version",
                            new VersionName(what.equals("trial") ? line(on) : 0, number).address(),
                            "path",
                            s.path("path").asString(),
                            "onPurpose",
                            false));
                }
            }
            note(desk, client, brought);
            return strays > 0 ? 1 : 0;
        }

        private static int line(String name) {
            return VersionName.line(name).orElse(0);
        }
    }

    /** Gives holds back unchanged. */
    @Command(name = "undo", description = "gives holds back")
    static final class Undo extends OnLine {
        @Parameters(arity = "1..*")
        private List<String> said = List.of();

        @Override
        int run() {
            DeskFolder desk = DeskFolder.of(folder);
            ShelfClient client = desk.client(machine());
            Map<String, JsonNode> standings = byPath(status(desk, client));
            List<JsonNode> asked = new ArrayList<>();
            for (String one : said) asked.add(onLine(client, standings, document(desk, client, one), line));
            byLine(asked, "id").forEach((on, ids) -> giveBack(client, ids, on));
            List<Long> ids = asked.stream().map(d -> d.path("id").asLong()).toList();
            for (JsonNode s : status(desk, client)) {
                boolean changed = s.path("word").asString().equals("strayed");
                if (changed && ids.contains(s.path("document").asLong())) {
                    out().println(s.path("path").asString()
                            + " stays as you changed it; fetch --aside brings the shelf's.");
                }
            }
            return 0;
        }
    }
}
