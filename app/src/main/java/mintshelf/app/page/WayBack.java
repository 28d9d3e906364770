package mintshelf.app.page;

/** Where an act leads back to, as its form says it. */
public final class WayBack {
    private WayBack() {}

    /** The path when it stays within this server, else Today. A browser reads a backslash as a slash: none is let pass. */
    public static String within(String back) {
        boolean ours = back.startsWith("/") && !back.startsWith("//") && back.indexOf('\\') < 0;
        return ours ? back : "/today";
    }
}
