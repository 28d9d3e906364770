package mintshelf.app;

import com.deque.html.axecore.args.AxeRunOptions;
import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Function;
import java.util.logging.Level;
import java.util.logging.Logger;
import mintshelf.database.PrivateMariaDb;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Debian's headless Chromium, driven as a person would. One a test class. */
public final class Browser implements AutoCloseable {
    private final ChromeDriver driver;
    private final Path profile;
    private final Path downloads;
    private final String origin;

    public Browser(String origin) {
        this(origin, Map.of());
    }

    /**
     * A browser on a machine of its own.
     *
     * @param environment of a session with a display, on which it shows its windows and starts other programs; empty for none
     */
    public Browser(String origin, Map<String, String> environment) {
        this.origin = origin;
        Logger.getLogger("org.openqa.selenium").setLevel(Level.OFF);
        try {
            profile = Files.createTempDirectory("mint-shelf-browser-");
            downloads = Files.createTempDirectory("mint-shelf-downloads-");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.setExperimentalOption(
                "prefs",
                Map.of(
                        "download.default_directory",
                        downloads.toString(),
                        "download.prompt_for_download",
                        false,
                        "safebrowsing.enabled",
                        true,
                        // Nobody is there to allow the page to hand its links to the machine.
                        "protocol_handler",
                        Map.of("allowed_origin_protocol_pairs", Map.of(origin, Map.of("mint-shelf", true))),
                        // Nobody is there to allow the page to work in a folder.
                        "profile.content_settings.exceptions.file_system_read_guard",
                        Map.of(origin + ",*", Map.of("setting", 1)),
                        "profile.content_settings.exceptions.file_system_write_guard",
                        Map.of(origin + ",*", Map.of("setting", 1))));
        if (environment.isEmpty()) options.addArguments("--headless=new");
        options.addArguments(
                "--no-sandbox",
                "--disable-dev-shm-usage",
                "--enable-unsafe-swiftshader",
                "--disable-quic",
                "--no-first-run",
                "--no-default-browser-check",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-extensions",
                "--disable-features=Translate,OptimizationHints,MediaRouter",
                "--force-prefers-reduced-motion",
                "--force-color-profile=srgb",
                "--lang=en-US",
                "--force-device-scale-factor=1",
                "--user-data-dir=" + profile);
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                .usingAnyFreePort()
                .withEnvironment(environment)
                .build();
        driver = new ChromeDriver(service, options);
        size(1280, 800);
    }

    public ChromeDriver driver() {
        return driver;
    }

    public void size(int width, int height) {
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", width < 600));
    }

    void dark(boolean dark) {
        driver.executeCdpCommand(
                "Emulation.setEmulatedMedia",
                Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", dark ? "dark" : "light"))));
    }

    public void signIn(String login) {
        signIn(login, Server.PASSWORD);
    }

    public void signIn(String login, String password) {
        // What the page of before still asks for would begin a session of its own, or come in between: it is left
        // first.
        driver.get("about:blank");
        driver.executeCdpCommand("Network.clearBrowserCookies", Map.of());
        for (int tries = 0; tries == 0 || (tries < 4 && !path().equals("/today")); tries++) {
            open("/sign-in");
            find("#login").sendKeys(login);
            find("#password").sendKeys(password);
            press("Sign in");
            // Under load a press may get lost: then the form stands there as it was filled, and is sent again.
            for (int looks = 0; looks < 200 && !path().equals("/today"); looks++) {
                if ((boolean)
                        driver.executeScript(
                                "const p = document.querySelector('#password'); return document.readyState === 'complete' && !p?.value")) {
                    break;
                }
                LockSupport.parkNanos(60_000_000);
            }
            // Signed in, and led to what was asked for before: since the cookies were put away nobody else can be.
            if (!path().equals("/today") && !all("form[action='/sign-out']").isEmpty()) open("/today");
        }
        await(d -> d.path().equals("/today"));
    }

    /** The check of access, within the page: there are no frames for which it would open windows of its own. */
    @SuppressWarnings("deprecation") // the other way opens a window for every check, half of the time of all walks
    public static AxeBuilder axe() {
        // What is in order need not be told: of a large page that is megabytes.
        AxeRunOptions options = new AxeRunOptions();
        options.setResultTypes(List.of("violations"));
        return new AxeBuilder().setLegacyMode().withOptions(options);
    }

    public void open(String path) {
        driver.get(origin + path);
    }

    String path() {
        return driver.getCurrentUrl().replace(origin, "").replaceAll("\\?.*", "");
    }

    public WebElement find(String css) {
        return driver.findElement(By.cssSelector(css));
    }

    public List<WebElement> all(String css) {
        return driver.findElements(By.cssSelector(css));
    }

    /** What a person reads on the page, as the browser itself lays it out. */
    public String text() {
        return (String) driver.executeScript("return document.body.innerText");
    }

    /** Clicks the visible button or link with this text. */
    public void press(String text) {
        await(d -> d.pressable(text) != null);
        pressable(text).click();
    }

    /** Clicks it when it is there now; tells whether it was. */
    public boolean pressIfThere(String text) {
        WebElement there = pressable(text);
        if (there != null) there.click();
        return there != null;
    }

    /** Asked in the page, in one trip: a walk asks this more often than anything else. */
    private WebElement pressable(String text) {
        return (WebElement) driver.executeScript("""
                        return [...document.querySelectorAll("button, a, summary")].find((e) =>
                            e.textContent.replace(/\\s+/g, " ").trim().includes(arguments[0])
                            && !e.disabled && e.checkVisibility({ visibilityProperty: true }) && e.getClientRects().length) ?? null;
                        """, text);
    }

    public void await(Function<Browser, Boolean> condition) {
        new WebDriverWait(driver, Duration.ofSeconds(40), Duration.ofMillis(60))
                .ignoring(WebDriverException.class)
                .withMessage(this::shown)
                .until(d -> condition.apply(this));
    }

    public void awaitText(String text) {
        await(d -> d.text().contains(text));
    }

    /** What was there instead of what was waited for. */
    private String shown() {
        String text = text().replaceAll("\\s+", " ");
        return path() + " shows: " + text.substring(0, Math.min(text.length(), 900));
    }

    /** The bytes of the file that the browser brought, once it is there whole. */
    byte[] downloaded(String name) {
        Path file = downloads.resolve(name);
        await(d -> Files.exists(file) && !Files.exists(downloads.resolve(name + ".crdownload")));
        try {
            byte[] bytes = Files.readAllBytes(file);
            Files.delete(file);
            return bytes;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() {
        driver.quit();
        PrivateMariaDb.deleteTree(profile);
        PrivateMariaDb.deleteTree(downloads);
    }
}
