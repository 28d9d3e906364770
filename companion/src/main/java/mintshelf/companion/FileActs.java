package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.time.Clock;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.companion.machine.FileAct;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.Notices.Notice;
import mintshelf.core.base.Numbers;
import tools.jackson.databind.JsonNode;

/** What is done with files of a desk from outside of the browser: what is quiet is done and told, what has choices opens its plan. */
final class FileActs {
    /** Pages that are opened at once. */
    private static final int PAGES = 5;

    private final Machine machine;
    private final DeskFolder desk;
    private final ShelfClient client;
    private final Tell tell;
    private final PrintWriter out;

    /** Where a person is told what was done. */
    interface Tell {
        void tell(Notice notice);
    }

    FileActs(Machine machine, DeskFolder desk, ShelfClient client, PrintWriter out, Tell tell) {
        this.machine = machine;
        this.desk = desk;
        this.client = client;
        this.out = out;
        this.tell = tell;
    }

    /** Does it with some files by their paths on the desk. */
    void run(FileAct act, Collection<String> paths) throws IOException {
        if (act == FileAct.SAVES) {
            saves(paths); // they lie on this machine: no shelf is asked for them
            return;
        }
        Map<String, JsonNode> standings = OnDesk.byPath(OnDesk.status(desk, client, desk.files(paths)));
        Map<String, JsonNode> lines = new TreeMap<>();
        List<String> loose = new ArrayList<>();
        for (String path : paths) {
            JsonNode line = standings.get(path);
            if (line != null && line.path("document").asLong() > 0) lines.put(path, line);
            else loose.add(path);
        }
        if (!loose.isEmpty()) {
            say(
                    names(loose) + (loose.size() == 1 ? " is" : " are") + " only here",
                    "No document has such a file; file it from the page Desk.");
            if (lines.isEmpty()) page("/desk");
        }
        if (lines.isEmpty()) return;
        switch (act) {
            case LOOK -> lines.values().stream().limit(PAGES).forEach(this::look);
            case WORK -> work(lines.values());
            case CHECK_IN -> checkIn(lines);
            case ASK -> ask(lines.values());
            case UNDO -> undo(lines.values());
            case NEXT -> next(lines.values());
            case SAVES -> throw new IllegalStateException("asked before the shelf is");
        }
    }

    /** The document's page, or that of the trial on whose line the desk works with it. */
    private void look(JsonNode line) {
        page("/documents/" + id(line) + (on(line).isEmpty() ? "" : "/lines/" + on(line)));
    }

    private void next(Collection<JsonNode> lines) {
        List<JsonNode> main = main(lines);
        if (main.isEmpty()) look(lines.iterator().next());
        else page("/start-revision?items=" + ids(main));
    }

    /** The line of a trial on which the desk works with it; empty for the main one. */
    private static String on(JsonNode line) {
        return line.path("line").asString("");
    }

    private static List<JsonNode> main(Collection<JsonNode> lines) {
        return lines.stream().filter(l -> on(l).isEmpty()).toList();
    }

    private static long id(JsonNode line) {
        return line.path("document").asLong();
    }

    private static boolean isMine(JsonNode line) {
        return line.path("hold").asLong() > 0;
    }

    private static String number(JsonNode line) {
        return OnDesk.called(line);
    }

    private static String ids(Collection<JsonNode> lines) {
        return String.join(",", lines.stream().map(l -> Long.toString(id(l))).toList());
    }

    private static String names(Collection<String> names) {
        List<String> all = List.copyOf(names);
        if (all.size() > 3) return all.size() + " files";
        return String.join(
                ", ", all.stream().map(n -> n.substring(n.lastIndexOf('/') + 1)).toList());
    }

    private static String numbers(Collection<JsonNode> lines) {
        return names(lines.stream().map(FileActs::number).distinct().toList());
    }

    private void say(String title, String says) {
        out.println(says.isEmpty() ? title.replaceAll("\\.$", "") + "." : title + ". " + says);
        out.flush();
        tell.tell(Notice.of(title, says));
    }

    /** Opens a page of the shelf. */
    private void page(String address) {
        try {
            if (!machine.open(client.origin() + address)) out.println("Open " + client.origin() + address);
        } catch (IOException e) {
            out.println("Open " + client.origin() + address);
        }
        out.flush();
    }

    /** One is held, brought and opened; several are planned in the browser, where what comes along can be chosen. */
    private void work(Collection<JsonNode> lines) throws IOException {
        if (lines.size() > 1) {
            List<JsonNode> main = main(lines);
            if (!main.isEmpty()) page("/check-out?items=" + ids(main));
            trials(lines);
            return;
        }
        JsonNode line = lines.iterator().next();
        try {
            say(new Bringing(machine, desk, client, out).open(id(line), on(line), "", true), "");
        } catch (ShelfClient.NotPaired e) {
            throw e;
        } catch (ShelfClient.Refusal e) {
            say(number(line) + " was not checked out", e.getMessage());
            look(line);
        }
    }

    /** Opens the pages of the trials on whose lines some of them are. */
    private void trials(Collection<JsonNode> lines) {
        lines.stream()
                .filter(l -> !on(l).isEmpty())
                .map(l -> "/trials/" + l.path("trial").asLong())
                .distinct()
                .limit(PAGES)
                .forEach(this::page);
    }

    /** What differs is sent, and the plan opens with it: the words are written there. */
    private void checkIn(Map<String, JsonNode> lines) throws IOException {
        Map<Long, List<String>> brought = new TreeMap<>();
        Map<Long, List<JsonNode>> coming = new TreeMap<>();
        for (Map.Entry<String, JsonNode> one : lines.entrySet()) {
            JsonNode line = one.getValue();
            boolean differs =
                    Set.of("ahead", "strayed").contains(line.path("word").asString());
            if (!differs && !isMine(line)) continue;
            long trial = line.path("trial").asLong(0);
            coming.computeIfAbsent(trial, t -> new ArrayList<>()).add(line);
            // On a trial its page takes what is held; what is not is looked at there.
            if (differs && (trial == 0 || isMine(line)))
                brought.computeIfAbsent(trial, t -> new ArrayList<>())
                        .add(id(line) + "." + client.upload(desk.place(one.getKey())));
        }
        if (coming.isEmpty()) {
            say(
                    numbers(lines.values()) + (lines.size() == 1 ? " is" : " are") + " as the shelf has it",
                    "There is nothing to check in.");
            return;
        }
        coming.forEach((trial, its) -> {
            if (trial > 0 && its.stream().noneMatch(FileActs::isMine)) {
                page("/trials/" + trial);
                return;
            }
            List<String> came = brought.getOrDefault(trial, List.of());
            page("/check-in?" + (trial == 0 ? "items=" + ids(its) : "trial=" + trial) + "&desk="
                    + ShelfClient.encode(desk.name())
                    + (came.isEmpty() ? "" : "&brought=" + String.join(",", came)));
        });
    }

    private void ask(Collection<JsonNode> lines) {
        for (JsonNode line : lines) {
            String holder = line.path("heldBy").asString("");
            if (holder.isEmpty() || isMine(line)) {
                say(
                        number(line) + (isMine(line) ? " is held by you" : " is held by nobody"),
                        "There is nobody to ask.");
                continue;
            }
            if (!on(line).isEmpty()) {
                look(line); // who is asked there sees what is asked for
                continue;
            }
            client.post("/documents/" + id(line) + "/ask", Map.of("message", ""));
            say(holder + " is asked for " + number(line), "You are told when it is free.");
        }
    }

    /** Unchanged ones go back at once; a changed one is looked at first, so that its change is not left behind unseen. */
    private void undo(Collection<JsonNode> lines) {
        List<JsonNode> held = lines.stream().filter(FileActs::isMine).toList();
        if (held.isEmpty()) {
            say("You hold none of them", "Nothing was given back.");
            return;
        }
        boolean changed = held.stream().anyMatch(l -> l.path("word").asString().equals("ahead"));
        if (changed) {
            List<JsonNode> main = main(held);
            if (!main.isEmpty()) page("/undo-check-out?items=" + ids(main));
            trials(held);
            return;
        }
        OnDesk.byLine(held, "document").forEach((line, ids) -> OnDesk.giveBack(client, ids, line));
        say(numbers(held) + (held.size() == 1 ? " is" : " are") + " given back", "Nothing was changed.");
    }

    private void saves(Collection<String> paths) throws IOException {
        SavesFolder folders = new SavesFolder(machine, desk, Clock.system(ZoneId.systemDefault()));
        for (String path : paths.stream().limit(PAGES).toList()) {
            Optional<SavesFolder.Laid> laid = folders.of(path);
            if (laid.isEmpty()) {
                say(
                        "Nothing of " + names(List.of(path)) + " was kept",
                        "Saves of a file that you hold are kept while its desk is watched.");
                continue;
            }
            SavesFolder.Laid it = laid.get();
            say(
                    Numbers.count(it.copies(), "save", "saves") + " of " + names(List.of(path)),
                    (it.copies() < it.kept() ? "The latest of " + it.kept() + ", for the room that they take. " : "")
                            + "Save one over the file to have it back.");
            if (!machine.open(it.folder().toString())) out.println("They lie in " + it.folder());
            out.flush();
        }
    }

    /** A strayed file is taken: the hold begins, and the change is ahead then. */
    void take(JsonNode line) {
        OnDesk.hold(desk, client, List.of(id(line)), on(line), "");
        say("You hold " + number(line) + " now", "What you changed is ahead of the shelf.");
    }
}
