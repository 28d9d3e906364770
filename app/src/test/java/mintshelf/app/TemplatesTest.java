package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** What templates are not to do, however harmless it looks. */
class TemplatesTest {
    private static final Path TEMPLATES = Path.of("src/main/resources/templates");
    private static final Pattern TAG = Pattern.compile("<[A-Za-z][^<>]*(?:\"[^\"]*\"[^<>]*)*>");
    private static final Pattern EACH = Pattern.compile("th:each=\"([^:\"]+):\\s*\\$\\{([^\"]*)}\"");
    private static final Pattern GUARD = Pattern.compile("th:(?:if|unless)=\"\\$\\{([^\"]*)}\"");

    private static List<Path> templates() throws IOException {
        try (Stream<Path> all = Files.walk(TEMPLATES)) {
            return all.filter(p -> p.toString().endsWith(".html")).sorted().toList();
        }
    }

    /** The loop is worked out before the guard beside it: a guard of what is looped over guards nothing. */
    @Test
    void noGuardStandsOnTheTagOfTheLoopThatItMeans() throws IOException {
        List<String> wrong = new ArrayList<>();
        for (Path template : templates()) {
            Matcher tag = TAG.matcher(Files.readString(template));
            while (tag.find()) {
                Matcher each = EACH.matcher(tag.group());
                if (!each.find()) continue;
                // A guard of the loop's own variable is asked for each turn: that is a filter.
                List<String> own =
                        Stream.of(each.group(1).split(",")).map(String::strip).toList();
                Matcher guard = GUARD.matcher(tag.group());
                while (guard.find()) {
                    String asked = guard.group(1);
                    if (own.stream()
                            .noneMatch(v -> Pattern.compile("\\b" + Pattern.quote(v) + "\\b")
                                    .matcher(asked)
                                    .find())) {
                        wrong.add(TEMPLATES.relativize(template) + ": " + each.group() + " beside " + guard.group());
                    }
                }
            }
        }
        assertThat(wrong).isEmpty();
    }

    /** A link whose address is made of a value that may be empty leads nowhere. */
    @Test
    void noLineIsLongerThanAnEyeFollows() throws IOException {
        List<String> wrong = new ArrayList<>();
        for (Path template : templates()) {
            int number = 0;
            for (String line : Files.readAllLines(template)) {
                number++;
                if (line.length() > 300)
                    wrong.add(TEMPLATES.relativize(template) + ":" + number + " has " + line.length());
            }
        }
        assertThat(wrong).isEmpty();
    }
}
