package mintshelf.core.document;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;

/**
 * What is made of the released versions of a kind, and how the files are called.
 *
 * @param formats in their order
 * @param name with places in braces: {@code {number}}, {@code {revision}}, {@code {title}}, {@code {kind}}
 */
public record Outputs(List<OutputFormat> formats, String name) {
    /** What a kind makes that says nothing: the PDF of its drawings. */
    public static final Outputs USUAL = new Outputs(List.of(OutputFormat.PDF), "{number}_{revision}");

    private static final Pattern PLACE = Pattern.compile("\\{([a-z]*)}");
    private static final Set<String> PLACES = Set.of("number", "revision", "title", "kind");
    /** What no usual file system, shell or mail takes in a name; and what turns the direction of writing. */
    private static final Pattern NOT_IN_NAMES = Pattern.compile("[\\\\/:*?\"<>|\\p{Cntrl}\\p{Cf}\\u2028\\u2029]");

    private static final int LONGEST = 120;

    public Outputs {
        Set<OutputFormat> all = EnumSet.noneOf(OutputFormat.class);
        all.addAll(formats);
        formats = List.copyOf(all);
    }

    /** Those that can be made of a content. */
    public List<OutputFormat> of(ContentKind content) {
        return formats.stream().filter(f -> f.isOf(content)).toList();
    }

    /** In words: "PDF, STEP copy, called {number}_{revision}". */
    public String says() {
        if (formats.isEmpty()) return "nothing";
        List<String> words = new ArrayList<>();
        formats.forEach(f -> words.add(f.words()));
        return String.join("; ", words) + "; called " + name;
    }

    /** What is wrong with the name. */
    public Optional<Refusal> ask() {
        if (formats.isEmpty()) return Optional.empty();
        if (!name.contains("{number}")) {
            return Optional.of(Refusal.of(
                    "outputs.name",
                    "“" + name + "” would call the files of many documents alike.",
                    "Put {number} into the name."));
        }
        Matcher places = PLACE.matcher(name);
        while (places.find()) {
            if (PLACES.contains(places.group(1))) continue;
            return Optional.of(Refusal.of(
                    "outputs.name",
                    "{" + places.group(1) + "} is no place that a name has.",
                    "Use {number}, {revision}, {title} and {kind}."));
        }
        if (name.length() > LONGEST) {
            return Optional.of(
                    Refusal.of("outputs.name", "That name is longer than " + LONGEST + " letters.", "Cut it."));
        }
        return Optional.empty();
    }

    /**
     * The name of a file. What no file system takes becomes a dash; it is never empty, never hidden, and never longer than 120 letters
     * before its ending.
     */
    public String named(String number, String revision, String title, String kind, OutputFormat format) {
        Map<String, String> said = Map.of("number", number, "revision", revision, "title", title, "kind", kind);
        StringBuilder out = new StringBuilder();
        Matcher places = PLACE.matcher(name);
        int from = 0;
        while (places.find()) {
            out.append(name, from, places.start()).append(said.getOrDefault(places.group(1), ""));
            from = places.end();
        }
        String file = NOT_IN_NAMES
                .matcher(out.append(name.substring(from)))
                .replaceAll("-")
                .strip()
                .replaceAll("\\s+", " ")
                .replaceAll("^[.\\s]+|[.\\s_-]+$", "");
        if (file.length() > LONGEST)
            file = file.substring(0, file.offsetByCodePoints(0, file.codePointCount(0, LONGEST - 1)));
        return (file.isEmpty() ? "file" : file) + "." + format.ending();
    }
}
