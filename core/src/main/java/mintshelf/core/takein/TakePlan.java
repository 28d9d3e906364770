package mintshelf.core.takein;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.NameReading;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.takein.Histories.History;
import mintshelf.core.takein.Taking.Verdict;

/**
 * What becomes of all files of a taking-in.
 *
 * @param takings one for each file, in the order of the files
 * @param general what is worth a look and belongs to no file: lines of the table that name none, columns that mean nothing
 */
public record TakePlan(List<Taking> takings, List<Refusal> general) {
    private static final int NAMED = 20;

    /**
     * O(n log n) in the files.
     *
     * @param files in order, each read
     * @param mended what somebody said of files by hand, by their places
     */
    public static TakePlan of(
            List<Found> files,
            TakeTable table,
            TakeRules rules,
            Map<Integer, Map<Column, String>> mended,
            Grounds grounds) {
        List<Refusal> general = new ArrayList<>();
        Map<Integer, TakeTable.Line> lines = matched(files, table, general);
        Drafts each = new Drafts(rules, grounds);
        List<Draft> drafts = files.stream()
                .map(f -> each.of(f, Optional.ofNullable(lines.get(f.at())), mended.getOrDefault(f.at(), Map.of())))
                .toList();
        List<History> histories = new Histories(rules, grounds).of(drafts);
        missing(drafts, grounds);
        Map<Integer, Taking> byFile = new HashMap<>();
        List<History> ordered = componentsFirst(histories);
        for (int d = 0; d < ordered.size(); d++) {
            History history = ordered.get(d);
            for (int step = 0; step < history.revisions().size(); step++) {
                Draft draft = history.revisions().get(step);
                Verdict verdict =
                        !draft.stops.isEmpty() ? Verdict.STOPS : history.stops() ? Verdict.WAITS : Verdict.GOES;
                byFile.put(draft.file.at(), draft.taking(history.stands().get(step), verdict, d, step));
            }
        }
        List<Taking> takings = drafts.stream()
                .map(d -> byFile.getOrDefault(
                        d.file.at(), d.taking(rules.stands(), Verdict.LEFT_OUT, Integer.MAX_VALUE, 0)))
                .toList();
        return new TakePlan(takings, List.copyOf(general));
    }

    /** The numbers that files could be given by all that is said of them, as they were said: what {@link Grounds} is asked about. */
    public static Set<String> numbers(List<Found> files, TakeTable table, Map<Integer, Map<Column, String>> mended) {
        Set<String> said = new HashSet<>();
        for (Found file : files) {
            said.add(file.says().getOrDefault("number", ""));
            NameReading.of(file.name()).number().ifPresent(said::add);
        }
        Stream.concat(table.lines().stream().map(TakeTable.Line::says), mended.values().stream())
                .forEach(says -> {
                    said.add(says.getOrDefault(Column.NUMBER, ""));
                    said.addAll(List.of(says.getOrDefault(Column.FORMER, "").split("[;,]")));
                });
        return said;
    }

    /** Each file's line: by its path, else by its name where only one has it, else by number and revision as its name says them. */
    private static Map<Integer, TakeTable.Line> matched(List<Found> files, TakeTable table, List<Refusal> general) {
        Map<String, Found> byPath = new HashMap<>();
        Map<String, List<Found>> byName = new HashMap<>();
        Map<String, List<Found>> byNumber = new HashMap<>();
        for (Found file : files) {
            byPath.put(Texts.key(file.raw().replace('\\', '/')), file);
            byPath.putIfAbsent(Texts.key(file.path()), file);
            byName.computeIfAbsent(file.name().key(), n -> new ArrayList<>()).add(file);
            NameReading.of(file.name())
                    .number()
                    .flatMap(TakePlan::key)
                    .ifPresent(n ->
                            byNumber.computeIfAbsent(n, x -> new ArrayList<>()).add(file));
        }
        Map<Integer, TakeTable.Line> matched = new HashMap<>();
        List<String> nobody = new ArrayList<>();
        for (TakeTable.Line line : table.lines()) {
            List<Found> meant = meant(line, byPath, byName, byNumber);
            if (meant.size() != 1) {
                String what = line.of(Column.FILE).isEmpty() ? line.of(Column.NUMBER) : line.of(Column.FILE);
                nobody.add("line " + line.line() + " (" + Texts.shorten(what, 60)
                        + (meant.isEmpty() ? ": no such file" : ": " + meant.size() + " files of that name") + ")");
                continue;
            }
            TakeTable.Line before = matched.putIfAbsent(meant.get(0).at(), line);
            if (before != null) {
                nobody.add("line " + line.line() + " (" + meant.get(0).path() + " stands in line " + before.line()
                        + " already)");
            }
        }
        if (!nobody.isEmpty()) {
            general.add(Refusal.of(
                    "take.lines",
                    Numbers.count(nobody.size(), "line of the table means no file", "lines of the table mean no file")
                            + ": " + listed(nobody) + ".",
                    "Correct its path, or take the line out; files are named by their paths below the folder."));
        }
        if (!table.unknown().isEmpty()) {
            general.add(Refusal.of(
                    "take.columns",
                    "These columns of the table mean nothing here: " + listed(table.unknown()) + ".",
                    "Known are " + TakeTable.heads() + ", and the facts of the house by their names."));
        }
        return matched;
    }

    private static List<Found> meant(
            TakeTable.Line line,
            Map<String, Found> byPath,
            Map<String, List<Found>> byName,
            Map<String, List<Found>> byNumber) {
        String file = line.of(Column.FILE).replace('\\', '/').replaceAll("^(?:\\./|/)+", "");
        if (!file.isEmpty()) {
            Found exact = byPath.get(Texts.key(file));
            if (exact != null) return List.of(exact);
            return file.contains("/")
                    ? List.of()
                    : byName.getOrDefault(FileName.of(file).key(), List.of());
        }
        List<Found> numbered = key(line.of(Column.NUMBER))
                .map(k -> byNumber.getOrDefault(k, List.of()))
                .orElse(List.of());
        String revision = line.of(Column.REVISION);
        if (numbered.size() < 2 || revision.isEmpty()) return numbered;
        return numbered.stream()
                .filter(f -> Reading.of(f.name()).revision().equalsIgnoreCase(revision))
                .toList();
    }

    private static Optional<String> key(String number) {
        return NumberKey.of(number) instanceof Outcome.Granted<NumberKey> n
                ? Optional.of(n.value().key())
                : Optional.empty();
    }

    private static String listed(List<String> all) {
        String listed = String.join(", ", all.subList(0, Math.min(NAMED, all.size())));
        return all.size() > NAMED ? listed + " and " + (all.size() - NAMED) + " more" : listed;
    }

    private static void missing(List<Draft> drafts, Grounds grounds) {
        Set<String> here = new HashSet<>();
        drafts.stream()
                .filter(Draft::takesPart)
                .forEach(d -> here.add(d.file.name().key()));
        for (Draft draft : drafts) {
            if (!draft.takesPart()) continue;
            List<String> missing = draft.file.refersTo().stream()
                    .map(FileName::of)
                    .filter(n -> !here.contains(n.key()) && !grounds.isThere(n))
                    .map(FileName::name)
                    .distinct()
                    .toList();
            if (missing.isEmpty()) continue;
            draft.hint(
                    "take.missing",
                    "It names " + Numbers.count(missing.size(), "file that is", "files that are") + " not here: "
                            + listed(missing) + ".",
                    "Bring them too, or take it in without.");
        }
    }

    /** In an order in which what a document is made of comes before it; rings are left as they come. */
    private static List<History> componentsFirst(List<History> histories) {
        Map<String, List<History>> byName = new HashMap<>();
        for (History history : histories) {
            for (Draft d : history.revisions()) {
                byName.computeIfAbsent(d.file.name().key(), n -> new ArrayList<>())
                        .add(history);
            }
        }
        List<History> ordered = new ArrayList<>();
        Set<History> begun = Collections.newSetFromMap(new IdentityHashMap<>());
        // With a stack of its own: old assemblies may be deep.
        ArrayDeque<History> open = new ArrayDeque<>();
        Set<History> done = Collections.newSetFromMap(new IdentityHashMap<>());
        for (History root : histories) {
            open.push(root);
            while (!open.isEmpty()) {
                History at = open.peek();
                if (!begun.add(at)) {
                    open.pop();
                    if (done.add(at)) ordered.add(at);
                    continue;
                }
                for (Draft d : at.revisions()) {
                    for (String path : d.file.refersTo()) {
                        for (History below :
                                byName.getOrDefault(FileName.of(path).key(), List.of())) {
                            if (!begun.contains(below)) open.push(below);
                        }
                    }
                }
            }
        }
        return ordered;
    }
}
