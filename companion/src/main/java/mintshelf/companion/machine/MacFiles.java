package mintshelf.companion.machine;

import java.nio.file.Path;
import java.util.List;

/**
 * What macOS reads. A link arrives there as an event, not as an argument: a compiled script takes it, and the property list of its bundle names the
 * scheme. Made here as documented; no such machine was at hand to try it on.
 */
final class MacFiles {
    static final String AGENT = "mint-shelf.watch";

    private MacFiles() {}

    static String script(String launcher) {
        String path = launcher.replace("\\", "\\\\").replace("\"", "\\\"");
        return """
                on open location link
                	do shell script quoted form of "%s" & " desk open " & quoted form of link & " > /dev/null 2>&1 &"
                end open location
                """.formatted(path);
    }

    /** How the bundle of the compiled script comes to name the scheme. */
    static List<List<String>> scheme(Path bundle) {
        String list = bundle.resolve("Contents/Info.plist").toString();
        return List.of(
                List.of("plutil", "-replace", "CFBundleIdentifier", "-string", "mint-shelf.open", list),
                List.of(
                        "plutil",
                        "-replace",
                        "CFBundleURLTypes",
                        "-json",
                        "[{\"CFBundleURLName\":\"Mint Shelf\",\"CFBundleURLSchemes\":[\"mint-shelf\"]}]",
                        list));
    }

    static String agent(String launcher) {
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
                <plist version="1.0"><dict>
                <key>Label</key><string>%s</string>
                <key>ProgramArguments</key><array><string>%s</string><string>desk</string><string>watch</string><string>--all</string></array>
                <key>RunAtLoad</key><true/>
                </dict></plist>
                """.formatted(AGENT, Quoted.xml(launcher));
    }
}
