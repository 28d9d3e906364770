package mintshelf.core.document;

import java.util.Locale;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;

/**
 * A file name that any machine can keep. What came as a path keeps its last part only; a path inside a name is data.
 *
 * @param name as shown and downloaded
 * @param key as compared: composed and without case; unique in a folder
 */
public record FileName(String name, String key) {
    private static final int LONGEST = 180;
    private static final Set<String> RESERVED = Set.of(
            "con", "prn", "aux", "nul", "com1", "com2", "com3", "com4", "com5", "com6", "com7", "com8", "com9", "lpt1",
            "lpt2", "lpt3", "lpt4", "lpt5", "lpt6", "lpt7", "lpt8", "lpt9");

    /** Makes a name safe: path parts, control characters and what no file system takes go; nothing left becomes "unnamed". */
    public static FileName of(String raw) {
        String line = Texts.line(raw);
        String last = line.substring(Math.max(line.lastIndexOf('/'), line.lastIndexOf('\\')) + 1);
        String safe = last.replaceAll("[<>:\"|?*]", "_")
                .strip()
                .replaceAll("[. ]+$", "")
                .replaceAll("^\\.+", "");
        if (safe.isEmpty()) safe = "unnamed";
        if (RESERVED.contains(stem(safe).toLowerCase(Locale.ROOT))) safe = "_" + safe;
        if (safe.length() > LONGEST) {
            String end = extension(safe);
            String tail = end.isEmpty() || end.length() > 20 ? "" : "." + end;
            safe = safe.substring(0, LONGEST - tail.length()).stripTrailing() + tail;
        }
        return new FileName(safe, Texts.key(safe));
    }

    /**
     * The name of a shelf or a folder, which folders on disks and in archives mirror: what no file system takes is refused in words,
     * for a name that is changed in silence is another name.
     */
    public static Outcome<String> folder(String what, String raw) {
        Outcome<String> named = Texts.required(what, raw, 120);
        if (!(named instanceof Outcome.Granted<String> granted)
                || of(granted.value()).name().equals(granted.value())) {
            return named;
        }
        return Outcome.refused(
                "name.file_system",
                "“" + granted.value() + "” can be no folder on a disk.",
                "Leave out < > : \" / \\ | ? *, dots at its ends, and names that machines keep for themselves.");
    }

    /** A path of folders and a file made safe, part by part: what comes from elsewhere leads nowhere else. */
    public static String path(String raw) {
        StringBuilder path = new StringBuilder();
        for (String part : raw.split("/")) {
            if (part.isEmpty()) continue;
            if (!path.isEmpty()) path.append('/');
            path.append(of(part).name());
        }
        return path.isEmpty() ? "unnamed" : path.toString();
    }

    /** The extension without its dot, lower case; empty when there is none. */
    public String extension() {
        return extension(name).toLowerCase(Locale.ROOT);
    }

    /** The name without its extension. */
    public String stem() {
        return stem(name);
    }

    /** A name for a changed copy that is filed beside this one. */
    public String derived() {
        String end = extension(name);
        return of(stem(name) + " derived" + (end.isEmpty() ? "" : "." + end)).name();
    }

    /** The same name with a number before its ending, for where the name itself is another's: "plate (2).dxf". */
    public FileName numbered(int number) {
        String end = extension(name);
        return of(stem(name) + " (" + number + ")" + (end.isEmpty() ? "" : "." + end));
    }

    private static String extension(String name) {
        int dot = name.lastIndexOf('.');
        return dot <= 0 ? "" : name.substring(dot + 1);
    }

    private static String stem(String name) {
        int dot = name.lastIndexOf('.');
        return dot <= 0 ? name : name.substring(0, dot);
    }
}
