package mintshelf.app.effect;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.notice.NoticeStore;
import org.springframework.stereotype.Component;

/** Tells those who were told that something is in force that it is not to be trusted. Within the caller's transaction. */
@Component
public class WarnOfReleased {
    private final NoticeStore notices;
    private final SpineStore spines;
    private final Telling telling;

    public WarnOfReleased(NoticeStore notices, SpineStore spines, Telling telling) {
        this.notices = notices;
        this.spines = spines;
        this.telling = telling;
    }

    /** Document by document; they may not see the request itself, so that the page of the document is named. */
    public void warn(Actor actor, long request, String number, String title, Collection<Long> documents) {
        Map<Long, Set<Long>> told = notices.toldOfReleased(documents);
        Map<Long, Spine> items = spines.spines(told.keySet());
        told.forEach((item, people) -> telling.tell(
                actor,
                telling.reading(people, items.get(item).document().place()),
                "request.now",
                Optional.empty(),
                item,
                actor.name() + " asks in " + number + " for a change of "
                        + items.get(item).document().number() + " now: " + title,
                "/documents/" + item));
    }
}
