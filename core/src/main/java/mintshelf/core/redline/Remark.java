package mintshelf.core.redline;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import mintshelf.core.drawing.Box;

/**
 * A mark with what is to be said of it.
 *
 * @param uid a UUID by which it is known outside
 * @param version number of the version that it was drawn on
 * @param layout of the drawing that it was drawn on, by name
 * @param number by zone: "C4-2"; it stays when the mark moves
 * @param line the short line on the sheet
 * @param outside who wrote it, where that is somebody outside whose remarks {@code author} took in; else empty
 * @param round in which it was made; empty outside of one
 * @param view what its author looked at; empty where that is not known
 * @param replies from the oldest on
 */
public record Remark(
        long id,
        String uid,
        long item,
        int version,
        String layout,
        String number,
        Kind kind,
        State state,
        String line,
        String description,
        long author,
        String authorName,
        String outside,
        Optional<Long> round,
        Instant at,
        Mark mark,
        Box view,
        List<Reply> replies) {
    public static final int LONGEST_LINE = 90;
    public static final int LONGEST_DESCRIPTION = 2000;

    public Remark {
        replies = List.copyOf(replies);
    }

    /** What is wanted of whoever works on the sheet. */
    public enum Kind {
        CHANGE,
        QUESTION,
        NOTE;

        public String words() {
            return name().toLowerCase(Locale.ROOT);
        }

        public static Optional<Kind> of(String word) {
            return Arrays.stream(values()).filter(k -> k.words().equals(word)).findFirst();
        }
    }

    /** How far it is. A draft is its author's alone and is not kept here. */
    public enum State {
        OPEN,
        ANSWERED,
        DONE,
        DECLINED,
        WITHDRAWN;

        public String words() {
            return name().toLowerCase(Locale.ROOT);
        }

        /** Whether somebody still has to do something. */
        public boolean isOpen() {
            return this == OPEN || this == ANSWERED;
        }

        public static Optional<State> of(String word) {
            return Arrays.stream(values()).filter(s -> s.words().equals(word)).findFirst();
        }
    }

    /**
     * A line of its thread.
     *
     * @param says empty where only its state was set
     * @param state what it was set to with these words; empty for mere words
     */
    public record Reply(String uid, long person, String name, Instant at, String says, Optional<State> state) {}

    /** As lists name it: what it says, else with what it was drawn. */
    public String title() {
        String says = says();
        return says.isEmpty() ? mark.tool().words() : says;
    }

    /** Whose it is, in words: what came from outside names who wrote it. */
    public String by() {
        return outside.isEmpty() ? authorName : outside;
    }

    /** Whether a sheet with it may not be released where the route asks for that. */
    public boolean isOpenChange() {
        return kind == Kind.CHANGE && state.isOpen();
    }

    /** The same in other words. */
    public Remark saying(Kind other, String shortly, String more) {
        return new Remark(
                id,
                uid,
                item,
                version,
                layout,
                number,
                other,
                state,
                shortly,
                more,
                author,
                authorName,
                outside,
                round,
                at,
                mark,
                view,
                replies);
    }

    /** The same in another look. */
    public Remark looking(Look look) {
        return new Remark(
                id,
                uid,
                item,
                version,
                layout,
                number,
                kind,
                state,
                line,
                description,
                author,
                authorName,
                outside,
                round,
                at,
                mark.with(look),
                view,
                replies);
    }

    /** Its line, or what its mark says of itself. */
    public String says() {
        String own = mark.says();
        return line.isEmpty() ? own : own.isEmpty() ? line : own + ": " + line;
    }

    public String initials() {
        return initials(by());
    }

    static String initials(String name) {
        StringBuilder out = new StringBuilder();
        for (String part : name.strip().split("\\s+")) {
            if (out.length() < 2 && !part.isEmpty()) out.appendCodePoint(Character.toUpperCase(part.codePointAt(0)));
        }
        return out.toString();
    }
}
