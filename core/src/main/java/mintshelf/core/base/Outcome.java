package mintshelf.core.base;

import java.util.Optional;
import java.util.function.Function;

/** What a rule answers: a value, or the refusal that stands in its way. */
public sealed interface Outcome<T> {
    /** What was granted; nothing where it was refused. */
    default Optional<T> toOptional() {
        return this instanceof Granted<T> granted ? Optional.of(granted.value()) : Optional.empty();
    }

    /** The rule grants {@code value}. */
    record Granted<T>(T value) implements Outcome<T> {}

    /** The rule refuses. */
    record Refused<T>(Refusal why) implements Outcome<T> {}

    static <T> Outcome<T> granted(T value) {
        return new Granted<>(value);
    }

    static <T> Outcome<T> refused(String code, String reason, String remedy) {
        return new Refused<>(new Refusal(code, reason, remedy));
    }

    static <T> Outcome<T> refused(Refusal refusal) {
        return new Refused<>(refusal);
    }

    /** The value, or the exception that {@code onRefusal} makes of the refusal. */
    default <E extends RuntimeException> T orElseThrow(Function<Refusal, E> onRefusal) {
        if (this instanceof Refused<T> refused) throw onRefusal.apply(refused.why());
        return ((Granted<T>) this).value();
    }

    /** What is made of the value; the same refusal where there is none. */
    default <R> Outcome<R> map(Function<T, R> made) {
        return this instanceof Refused<T> refused
                ? new Refused<>(refused.why())
                : new Granted<>(made.apply(((Granted<T>) this).value()));
    }

    /** What a next rule answers to the value; the same refusal where there is none. */
    default <R> Outcome<R> flatMap(Function<T, Outcome<R>> next) {
        return this instanceof Refused<T> refused
                ? new Refused<>(refused.why())
                : next.apply(((Granted<T>) this).value());
    }

    default Optional<Refusal> refusal() {
        return this instanceof Refused<T> refused ? Optional.of(refused.why()) : Optional.empty();
    }

    default boolean isGranted() {
        return this instanceof Granted<T>;
    }
}
