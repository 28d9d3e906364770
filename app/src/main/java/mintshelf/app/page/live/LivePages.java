package mintshelf.app.page.live;

import jakarta.annotation.PreDestroy;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.columns.FactColumns;
import mintshelf.app.use.live.Live;
import mintshelf.app.use.live.Live.Moved;
import mintshelf.app.use.live.Live.News;
import mintshelf.app.use.live.Live.Scope;
import mintshelf.app.use.shelf.ReadShelf;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * What moved while a page is open: server-sent events (HTML Standard, 9.2), in pieces of four minutes after which the browser asks again, so
 * that a session that has ended is noticed; and the same as an answer for pages whose stream fails.
 */
@Controller
public class LivePages {
    private static final long MINUTES_4 = 240_000L;

    private final Live live;
    private final ReadShelf shelves;
    private final FactColumns columns;
    private final Set<Stream> streams = ConcurrentHashMap.newKeySet();
    /** A browser that takes nothing holds one of these up, and nobody's looking. */
    private final ExecutorService senders = Executors.newFixedThreadPool(4, work -> {
        Thread thread = new Thread(work, "live pages");
        thread.setDaemon(true);
        return thread;
    });

    public LivePages(Live live, ReadShelf shelves, FactColumns columns) {
        this.columns = columns;
        this.live = live;
        this.shelves = shelves;
    }

    /** A page's stream, with what waits to be sent. */
    private final class Stream {
        private final SseEmitter emitter = new SseEmitter(MINUTES_4);
        private final Map<Long, Moved> waiting = new LinkedHashMap<>();
        private boolean today;
        private boolean sending;
        private boolean beat;

        void news(News news) {
            synchronized (waiting) {
                news.documents().forEach(m -> waiting.put(m.document(), m));
                today |= news.today();
            }
            send();
        }

        void beat() {
            synchronized (waiting) {
                beat = true;
            }
            send();
        }

        void end() {
            try {
                emitter.complete();
            } catch (IllegalStateException e) {
                // Its browser has gone a moment before.
                streams.remove(this);
            }
        }

        private void send() {
            synchronized (waiting) {
                if (sending) return;
                sending = true;
            }
            senders.execute(this::sendAll);
        }

        private void sendAll() {
            try {
                while (true) {
                    News news;
                    synchronized (waiting) {
                        if (waiting.isEmpty() && !today && !beat) {
                            sending = false;
                            return;
                        }
                        news = new News(List.copyOf(waiting.values()), today);
                        waiting.clear();
                        today = false;
                        beat = false;
                    }
                    emitter.send(
                            news.isEmpty()
                                    ? SseEmitter.event().comment("here")
                                    : SseEmitter.event().name("moved").data(news, MediaType.APPLICATION_JSON));
                }
            } catch (IOException | IllegalStateException e) {
                streams.remove(this);
                end();
            }
        }
    }

    @GetMapping(path = "/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter stream(
            Actor actor,
            @RequestParam(defaultValue = "0") long shelf,
            @RequestParam(defaultValue = "0") long document,
            @RequestParam(defaultValue = "false") boolean today,
            HttpServletResponse response) {
        response.setHeader("Cache-Control", "no-store");
        response.setHeader("X-Accel-Buffering", "no");
        Stream stream = new Stream();
        Optional<Live.Ends> listens = live.listen(actor, new Scope(shelf, document, today), stream::news);
        if (listens.isEmpty()) {
            // Too many pages: this one asks from time to time.
            response.setStatus(204);
            stream.emitter.complete();
            return stream.emitter;
        }
        streams.add(stream);
        Runnable ends = () -> {
            listens.get().end();
            streams.remove(stream);
        };
        stream.emitter.onCompletion(ends);
        stream.emitter.onTimeout(stream.emitter::complete);
        stream.emitter.onError(e -> ends.run());
        stream.beat();
        return stream.emitter;
    }

    /** So that a browser that is gone is noticed, and nobody between takes the stream for dead. */
    @Scheduled(fixedDelayString = "PT20S")
    void beat() {
        streams.forEach(Stream::beat);
    }

    @PreDestroy
    void end() {
        senders.shutdownNow();
        streams.forEach(Stream::end);
    }

    /** What moved, with the moment from which to ask next. */
    public record Since(List<Moved> documents, boolean today, long now) {}

    /** @param since the moment of the answer before, in milliseconds; 0 to learn from which one to ask */
    @GetMapping("/live/since")
    @ResponseBody
    Since since(
            Actor actor,
            @RequestParam(defaultValue = "0") long shelf,
            @RequestParam(defaultValue = "0") long document,
            @RequestParam(defaultValue = "false") boolean today,
            @RequestParam(defaultValue = "0") long since) {
        Live.Answer answer = live.since(actor, new Scope(shelf, document, today), Instant.ofEpochMilli(since));
        return new Since(
                answer.news().documents(), answer.news().today(), answer.now().toEpochMilli());
    }

    /** The row of a document in a list, as it stands now. */
    @GetMapping("/documents/{id}/row")
    String row(Actor actor, @PathVariable long id, Model model) {
        ReadShelf.RowNow row = shelves.row(actor, id);
        model.addAttribute("seen", row.seen());
        model.addAttribute("columns", columns.of(actor, List.of(row.seen())));
        model.addAttribute("returned", row.returned());
        model.addAttribute("toSign", row.toSign());
        return "shelf/_row :: row";
    }
}
