package mintshelf.app.effect;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.core.document.Holder;
import org.springframework.stereotype.Component;

/** Asks whoever holds documents to check them in: told once for all of theirs, noted in the record of each. */
@Component
public class AskHolder {
    private static final int NAMED = 3;

    private final Recorder recorder;
    private final Telling telling;

    AskHolder(Recorder recorder, Telling telling) {
        this.recorder = recorder;
        this.telling = telling;
    }

    /** @param all that {@code holder} has checked out, one at least */
    public void ask(Actor actor, Holder holder, List<Seen> all, String words) {
        List<String> numbers =
                all.stream().map(s -> s.document().number()).distinct().toList();
        String named = String.join(", ", numbers.subList(0, Math.min(NAMED, numbers.size())))
                + (numbers.size() > NAMED ? " and " + (numbers.size() - NAMED) + " more" : "");
        List<String> ids =
                all.stream().map(s -> Long.toString(s.spine().id())).limit(20).toList();
        telling.tell(
                actor,
                List.of(holder.person()),
                "hold.asked",
                Optional.empty(),
                all.get(0).spine().id(),
                actor.name() + " asks for " + named + (words.isEmpty() ? "." : ": " + words),
                "/check-in?items=" + String.join(",", ids));
        for (Seen seen : all) {
            recorder.note(
                    actor,
                    seen.spine().id(),
                    "hold.asked",
                    seen.document().head().number(),
                    "asked " + holder.name() + " for it",
                    words);
        }
    }
}
