package mintshelf.demo;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** The pictures of the main views in docs/screenshots. */
final class Pictures {
    private static final Path FOLDER = Path.of("docs/screenshots");

    private Pictures() {}

    static void refresh(String origin) throws IOException {
        try (Shots shots = new Shots(origin)) {
            shots.signIn("");
            take(shots, "/sign-in", "sign-in", List.of());
            shots.signIn("priya");
            take(shots, "/today", "today", List.of());
            take(
                    shots,
                    "/shelves/1",
                    "shelf",
                    List.of(
                            "document.querySelectorAll('.spine')[4].click(); document.querySelectorAll('.spine')[6].click()"));
            take(
                    shots,
                    "/shelves/1",
                    "peek",
                    List.of(
                            "document.querySelectorAll('.spine')[1].focus()",
                            "document.dispatchEvent(new KeyboardEvent('keydown', {key: 'v', bubbles: true}))"));
            take(shots, "/search?q=TG40-4010", "search", List.of());
            take(
                    shots,
                    "/shelves/1",
                    "document",
                    List.of(
                            "location.href = [...document.querySelectorAll('.spine')].find(r => r.dataset.number === 'TG40-4010').dataset.href"));
        }
    }

    private static void take(Shots shots, String path, String name, List<String> steps) throws IOException {
        shots.shot(path, FOLDER.resolve(name + ".png"), 1280, 800, false, steps);
        System.out.println(FOLDER.resolve(name + ".png"));
    }
}
