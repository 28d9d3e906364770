package mintshelf.app;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;

/** Tests that drive the shared server's pages, with a browser for each class. */
@Tag("browser")
abstract class InBrowser {
    static final Server SERVER = Server.shared();
    static Browser browser;

    @BeforeAll
    static void startBrowser() {
        browser = new Browser(SERVER.origin());
    }

    @AfterAll
    static void stopBrowser() {
        browser.close();
    }
}
