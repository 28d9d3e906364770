package mintshelf.demo;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.Kind;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.house.KeepRates;
import mintshelf.app.use.part.BeginPart;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.structure.KeepBaselines;
import mintshelf.app.use.structure.KeepBaselines.Of;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.app.use.structure.KeepVariants;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.RollUp;
import mintshelf.core.bom.Variant;
import mintshelf.core.structure.StructureView;

/** Lines of bills of materials that no file has: the grease and the label, which are parts without a file, how many metres of tape. */
final class Bills extends Chapter {
    Bills(Book book) {
        super(book);
    }

    void tell() {
        hands.at(daysAgo(200, 9, 0));
        hands.bean(KeepRates.class).keep(hands.actor("ines"), Hands.key(), "DKK", "0.134");
        Actor tomasz = hands.actor("tomasz");
        KeepBomLines lines = hands.bean(KeepBomLines.class);
        long head = model(tomasz, "TG40-3000");
        hands.at(daysAgo(9, 10, 5));
        part(head, "EGW-SG-02", "Shaft grease", grease("0.03", "5"));
        grease(lines, head, "EGW-SG-02", "20", new Effectivity.Typed("", "", "", "0149", ""));
        // What it costs is not known: sums say so.
        part(
                head,
                "EGW-NL-07",
                "Name label",
                Map.of("comes", "bought", "unit", "pc", "material", "aluminium", "mass", "0.004"));
        write(lines, head, "EGW-NL-07", "", "1", "pc", "", "");
        write(lines, head, "", "Locking fluid", "2", "ml", "0.0011", "0.2");
        hands.at(daysAgo(8, 14, 20));
        long tape = model(tomasz, "TG40-2000");
        lines.say(tomasz, tape, Hands.key(), model(tomasz, "EGW-FT-12"), Typed.said("", "6.2", "m"));
        say();
        hands.at(daysAgo(7, 9, 15));
        part(head, "EGW-SG-03", "Shaft grease, winter grade", grease("0.05", "12"));
        grease(lines, head, "EGW-SG-03", "18", new Effectivity.Typed("", "", "0150", "", ""));
        hands.bean(KeepVariants.class)
                .say(tomasz, tape, Hands.key(), RollUp.Of.MASS, "4.46", "weighed at the works, tape on its pulley");
        say();
        gussets(tomasz, lines);
        acceptance();
    }

    private static Map<String, String> grease(String cost, String days) {
        return Map.of(
                "comes",
                "bought",
                "unit",
                "g",
                "mass",
                "0.001",
                "cost",
                cost,
                "lead-time",
                days,
                "supplier",
                "Smed Oils");
    }

    /** A part without a file, beside a document, released at once. */
    private void part(long beside, String number, String title, Map<String, String> said) {
        Actor tomasz = hands.actor("tomasz");
        Kind kind = hands.bean(HouseStore.class).kind("bought-part");
        long folder = hands.bean(Sight.class).of(tomasz, beside).spine().folder();
        String made = hands.bean(BeginPart.class)
                .make(
                        tomasz,
                        Hands.key(),
                        new BeginPart.Wish(Optional.of(folder), Optional.of(kind.id()), number, title, said));
        hands.bean(MoveDocument.class)
                .move(tomasz, Long.parseLong(made.substring("/documents/".length())), Hands.key(), "release", 1, "");
    }

    private void grease(KeepBomLines lines, long head, String number, String grams, Effectivity.Typed when) {
        lines.write(
                hands.actor("tomasz"),
                head,
                Hands.key(),
                new Typed(0, "", number, "", grams, "g", "", "", "", "", when));
    }

    /** One of the four gussets of a mast holds the lamp stay. */
    private void gussets(Actor tomasz, KeepBomLines lines) {
        long gusset = model(tomasz, "TG40-4030");
        hands.start(daysAgo(8, 15, 0), "tomasz", gusset, "one of four with a tab for the lamp stay", false);
        hands.at(daysAgo(8, 15, 10));
        hands.bean(KeepVariants.class)
                .keep(
                        tomasz,
                        gusset,
                        Hands.key(),
                        List.of(
                                new Variant("plain", "TG40-4030-P", Map.of()),
                                new Variant("with tab", "TG40-4030-T", Map.of("mass", "0.97", "cost", "11.2"))));
        long mast = model(tomasz, "TG40-4000");
        lines.say(
                tomasz,
                mast,
                Hands.key(),
                gusset,
                new Typed(0, "", "", "", "3", "pc", "", "", "", "plain", Effectivity.Typed.NOTHING));
        write(lines, mast, "TG40-4030-T", "", "1", "pc", "", "");
        say();
    }

    /** What was accepted at the works, before the clamp became longer and the lamp stay came. */
    private void acceptance() {
        Actor ines = hands.actor("ines");
        Of station = Of.structure(
                model(ines, "TG40-0000"), StructureView.ON_DATE, LocalDate.ofInstant(daysAgo(30, 12, 0), ZONE));
        hands.at(daysAgo(6, 15, 30));
        hands.bean(KeepBaselines.class)
                .keep(
                        ines,
                        Hands.key(),
                        station,
                        "Factory acceptance",
                        "as it stood at the works when the customer looked at it");
        say();
    }

    private void write(
            KeepBomLines lines,
            long item,
            String number,
            String title,
            String quantity,
            String unit,
            String mass,
            String cost) {
        lines.write(
                hands.actor("tomasz"),
                item,
                Hands.key(),
                new Typed(0, "", number, title, quantity, unit, "bought", mass, cost));
    }

    private long model(Actor actor, String number) {
        return hands.bean(Numbered.class).all(actor, number).stream()
                .map(s -> s.spine().id())
                .filter(i -> hands.bean(LinkStore.class).aspect(i).equals("MODEL"))
                .findFirst()
                .orElseThrow();
    }
}
