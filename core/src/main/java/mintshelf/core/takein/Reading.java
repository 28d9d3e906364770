package mintshelf.core.takein;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.NameReading;

/**
 * What a name on an old drive says: a number in front, a revision behind it or at the end, a title between.
 *
 * @param revision as written, upper case; empty where the name says none
 */
record Reading(Optional<String> number, String revision, String title) {
    /** "_rev B", " Rev.03", "-index C" at the end of a name, or a bare capital behind an underline: "_B". */
    private static final Pattern AT_END = Pattern.compile(
            "(?:[ _.-]+(?i:rev(?:ision)?|index)[ _.-]*([A-Za-z]{1,2}|\\d{1,3})|_([A-Z]{1,2}|\\d{1,2}))$");

    /** The same right behind the number: "TG40-3030_B_gland plate". */
    private static final Pattern IN_FRONT = Pattern.compile(
            "^(?:[ _.-]+(?i:rev(?:ision)?|index)[ _.-]*([A-Za-z]{1,2}|\\d{1,3})|_([A-Z]{1,2}|\\d{1,2}))(?=[ _.-])");

    static Reading of(FileName name) {
        String stem = name.stem();
        Optional<String> number = NameReading.of(name).number();
        String front = number.map(n -> stem.substring(0, n.length())).orElse("");
        String rest = stem.substring(front.length());
        String revision = "";
        Matcher end = AT_END.matcher(rest);
        Matcher first = IN_FRONT.matcher(rest);
        // Without a number "plan_B" is a name; with one it is its revision.
        if (number.isPresent() && end.find()) {
            revision = which(end);
            rest = rest.substring(0, end.start());
        } else if (number.isPresent() && first.find()) {
            revision = which(first);
            rest = rest.substring(first.end());
        }
        String title = NameReading.of(FileName.of(front + rest + ".x")).title();
        return new Reading(number, revision.toUpperCase(Locale.ROOT), title);
    }

    private static String which(Matcher found) {
        return Optional.ofNullable(found.group(1)).orElseGet(() -> found.group(2));
    }
}
