package mintshelf.app.page;

import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.house.EditionNote;
import mintshelf.core.house.RuleDifference;
import org.springframework.ui.Model;

/** The editions of a rule on its page, and what another one says otherwise where that is asked. */
public final class Beside {
    private Beside() {}

    /**
     * Fills {@code editions}, and {@code beside} with {@code differences}.
     *
     * @param all the latest first
     * @param between what the later of two says otherwise
     * @param asked number of an edition; not there when there is none of it
     */
    public static <E> void fill(
            Model model,
            List<E> all,
            Function<E, EditionNote> note,
            BiFunction<E, E, List<RuleDifference>> between,
            Optional<Integer> asked) {
        model.addAttribute("editions", all.stream().map(note).toList());
        if (asked.isEmpty()) return;
        E other = all.stream()
                .filter(e -> note.apply(e).number() == asked.get())
                .findFirst()
                .orElseThrow(NotThere::new);
        model.addAttribute("beside", note.apply(other));
        model.addAttribute("differences", between.apply(other, all.get(0)));
    }
}
