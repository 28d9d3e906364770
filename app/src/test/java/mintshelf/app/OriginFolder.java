package mintshelf.app;

import java.util.Arrays;
import java.util.Map;

/** A folder on the origin-private file system of a browser, which the desk page is given as if the person had chosen it. */
public final class OriginFolder {
    private final Browser browser;
    private final String name;

    public OriginFolder(Browser browser, String name) {
        this.browser = browser;
        this.name = name;
        browser.driver()
                .executeCdpCommand(
                        "Page.addScriptToEvaluateOnNewDocument",
                        Map.of(
                                "source",
                                "window.showDirectoryPicker = async () =>"
                                        + " (await navigator.storage.getDirectory()).getDirectoryHandle('" + name
                                        + "', { create: true });"));
    }

    /** Makes it the desk of who is signed in. */
    public void choose() {
        browser.open("/desk");
        browser.press("Choose a folder");
        browser.awaitText("Read at");
    }

    /** Brings the latest versions of documents. */
    public void bring(long... items) {
        String ids =
                String.join(",", Arrays.stream(items).mapToObj(String::valueOf).toList());
        browser.open("/desk?bring=" + ids);
        browser.press(items.length == 1 ? "Bring 1 file" : "Bring " + items.length + " files");
        browser.awaitText("on the desk now");
    }

    private Object within(String script, Object... arguments) {
        return browser.driver()
                .executeAsyncScript("""
                        const done = arguments[arguments.length - 1];
                        const [root, path, text] = arguments;
                        (async () => {
                          let at = await (await navigator.storage.getDirectory()).getDirectoryHandle(root);
                          const segments = path.split("/");
                          const name = segments.pop();
                          for (const s of segments) at = await at.getDirectoryHandle(s, { create: true });
                        """ + script + "})().then(done, (e) => done('failed: ' + e));", arguments);
    }

    public void write(String path, String text) {
        within(
                "const out = await (await at.getFileHandle(name, { create: true })).createWritable();"
                        + " await out.write(text); await out.close();",
                name,
                path,
                text);
    }

    /** Writes {@code count} files of a name with numbers behind it, in folders by the hundred. */
    public void fill(String place, String file, int count) {
        within("""
                for (let i = 0; i < text; i++) {
                  const below = await at.getDirectoryHandle(`lot ${Math.floor(i / 100)}`, { create: true });
                  const out = await (await below.getFileHandle(`${name} ${i}.txt`, { create: true })).createWritable();
                  await out.write(`${name} ${i}`);
                  await out.close();
                }
                """, name, place + file, count);
    }

    /** The text of a file, or what failed. */
    public String read(String path) {
        return (String) within("return (await (await at.getFileHandle(name)).getFile()).text();", name, path);
    }

    public void remove(String path) {
        within("await at.removeEntry(name);", name, path);
    }
}
