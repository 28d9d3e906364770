package mintshelf.core.desk;

import java.util.Optional;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A link of a page to the companion: {@code mint-shelf:open/TAG/CODE} (a URI of a scheme of its own, RFC 3986, without an authority). It says for which
 * desk it is and carries a code that is good once; it names neither a server nor a document nor a path, so that whoever makes one up reaches nothing.
 *
 * @param tag by which a desk knows its links
 * @param code that is good once
 */
public record DeskLink(String tag, String code) {
    /** The scheme that is registered with a machine. */
    public static final String SCHEME = "mint-shelf";

    /** Letters of a tag. */
    public static final int TAG = 16;

    /** Letters of a code: 26 of 32 are 130 bits. */
    private static final int CODE = 26;

    private static final String LETTERS = "abcdefghijklmnopqrstuvwxyz234567";

    /** Some programs write an empty authority before the path, or a slash behind it. */
    private static final Pattern LINK =
            Pattern.compile(SCHEME + ":(?://)?open/([0-9a-f]{" + TAG + "})/([a-z2-7]{" + CODE + "})/?");

    /** A new code. */
    public static String code(Random random) {
        StringBuilder code = new StringBuilder();
        for (int i = 0; i < CODE; i++) code.append(LETTERS.charAt(random.nextInt(LETTERS.length())));
        return code.toString();
    }

    /** Reads a link; nothing for whatever else a program hands over. */
    public static Optional<DeskLink> read(String text) {
        Matcher m = LINK.matcher(text);
        return m.matches() ? Optional.of(new DeskLink(m.group(1), m.group(2))) : Optional.empty();
    }

    /** The link as a page follows it. */
    public String text() {
        return SCHEME + ":open/" + tag + "/" + code;
    }
}
