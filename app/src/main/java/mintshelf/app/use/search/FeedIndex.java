package mintshelf.app.use.search;

import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.HouseRules;
import mintshelf.app.store.search.NodeIndex;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Keeps this node's index up to date, and makes it anew when a keeper of the house asks for it. */
@Service
public class FeedIndex implements AutoCloseable {
    private final NodeIndex index;
    private final Recorder recorder;
    private final Acts acts;
    /** Of its own: to make an index takes minutes where there is much, and what else is scheduled does not wait for it. */
    private final ExecutorService making = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "index");
        thread.setDaemon(true);
        return thread;
    });

    private final AtomicBoolean busy = new AtomicBoolean();

    FeedIndex(NodeIndex index, Recorder recorder, Acts acts) {
        this.index = index;
        this.recorder = recorder;
        this.acts = acts;
    }

    /** How it stands: how many entries, and how far the next one is. */
    public record Standing(int entries, boolean ready, Optional<NodeIndex.Progress> making) {}

    public Standing standing(Actor actor) {
        HouseRules.ask(actor);
        return new Standing(index.size(), index.isReady(), index.progress());
    }

    @Scheduled(initialDelayString = "PT0.2S", fixedDelayString = "PT1S")
    public void catchUp() {
        start(index::catchUp);
    }

    /** Makes it anew from the database alone, while the old one serves. */
    public void rebuild(Actor actor, String key) {
        HouseRules.ask(actor);
        acts.once(actor, key, () -> {
            recorder.noteHouse(actor, "index.anew", "has the search index of a node made anew", "");
            return "";
        });
        start(index::rebuild);
    }

    private void start(Runnable work) {
        if (!busy.compareAndSet(false, true)) return;
        making.execute(() -> {
            try {
                work.run();
            } catch (RuntimeException e) {
                LoggerFactory.getLogger(FeedIndex.class).warn("The index was not fed; it is tried again", e);
            } finally {
                busy.set(false);
            }
        });
    }

    @Override
    public void close() {
        making.shutdownNow();
    }
}
