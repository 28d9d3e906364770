package mintshelf.app.use.structure;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.setup.Settings;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.RevisionRow;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.core.document.Revision;
import mintshelf.core.structure.StructureView;
import org.springframework.stereotype.Component;

/**
 * Parts with revisions of their own beside the documents that draw them: which revision of the part a view shows. It is no version of a file, so a
 * list that is frozen, or of a day, has the one that was in force then; all others have what is under way, else what is in force.
 */
@Component
class OwnParts {
    private final NumberStore numbers;
    private final Sight sight;
    private final RevisionStore revisions;
    private final Settings settings;

    OwnParts(NumberStore numbers, Sight sight, RevisionStore revisions, Settings settings) {
        this.numbers = numbers;
        this.sight = sight;
        this.revisions = revisions;
        this.settings = settings;
    }

    /**
     * By document the revision of its part, of those that have one of their own, as far as somebody sees it. Where the view has none of it, the
     * document speaks for its part.
     *
     * @param day of a view of a day
     */
    Map<Long, Revision> of(Actor actor, Seen top, StructureView view, LocalDate day, Collection<Long> items) {
        Map<Long, Long> parts = numbers.ownParts(items);
        if (parts.isEmpty()) return Map.of();
        Map<Long, Seen> seen = sight.of(actor, parts.values());
        Optional<Instant> moment = moment(top, view, day);
        Optional<Map<Long, Revision>> then = moment.map(at -> revisions.inForceBy(parts.values(), at));
        Map<Long, Revision> shown = new HashMap<>();
        parts.forEach((item, part) -> {
            Seen one = seen.get(part);
            if (one == null || one.document().dropped()) return;
            Optional<Revision> now = view.isReleasedOnly() ? one.document().released() : Optional.of(one.current());
            then.map(t -> Optional.ofNullable(t.get(part))).orElse(now).ifPresent(r -> shown.put(item, r));
        });
        return shown;
    }

    private Optional<Instant> moment(Seen top, StructureView view, LocalDate day) {
        if (view == StructureView.ON_DATE)
            return Optional.of(day.plusDays(1).atStartOfDay(settings.zone()).toInstant());
        if (view != StructureView.AS_RELEASED) return Optional.empty();
        return top.document()
                .released()
                .flatMap(r -> revisions.revisions(top.spine().id()).stream()
                        .filter(row -> row.revision().id() == r.id())
                        .findFirst()
                        .flatMap(RevisionRow::releasedAt));
    }
}
