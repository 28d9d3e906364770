package mintshelf.app.page.change;

import java.util.List;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.document.ReadFacts;
import mintshelf.app.use.job.ReadJobs;
import org.springframework.stereotype.Component;

/** What stands on an order's page beside its lines and its board. */
@Component
class BesideOrder {
    private final KeepDisposition dispositions;
    private final ReadJobs jobs;
    private final ReadDocument documents;

    BesideOrder(KeepDisposition dispositions, ReadJobs jobs, ReadDocument documents) {
        this.dispositions = dispositions;
        this.jobs = jobs;
        this.documents = documents;
    }

    /** What becomes of the old ones. */
    KeepDisposition.View old(Actor actor, long order) {
        return dispositions.view(actor, order);
    }

    List<ReadJobs.View> jobs(Actor actor, long order) {
        return jobs.of(actor, order);
    }

    /** What its own fact sheet says, for kinds of orders that have one. */
    List<ReadFacts.Line> facts(Actor actor, long order) {
        return documents.view(actor, order).facts();
    }
}
