package mintshelf.companion;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Queue;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.stream.Collectors;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.FileAct;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.Notices;
import mintshelf.companion.machine.Notices.Notice;
import mintshelf.companion.machine.QuietHours;
import mintshelf.companion.watch.Changes;
import mintshelf.companion.watch.Drafts;
import mintshelf.companion.watch.LetGo;
import mintshelf.companion.watch.Saves;
import mintshelf.core.desk.DeskRules;
import mintshelf.core.desk.SaveTold;
import mintshelf.core.desk.SaveTold.Choice;
import tools.jackson.databind.JsonNode;

/** Watches one desk: tells of each save once, keeps drafts, and says what changed on disk and shelf. */
class Watch implements AutoCloseable {
    /** Nothing may have touched a file for that long. */
    private static final Duration STILL = Duration.ofMillis(700);

    private static final Duration LONGEST = Duration.ofSeconds(20);

    /** Saves of one file that follow each other faster are a storm: the first is told, and how it stands when it is over. */
    private static final long CALM = Duration.ofSeconds(10).toNanos();

    /** How often it is asked whether what stands on the desktop is settled, and for how long after a save: it is mostly checked in then. */
    private static final long ASKED = Duration.ofSeconds(20).toNanos();

    private static final long RECENT = Duration.ofMinutes(10).toNanos();

    /** Lines of a desk that take memory worth giving back. */
    private static final int LARGE = 2_000;

    private static final Set<String> CHANGED = Set.of("ahead", "strayed");

    /** Words of which a notice tells: see {@link SaveTold}. */
    private static final Set<String> TOLD = Set.of("ahead", "strayed", "new");

    /** After how long a shelf that did not answer is asked again. */
    private static final long AGAIN = Duration.ofSeconds(3).toNanos();

    private static final long AWAY = Duration.ofMinutes(1).toNanos();

    private final Machine machine;
    private final DeskFolder desk;
    private final ShelfClient client;
    private final PrintWriter out;
    private final Notices notices;
    private final FileActs acts;
    private final Drafts drafts;
    private final Changes changes;
    private final Saves saves = new Saves(STILL, LONGEST);
    private final long every;

    private final Map<String, String> words = new TreeMap<>();
    private final Map<String, String> told = new HashMap<>();
    private final Map<String, Long> savedAt = new HashMap<>();
    private final Set<String> stormy = new HashSet<>();
    /** Files of which a notice was given. */
    private final Set<String> noticed = new HashSet<>();
    /** Files of which nothing more is told while they are ahead of a version: of which. */
    private final Map<String, String> goingOn = new HashMap<>();
    /** Saves that are to be told yet: the shelf did not answer, or they were told of just now. */
    private final TreeSet<String> later = new TreeSet<>();

    private final Queue<Runnable> answers = new ConcurrentLinkedQueue<>();
    private int inQuiet;
    private String wants = "";
    private boolean first = true;
    private boolean gone;
    private boolean unpaired;
    private long lookedAt = Long.MIN_VALUE;
    private long askedAt;
    private long retryAt = Long.MIN_VALUE;
    private int failed;

    /** @param every after how long the shelf is asked although nothing was saved */
    Watch(Machine machine, DeskFolder desk, PrintWriter out, Notices notices, Duration every) throws IOException {
        this.machine = machine;
        this.desk = desk;
        this.client = desk.client(machine);
        this.out = out;
        this.notices = notices;
        this.every = every.toNanos();
        this.acts = new FileActs(machine, desk, client, out, n -> notices.tell(n, chosen -> {}));
        this.drafts = desk.drafts();
        this.changes = new Changes(desk.root());
    }

    /**
     * Looks whether anything is to be told.
     *
     * @param now of a clock that only goes forward, in ns
     * @param time of the day
     */
    void tick(long now, LocalTime time) throws IOException {
        for (Runnable answer = answers.poll(); answer != null; answer = answers.poll()) answered(answer);
        boolean gone = false;
        for (String path : touched()) {
            if (Saves.isBeside(path.substring(path.lastIndexOf('/') + 1))) continue;
            saves.touched(path, now);
            gone |= !Files.exists(desk.place(path));
        }
        List<String> over = saves.over(now, path -> LetGo.isHeld(desk.place(path)));
        for (String path : over) {
            Long before = savedAt.put(path, now);
            if (before != null && noticed.contains(path) && now - before < CALM) stormy.add(path);
            else stormy.remove(path);
        }
        later.addAll(over);
        if (now < retryAt) return;
        boolean due = later.stream().anyMatch(path -> mayTell(path, now));
        boolean all = lookedAt == Long.MIN_VALUE || now - lookedAt >= every || changes.missed() || gone;
        if (!all && now - askedAt >= ASKED && later.addAll(standing(now))) due = true;
        if (all || due) look(now, time, all);
        // What a large desk was read with goes back to the machine: nothing else comes for minutes.
        if (all && words.size() > LARGE) {
            desk.forget();
            System.gc();
        }
    }

    /** Files of which something was told a short while ago that may be settled by now, on a page or elsewhere. */
    private List<String> standing(long now) {
        return noticed.stream()
                .filter(path -> now - savedAt.getOrDefault(path, now - RECENT) < RECENT)
                .toList();
    }

    /** What the system says was touched; overridden where it says nothing. */
    Set<String> touched() {
        return changes.touched();
    }

    /** Looks at everything once more, as for the last time. */
    void last(long now, LocalTime time) throws IOException {
        later.addAll(saves.over(now + LONGEST.toNanos(), path -> false));
        look(now, time, true);
    }

    private void answered(Runnable answer) {
        try {
            answer.run();
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            notices.tell(Notice.of("Nothing was done", String.valueOf(e.getMessage())), chosen -> {});
        }
    }

    private boolean mayTell(String path, long now) {
        return !stormy.contains(path) || now - savedAt.getOrDefault(path, now) >= CALM;
    }

    /**
     * Asks how files stand, and tells of those that were saved.
     *
     * @param all whether of the whole desk; else only of what was saved, for a desk may be large
     */
    private void look(long now, LocalTime time, boolean all) throws IOException {
        // A machine that is away for hours does not read its desk every few seconds for it.
        retryAt = now + Math.min(AGAIN * Math.max(1, ++failed - 1), AWAY);
        Map<String, JsonNode> lines;
        Map<String, String> hashes;
        try {
            hashes = all ? desk.files() : desk.files(later);
            JsonNode standing = OnDesk.status(desk, client, hashes);
            lines = OnDesk.byPath(all ? OnDesk.evened(out, desk, client, standing) : standing);
        } catch (ShelfClient.NotPaired e) {
            if (!unpaired)
                say(new Notice("desk", desk.name() + " is not paired any more", e.getMessage(), List.of(), true));
            unpaired = true;
            return;
        } catch (ShelfClient.Refusal | Unreadable | UncheckedIOException e) {
            // Asleep, another network, a server that is down: it goes on once it answers, and what was saved meanwhile
            // is told then.
            if (!gone)
                say(Notice.of("The shelf does not answer", "What you save is told once it does. Nothing is lost."));
            gone = true;
            return;
        }
        askedAt = now;
        gone = false;
        if (unpaired) notices.settled("desk");
        unpaired = false;
        retryAt = Long.MIN_VALUE;
        failed = 0;
        List<String> due = new ArrayList<>(later);
        later.clear();
        if (all) {
            lookedAt = now;
            // Where the system tells nothing of saves, as on a share, they show as another word.
            changedOf(lines).forEach(path -> {
                if (!due.contains(path)) due.add(path);
            });
            print(lines);
        } else {
            lines.keySet().retainAll(due);
            print(lines, due);
        }
        for (String path : due) saved(path, lines.get(path), hashes.getOrDefault(path, ""), now, time);
        count();
        awake(time);
    }

    /** The files that differ from the shelf and did not before. */
    private List<String> changedOf(Map<String, JsonNode> lines) {
        if (first) return List.of();
        return lines.entrySet().stream()
                .filter(e -> CHANGED.contains(e.getValue().path("word").asString())
                        && !e.getValue().path("word").asString().equals(words.get(e.getKey())))
                .map(Map.Entry::getKey)
                .toList();
    }

    private void print(Map<String, JsonNode> lines) {
        List<String> known = List.copyOf(words.keySet());
        print(lines, lines.keySet());
        for (String path : known) {
            if (lines.containsKey(path)) continue;
            words.remove(path);
            settled(path);
            out.println("gone  " + path);
        }
        out.flush();
        first = false;
        goingOn.keySet().removeIf(path -> !"ahead".equals(words.get(path)));
    }

    /** Prints of some files what changed of how they stand. */
    private void print(Map<String, JsonNode> lines, Collection<String> paths) {
        for (String path : paths) {
            JsonNode line = lines.get(path);
            if (line == null) continue;
            String word = line.path("word").asString().intern(); // a handful, of many thousand files
            String before = words.put(path, word);
            if (!word.equals(before) && !(first && word.equals("even"))) out.println(word + "  " + path);
            if (!TOLD.contains(word)) settled(path);
        }
        out.flush();
        goingOn.keySet().removeIf(path -> paths.contains(path) && !"ahead".equals(words.get(path)));
    }

    /** Checked in, given back or put away, here or elsewhere: a notice of it asks for nothing any more. */
    private void settled(String path) {
        if (!noticed.remove(path)) return;
        told.remove(path); // who does the same once more is told once more
        notices.settled(path);
    }

    /** A save of a file is over: it is kept as a draft, and told. */
    private void saved(String path, JsonNode line, String hash, long now, LocalTime time) throws IOException {
        if (line == null || hash.isEmpty()) return;
        String word = line.path("word").asString();
        boolean held = line.path("hold").asLong() > 0;
        if (held && word.equals("ahead")) keep(path, hash);
        boolean goesOn = had(line).equals(goingOn.get(path));
        if (goesOn || (word + hash).equals(told.get(path))) return;
        if (!mayTell(path, now)) {
            later.add(path);
            return;
        }
        Optional<SaveTold> said = SaveTold.of(
                word(word),
                act(line.path("act").asString()),
                name(path, line),
                line.path("heldBy").asString(""),
                held ? differences(path, line) : OptionalInt.empty());
        told.put(path, word + hash);
        if (said.isEmpty()) return;
        noticed.add(path);
        if (isQuiet(time)) {
            inQuiet++;
            return;
        }
        SaveTold it = said.get();
        List<Notices.Answer> choices = it.choices().stream()
                .map(c -> new Notices.Answer(c.code(), c.words()))
                .toList();
        out.println("saved  " + it.title() + ". " + it.says());
        out.flush();
        notices.tell(
                new Notice(path, it.title(), it.says(), choices, false),
                code -> answers.add(() -> chosen(code, path, line)));
    }

    private void keep(String path, String hash) {
        try {
            drafts.keep(path, desk.place(path), hash, Instant.now());
        } catch (IOException e) {
            out.println("No draft of " + path + " was kept: " + e.getMessage());
            out.flush();
        }
    }

    private void chosen(String code, String path, JsonNode line) {
        try {
            for (Choice choice : Choice.values()) {
                if (!choice.code().equals(code)) continue;
                switch (choice) {
                    case GO_ON -> goingOn.put(path, had(line));
                    case CHECK_IN -> acts.run(FileAct.CHECK_IN, List.of(path));
                    case ASK -> acts.run(FileAct.ASK, List.of(path));
                    case START -> acts.run(FileAct.NEXT, List.of(path));
                    case LOOK -> acts.run(FileAct.LOOK, List.of(path));
                    case TAKE -> acts.take(line);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** From the version that was brought; its bytes are fetched for it once, and kept beside the drafts. */
    private OptionalInt differences(String path, JsonNode line) {
        String small = path.toLowerCase(Locale.ROOT);
        if (!small.matches(".*\\.(dxf|stp|step)")) return OptionalInt.empty();
        Path base = desk.root().resolve(".mint-desk-base");
        try {
            Files.createDirectories(base);
            String version = had(line);
            if (version.isEmpty()) return OptionalInt.empty(); // nobody brought it
            Path file = base.resolve(line.path("document").asLong() + "-" + version);
            if (!Files.exists(file)) {
                Path part = Files.createTempFile(base, ".mint", ".part");
                try {
                    client.download(line.path("document").asLong(), version, part);
                    Files.move(part, file);
                } finally {
                    Files.deleteIfExists(part);
                }
                sweep(base, line.path("document").asLong(), version);
            }
            return Ahead.differences(file, desk.place(path), path);
        } catch (IOException | UncheckedIOException | ShelfClient.Refusal | Unreadable e) {
            return OptionalInt.empty();
        }
    }

    /** Earlier bases of the same document are not asked for again. */
    private static void sweep(Path base, long document, String version) throws IOException {
        List<Path> old;
        try (var files = Files.list(base)) {
            old = files.filter(f -> f.getFileName().toString().startsWith(document + "-"))
                    .filter(f -> !f.getFileName().toString().equals(document + "-" + version))
                    .toList();
        }
        for (Path one : old) Files.deleteIfExists(one);
    }

    private boolean isQuiet(LocalTime time) {
        return new Helper(machine).quiet().filter((QuietHours q) -> q.has(time)).isPresent();
    }

    /** What was saved in quiet hours is told in one sentence after them. */
    private void awake(LocalTime time) {
        if (inQuiet == 0 || isQuiet(time)) return;
        say(Notice.of(
                inQuiet == 1 ? "1 save in your quiet hours" : inQuiet + " saves in your quiet hours",
                "The page Desk says how your files stand."));
        inQuiet = 0;
    }

    private void say(Notice notice) {
        out.println(notice.title() + ". " + notice.says());
        out.flush();
        notices.tell(notice, chosen -> {});
    }

    /** The version that was brought, as addresses name it; empty where none was. */
    private static String had(JsonNode line) {
        return line.path("had").asString("");
    }

    private static String name(String path, JsonNode line) {
        String number = OnDesk.called(line);
        return number.isEmpty() ? path.substring(path.lastIndexOf('/') + 1) : number;
    }

    private static DeskRules.Word word(String word) {
        return DeskRules.Word.valueOf(word.toUpperCase(Locale.ROOT));
    }

    private static DeskRules.Act act(String act) {
        return DeskRules.Act.valueOf(act.toUpperCase(Locale.ROOT).replace('-', '_'));
    }

    /** Opens the page Desk. */
    void openDesk() {
        try {
            machine.open(client.origin() + "/desk");
        } catch (IOException e) {
            out.println("Open " + client.origin() + "/desk");
            out.flush();
        }
    }

    /** What wants something of somebody, in a few words: "2 ahead, 1 strayed"; empty for nothing. */
    String wants() {
        return wants;
    }

    /** Counted once a look: a desk may be large, and is asked often. */
    private void count() {
        Map<String, Integer> counted = new TreeMap<>();
        words.values().stream().filter(CHANGED::contains).forEach(word -> counted.merge(word, 1, Integer::sum));
        wants = counted.entrySet().stream()
                .map(e -> e.getValue() + " " + e.getKey())
                .collect(Collectors.joining(", "));
    }

    @Override
    public void close() throws IOException {
        changes.close();
    }
}
