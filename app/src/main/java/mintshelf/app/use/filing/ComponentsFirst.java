package mintshelf.app.use.filing;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import mintshelf.app.store.content.Upload;
import mintshelf.app.store.filing.FilingStore.Row;
import mintshelf.core.document.FileName;
import mintshelf.core.reference.Written;

/** The order in which rows of a sheet are filed when they go in portions. */
final class ComponentsFirst {
    private ComponentsFirst() {}

    /** What is referred to by others of the sheet goes before them, so that they find it. */
    static List<Row> of(List<Row> rows, Map<Long, Upload> files, Map<String, List<Written>> read) {
        Map<String, Row> named = new HashMap<>();
        rows.forEach(r ->
                named.put(FileName.of(files.get(r.upload()).fileName()).key(), r));
        Set<Row> order = new LinkedHashSet<>();
        Set<Row> begun = new HashSet<>();
        Deque<Row> open = new ArrayDeque<>();
        for (Row start : rows) {
            open.push(start);
            while (!open.isEmpty()) {
                Row row = open.peek();
                if (!begun.add(row)) {
                    order.add(open.pop());
                    continue;
                }
                for (Written one : read.getOrDefault(files.get(row.upload()).token(), List.of())) {
                    Row component = named.get(FileName.of(one.path()).key());
                    if (component != null && !begun.contains(component)) open.push(component);
                }
            }
        }
        return List.copyOf(order);
    }
}
