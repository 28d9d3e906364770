package mintshelf.app.page.structure;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.structure.KeepPartsList;
import mintshelf.core.drawing.Box;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The parts list of a sheet beside the assembly's lines; picking one rings its balloons. */
@Controller
public class PartsListPages {
    private final KeepPartsList lists;
    private final ReadSheet sheets;

    public PartsListPages(KeepPartsList lists, ReadSheet sheets) {
        this.lists = lists;
        this.sheets = sheets;
    }

    @GetMapping("/documents/{id}/parts-list")
    String page(Actor actor, @PathVariable long id, Model model) {
        KeepPartsList.Read read = lists.read(actor, id);
        model.addAttribute("r", read);
        model.addAttribute("boxes", new Boxes());
        if (read.hasList())
            model.addAttribute(
                    "sheet",
                    sheets.layout(
                            read.sheet().spine().content(),
                            Optional.empty(),
                            "/documents/" + id + "/versions/" + read.sheet().version()));
        return "structure/parts-list";
    }

    @PostMapping("/documents/{id}/parts-list")
    String write(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @RequestParam int version,
            @RequestParam(defaultValue = "") String why) {
        return "redirect:" + lists.write(actor, id, actKey, version, why);
    }

    /** Where balloons stand, as the page's script reads it. */
    public static final class Boxes {
        public String of(List<Box> boxes) {
            return boxes.stream()
                    .map(b -> b.minX() + " " + b.minY() + " " + b.maxX() + " " + b.maxY())
                    .collect(Collectors.joining(";"));
        }
    }
}
