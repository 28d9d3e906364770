package mintshelf.companion.machine;

/** What Windows reads: files of its registry, for the person alone (HKEY_CURRENT_USER). */
final class WindowsFiles {
    private static final String CLASSES = "HKEY_CURRENT_USER\\Software\\Classes\\";
    private static final String SCHEME = CLASSES + "mint-shelf";
    private static final String MENU = CLASSES + "*\\shell\\MintShelf";
    private static final String RUN = "HKEY_CURRENT_USER\\Software\\Microsoft\\Windows\\CurrentVersion\\Run";
    private static final String VERSION = "Windows Registry Editor Version 5.00\r\n";

    private WindowsFiles() {}

    static String in(String launcher) {
        StringBuilder file = new StringBuilder(VERSION);
        key(file, SCHEME, "@", "URL:Mint Shelf");
        value(file, "URL Protocol", "");
        key(file, SCHEME + "\\shell\\open\\command", "@", command(launcher, "desk open \"%1\""));
        key(file, MENU, "MUIVerb", "Mint Shelf");
        value(file, "SubCommands", "");
        int place = 0;
        for (FileAct act : FileAct.values()) {
            String at = MENU + "\\shell\\" + ++place + act.code();
            key(file, at, "MUIVerb", act.words());
            key(file, at + "\\command", "@", command(launcher, "desk act " + act.code() + " \"%1\""));
        }
        key(file, RUN, "MintShelf", command(launcher, "desk watch --all"));
        return file.toString();
    }

    static String out() {
        return VERSION + "\r\n[-" + SCHEME + "]\r\n\r\n[-" + MENU + "]\r\n\r\n[" + RUN + "]\r\n\"MintShelf\"=-\r\n";
    }

    private static String command(String launcher, String arguments) {
        return "\"" + launcher + "\" " + arguments;
    }

    private static void key(StringBuilder file, String key, String name, String value) {
        file.append("\r\n[").append(key).append("]\r\n");
        value(file, name, value);
    }

    private static void value(StringBuilder file, String name, String value) {
        String quoted = name.equals("@") ? name : "\"" + name + "\"";
        file.append(quoted).append("=\"").append(Quoted.registry(value)).append("\"\r\n");
    }
}
