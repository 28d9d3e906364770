package mintshelf.core.model.step;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;

/**
 * Walks over the exchange structure, one statement at a time, in bounded memory. Types that nobody asked for are passed over
 * without being read: most of a file is geometry.
 */
final class StepScanner {
    private static final int BUFFER = 1 << 18;
    /** A string, a word or a list beyond this is none that says anything of products. */
    private static final int LONGEST = 1 << 20;

    private static final int DEEPEST = 64;

    private final InputStream in;
    private final byte[] buffer = new byte[BUFFER];
    private int at;
    private int end;
    private long before;
    private byte[] word = new byte[256];
    private int length;
    private int line = 1;

    StepScanner(InputStream in) {
        this.in = in;
    }

    /** The file is not as the standard says. */
    static final class Broken extends IOException {
        private static final long serialVersionUID = 1;

        Broken(String message) {
            super(message);
        }
    }

    private boolean fill() throws IOException {
        before += end;
        at = 0;
        end = Math.max(0, in.read(buffer, 0, BUFFER));
        return end > 0;
    }

    private int peek() throws IOException {
        return at < end || fill() ? buffer[at] & 255 : -1;
    }

    private int read() throws IOException {
        if (at >= end && !fill()) return -1;
        int c = buffer[at++] & 255;
        if (c == '\n') line++;
        return c;
    }

    /** Where the next byte stands in the file. */
    private long place() {
        return before + at;
    }

    int line() {
        return line;
    }

    /** Passes blanks and comments; gives the next sign without taking it, -1 at the end. */
    int next() throws IOException {
        while (true) {
            int c = peek();
            if (c == ' ' || c == '\n' || c == '\r' || c == '\t' || c == 0) {
                read();
            } else if (c == '/') {
                read();
                if (peek() != '*') throw new Broken("a stroke that begins no comment");
                read();
                comment();
            } else {
                return c;
            }
        }
    }

    private void comment() throws IOException {
        int last = 0;
        for (int c = read(); c >= 0; c = read()) {
            if (last == '*' && c == '/') return;
            last = c;
        }
        throw new Broken("a comment without an end");
    }

    void expect(char sign) throws IOException {
        int c = next();
        if (c != sign) throw new Broken("“" + (c < 0 ? "the end" : (char) c) + "” in place of “" + sign + "”");
        read();
    }

    private void keep(int c) throws IOException {
        if (length == word.length) {
            if (length >= LONGEST) throw new Broken("a word of more than a million letters");
            word = Arrays.copyOf(word, length * 2);
        }
        word[length++] = (byte) c;
    }

    private static boolean isWord(int c) {
        return (c >= 'A' && c <= 'Z')
                || (c >= '0' && c <= '9')
                || c == '_'
                || c == '-'
                || (c >= 'a' && c <= 'z')
                || c == '!';
    }

    /** A keyword; empty where none stands. */
    String keyword() throws IOException {
        next();
        length = 0;
        while (isWord(peek())) keep(read());
        return new String(word, 0, length, StandardCharsets.US_ASCII);
    }

    /** The number of an instance, behind its #. */
    long name() throws IOException {
        expect('#');
        long id = 0;
        int digits = 0;
        for (int c = peek(); c >= '0' && c <= '9'; c = peek()) {
            id = id * 10 + read() - '0';
            if (++digits > 18) throw new Broken("an instance name of more than 18 digits");
        }
        if (digits == 0) throw new Broken("a # without a number");
        return id;
    }

    /** Whether the keyword in front of the cursor is asked for; it is taken either way. */
    boolean isKeywordIn(Set<String> wanted, int[] hashes) throws IOException {
        length = 0;
        int hash = 7;
        for (int c = peek(); isWord(c); c = peek()) {
            hash = hash * 31 + c;
            keep(read());
        }
        if (Arrays.binarySearch(hashes, hash) < 0) return false;
        return wanted.contains(lastWord());
    }

    String lastWord() {
        return new String(word, 0, length, StandardCharsets.US_ASCII);
    }

    static int hash(String keyword) {
        int hash = 7;
        for (int i = 0; i < keyword.length(); i++) hash = hash * 31 + keyword.charAt(i);
        return hash;
    }

    /** Passes what is left of a statement, up to its semicolon. */
    void skip() throws IOException {
        while (true) {
            byte[] b = buffer;
            int i = at;
            int n = end;
            while (i < n && b[i] != ';' && b[i] != '\'' && b[i] != '/' && b[i] != '\n') i++;
            at = i;
            int c = read();
            if (c < 0) throw new Broken("an end inside a statement");
            if (c == ';') return;
            if (c == '\'') string(false);
            if (c == '/' && peek() == '*') {
                read();
                comment();
            }
        }
    }

    /** Reads a string behind its first quote. */
    private void string(boolean kept) throws IOException {
        length = 0;
        while (true) {
            int c = read();
            if (c < 0) throw new Broken("a string without an end");
            if (c == '\'') {
                if (peek() != '\'') return;
                read();
                if (kept) keep(c);
            }
            if (kept) keep(c);
        }
    }

    /** The parameters of an instance, in their brackets. */
    List<StepValue> parameters(int depth) throws IOException {
        if (depth > DEEPEST) throw new Broken("brackets nested too deep");
        expect('(');
        List<StepValue> values = new ArrayList<>();
        if (next() == ')') {
            read();
            return values;
        }
        while (true) {
            values.add(value(depth));
            int c = next();
            read();
            if (c == ')') return values;
            if (c != ',') throw new Broken("“" + (c < 0 ? "the end" : (char) c) + "” among parameters");
            if (values.size() > LONGEST) throw new Broken("a list of more than a million values");
        }
    }

    private StepValue value(int depth) throws IOException {
        int c = next();
        switch (c) {
            case '\'' -> {
                read();
                long from = place();
                string(true);
                return new StepValue.Text(StepText.decode(word, 0, length), from, place() - 1);
            }
            case '#' -> {
                return new StepValue.Ref(name());
            }
            case '$', '*' -> {
                read();
                return StepValue.Nothing.NOTHING;
            }
            case '(' -> {
                return new StepValue.Many(parameters(depth + 1));
            }
            case '.' -> {
                read();
                length = 0;
                while (peek() != '.' && isWord(peek())) keep(read());
                String said = lastWord();
                expect('.');
                return new StepValue.Word(said);
            }
            case '"' -> {
                read();
                for (int b = read(); b != '"'; b = read()) if (b < 0) throw new Broken("a binary without an end");
                return StepValue.Nothing.NOTHING;
            }
            case '<' -> {
                read();
                for (int b = read(); b != '>'; b = read()) if (b < 0) throw new Broken("a resource without an end");
                return StepValue.Nothing.NOTHING;
            }
            default -> {
                if (c == '+' || c == '-' || (c >= '0' && c <= '9')) return number();
                String type = keyword();
                if (type.isEmpty()) throw new Broken("“" + (c < 0 ? "the end" : (char) c) + "” in place of a value");
                return new StepValue.Typed(type, parameters(depth + 1));
            }
        }
    }

    private StepValue number() throws IOException {
        length = 0;
        for (int c = peek();
                c == '+' || c == '-' || c == '.' || c == 'E' || c == 'e' || (c >= '0' && c <= '9');
                c = peek()) {
            keep(read());
        }
        try {
            return new StepValue.Real(Double.parseDouble(lastWord()));
        } catch (NumberFormatException e) {
            return StepValue.Nothing.NOTHING;
        }
    }
}
