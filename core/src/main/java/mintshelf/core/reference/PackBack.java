package mintshelf.core.reference;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;

/**
 * What comes back of a pack: which file is of which document of it. By its place in the pack, also where somebody packed it into
 * folders of theirs, then by a file name that only one has, then by a number at the front of its name. O(files).
 */
public final class PackBack {
    private PackBack() {}

    /** A file that was sent. */
    public record Sent(long document, String number, String path) {}

    /**
     * A file that came.
     *
     * @param document that it is of; nothing where the pack has none like it
     * @param refusal why it is not taken; nothing where it is
     */
    public record Match(String path, Optional<Long> document, Optional<Refusal> refusal) {}

    /** @param came paths as the archive says them, in its order; of two files for one document the first is taken */
    public static List<Match> match(List<Sent> sent, List<String> came) {
        Map<String, Long> byPath = new HashMap<>();
        Map<String, Set<Long>> byName = new HashMap<>();
        for (Sent one : sent) {
            byPath.put(key(one.path()), one.document());
            byName.computeIfAbsent(key(name(one.path())), n -> new HashSet<>()).add(one.document());
        }
        Set<Long> taken = new HashSet<>();
        List<Match> all = new ArrayList<>();
        for (String path : came) {
            if (leadsOut(path)) {
                all.add(refused(path, "pack.path", "Its path leads out of the archive.", "Pack it anew."));
                continue;
            }
            Optional<Long> document = byPath(byPath, path)
                    .or(() -> only(byName.getOrDefault(key(name(path)), Set.of())))
                    .or(() -> byNumber(sent, name(path)));
            if (document.isPresent() && !taken.add(document.get())) {
                all.add(refused(path, "pack.twice", "Another file came for its document.", "Leave one of them out."));
                continue;
            }
            all.add(new Match(path, document, Optional.empty()));
        }
        return all;
    }

    private static Match refused(String path, String code, String reason, String remedy) {
        return new Match(path, Optional.empty(), Optional.of(Refusal.of(code, reason, remedy)));
    }

    /** Whether a path names a place outside of its archive, or none that is the same everywhere. */
    static boolean leadsOut(String path) {
        String one = path.replace('\\', '/');
        return one.isBlank()
                || one.startsWith("/")
                || one.matches("(?s)[A-Za-z]:.*")
                || one.chars().anyMatch(c -> c < ' ')
                || List.of(one.split("/", -1)).contains("..");
    }

    /** By the whole path, or by what is left of it without folders at its front. */
    private static Optional<Long> byPath(Map<String, Long> byPath, String path) {
        String left = key(path);
        while (true) {
            Long found = byPath.get(left);
            if (found != null) return Optional.of(found);
            int cut = left.indexOf('/');
            if (cut < 0) return Optional.empty();
            left = left.substring(cut + 1);
        }
    }

    private static Optional<Long> only(Set<Long> documents) {
        return documents.size() == 1 ? documents.stream().findFirst() : Optional.empty();
    }

    /** The longest number that stands at the front of the name, with nothing of a number behind it; of one document alone. */
    private static Optional<Long> byNumber(List<Sent> sent, String name) {
        String now = name.toLowerCase(Locale.ROOT);
        String best = "";
        Set<Long> of = new HashSet<>();
        for (Sent one : sent) {
            String number = one.number().toLowerCase(Locale.ROOT);
            boolean fits = now.startsWith(number)
                    && (now.length() == number.length() || !Character.isLetterOrDigit(now.charAt(number.length())));
            if (!fits || number.length() < best.length()) continue;
            if (number.length() > best.length()) of.clear();
            best = number;
            of.add(one.document());
        }
        return only(of);
    }

    private static String key(String path) {
        String one = path.replace('\\', '/');
        while (one.startsWith("./")) one = one.substring(2);
        return one.toLowerCase(Locale.ROOT);
    }

    private static String name(String path) {
        String one = path.replace('\\', '/');
        return one.substring(one.lastIndexOf('/') + 1);
    }
}
