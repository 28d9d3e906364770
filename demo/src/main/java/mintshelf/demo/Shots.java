package mintshelf.demo;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.logging.Level;
import java.util.logging.Logger;
import mintshelf.database.PrivateMariaDb;
import org.openqa.selenium.By;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;

/** Pictures of pages of a running demo, by Debian's headless Chromium. */
final class Shots implements AutoCloseable {
    private final String origin;
    private final ChromeDriver browser;
    private final Path profile;

    Shots(String origin) throws IOException {
        Logger.getLogger("org.openqa.selenium").setLevel(Level.SEVERE);
        this.origin = origin;
        this.profile = Files.createTempDirectory("mint-shelf-browser-");
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments(
                "--headless=new",
                "--no-sandbox",
                "--disable-dev-shm-usage",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--disable-extensions",
                "--force-prefers-reduced-motion",
                "--hide-scrollbars",
                "--force-color-profile=srgb",
                "--lang=en-US",
                "--force-device-scale-factor=1",
                "--user-data-dir=" + profile);
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                .usingAnyFreePort()
                .build();
        this.browser = new ChromeDriver(service, options);
    }

    void signIn(String login) {
        browser.manage().deleteAllCookies();
        browser.get(origin + "/sign-in");
        if (login.isEmpty()) return;
        browser.findElement(By.id("login")).sendKeys(login);
        browser.findElement(By.id("password")).sendKeys(Cast.PASSWORD);
        browser.findElement(By.cssSelector("form button")).click();
    }

    /** @param steps script lines that are run in the page before the picture is taken */
    void shot(String path, Path file, int width, int height, boolean dark, List<String> steps) throws IOException {
        browser.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", width < 600));
        browser.executeCdpCommand(
                "Emulation.setEmulatedMedia",
                Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", dark ? "dark" : "light"))));
        browser.get(origin + path);
        pause(500);
        for (String step : steps) {
            browser.executeScript(step);
            pause(700);
        }
        Object data = browser.executeCdpCommand("Page.captureScreenshot", Map.of("format", "png"))
                .get("data");
        if (file.getParent() != null) Files.createDirectories(file.getParent());
        Files.write(file, Base64.getDecoder().decode(String.valueOf(data)));
    }

    private static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        browser.quit();
        PrivateMariaDb.deleteTree(profile);
    }
}
