package mintshelf.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import mintshelf.app.Browser;
import mintshelf.app.Server;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;

/** How smoothly a sheet moves under many marks, in the real viewer. */
final class PanBench {
    private static final int MARKS = 2000;
    private static final int FRAMES = 240;

    /**
     * Drags the sheet at every frame as a quick hand does, 40 dots a frame (2,400 a second), there and back, and gives the milliseconds
     * between frames.
     */
    private static final String PAN = """
            const done = arguments[arguments.length - 1];
            const stage = document.querySelector("[data-stage]");
            stage.setPointerCapture = () => {};
            const box = stage.getBoundingClientRect();
            let x = box.left + box.width / 2;
            const y = box.top + box.height / 2;
            const say = (type) => stage.dispatchEvent(new PointerEvent(type, { pointerId: 7, clientX: x, clientY: y, button: 0, buttons: 1, bubbles: true }));
            say("pointerdown");
            const times = [];
            let last = performance.now();
            const frame = (now) => {
              times.push(now - last);
              last = now;
              if (times.length > arguments[0]) { say("pointerup"); done(times.slice(1)); return; }
              x += Math.floor(times.length / 30) % 2 ? -40 : 40;
              say("pointermove");
              requestAnimationFrame(frame);
            };
            requestAnimationFrame(frame);
            """;

    private PanBench() {}

    static void panning() {
        Server server = Server.shared();
        long shelf = server.shelf();
        long small = server.file("priya", shelf, "drawing", "small.dxf", DrawingBench.drawing(300, 7), true);
        long bare = server.file("priya", shelf, "drawing", "bare.dxf", DrawingBench.drawing(100_000, 7), true);
        long item = server.file("priya", shelf, "drawing", "marked.dxf", DrawingBench.drawing(100_000, 8), true);
        mark(server, item);
        try (Browser browser = new Browser(server.origin())) {
            browser.size(1280, 800);
            browser.driver().manage().timeouts().scriptTimeout(Duration.ofMinutes(2));
            browser.signIn("priya");
            // What this machine draws at all: the others are held against it.
            frames(browser, small, 0, "300 lines");
            frames(browser, bare, 0, "100,000 lines");
            frames(browser, item, MARKS, "100,000 lines under 2,000 marks");
        }
    }

    private static void mark(Server server, long item) {
        RemarkStore store = server.bean(RemarkStore.class);
        long person = server.actor("priya").person();
        long version = server.document(item).head().version();
        Random random = new Random(3);
        server.bean(UnitOfWork.class).run(() -> {
            for (int i = 0; i < MARKS; i++) {
                double x = 20 + random.nextInt(1100);
                double y = 20 + random.nextInt(780);
                Mark mark = new Mark(
                        i % 2 == 0 ? Tool.CLOUD : Tool.ARROW_NOTE,
                        List.of(List.of(new Point(x - 6, y - 6), new Point(x + 6, y + 6))),
                        "",
                        new Look(Colour.BRICK, 3.5),
                        1,
                        List.of());
                store.add(
                        new Remark(
                                0,
                                UUID.randomUUID().toString(),
                                item,
                                1,
                                "Model",
                                "",
                                Remark.Kind.CHANGE,
                                Remark.State.OPEN,
                                "Round this edge, the cable chafes",
                                "",
                                person,
                                "",
                                "",
                                Optional.empty(),
                                Instant.now(),
                                mark,
                                Box.EMPTY,
                                List.of()),
                        version,
                        "A" + (1 + i % 24));
            }
            return "";
        });
    }

    private static void frames(Browser browser, long item, int marks, String what) {
        browser.open("/documents/" + item + "/versions/1/sheet");
        browser.await(b -> b.all("[data-rest]").isEmpty());
        List<?> came = (List<?>)
                browser.driver()
                        .executeScript(
                                "const n = performance.getEntriesByType('navigation')[0];"
                                        + " return [n.responseEnd, performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0, performance.now()]");
        Bench.say(
                "%s: page there after %s ms, first painted at %s ms, all of it by %s ms",
                what, came.get(0), came.get(1), came.get(2));
        // Asked for by what costs the page nothing: its whole text would.
        browser.await(b -> b.all("[data-total='" + marks + "']").size() == 1);
        browser.await(b -> b.all("svg.over [data-remark]").size() == marks);
        browser.driver().executeAsyncScript(PAN, 60);
        double[] times = ((List<?>) browser.driver().executeAsyncScript(PAN, FRAMES))
                .stream().mapToDouble(t -> ((Number) t).doubleValue()).toArray();
        Bench.say(
                "%s: %.1f ms a frame in the median, p95 %.1f ms (asked: 17)",
                what, Bench.percentile(times, 0.5), Bench.percentile(times, 0.95));
    }
}
