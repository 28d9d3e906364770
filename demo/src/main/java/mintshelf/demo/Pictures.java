package mintshelf.demo;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** The pictures of the main views in docs/screenshots. */
final class Pictures {
    private static final Path FOLDER = Path.of("docs/screenshots");

    private static final String SHELF = "/shelves/1";

    /** Taps on three holes of the gland plate, as a finger would. */
    private static final String MEASURED = """
            const svg = document.querySelector('[data-stage] > svg');
            const stage = document.querySelector('[data-stage]');
            stage.setPointerCapture = () => {};
            for (const [x, y] of [[86, 219], [214, 219], [214, 131]]) {
              const p = new DOMPoint(x, -y).matrixTransform(svg.getScreenCTM());
              const at = { clientX: p.x, clientY: p.y, bubbles: true, pointerId: 1 };
              for (const name of ['pointermove', 'pointerdown', 'pointerup']) stage.dispatchEvent(new PointerEvent(name, at));
            }
            """;

    private Pictures() {}

    private static String row(String number) {
        return "[...document.querySelectorAll('.spine')].find(r => r.dataset.number === '" + number + "')";
    }

    private static String click(String number) {
        return row(number) + ".click()";
    }

    private static String open(String number) {
        return "location.href = " + row(number) + ".dataset.href";
    }

    private static String openOrder(int row) {
        return "location.href = document.querySelectorAll('.change-row a.n')[" + row + "].href";
    }

    static void refresh(String origin) throws IOException {
        try (Shots shots = new Shots(origin)) {
            shots.signIn("");
            take(shots, "/sign-in", "sign-in", List.of());
            shots.signIn("priya");
            take(shots, "/today", "today", List.of());
            take(shots, SHELF, "shelf", List.of(click("TG40-1000"), click("TG40-1050")));
            take(
                    shots,
                    SHELF,
                    "peek",
                    List.of(
                            row("TG40-2030") + ".click()",
                            "document.dispatchEvent(new KeyboardEvent('keydown', {key: 'v', bubbles: true}))"));
            take(shots, SHELF, "document", List.of(open("TG40-3030")));
            take(
                    shots,
                    SHELF,
                    "viewer",
                    List.of(
                            open("TG40-3030"),
                            "document.querySelector('.sheet .whole').click()",
                            "document.querySelector('[data-measure-on]').click()",
                            MEASURED));
            take(
                    shots,
                    SHELF,
                    "compare",
                    List.of(open("TG40-3030"), "document.querySelector('[data-compare]').click()"));
            take(
                    shots,
                    SHELF,
                    "checks",
                    List.of(open("TG40-3030"), "document.querySelector('a[href$=checks]').click()"));
            take(
                    shots,
                    "/today",
                    "filing-sheet",
                    List.of(
                            "location.href = [...document.querySelectorAll('a')].find(a => a.textContent === 'Go on').href"));
            take(shots, "/check-in", "check-in", List.of());
            take(
                    shots,
                    SHELF,
                    "stray",
                    List.of(open("TG40-1040"), "location.href = document.querySelector('a[href^=\"/strays/\"]').href"));
            take(
                    shots,
                    SHELF,
                    "title-block",
                    List.of(open("TG40-1020"), "document.querySelector('a[href$=title-block]').click()"));
            shots.signIn("oluwaseun");
            String round = "location.href = document.querySelector('.tray a.n').href";
            take(shots, "/in-tray", "round", List.of(round));
            shots.shot("/in-tray", FOLDER.resolve("phone-sign-off.png"), 390, 844, false, List.of(round));
            take(shots, "/changes", "change-order", List.of(openOrder(0)));
            take(
                    shots,
                    "/changes",
                    "change-notice",
                    List.of(openOrder(1), "location.href = document.querySelector('aside a.mono').href"));
            shots.signIn("hedda");
            take(shots, "/in-tray", "in-tray", List.of());
            shots.signIn("ines");
            take(shots, "/record", "record", List.of());
            shots.shot(SHELF, FOLDER.resolve("shelf-dark.png"), 1280, 800, true, List.of());
        }
    }

    private static void take(Shots shots, String path, String name, List<String> steps) throws IOException {
        shots.shot(path, FOLDER.resolve(name + ".png"), 1280, 800, false, steps);
        System.out.println(FOLDER.resolve(name + ".png"));
    }
}
