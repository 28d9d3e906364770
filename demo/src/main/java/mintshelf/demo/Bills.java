package mintshelf.demo;

import java.time.LocalDate;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.structure.KeepBaselines;
import mintshelf.app.use.structure.KeepBaselines.Of;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;
import mintshelf.core.structure.StructureView;

/** Lines of bills of materials that no file has: the grease, the label, how many metres of tape. */
final class Bills extends Chapter {
    Bills(Book book) {
        super(book);
    }

    void tell() {
        Actor tomasz = hands.actor("tomasz");
        KeepBomLines lines = hands.bean(KeepBomLines.class);
        long head = model(tomasz, "TG40-3000");
        hands.at(daysAgo(9, 10, 5));
        write(lines, head, "", "Shaft grease", "20", "g", "", "0.03");
        write(lines, head, "EGW-NL-07", "Name label", "1", "pc", "", "");
        write(lines, head, "", "Locking fluid", "2", "ml", "0.0011", "0.2");
        hands.at(daysAgo(8, 14, 20));
        long tape = model(tomasz, "TG40-2000");
        lines.say(tomasz, tape, Hands.key(), model(tomasz, "EGW-FT-12"), "", "6.2", "m");
        say();
        acceptance();
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
