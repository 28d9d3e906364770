package mintshelf.core.base;

/**
 * A "no" as a value: what is refused, why, and who or what can lift it. A page prints it, a test names its code.
 *
 * @param code stable, lower case with dots: {@code hold.taken}
 * @param reason a sentence that says what is in the way
 * @param remedy a sentence that says how it is lifted; empty where nothing lifts it
 */
public record Refusal(String code, String reason, String remedy) {
    public static Refusal of(String code, String reason, String remedy) {
        return new Refusal(code, reason, remedy);
    }

    /** Reason and remedy as one text. */
    public String says() {
        return remedy.isEmpty() ? reason : reason + " " + remedy;
    }
}
