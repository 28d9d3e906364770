package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.Machine;
import mintshelf.core.document.VersionName;
import tools.jackson.databind.JsonNode;

/** Brings a document to its place on a desk, with what it refers to where it looks for it, and opens it. */
final class Bringing {
    /** Components that come along; a structure of more is brought by its own act. */
    private static final int MOST = 2_000;

    /** Files that a system would run, not show: they are brought, and never opened by a link. */
    private static final Set<String> RUNS = Set.of(
            "desktop",
            "sh",
            "bash",
            "exe",
            "bat",
            "cmd",
            "com",
            "msi",
            "jar",
            "app",
            "command",
            "ps1",
            "vbs",
            "vbe",
            "js",
            "jse",
            "wsf",
            "hta",
            "scr",
            "pif",
            "lnk",
            "url",
            "webloc",
            "reg",
            "py",
            "pl",
            "rb",
            "php",
            "run",
            "appimage",
            "deb",
            "rpm",
            "apk",
            "cpl",
            "inf",
            "msc",
            "terminal",
            "workflow",
            "scpt",
            "applescript",
            "fcmacro");

    private final Machine machine;
    private final DeskFolder desk;
    private final ShelfClient client;
    private final PrintWriter out;

    Bringing(Machine machine, DeskFolder desk, ShelfClient client, PrintWriter out) {
        this.machine = machine;
        this.desk = desk;
        this.client = client;
        this.out = out;
    }

    /** A document and how its file stands on the desk. */
    private record Wanted(JsonNode document, String version) {
        String path() {
            return document.path("path").asString();
        }
    }

    /**
     * Brings it and opens it; what became of it in a sentence.
     *
     * @param line of a trial; empty for the main one
     * @param version that is looked at, as addresses name it; for work it is the latest
     * @param work whether it is checked out, where it is not held already
     */
    String open(long id, String line, String version, boolean work) {
        JsonNode document = OnDesk.document(client, id, line);
        boolean mine = document.path("hold").path("mine").asBoolean();
        boolean taken = work && !mine;
        if (taken) {
            // Somebody may have checked it in just before: what is held is what the answer says.
            for (JsonNode held : OnDesk.hold(desk, client, List.of(id), line, ""))
                if (held.path("id").asLong() == id) document = held;
        }
        Wanted main = new Wanted(document, work ? document.path("gets").asString() : version);
        String number = OnDesk.called(document);
        List<Wanted> all = new ArrayList<>(List.of(main));
        try {
            all.addAll(components(main));
            return bring(all, taken, mine);
        } catch (IOException e) {
            throw new Unreadable((taken ? "You hold " + number + " now, but its" : "Its") + " file did not come: "
                    + e.getMessage() + " What lay here stays as it was.");
        }
    }

    private String bring(List<Wanted> all, boolean taken, boolean mine) throws IOException {
        Wanted main = all.get(0);
        Map<String, JsonNode> standings = OnDesk.byPath(OnDesk.status(
                desk, client, desk.files(all.stream().map(Wanted::path).toList())));
        List<Map<String, Object>> brought = new ArrayList<>();
        boolean own = false;
        int along = 0;
        for (int i = 0; i < all.size(); i++) {
            Wanted one = all.get(i);
            boolean first = i == 0;
            String word = word(standings, one.path());
            boolean changed = Files.exists(desk.place(one.path()))
                    && Set.of("ahead", "strayed", "new").contains(word);
            if (first) own = changed;
            // What lies there changed is in no version: it stays, whatever was asked for.
            if (changed || (!first && word.equals("even"))) continue;
            boolean came = OnDesk.bring(out, desk, client, standings, one.document(), one.version(), false, brought);
            if (!first && came) along++;
        }
        OnDesk.note(desk, client, brought);
        return said(main, own, taken, mine, along, openFile(main.path()));
    }

    private static String word(Map<String, JsonNode> standings, String path) {
        JsonNode standing = standings.get(path);
        return standing == null ? "" : standing.path("word").asString();
    }

    private List<Wanted> components(Wanted main) {
        Map<Long, Wanted> found = new LinkedHashMap<>();
        long id = main.document().path("id").asLong();
        JsonNode rows = OnDesk.components(client, main.document(), main.version());
        for (JsonNode c : rows) {
            if (c.path("document").isNull() || c.path("version").isNull()) continue;
            long component = c.path("document").asLong();
            if (component == id || found.containsKey(component) || found.size() >= MOST) continue;
            found.put(
                    component,
                    new Wanted(
                            client.get("/documents/" + component),
                            c.path("gets").asString()));
        }
        return List.copyOf(found.values());
    }

    /** Opens a file of the desk with the program that the machine has for it; why it did not, else nothing. */
    private String openFile(String path) throws IOException {
        String name = path.toLowerCase(Locale.ROOT);
        String ending = name.substring(name.lastIndexOf('.') + 1);
        if (RUNS.contains(ending)) return "It is a program, so it was not opened.";
        if (!Files.exists(desk.place(path))) return "It did not come.";
        List<String> command = new ArrayList<>(new Helper(machine).program(ending));
        String place = desk.place(path).toString();
        if (command.isEmpty()) return machine.open(place) ? "" : "This machine has nothing that opens files.";
        command.add(place);
        return machine.start(command.toArray(String[]::new)) ? "" : "“" + command.get(0) + "” is not on this machine.";
    }

    private String said(Wanted main, boolean own, boolean taken, boolean mine, int along, String not) {
        String number = OnDesk.called(main.document());
        StringBuilder says = new StringBuilder();
        if (own && mine) says.append(number).append(" is open with what you changed");
        else if (own) {
            says.append("Your own copy of ").append(number).append(" differs from the shelf's; it stays as it lies");
        } else {
            says.append(main.document().path("number").asString())
                    .append(" version ")
                    .append(VersionName.of(main.version())
                            .map(VersionName::says)
                            .orElse(""))
                    .append(not.isEmpty() ? " is open" : " is");
        }
        says.append(" on ").append(desk.name());
        if (taken) says.append("; you hold it now");
        else if (mine) says.append("; you hold it");
        if (along > 0) says.append(", with ").append(along == 1 ? "1 component" : along + " components");
        says.append('.');
        return not.isEmpty() ? says.toString() : says + " " + not;
    }
}
