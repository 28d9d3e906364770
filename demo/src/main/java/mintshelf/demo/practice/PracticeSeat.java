package mintshelf.demo.practice;

import java.io.IOException;
import java.io.InputStream;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Sheets;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.Scene;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.ExternalReference;
import mintshelf.core.drawing.svg.SvgWriter;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/**
 * The page of the practice seat. The drawing comes with each request and leaves with its answer; nothing is kept here, and only
 * the browser writes it, to the desk's real file.
 */
@Controller
public class PracticeSeat {
    private static final int LARGEST = 16 << 20;

    private final Sheets sheets;

    public PracticeSeat(Sheets sheets) {
        this.sheets = sheets;
    }

    @GetMapping("/practice")
    String page(@RequestParam String path, Model model) {
        model.addAttribute("path", path);
        return "practice/page";
    }

    /**
     * A drawing as the page shows it.
     *
     * @param svg in drawing units, upside down
     * @param references the paths that it refers to
     * @param bytes of the file, Base64; empty when they are those that came
     * @param says what was done
     */
    public record Shown(String svg, List<String> references, String bytes, String says) {}

    @PostMapping("/practice/show")
    @ResponseBody
    Shown show(InputStream body) throws IOException {
        return shown(read(body), "", "");
    }

    /** @param act pull, resize, drill, plug, retext, or point */
    @PostMapping("/practice/change")
    @ResponseBody
    Shown change(
            InputStream body,
            @RequestParam String act,
            @RequestParam(defaultValue = "0") double x,
            @RequestParam(defaultValue = "0") double y,
            @RequestParam(defaultValue = "0") double x2,
            @RequestParam(defaultValue = "0") double y2,
            @RequestParam(defaultValue = "0") double reach,
            @RequestParam(defaultValue = "0") double dx,
            @RequestParam(defaultValue = "0") double dy,
            @RequestParam(defaultValue = "0") double diameter,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String from)
            throws IOException {
        byte[] bytes = read(body);
        if (act.equals("point")) {
            DxfDrawing drawing = DxfDrawing.read(bytes).orElseThrow(Refused::new);
            byte[] now = ExternalReference.renamed(drawing, Map.of(from, text)).orElseThrow(Refused::new);
            return shown(now, encoded(now), "It refers to " + text + " instead of " + from + " now.");
        }
        double scale = sheets.scale(DxfDrawing.read(bytes).orElseThrow(Refused::new));
        SheetEdit edit = SheetEdit.of(bytes).orElseThrow(Refused::new).at(scale);
        Outcome<String> done = switch (act) {
            case "pull" ->
                edit.pull(new Box(Math.min(x, x2), Math.min(y, y2), Math.max(x, x2), Math.max(y, y2)), dx, dy);
            case "resize" -> edit.resize(x, y, reach, diameter);
            case "drill" -> edit.drill(x, y, diameter);
            case "plug" -> edit.plug(x, y, reach);
            case "retext" -> edit.retext(x, y, reach, text);
            default -> Outcome.refused("practice.act", "That cannot be done here.", "");
        };
        String says = done.orElseThrow(Refused::new);
        return shown(edit.bytes(), encoded(edit.bytes()), says);
    }

    private static String encoded(byte[] bytes) {
        return Base64.getEncoder().encodeToString(bytes);
    }

    private static Shown shown(byte[] bytes, String encoded, String says) {
        DxfDrawing drawing = DxfDrawing.read(bytes).orElseThrow(Refused::new);
        Scene scene = Sheets.scene(drawing)
                .orElseThrow(() -> Refused.because("practice.large", "The drawing is too large to be shown here.", ""));
        List<String> references = ExternalReference.of(drawing).stream()
                .map(ExternalReference::path)
                .distinct()
                .toList();
        return new Shown(SvgWriter.write(scene, "The drawing"), references, encoded, says);
    }

    private static byte[] read(InputStream body) throws IOException {
        byte[] bytes = body.readNBytes(LARGEST + 1);
        if (bytes.length > LARGEST) {
            throw Refused.because("practice.large", "The practice seat takes drawings of up to 16 MB.", "");
        }
        return bytes;
    }

    @ExceptionHandler(Refused.class)
    @ResponseBody
    ProblemDetail refused(Refused e) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.CONFLICT, e.refusal().reason());
        problem.setProperty("remedy", e.refusal().remedy());
        return problem;
    }
}
