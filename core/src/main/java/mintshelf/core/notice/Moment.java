package mintshelf.core.notice;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.Set;
import java.util.stream.Collectors;

/** Moments at which somebody who follows something is told. */
public enum Moment {
    VERSION("a version is checked in"),
    STAGE("it moves along its route"),
    RELEASE("a revision comes into force, or out of it");

    private final String words;

    Moment(String words) {
        this.words = words;
    }

    /** As in "Tell me when {words}". */
    public String words() {
        return words;
    }

    /** Whether who sees only what is in force may know of it. */
    public boolean isForReaders() {
        return this == RELEASE;
    }

    /** Moments as they are kept: their names with commas. Names that this release does not know are passed over. */
    public static Set<Moment> kept(String text) {
        Set<Moment> moments = EnumSet.noneOf(Moment.class);
        for (String name : text.split(",")) {
            Arrays.stream(values()).filter(m -> m.name().equals(name)).forEach(moments::add);
        }
        return moments;
    }

    public static String keep(Set<Moment> moments) {
        return moments.stream().sorted().map(Enum::name).collect(Collectors.joining(","));
    }
}
