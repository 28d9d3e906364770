package mintshelf.core.reference;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Texts;
import mintshelf.core.document.FileName;

/** Which document a path as written means. Nothing is guessed: where two remain, a person picks. */
public sealed interface Resolution {
    /** One document is meant. */
    record Found(long document) implements Resolution {}

    /** Several documents have that name, by id. */
    record Ambiguous(List<Long> documents) implements Resolution {
        public Ambiguous {
            documents = List.copyOf(documents);
        }
    }

    /** No document has that name. */
    record Missing() implements Resolution {}

    /**
     * Where a document lies, for looking names up.
     *
     * @param folders names from the shelf down to its folder, the shelf first
     * @param library whether its shelf serves other shelves
     */
    record Filed(long document, String fileName, long shelf, List<String> folders, boolean library) {
        public Filed {
            folders = List.copyOf(folders);
        }
    }

    /**
     * Looks a path up: along the path from the parent's folder, then by its file name on the parent's shelf, then on library
     * shelves. Upper and lower case count as one. O(candidates × depth).
     *
     * @param path as written; slashes either way, absolute ones only say the file's name
     * @param parent where the file that carries the path lies
     * @param candidates documents with that file name, anywhere
     * @param picked what the same path meant in the version before; taken when it is among those that remain
     */
    static Resolution of(String path, Filed parent, Collection<Filed> candidates, Optional<Long> picked) {
        String key = fileKey(path);
        List<Filed> named = candidates.stream()
                .filter(c -> FileName.of(c.fileName()).key().equals(key) && c.document() != parent.document())
                .toList();
        Optional<List<String>> place = walk(path, parent.folders());
        if (place.isPresent()) {
            List<Filed> there = named.stream()
                    .filter(c -> keys(c.folders()).equals(place.get()))
                    .toList();
            if (there.size() == 1) return new Found(there.get(0).document());
        }
        for (boolean library : new boolean[] {false, true}) {
            List<Filed> found = named.stream()
                    .filter(c -> library ? c.library() : c.shelf() == parent.shelf())
                    .toList();
            if (found.isEmpty()) continue;
            return one(found, picked);
        }
        // On a shelf that is neither the parent's nor a library: only what a person picked once.
        return picked.filter(p -> named.stream().anyMatch(c -> c.document() == p))
                .<Resolution>map(Found::new)
                .orElseGet(() -> named.isEmpty()
                        ? new Missing()
                        : new Ambiguous(named.stream().map(Filed::document).toList()));
    }

    private static Resolution one(List<Filed> found, Optional<Long> picked) {
        if (found.size() == 1) return new Found(found.get(0).document());
        Optional<Filed> before = found.stream()
                .filter(c -> picked.filter(p -> p == c.document()).isPresent())
                .findFirst();
        if (before.isPresent()) return new Found(before.get().document());
        return new Ambiguous(found.stream().map(Filed::document).toList());
    }

    /** The key of the file's name in a path, as file names are compared in a folder. */
    static String fileKey(String path) {
        return FileName.of(path).key();
    }

    /** Whether a path leads to the folder of what it means; nothing for one that leads nowhere on the shelves. */
    static Optional<Boolean> leads(String path, Filed parent, Filed component) {
        return walk(path, parent.folders()).map(at -> at.equals(keys(component.folders())));
    }

    private static List<String> keys(List<String> names) {
        return names.stream().map(Texts::key).toList();
    }

    /** The folders that a relative path leads to, by their keys; nothing for an absolute path, and one that leaves the shelves. */
    private static Optional<List<String>> walk(String path, List<String> from) {
        String slashes = path.replace('\\', '/');
        if (slashes.startsWith("/") || slashes.matches("^[A-Za-z][A-Za-z0-9+.-]*:.*")) return Optional.empty();
        List<String> at = new ArrayList<>(keys(from));
        String[] parts = slashes.split("/");
        for (int i = 0; i < parts.length - 1; i++) {
            String part = parts[i].strip();
            if (part.isEmpty() || part.equals(".")) continue;
            if (!part.equals("..")) {
                at.add(Texts.key(part));
            } else if (at.isEmpty()) {
                return Optional.empty();
            } else {
                at.remove(at.size() - 1);
            }
        }
        return Optional.of(List.copyOf(at));
    }

    /**
     * The path from one folder to a file in another one, as a file on a desk refers to it.
     *
     * @param from folders of the file that refers, the shelf first
     * @param to folders of the file that is meant
     */
    public static String relative(List<String> from, List<String> to, String fileName) {
        int same = 0;
        while (same < from.size() && same < to.size() && from.get(same).equals(to.get(same))) same++;
        return "../".repeat(from.size() - same)
                + to.subList(same, to.size()).stream().map(f -> f + "/").reduce("", String::concat)
                + fileName;
    }
}
