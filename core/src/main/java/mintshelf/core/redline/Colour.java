package mintshelf.core.redline;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The inks of marks. Amber, blue and plum are not among them: they tell differences. */
public enum Colour {
    BRICK(0xa93226),
    TEAL(0x0b6070),
    MOSS(0x3f6614),
    ROSE(0xa3195b),
    RUST(0x7c4a12),
    SLATE(0x44525e);

    private final int rgb;

    Colour(int rgb) {
        this.rgb = rgb;
    }

    /** 0xRRGGBB; each stands out from white by 4.5 to 1 at least (WCAG 2.2, 1.4.3). */
    public int rgb() {
        return rgb;
    }

    public String code() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<Colour> of(String code) {
        return Arrays.stream(values()).filter(c -> c.code().equals(code)).findFirst();
    }

    /** The ink of somebody who chose none: reviewers of one sheet mostly differ. */
    public static Colour of(long person) {
        return values()[Math.floorMod(person, values().length)];
    }
}
