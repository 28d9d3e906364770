package mintshelf.app.page;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import mintshelf.app.sight.Seen;

/** Rows of a list that are one thing: a drawing and its model share a number. Only of what stands in the list, which its reader sees. */
public final class OneNumber {
    private OneNumber() {}

    /** By document the kinds of the others of its number: "part model". */
    public static Map<Long, String> of(List<Seen> rows) {
        Map<String, List<Seen>> byNumber = rows.stream()
                .filter(s -> !s.spine().isChangePaper())
                .collect(Collectors.groupingBy(s -> s.document().number()));
        Map<Long, String> others = new HashMap<>();
        for (Seen one : rows) {
            String kinds = byNumber.getOrDefault(one.document().number(), List.of()).stream()
                    .filter(o -> o.spine().id() != one.spine().id())
                    .map(o -> o.spine().kindName())
                    .distinct()
                    .collect(Collectors.joining(" and "));
            if (!kinds.isEmpty()) others.put(one.spine().id(), kinds);
        }
        return others;
    }
}
