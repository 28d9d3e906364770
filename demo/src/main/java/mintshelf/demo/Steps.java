package mintshelf.demo;

import java.util.Locale;

/** Tells on the console what a start is at, a line a step with how long it took. */
final class Steps {
    private static long begun;
    private static boolean open;

    private Steps() {}

    /** Begins a step; the one before has ended. */
    static void begin(String what) {
        end("");
        System.out.print(what + " …");
        System.out.flush();
        begun = System.nanoTime();
        open = true;
    }

    /**
     * Ends the step that is open; nothing when none is.
     *
     * @param says what came of it; empty for nothing
     */
    static void end(String says) {
        if (!open) return;
        open = false;
        System.out.printf(Locale.ROOT, " %s%.1f s%n", says, (System.nanoTime() - begun) / 1e9);
    }
}
