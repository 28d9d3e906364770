package mintshelf.core.structure;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** Which version of a component a structure is read with. */
public enum StructureView {
    AS_SAVED("as saved", "Each assembly with the versions that it was saved with."),
    LATEST("latest", "The latest version of everything."),
    LATEST_RELEASED("latest released", "What is in force now. What was never released has no version here."),
    AS_RELEASED("as released", "What was in force when the assembly was released."),
    ON_DATE("on date", "What was the latest at the end of that day.");

    private final String words;
    private final String rule;

    StructureView(String words, String rule) {
        this.words = words;
        this.rule = rule;
    }

    public String words() {
        return words;
    }

    /** The rule, as the page names it. */
    public String rule() {
        return rule;
    }

    /** As it stands in an address. */
    public String code() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** By its code; nothing for another text. */
    public static Optional<StructureView> of(String code) {
        return Arrays.stream(values()).filter(v -> v.code().equals(code)).findFirst();
    }

    /** Whether it shows released versions only, as readers get them. */
    public boolean isReleasedOnly() {
        return this == LATEST_RELEASED || this == AS_RELEASED;
    }
}
