package mintshelf.demo;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.trial.AskOpinions;
import mintshelf.app.use.trial.StartTrial;
import mintshelf.app.use.trial.TrialHolds;
import mintshelf.core.trial.Opinion;
import mintshelf.demo.Parts.Part;
import mintshelf.demo.model.Models;
import mintshelf.demo.sheet.Sheets.Shape;

/** Two ideas for the float, each on a trial of its own beside what is released: a thinner wall, and ribs. */
final class FloatTrial extends Chapter {
    private static final String NUMBER = "TG40-2010";

    private final StartTrial start;
    private final TrialHolds holds;
    private final AskOpinions ask;
    private final Trials trials;

    FloatTrial(Book book) {
        super(book);
        this.start = hands.bean(StartTrial.class);
        this.holds = hands.bean(TrialHolds.class);
        this.ask = hands.bean(AskOpinions.class);
        this.trials = hands.bean(Trials.class);
    }

    void tell() {
        Actor priya = hands.actor("priya");
        Actor tomasz = hands.actor("tomasz");
        long sheet = item(priya, "DRAWING");
        long model = item(priya, "MODEL");
        hands.at(daysAgo(8, 9, 30));
        long thinner =
                id(start.start(priya, List.of(sheet, model), "Thinner wall, so that it floats higher", Hands.key()));
        say();
        version(
                8,
                priya,
                thinner,
                Map.of(sheet, sheet(lighter(86), "Wall 2.5", 8), model, model(lighter(86), "2.18")),
                "Wall 0.5 thinner");
        version(
                5,
                priya,
                thinner,
                Map.of(sheet, sheet(lighter(84), "Wall 2", 5), model, model(lighter(84), "2.05")),
                "Wall 1 thinner in all, neck as it was");
        hands.at(daysAgo(6, 13, 10));
        long ribs = id(start.start(tomasz, List.of(sheet), "Ribs inside instead of a thick wall", Hands.key()));
        say();
        Shape ribbed = new Shape.Turned(new double[][] {{40, 20}, {60, 90}, {80, 84}, {60, 90}, {160, 30}});
        version(4, tomasz, ribs, Map.of(sheet, sheet(ribbed, "Two ribs, 6 deep", 4)), "Two ribs, 6 deep");
        hands.at(daysAgo(3, 10, 0));
        ask.ask(
                priya,
                thinner,
                List.of(hands.actor("hedda").person(), tomasz.person()),
                "Is a wall of 2 enough against the ice?",
                now.atZone(ZONE).toLocalDate().plusDays(12),
                Hands.key());
        say();
        hands.at(daysAgo(2, 15, 20));
        ask.answer(
                tomasz,
                thinner,
                Opinion.REMARKED,
                "The neck needs a larger radius when the wall is thinner.",
                Hands.key());
        say();
    }

    private static Shape lighter(double wide) {
        return new Shape.Turned(new double[][] {{40, 20}, {200, wide}, {160, 30}});
    }

    private byte[] sheet(Shape shape, String note, int days) {
        Part part = part("2010");
        return part.sheet(
                "B",
                shape,
                List.of(note),
                daysAgo(days, 14, 0).atZone(ZONE).toLocalDate().toString());
    }

    private static byte[] model(Shape shape, String mass) {
        return Models.part(NUMBER, "Float", "POM-C", mass, shape, "2026-11-20T09:10:00");
    }

    private void version(int days, Actor actor, long trial, Map<Long, byte[]> files, String comment) {
        hands.at(daysAgo(days, 10, 40));
        holds.take(actor, trial, files.keySet(), Hands.key(), "BENCH-3", "");
        hands.at(daysAgo(days, 14, 15));
        List<CheckIn.Row> rows = trials.whole(actor, trial).lines().stream()
                .filter(t -> files.containsKey(t.item()))
                .map(t -> new CheckIn.Row(
                        t.item(),
                        Optional.of(hands.bring(actor, t.original().document().fileName(), files.get(t.item()))),
                        t.line().holder().orElseThrow().hold(),
                        ""))
                .toList();
        hands.bean(CheckIn.class).take(actor, rows, Hands.key(), comment, false);
        say();
    }

    private static long id(String address) {
        return Long.parseLong(address.substring(address.lastIndexOf('/') + 1));
    }

    private long item(Actor actor, String aspect) {
        return hands.bean(Numbered.class).all(actor, NUMBER).stream()
                .map(s -> s.spine().id())
                .filter(i -> hands.bean(LinkStore.class).aspect(i).equals(aspect))
                .findFirst()
                .orElseThrow();
    }
}
