package mintshelf.core.model.step;

import java.io.ByteArrayOutputStream;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * The instances of an exchange file as they stand in it: each with its bytes and what it names, whatever it is (ISO 10303-21:2016, clause 5). To
 * take some out and leave all others as they are.
 */
final class StepStatements {
    /**
     * What an instance names.
     *
     * @param list the byte behind the bracket of the list in which it stands; -1 for a parameter by itself
     * @param from the byte of its #, {@code to} the one behind its last figure
     */
    record Ref(long id, int list, int from, int to) {}

    /** @param from the byte of its #, {@code to} the one behind its semicolon */
    record Statement(int from, int to, List<Ref> refs) {}

    private final byte[] file;
    private final Map<Long, Statement> all = new HashMap<>();
    private final Map<Long, List<Long>> namedBy = new HashMap<>();

    private StepStatements(byte[] file) {
        this.file = file;
    }

    /** O(bytes). */
    static StepStatements of(byte[] file) {
        StepStatements statements = new StepStatements(file);
        statements.read();
        return statements;
    }

    private void read() {
        int at = 0;
        while (at < file.length) {
            at = blanks(at);
            if (at >= file.length) return;
            int end = end(at);
            if (file[at] == '#') statement(at, end);
            at = end;
        }
    }

    /** Behind blanks and comments. */
    private int blanks(int from) {
        int at = from;
        while (at < file.length) {
            if (file[at] <= ' ') at++;
            else if (file[at] == '/' && at + 1 < file.length && file[at + 1] == '*') at = comment(at);
            else return at;
        }
        return at;
    }

    private int comment(int from) {
        int at = from + 2;
        while (at + 1 < file.length && !(file[at] == '*' && file[at + 1] == '/')) at++;
        return Math.min(file.length, at + 2);
    }

    private int text(int from) {
        int at = from + 1;
        while (at < file.length && file[at] != '\'') at++;
        return Math.min(file.length, at + 1);
    }

    /** Behind the semicolon that ends a statement. */
    private int end(int from) {
        int at = from;
        while (at < file.length) {
            switch (file[at]) {
                case '\'' -> at = text(at);
                case ';' -> {
                    return at + 1;
                }
                case '/' -> at = at + 1 < file.length && file[at + 1] == '*' ? comment(at) : at + 1;
                default -> at++;
            }
        }
        return at;
    }

    private void statement(int from, int end) {
        int at = figures(from + 1, end);
        if (at == from + 1) return;
        long id = number(from + 1, at);
        at = blanks(at);
        if (at >= end || file[at] != '=') return;
        at = blanks(at + 1);
        // Its parameters stand one bracket deep; of an instance of several kinds, two.
        int own = at < end && file[at] == '(' ? 2 : 1;
        List<Ref> refs = new ArrayList<>();
        Deque<Integer> open = new ArrayDeque<>();
        while (at < end) {
            switch (file[at]) {
                case '\'' -> at = text(at);
                case '/' -> at = blanks(at) == at ? at + 1 : blanks(at);
                case '(' -> {
                    // A value with its type is no list: it goes as a whole.
                    open.push(open.size() < own || isTyped(at) ? -1 : at + 1);
                    at++;
                }
                case ')' -> {
                    if (!open.isEmpty()) open.pop();
                    at++;
                }
                case '#' -> {
                    int to = figures(at + 1, end);
                    if (to > at + 1) refs.add(new Ref(number(at + 1, to), open.isEmpty() ? -1 : open.peek(), at, to));
                    at = Math.max(to, at + 1);
                }
                default -> at++;
            }
        }
        all.put(id, new Statement(from, end, refs));
        refs.forEach(
                r -> namedBy.computeIfAbsent(r.id(), i -> new ArrayList<>()).add(id));
    }

    private boolean isTyped(int bracket) {
        int at = bracket - 1;
        while (at > 0 && file[at] <= ' ') at--;
        return file[at] == '_' || (file[at] >= 'A' && file[at] <= 'Z') || (file[at] >= '0' && file[at] <= '9');
    }

    private int figures(int from, int end) {
        int at = from;
        while (at < end && file[at] >= '0' && file[at] <= '9' && at - from < 18) at++;
        return at;
    }

    private long number(int from, int to) {
        long number = 0;
        for (int i = from; i < to; i++) number = number * 10 + file[i] - '0';
        return number;
    }

    /**
     * What goes with some instances: what names one of them other than in a list where others stay, and what only those that go have named.
     */
    Set<Long> gone(Set<Long> seeds) {
        Set<Long> gone = new LinkedHashSet<>();
        Deque<Long> next = new ArrayDeque<>(seeds);
        while (!next.isEmpty()) {
            long id = next.poll();
            Statement statement = all.get(id);
            if (statement == null || !gone.add(id)) continue;
            for (long by : namedBy.getOrDefault(id, List.of()))
                if (!gone.contains(by) && goesWith(by, gone)) next.add(by);
            for (Ref ref : statement.refs()) if (isOnlyOf(ref.id(), gone)) next.add(ref.id());
            // What was named by several that go is known for good only with the last of them.
            if (next.isEmpty())
                gone.forEach(g -> refs(g).forEach(r -> {
                    if (!gone.contains(r.id()) && isOnlyOf(r.id(), gone)) next.add(r.id());
                }));
        }
        return gone;
    }

    private List<Ref> refs(long id) {
        Statement statement = all.get(id);
        return statement == null ? List.of() : statement.refs();
    }

    private boolean isOnlyOf(long id, Set<Long> gone) {
        return all.containsKey(id) && gone.containsAll(namedBy.getOrDefault(id, List.of()));
    }

    private boolean goesWith(long id, Set<Long> gone) {
        Map<Integer, Integer> left = new HashMap<>();
        for (Ref ref : refs(id)) {
            boolean goes = gone.contains(ref.id());
            if (goes && ref.list() < 0) return true;
            if (ref.list() >= 0) left.merge(ref.list(), goes ? 0 : 1, Integer::sum);
        }
        return left.containsValue(0);
    }

    /** The file without them: lists that name them do so no more. */
    byte[] without(Set<Long> gone) {
        TreeMap<Integer, Integer> cuts = new TreeMap<>();
        for (Map.Entry<Long, Statement> one : all.entrySet()) {
            Statement statement = one.getValue();
            if (gone.contains(one.getKey())) {
                cuts.put(statement.from(), behindLine(statement.to()));
                continue;
            }
            Map<Integer, Integer> stays = new HashMap<>();
            for (Ref ref : statement.refs()) {
                if (gone.contains(ref.id())) cut(cuts, ref, stays);
                else stays.put(ref.list(), ref.to());
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream(file.length);
        int at = 0;
        for (Map.Entry<Integer, Integer> cut : cuts.entrySet()) {
            if (cut.getKey() > at) out.write(file, at, cut.getKey() - at);
            at = Math.max(at, cut.getValue());
        }
        out.write(file, at, file.length - at);
        return out.toByteArray();
    }

    private int behindLine(int to) {
        int at = to;
        if (at < file.length && file[at] == '\r') at++;
        if (at < file.length && file[at] == '\n') at++;
        return at;
    }

    /** An element with the comma behind it; the last one with all behind the last that stays. */
    private void cut(Map<Integer, Integer> cuts, Ref ref, Map<Integer, Integer> stays) {
        int behind = blanks(ref.to());
        if (behind < file.length && file[behind] == ',') cuts.put(ref.from(), behind + 1);
        else cuts.put(stays.getOrDefault(ref.list(), ref.from()), ref.to());
    }

    /** What is named and not there. */
    Set<Long> lost() {
        Set<Long> lost = new LinkedHashSet<>(namedBy.keySet());
        lost.removeAll(all.keySet());
        return lost;
    }
}
