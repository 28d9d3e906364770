package mintshelf.core.fact;

import java.time.LocalDate;

/**
 * How a fact comes to its value.
 *
 * @param preset what it is where nobody says otherwise, as typed; {@code today} for a day, {@code me} for a person: who files
 * @param formula what a computed fact is put together from; empty for others
 */
public record FactUse(String preset, FactSource source, String formula, FactHands hands) {
    /** The preset of a day: the one on which a document is filed. */
    public static final String TODAY = "today";

    /** The preset of a person: who files it. */
    public static final String ME = "me";

    public static final FactUse USUAL = new FactUse("", FactSource.BOTH, "", FactHands.USUAL);

    public FactUse from(FactSource other, String put) {
        return new FactUse(preset, other, put, hands);
    }

    public FactUse preset(String value) {
        return new FactUse(value, source, formula, hands);
    }

    public FactUse by(FactHands other) {
        return new FactUse(preset, source, formula, other);
    }

    /** The preset, for who files on a day; as {@link FactReader} reads it. */
    public String presetFor(FactType type, String login, LocalDate today) {
        if (type == FactType.DATE && preset.equals(TODAY)) return today.toString();
        if (type == FactType.PERSON && preset.equals(ME)) return login;
        return preset;
    }
}
