package mintshelf.core.reference;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.document.FileName;

/** Where files lie in a pack, and how they name each other there, so that it opens wherever it is unpacked. */
public final class PackNames {
    private PackNames() {}

    /** How a pack is laid out. */
    public enum Layout {
        ONE_FOLDER("all in one folder"),
        AS_ON_SHELVES("in the folders of the shelves");

        private final String words;

        Layout(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** As it stands in an address. */
        public String code() {
            return this == ONE_FOLDER ? "one" : "shelves";
        }

        /** The layout of a code; one folder for anything else. */
        public static Layout of(String code) {
            return code.equals(AS_ON_SHELVES.code()) ? AS_ON_SHELVES : ONE_FOLDER;
        }
    }

    /**
     * A file that is packed.
     *
     * @param folders in which its document lies, the shelf first
     */
    public record File(long document, List<String> folders, String fileName) {
        public File {
            folders = List.copyOf(folders);
        }
    }

    /** The path of each in the pack, with slashes, by document; equal names get a number. O(files). */
    public static Map<Long, String> places(List<File> files, Layout layout) {
        Map<Long, String> places = new LinkedHashMap<>();
        Set<String> used = new HashSet<>();
        for (File file : files) {
            StringBuilder folder = new StringBuilder();
            if (layout == Layout.AS_ON_SHELVES)
                for (String one : file.folders())
                    folder.append(FileName.of(one).name()).append('/');
            FileName name = FileName.of(file.fileName());
            FileName one = name;
            for (int i = 2; !used.add(folder.toString().toLowerCase(java.util.Locale.ROOT) + one.key()); i++)
                one = name.numbered(i);
            places.put(file.document(), folder + one.name());
        }
        return places;
    }

    /**
     * How a file names another one in the pack; nothing where what is written leads there already.
     *
     * @param path as it is written
     * @param from path of the file that writes it, {@code to} of the one that is meant
     */
    public static Optional<String> written(String path, String from, String to) {
        String wanted = Resolution.relative(folders(from), folders(to), to.substring(to.lastIndexOf('/') + 1));
        String now = path.strip().replace('\\', '/');
        while (now.startsWith("./")) now = now.substring(2);
        return now.equals(wanted) ? Optional.empty() : Optional.of(wanted);
    }

    private static List<String> folders(String path) {
        int cut = path.lastIndexOf('/');
        return cut < 0 ? List.of() : List.of(path.substring(0, cut).split("/"));
    }
}
