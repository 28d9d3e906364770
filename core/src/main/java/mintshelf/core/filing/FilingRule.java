package mintshelf.core.filing;

import com.google.re2j.Pattern;
import java.util.List;
import java.util.Optional;
import mintshelf.core.document.FileName;

/**
 * Decides the kind of a new file from its content and its name.
 *
 * @param contentKind what the content must be, empty for any
 * @param namePattern regular expression found in the file name, empty for any
 */
public record FilingRule(String contentKind, String namePattern, long kind, String kindName, String says) {

    private boolean fits(FileName name, String content) {
        return (contentKind.isEmpty() || contentKind.equals(content))
                && (namePattern.isEmpty()
                        || Pattern.compile(namePattern, Pattern.CASE_INSENSITIVE)
                                .matcher(name.name())
                                .find());
    }

    /** The first rule that fits. O(rules). */
    public static Optional<FilingRule> first(List<FilingRule> rules, FileName name, String contentKind) {
        return rules.stream().filter(r -> r.fits(name, contentKind)).findFirst();
    }
}
