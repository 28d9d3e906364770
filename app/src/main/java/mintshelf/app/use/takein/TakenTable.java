package mintshelf.app.use.takein;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.LongFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import mintshelf.app.store.takein.TakenFile;
import mintshelf.core.base.Refusal;
import mintshelf.core.takein.Column;
import mintshelf.core.takein.TakeTable;
import mintshelf.core.takein.Taking;
import mintshelf.core.takein.Taking.Verdict;

/** A dry run as a table: what it says is what a table that comes back can say, with what is in the way beside it. */
final class TakenTable {
    private TakenTable() {}

    /** @param kind gives the name of a kind */
    static List<List<String>> of(List<TakenFile> files, LongFunction<String> kind) {
        TreeSet<String> facts = new TreeSet<>();
        files.forEach(f -> f.taking().ifPresent(t -> facts.addAll(t.facts().keySet())));
        List<String> heads =
                new ArrayList<>(Arrays.stream(Column.values()).map(Column::head).toList());
        heads.addAll(facts);
        heads.addAll(TakeTable.TOLD);
        List<List<String>> rows = new ArrayList<>(List.of(heads));
        Map<Long, String> kinds = new HashMap<>();
        for (TakenFile file : files) {
            List<String> row = new ArrayList<>();
            for (Column column : Column.values()) row.add(cell(file, column, kinds, kind));
            for (String fact : facts) {
                row.add(file.taking().map(t -> t.facts().getOrDefault(fact, "")).orElse(""));
            }
            row.add(becomes(file));
            row.add(Stream.concat(
                            Stream.of(file.trouble()).filter(t -> !t.isEmpty()),
                            file.taking().stream()
                                    .flatMap(t -> Stream.concat(t.stops().stream(), t.hints().stream()))
                                    .map(Refusal::says))
                    .collect(Collectors.joining(" ")));
            rows.add(row);
        }
        return rows;
    }

    private static String cell(TakenFile file, Column column, Map<Long, String> kinds, LongFunction<String> kind) {
        Taking taking = file.taking().orElse(null);
        if (column == Column.FILE) return file.raw();
        if (taking == null) return "";
        boolean said = file.mended().containsKey(column);
        return switch (column) {
            case FILE -> file.raw();
            case NUMBER -> taking.number();
            case TITLE -> taking.title();
            case KIND ->
                taking.kind().map(k -> kinds.computeIfAbsent(k, kind::apply)).orElse("");
            case REVISION -> taking.label();
            case STAGE ->
                taking.verdict() == Verdict.LEFT_OUT ? "" : taking.stands().words();
            case DATE -> taking.date().map(Object::toString).orElse("");
            case SIGNERS -> taking.signers();
            case FORMER -> String.join("; ", taking.former());
            case FOLDER -> taking.folder();
            case LEAVE_OUT -> said ? "yes" : "";
        };
    }

    private static String becomes(TakenFile file) {
        if (file.item().isPresent()) return "taken in";
        if (!file.trouble().isEmpty()) return "stopped";
        return file.taking()
                .map(t -> switch (t.verdict()) {
                    case GOES -> "goes";
                    case STOPS -> "stops";
                    case WAITS -> "waits for another revision";
                    case LEFT_OUT -> "left out";
                })
                .orElse("");
    }
}
