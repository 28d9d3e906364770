package mintshelf.core.filing;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;

/** What a file name says: a number in front, where there is one, and a title. */
public record NameReading(Optional<String> number, String title) {
    private static final Pattern NUMBER =
            Pattern.compile("^([A-Za-z]{1,5}\\d{0,4}-\\d{2,6}(?:-\\d{1,4})?|\\d{4,10})(?=[ _.-]|$)");

    /** "tg40-3030_gland-plate.dxf" reads as TG40-3030, "Gland plate". */
    public static NameReading of(FileName name) {
        String stem = name.stem();
        Matcher number = NUMBER.matcher(stem);
        Optional<String> found = Optional.empty();
        String rest = stem;
        if (number.find()) {
            found = Optional.of(number.group(1).toUpperCase(Locale.ROOT));
            rest = stem.substring(number.end());
        }
        String title = Texts.line(rest.replaceAll("[_\\s]+", " ").replaceAll("(?<=\\p{L})-(?=\\p{L})", " "))
                .replaceAll("^[-–. ]+|[-–. ]+$", "");
        if (title.isEmpty()) title = found.orElse(stem);
        int first = title.codePointAt(0);
        if (Character.isLowerCase(first)) {
            title = new StringBuilder()
                    .appendCodePoint(Character.toUpperCase(first))
                    .append(title.substring(Character.charCount(first)))
                    .toString();
        }
        return new NameReading(found, title);
    }
}
