package mintshelf.app.use.desk;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.ground.UnitOfWork;
import mintshelf.app.store.person.SignInStore;
import mintshelf.app.store.person.TokenStore;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Texts;
import org.springframework.stereotype.Service;

/** Personal tokens for programs, and the codes by which a companion gets one without a password. */
@Service
public class Tokens {
    /** Without letters and digits that are taken for each other. */
    private static final String LETTERS = "ABCDEFGHJKMNPQRSTUVWXYZ23456789";

    private static final int CODE = 10;
    private static final Duration CODE_LIVES = Duration.ofMinutes(10);
    private static final int LONGEST_DAYS = 400;
    private static final int MOST_TOKENS = 50;
    /** Codes that one address tries in a quarter of an hour. */
    private static final int MOST_CODES = 10;

    private static final SecureRandom RANDOM = new SecureRandom();

    private final TokenStore store;
    private final SignInStore signIns;
    private final UnitOfWork unit;
    private final Recorder recorder;
    private final Clock clock;

    public Tokens(TokenStore store, SignInStore signIns, UnitOfWork unit, Recorder recorder, Clock clock) {
        this.store = store;
        this.signIns = signIns;
        this.unit = unit;
        this.recorder = recorder;
        this.clock = clock;
    }

    public List<TokenStore.Token> of(Actor actor) {
        return store.of(actor.person(), clock.instant());
    }

    /** Makes a token; the answer is the only time that it is shown. */
    public String make(Actor actor, String label, boolean mayWrite, int days) {
        String clean = Texts.required("The name", label, 100).orElseThrow(Refused::new);
        if (days < 1 || days > LONGEST_DAYS) {
            throw Refused.because("token.days", "A token lives 1 to " + LONGEST_DAYS + " days.", "");
        }
        if (store.of(actor.person(), clock.instant()).size() >= MOST_TOKENS) {
            throw Refused.because(
                    "token.many", "You have " + MOST_TOKENS + " tokens already.", "Revoke those that nothing uses.");
        }
        return unit.run(() -> {
            String token = add(actor.person(), clean, mayWrite, days);
            recorder.noteHouse(actor, "token.made", "made a token, “" + clean + "”", "");
            return token;
        });
    }

    private String add(long person, String label, boolean mayWrite, int days) {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        String token = "mint_" + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        Instant now = clock.instant();
        store.add(person, hash(token), label, mayWrite, now, now.plus(Duration.ofDays(days)));
        return token;
    }

    public void revoke(Actor actor, long id) {
        unit.run(() -> {
            store.revoke(actor.person(), id, clock.instant());
            recorder.noteHouse(actor, "token.revoked", "revoked a token", "");
        });
    }

    /** A code for pairing a companion; good once, for ten minutes. The one before is good no more. */
    public String code(Actor actor) {
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < CODE; i++) code.append(LETTERS.charAt(RANDOM.nextInt(LETTERS.length())));
        unit.run(() -> store.offer(
                actor.person(), hash(code.toString()), clock.instant().plus(CODE_LIVES)));
        return code.substring(0, CODE / 2) + "-" + code.substring(CODE / 2);
    }

    /** Gives a token for a code; nothing for one that is wrong, old or used. */
    public Optional<String> redeem(String code, String label, String address) {
        unit.run(() -> signIns.noteSignIn(" pairing", address, clock.instant()));
        Instant since = clock.instant().minus(Duration.ofMinutes(15));
        boolean braked = signIns.tries(" pairing", address, since).pair() > MOST_CODES;
        if (braked) {
            throw Refused.because("pairing.braked", "Too many codes were tried.", "Wait a quarter of an hour.");
        }
        String clean = code.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]", "");
        String name = Texts.required("The desk", label, 100).orElseThrow(Refused::new);
        return unit.run(() -> {
            OptionalLong person = store.redeem(hash(clean), clock.instant());
            if (person.isEmpty()) return Optional.<String>empty();
            recorder.noteHouse(person, "", "token.made", "paired the companion on " + name);
            return Optional.of(add(person.getAsLong(), "companion on " + name, true, 180));
        });
    }

    /** Whose token it is; nothing for one that is not in force. */
    public Optional<TokenStore.Bearer> bearer(String token) {
        return store.bearer(hash(token), clock.instant());
    }

    private static ContentHash hash(String secret) {
        return ContentHash.compute(secret.getBytes(StandardCharsets.UTF_8));
    }
}
