package mintshelf.core.fact;

import java.time.LocalDate;
import java.util.Objects;

/**
 * How a fact comes to its value.
 *
 * @param preset what it is where nobody says otherwise, as typed; {@code today} for a day, {@code me} for a person: who files
 * @param property of a model, from which a fact that is read is taken; empty for none
 * @param formula what a computed fact is put together from; empty for others
 */
public record FactUse(String preset, FactSource source, String formula, String property, FactHands hands) {
    /** Editions that were kept before models were read name no property. */
    public FactUse {
        property = Objects.requireNonNullElse(property, "");
    }

    /** The preset of a day: the one on which a document is filed. */
    public static final String TODAY = "today";

    /** The preset of a person: who files it. */
    public static final String ME = "me";

    public static final FactUse USUAL = new FactUse("", FactSource.BOTH, "", "", FactHands.USUAL);

    public FactUse from(FactSource other, String put) {
        return new FactUse(preset, other, put, property, hands);
    }

    /** Taken from a property of models, where it is read at all. */
    public FactUse of(String named) {
        return new FactUse(preset, source, formula, named, hands);
    }

    public FactUse preset(String value) {
        return new FactUse(value, source, formula, property, hands);
    }

    public FactUse by(FactHands other) {
        return new FactUse(preset, source, formula, property, other);
    }

    /** The preset, for who files on a day; as {@link FactReader} reads it. */
    public String presetFor(FactType type, String login, LocalDate today) {
        if (type == FactType.DATE && preset.equals(TODAY)) return today.toString();
        if (type == FactType.PERSON && preset.equals(ME)) return login;
        return preset;
    }
}
