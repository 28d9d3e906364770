package mintshelf.app.page.document;

import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What stands around a document, put into the models of its pages. */
@Component
class Around {
    private final ReadStructure structure;
    private final ReadWhereUsed used;

    Around(ReadStructure structure, ReadWhereUsed used) {
        this.structure = structure;
        this.used = used;
    }

    /** Its own first level and where it is used, for a panel. */
    void fill(Actor actor, long id, Model model) {
        model.addAttribute("structure", structure.firstLevel(actor, id));
        model.addAttribute("used", used.of(actor, id, false));
    }

    /** What it consists of and where it is used; a drawing that refers to nothing shows what its model consists of. */
    void fillPage(Actor actor, long id, Model model) {
        ReadWhereUsed.Used around = used.of(actor, id, false);
        ReadStructure.Structure own = structure.firstLevel(actor, id);
        Optional<Seen> shows = own.rows().isEmpty() ? around.shows() : Optional.empty();
        ReadStructure.Structure consists =
                shows.map(s -> structure.firstLevel(actor, s.spine().id())).orElse(own);
        model.addAttribute("structure", consists);
        model.addAttribute("structureOf", consists.top());
        model.addAttribute("standing", consists.standing());
        model.addAttribute("used", around);
    }
}
