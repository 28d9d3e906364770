package mintshelf.app.api;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.design.ReadDesign.Asked;
import mintshelf.core.base.Texts;
import mintshelf.core.reuse.Design;
import mintshelf.core.structure.StructureView;

/**
 * A new design, as a program asks for it.
 *
 * @param root what it begins from
 * @param view as-saved, latest or latest-released
 * @param rule by which numbers become others; without one the series of the kinds give them where {@code series} says so
 * @param rows what single things are called, by the document that stands in others: empty leaves it out, its own number shares it
 * @param folder into which all goes, and {@code newFolder} the name of one that is made in there
 * @param hold whether what is made is held
 */
record DesignOf(
        @NotNull Long root,
        String view,
        @Valid Rule rule,
        Boolean series,
        List<@NotNull @Valid Row> rows,
        Long folder,
        String newFolder,
        List<@NotNull @Valid Words> titles,
        List<@NotNull @Valid Fact> facts,
        Boolean hold) {
    /** {@code TG40-####} and {@code TG41-####}. */
    record Rule(@NotNull String from, @NotNull String to) {}

    record Row(@NotNull Long document, @NotNull String number) {}

    record Words(@NotNull String from, @NotNull String to) {}

    /** @param from of those that say this; of all when it is left out */
    record Fact(@NotNull String fact, String from, @NotNull String to) {}

    private static final int MOST = 20;

    Asked asked() {
        Map<Long, String> typed = new HashMap<>();
        if (rows != null) rows.forEach(r -> typed.put(r.document(), Texts.line(r.number())));
        return new Asked(
                rule == null ? "" : rule.from(),
                rule == null ? "" : rule.to(),
                Boolean.TRUE.equals(series),
                new Wish.Design(
                        root,
                        shown(),
                        typed,
                        Optional.ofNullable(folder),
                        newFolder == null ? "" : newFolder.strip(),
                        titles == null
                                ? List.of()
                                : titles.stream()
                                        .limit(MOST)
                                        .map(w -> new Design.Words(w.from(), w.to()))
                                        .toList(),
                        facts == null
                                ? List.of()
                                : facts.stream()
                                        .limit(MOST)
                                        .map(f -> new Wish.Design.Fact(
                                                f.fact(), f.from() == null ? "" : f.from(), f.to()))
                                        .toList(),
                        Boolean.TRUE.equals(hold)));
    }

    private StructureView shown() {
        if (view == null) return StructureView.LATEST;
        for (StructureView one : List.of(StructureView.AS_SAVED, StructureView.LATEST, StructureView.LATEST_RELEASED))
            if (one.code().equals(view)) return one;
        throw Refused.because(
                "act.unknown",
                "There is no view “" + view + "” of a new design.",
                "Take as-saved, latest or latest-released; nothing was done.");
    }
}
