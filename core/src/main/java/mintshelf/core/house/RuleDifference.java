package mintshelf.core.house;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What one edition of a rule says otherwise than another.
 *
 * @param was empty for what was added
 * @param now empty for what is gone
 */
public record RuleDifference(What what, String subject, String was, String now) {
    /** How a line differs. */
    public enum What {
        ADDED("added"),
        GONE("gone"),
        CHANGED("changed"),
        /** It says the same at another place, and the order matters. */
        MOVED("moved");

        private final String words;

        What(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Line by line, by their keys; in the order of the later edition, what is gone last. A line that stands elsewhere among those
     * that both have is moved: those of the longest common order stay. O(n²) in lines.
     */
    public static List<RuleDifference> between(List<RuleLine> was, List<RuleLine> now) {
        Map<String, RuleLine> before = new HashMap<>();
        was.forEach(l -> before.put(l.key(), l));
        Set<String> after = new HashSet<>();
        now.forEach(l -> after.add(l.key()));
        Set<String> still = unmoved(
                was.stream().map(RuleLine::key).filter(after::contains).toList(),
                now.stream().map(RuleLine::key).filter(before::containsKey).toList());
        List<RuleDifference> differences = new ArrayList<>();
        for (RuleLine line : now) {
            RuleLine old = before.get(line.key());
            if (old == null) {
                differences.add(new RuleDifference(What.ADDED, line.subject(), "", line.says()));
            } else if (!old.says().equals(line.says())) {
                differences.add(new RuleDifference(What.CHANGED, line.subject(), old.says(), line.says()));
            } else if (!still.contains(line.key())) {
                differences.add(new RuleDifference(What.MOVED, line.subject(), old.says(), line.says()));
            }
        }
        for (RuleLine line : was) {
            if (!after.contains(line.key())) {
                differences.add(new RuleDifference(What.GONE, line.subject(), line.says(), ""));
            }
        }
        return List.copyOf(differences);
    }

    /** The keys of a longest common subsequence. */
    private static Set<String> unmoved(List<String> a, List<String> b) {
        int[][] longest = new int[a.size() + 1][b.size() + 1];
        for (int i = a.size() - 1; i >= 0; i--) {
            for (int k = b.size() - 1; k >= 0; k--) {
                longest[i][k] = a.get(i).equals(b.get(k))
                        ? longest[i + 1][k + 1] + 1
                        : Math.max(longest[i + 1][k], longest[i][k + 1]);
            }
        }
        Set<String> kept = new HashSet<>();
        int i = 0;
        int k = 0;
        while (i < a.size() && k < b.size()) {
            if (a.get(i).equals(b.get(k))) {
                kept.add(a.get(i));
                i++;
                k++;
            } else if (longest[i + 1][k] >= longest[i][k + 1]) {
                i++;
            } else {
                k++;
            }
        }
        return kept;
    }
}
