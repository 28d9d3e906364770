package mintshelf.demo;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.store.run.Run;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.Outline;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.core.reuse.Design;
import mintshelf.core.structure.StructureView;
import mintshelf.demo.model.Models;
import mintshelf.demo.sheet.Sheets.Shape;

/** A gauge for shallow basins: its encoder head was begun from the one of the TG40 as it was released, and is made shorter. */
final class ShortGauge extends Chapter {
    private final ReadDesign read;
    private final ActOverSet over;

    ShortGauge(Book book) {
        super(book);
        this.read = hands.bean(ReadDesign.class);
        this.over = hands.bean(ActOverSet.class);
    }

    void tell() {
        hands.at(daysAgo(9, 9, 0));
        long shelf = book.shelves.addShelf(hands.actor("ines"), "TG41 Tide gauge, short", "for shallow basins");
        long folder = book.shelves.addFolder(hands.actor("ines"), shelf, OptionalLong.empty(), "3000 Encoder head");
        hands.at(daysAgo(9, 10, 20));
        Actor priya = hands.actor("priya");
        long head = doc("3000");
        ReadDesign.Asked asked = new ReadDesign.Asked(
                "TG40-####",
                "TG41-####",
                false,
                new Wish.Design(
                        head,
                        StructureView.LATEST_RELEASED,
                        Map.of(item(priya, "TG40-3040", "MODEL"), "TG40-3040"),
                        Optional.of(folder),
                        "",
                        List.of(new Design.Words("Encoder head", "Encoder head, short")),
                        List.of(),
                        false));
        Outline outline = read.of(priya, asked).outline();
        over.begin(
                priya,
                Run.What.NEW_DESIGN,
                outline.copies().stream().map(c -> c.from().id()).toList(),
                Wish.design(MakeDesign.said(asked.wish(), outline)),
                Optional.empty(),
                Hands.key());
        say();
        long housing = item(priya, "TG41-3010", "MODEL");
        hands.checkOut(daysAgo(6, 8, 30), "priya", housing, "BENCH-3", "30 lower");
        hands.checkIn(
                daysAgo(6, 11, 40),
                "priya",
                housing,
                Models.part(
                        "TG41-3010",
                        "Housing",
                        "316L",
                        "2.6",
                        new Shape.Plate(240, 180, 62, 14, 96, 6.6, 12),
                        "2026-11-20T09:40:00"),
                "30 lower for the shallow basin",
                false);
        say();
        hands.checkOut(daysAgo(1, 9, 10), "priya", item(priya, "TG41-3010", "DRAWING"), "BENCH-3", "30 lower");
        say();
    }

    private long item(Actor actor, String number, String aspect) {
        return hands.bean(Numbered.class).all(actor, number).stream()
                .map(s -> s.spine().id())
                .filter(i -> hands.bean(LinkStore.class).aspect(i).equals(aspect))
                .findFirst()
                .orElseThrow();
    }
}
