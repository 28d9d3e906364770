package mintshelf.companion.machine;

import java.util.regex.Matcher;

/** Paths and words as the files of desktops want them written. */
public final class Quoted {
    private Quoted() {}

    /**
     * An argument of an Exec line (Desktop Entry Specification, the Exec key). One that needs no quotes gets none: where there is no desktop, the program
     * that opens links takes them for a part of the name.
     */
    static String exec(String argument) {
        if (argument.matches("[\\w/.+@:-]+")) return argument;
        String escaped = argument.replaceAll("([\"`$\\\\])", Matcher.quoteReplacement("\\") + "$1");
        // As a string of the file itself, its backslashes are written twice; a per cent sign is no field code.
        return "\"" + escaped.replace("\\", "\\\\").replace("%", "%%") + "\"";
    }

    /** A word of a shell (POSIX, 2.2.2). */
    public static String shell(String word) {
        return "'" + word.replace("'", "'\\''") + "'";
    }

    /** A string of a registry file, and within one of a command line. */
    static String registry(String text) {
        return text.replace("\\", "\\\\").replace("\"", "\\\"");
    }

    /** Text of XML. */
    static String xml(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
