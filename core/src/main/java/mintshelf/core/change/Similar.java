package mintshelf.core.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * How like another open request one is: by the documents that both name, the words that both use, the cause that both have.
 *
 * @param score 3 for each document, 1 for each word, 1 for the cause
 * @param why in words: "2 documents alike, “pitting”"
 */
public record Similar(long request, int score, String why) {
    /** A document alike says more than words. */
    private static final int DOCUMENT = 3;

    /** Words alone must be several. */
    private static final int LEAST = 2;

    private static final int SHORTEST = 4;

    /** What is compared. */
    public record Of(long request, Collection<Long> documents, String words, String cause) {}

    /** The requests that are like one, the most first; at most so many. O(requests × (documents + words)). */
    public static List<Similar> of(Of one, Collection<Of> others, int most) {
        Set<Long> documents = new HashSet<>(one.documents());
        Set<String> words = words(one.words());
        List<Similar> found = new ArrayList<>();
        for (Of other : others) {
            if (other.request() == one.request()) continue;
            long alike = new HashSet<>(other.documents())
                    .stream().filter(documents::contains).count();
            List<String> same = words(other.words()).stream()
                    .filter(words::contains)
                    .sorted()
                    .toList();
            boolean cause = !one.cause().isEmpty() && one.cause().equals(other.cause());
            int score = (int) alike * DOCUMENT + same.size() + (cause ? 1 : 0);
            if (score < LEAST || (alike == 0 && same.size() < LEAST)) continue;
            found.add(new Similar(other.request(), score, why(alike, same)));
        }
        found.sort(Comparator.comparingInt(Similar::score)
                .reversed()
                .thenComparing(Similar::request, Comparator.reverseOrder()));
        return found.subList(0, Math.min(most, found.size()));
    }

    private static String why(long alike, List<String> same) {
        List<String> parts = new ArrayList<>();
        if (alike > 0) parts.add(alike == 1 ? "the same document" : alike + " documents alike");
        if (!same.isEmpty()) parts.add("“" + String.join("”, “", same.subList(0, Math.min(3, same.size()))) + "”");
        return String.join(", ", parts);
    }

    /** Words of four letters and more, in small letters. */
    private static Set<String> words(String text) {
        Set<String> words = new HashSet<>();
        for (String word : text.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")) {
            if (word.length() >= SHORTEST) words.add(word);
        }
        return words;
    }
}
