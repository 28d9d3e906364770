package mintshelf.companion.watch;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;

/**
 * When saves are over. A program writes a file in many steps, or beside it and renames it; it is told once, when nothing has touched it for a moment and
 * no program has it open for writing. Times are those of a clock that only goes forward, in ns: one that is set back, or ahead, changes nothing.
 */
public final class Saves {
    private final long quiet;
    private final long longest;
    private final Map<String, Touched> touched = new HashMap<>();

    /** @param first when it was touched first, {@code last} when last */
    private record Touched(long first, long last) {}

    /**
     * @param quiet how long nothing may have touched a file
     * @param longest after that a file counts as saved although something touches it again and again
     */
    public Saves(Duration quiet, Duration longest) {
        this.quiet = quiet.toNanos();
        this.longest = longest.toNanos();
    }

    /** Something touched a file. */
    public void touched(String path, long now) {
        touched.merge(path, new Touched(now, now), (before, t) -> new Touched(before.first(), now));
    }

    /** Whether any save is not over yet. */
    public boolean isOpen() {
        return !touched.isEmpty();
    }

    /**
     * The files whose saves are over; each is given once.
     *
     * @param held whether a program has a file open for writing: it is asked again a moment later
     */
    public List<String> over(long now, Predicate<String> held) {
        List<String> over = new ArrayList<>();
        touched.forEach((path, t) -> {
            boolean still = now - t.last() >= quiet;
            if (still || now - t.first() >= longest) over.add(path);
        });
        over.removeIf(path -> {
            if (!held.test(path)) return false;
            touched.put(path, new Touched(now, now));
            return true;
        });
        over.forEach(touched::remove);
        over.sort(null);
        return over;
    }

    /** Names that programs give to what they write beside a file: never told of. */
    public static boolean isBeside(String name) {
        String small = name.toLowerCase(Locale.ROOT);
        return small.startsWith(".")
                || small.startsWith("~$")
                || small.endsWith("~")
                || small.matches(".*\\.(tmp|temp|bak|lck|lock|dwl\\d?|part|crdownload|swp|autosave)");
    }
}
