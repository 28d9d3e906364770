package mintshelf.core.reference;

import java.util.Optional;
import mintshelf.core.document.FileName;
import mintshelf.core.reference.Resolution.Filed;

/** How a file is to write the name of another one that was renamed or moved. */
public final class WrittenAnew {
    private WrittenAnew() {}

    /**
     * The path that leads to a component as it lies now. What is written without folders stays without them, an absolute path and one that
     * leaves the shelf keep theirs; a relative one leads to its folder. O(length).
     *
     * @param path as it is written
     * @param parent where the file that writes it lies
     * @param component where what it means lies
     * @return nothing where what is written says it already, upper and lower case aside
     */
    public static Optional<String> path(String path, Filed parent, Filed component) {
        int cut = Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1;
        String folders = path.substring(0, cut);
        boolean sameName = Resolution.fileKey(path)
                .equals(FileName.of(component.fileName()).key());
        Optional<Boolean> leads = Resolution.leads(path, parent, component);
        boolean lost = cut > 0 && leads.filter(l -> !l).isPresent() && component.shelf() == parent.shelf();
        if (sameName && !lost) return Optional.empty();
        if (!lost) return Optional.of(folders + component.fileName());
        String anew = Resolution.relative(parent.folders(), component.folders(), component.fileName());
        return Optional.of(folders.indexOf('\\') >= 0 && folders.indexOf('/') < 0 ? anew.replace('/', '\\') : anew);
    }
}
