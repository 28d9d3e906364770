package mintshelf.app.page.takein;

import mintshelf.app.ground.Actor;
import mintshelf.app.use.takein.BringTaken;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the page of a taking-in sends beside itself: which files come, or an archive; answered as uploads are. */
@RestController
class BringTakenPages {
    private final BringTaken bring;

    BringTakenPages(BringTaken bring) {
        this.bring = bring;
    }

    @PostMapping("/uploads/take-ins/{id}/files")
    BringTaken.Coming file(Actor actor, @PathVariable long id, @RequestParam String path, @RequestParam long size) {
        return bring.open(actor, id, path, size);
    }

    @PostMapping("/uploads/take-ins/{id}/archive")
    BringTaken.Coming archive(Actor actor, @PathVariable long id, @RequestParam String name, @RequestParam long size) {
        return bring.openArchive(actor, id, name, size);
    }
}
