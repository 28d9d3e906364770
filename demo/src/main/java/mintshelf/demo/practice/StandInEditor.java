package mintshelf.demo.practice;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.svg.SvgWriter;
import mintshelf.core.drawing.titleblock.SheetMap;
import mintshelf.core.drawing.titleblock.SheetScale;

/**
 * A stand-in for a drafting program on a machine that has none: {@code ./shelf editor FILE.dxf}. It opens one file, shows its sheet in a window of the
 * browser, gives holes another diameter, and saves as such programs do: beside the file, and renamed over it. It listens on loopback alone, under an
 * address that nobody guesses, and ends when it is closed.
 */
public final class StandInEditor implements AutoCloseable {
    private static final double WHOLE = 359.99;
    private static final int LONGEST_HOURS = 8;
    private static final int LARGEST_FORM = 4_096;

    private final Path file;
    private final String key;
    private final HttpServer server;
    private final CountDownLatch closed = new CountDownLatch(1);
    private final List<String> done = new ArrayList<>();
    private byte[] bytes;

    /** A hole of the sheet, in sheet units. */
    private record Hole(double x, double y, double diameter, String zone) {}

    private StandInEditor(Path file) throws IOException {
        this.file = file;
        this.bytes = Files.readAllBytes(file);
        byte[] random = new byte[16];
        new SecureRandom().nextBytes(random);
        this.key = HexFormat.of().formatHex(random);
        this.server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/" + key + "/", this::answer);
        server.start();
    }

    /** Opens a file; refused where it is no drawing of text. */
    public static StandInEditor open(Path file) throws IOException {
        Outcome<SheetEdit> read = SheetEdit.of(Files.readAllBytes(file));
        if (read.refusal().isPresent())
            throw new IOException(read.refusal().get().reason());
        return new StandInEditor(file);
    }

    /** Where its window is. */
    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort() + "/" + key + "/";
    }

    /** Opens a file in a window of the browser and waits until it is closed. */
    public static void run(Path file) throws IOException {
        try (StandInEditor editor = open(file)) {
            System.out.println(editor.address());
            new ProcessBuilder("xdg-open", editor.address())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            editor.closed.await(LONGEST_HOURS, TimeUnit.HOURS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void answer(HttpExchange exchange) throws IOException {
        try {
            String act = exchange.getRequestURI().getPath().substring(key.length() + 2);
            boolean posts = exchange.getRequestMethod().equals("POST");
            String said = "";
            if (posts) said = act(act, form(exchange));
            boolean closes = posts && act.equals("close");
            byte[] page = (closes ? "<!DOCTYPE html><title>Closed</title><p>The file is closed." : page(said))
                    .getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
            exchange.sendResponseHeaders(200, page.length);
            exchange.getResponseBody().write(page);
            if (closes) closed.countDown();
        } finally {
            exchange.close();
        }
    }

    private static Map<String, String> form(HttpExchange exchange) throws IOException {
        Map<String, String> form = new TreeMap<>();
        String body = new String(exchange.getRequestBody().readNBytes(LARGEST_FORM), StandardCharsets.UTF_8);
        for (String field : body.split("&")) {
            String[] two = field.split("=", 2);
            if (two.length == 2) form.put(two[0], URLDecoder.decode(two[1], StandardCharsets.UTF_8));
        }
        return form;
    }

    private synchronized String act(String act, Map<String, String> form) throws IOException {
        if (act.equals("save")) {
            Path beside = Files.createTempFile(file.toAbsolutePath().getParent(), "~$", ".tmp");
            Files.write(beside, bytes);
            Files.move(beside, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
            done.clear();
            return "Saved.";
        }
        if (!act.equals("change")) return "";
        try {
            double x = Double.parseDouble(form.getOrDefault("x", ""));
            double y = Double.parseDouble(form.getOrDefault("y", ""));
            double diameter = Double.parseDouble(form.getOrDefault("diameter", ""));
            double radius = Double.parseDouble(form.getOrDefault("radius", ""));
            Outcome<SheetEdit> edit = SheetEdit.of(bytes);
            if (!(edit instanceof Outcome.Granted<SheetEdit> open)) return "The file is read no more.";
            SheetEdit sheet = open.value().at(scale());
            Outcome<String> changed = sheet.resize(x + radius, y, 0.5, diameter);
            if (!(changed instanceof Outcome.Granted<String> says))
                return changed.refusal().orElseThrow().reason();
            bytes = sheet.bytes();
            done.add(says.value());
            return says.value();
        } catch (NumberFormatException e) {
            return "A hole has a diameter.";
        }
    }

    private double scale() {
        return DxfDrawing.read(bytes)
                .toOptional()
                .map(d -> SheetScale.of(SheetMap.readyMade().read(d).getOrDefault("scale", ""))
                        .orElse(1))
                .orElse(1.0);
    }

    private List<Hole> holes(Scene scene) {
        Zones zones = Zones.of(scene);
        List<Hole> holes = new ArrayList<>();
        for (Primitive p : scene.primitives()) {
            if (p instanceof Primitive.Arc arc && Math.abs(arc.sweep()) > WHOLE)
                holes.add(new Hole(arc.x(), arc.y(), arc.radius() * 2 / scale(), zones.at(arc.x(), arc.y())));
        }
        return holes;
    }

    private synchronized String page(String said) {
        Scene scene = DxfDrawing.read(bytes)
                .toOptional()
                .flatMap(d -> d.scene().toOptional())
                .orElseThrow();
        StringBuilder rows = new StringBuilder();
        for (Hole hole : holes(scene)) {
            rows.append(String.format(
                    Locale.ROOT,
                    """
                    <form method="post" action="change"><label>%s <input name="diameter" value="%s" size="6" aria-label="Diameter of the hole at %s"></label>
                    <input type="hidden" name="x" value="%s"><input type="hidden" name="y" value="%s"><input type="hidden" name="radius" value="%s"><button>Change</button></form>
                    """,
                    text(hole.zone().isEmpty() ? "hole" : hole.zone()),
                    trimmed(hole.diameter()),
                    text(hole.zone()),
                    hole.x(),
                    hole.y(),
                    hole.diameter() * scale() / 2));
        }
        StringBuilder log = new StringBuilder();
        done.forEach(d -> log.append("<li>").append(text(d)));
        return """
                <!DOCTYPE html><html lang="en"><meta charset="utf-8"><title>%s</title><style>
                body { font: 15px/1.4 sans-serif; margin: 0; display: grid; grid-template-columns: 1fr 260px; height: 100vh; background: #fff; color: #222; }
                main { overflow: hidden; padding: 12px; } main svg { width: 100%%; height: 100%%; } aside { padding: 16px; border-left: 3px double #999; overflow: auto; }
                h1 { font-size: 16px; overflow-wrap: anywhere; } form { margin: 6px 0; } label { font-family: monospace; } button { padding: 4px 10px; }
                .save { font-weight: bold; padding: 8px 16px; }</style>
                <main>%s</main><aside><h1>%s</h1><p>A stand-in for a drafting program.<p role="status">%s</p><h2>Holes, by zone and diameter</h2>%s
                <h2>Not saved yet</h2><ol>%s</ol><form method="post" action="save"><button class="save">Save</button></form><form method="post" action="close"><button>Close</button></form></aside></html>
                """.formatted(
                        text(file.getFileName().toString()),
                        SvgWriter.write(scene, "The sheet"),
                        text(file.getFileName().toString()),
                        text(said),
                        rows,
                        log);
    }

    private static String trimmed(double number) {
        return String.format(Locale.ROOT, "%.2f", number).replaceAll("\\.?0+$", "");
    }

    private static String text(String raw) {
        return raw.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
