package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import mintshelf.core.bom.FileVariants.Told;
import org.junit.jupiter.api.Test;

class FileVariantsTest {
    private static Variant variant(String name, String number, String... facts) {
        return new Variant(name, number, facts.length == 0 ? Map.of() : Map.of(facts[0], facts[1]));
    }

    @Test
    void productsBesideEachOtherAreVariantsByTheirNames() {
        List<Variant> variants = FileVariants.of(
                List.of(
                        new Told("TG40-4030-L", "left", Map.of("mass", "0.41", "finish", "blasted")),
                        new Told("TG40-4030", "right", Map.of())),
                "tg40-4030");
        assertThat(variants)
                .as("the document's own number is none of a variant's; only facts that may differ are taken")
                .containsExactly(variant("left", "TG40-4030-L", "mass", "0.41"), variant("right", ""));
    }

    @Test
    void whatIsCalledTheSameOrNothingIsKnownByItsId() {
        assertThat(FileVariants.of(
                        List.of(
                                new Told("G-1", "Gusset", Map.of()),
                                new Told("G-2", "gusset", Map.of()),
                                new Told("G-3", " ", Map.of()),
                                new Told("x".repeat(60), "", Map.of())),
                        "G"))
                .extracting(Variant::name)
                .containsExactly("G-1", "G-2", "G-3", "x".repeat(39) + "…");
        assertThat(FileVariants.of(List.of(new Told("G-1", "Gusset", Map.of())), "G"))
                .as("one product is the document's own part")
                .isEmpty();
        assertThat(FileVariants.of(List.of(), "G")).isEmpty();
    }

    @Test
    void whatTheFileSaysCountsAndWhatItDoesNotSayStays() {
        List<Variant> now = List.of(
                new Variant("Left", "L-1", Map.of("mass", "0.41", "cost", "12")),
                variant("wide", "W-1"),
                variant("short", ""));
        List<Variant> over = FileVariants.over(
                now,
                List.of(
                        variant("left", "L-9", "mass", "0.43"),
                        variant("broad", "w-1", "mass", "1"),
                        variant("short", "S-1"),
                        variant("long", "")));
        assertThat(Variant.changes(now, over))
                .containsExactly(
                        "Left: mass 0.41 → 0.43",
                        "wide: mass as the document says → 1",
                        "short: number as the document says → S-1",
                        "long: new");
        assertThat(FileVariants.over(over, List.of(variant("left", "L-9", "mass", "0.43"))))
                .as("taken once it is as the file says")
                .isEqualTo(over);
    }
}
