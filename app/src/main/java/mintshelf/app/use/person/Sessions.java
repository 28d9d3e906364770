package mintshelf.app.use.person;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.core.base.ContentHash;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Service;

/** Where somebody is signed in, and ending that. */
@Service
public class Sessions {
    /** What a session is kept under by whoever asked to stay signed in. */
    private static final Duration STAYS = Duration.ofDays(1);

    /** The session under way, so that a list can say "this one" and a change of password can spare it. */
    private static final ThreadLocal<String> NOW = new ThreadLocal<>();

    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final UnitOfWork unit;
    private final Recorder recorder;

    public Sessions(FindByIndexNameSessionRepository<? extends Session> sessions, UnitOfWork unit, Recorder recorder) {
        this.sessions = sessions;
        this.unit = unit;
        this.recorder = recorder;
    }

    /**
     * A session.
     *
     * @param name by which it is ended; its own id is a secret
     * @param here whether it is the one that asks
     * @param stays whether it outlives the closing of the browser
     */
    public record Open(String name, Instant since, Instant last, boolean here, boolean stays) {}

    /** Says which session the request on this thread belongs to. */
    public static void here(String id) {
        if (id == null) NOW.remove();
        else NOW.set(id);
    }

    public List<Open> of(Actor actor) {
        return sessions.findByPrincipalName(actor.login()).values().stream()
                .map(s -> new Open(
                        name(s),
                        s.getCreationTime(),
                        s.getLastAccessedTime(),
                        s.getId().equals(NOW.get()),
                        s.getMaxInactiveInterval().compareTo(STAYS) > 0))
                .sorted(Comparator.comparing(Open::last).reversed())
                .toList();
    }

    private static String name(Session session) {
        return ContentHash.compute(session.getId().getBytes(StandardCharsets.US_ASCII))
                .shortHex();
    }

    /** Ends one of the actor's own sessions. */
    public void end(Actor actor, String name) {
        Session found = sessions.findByPrincipalName(actor.login()).values().stream()
                .filter(s -> name(s).equals(name))
                .findFirst()
                .orElseThrow(NotThere::new);
        sessions.deleteById(found.getId());
        unit.run(() -> recorder.noteHouse(actor, "person.session_ended", "ended a session", ""));
    }

    /** Ends all sessions of the actor but the one that asks. */
    public void endOthers(Actor actor) {
        sessions.findByPrincipalName(actor.login()).keySet().stream()
                .filter(id -> !id.equals(NOW.get()))
                .forEach(sessions::deleteById);
    }

    void endAll(String login) {
        sessions.findByPrincipalName(login).keySet().forEach(sessions::deleteById);
    }
}
