package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Priority;
import mintshelf.core.signoff.Decision;

/** A year of small requests: the picture of how changes flow has something to show. */
final class PastYear extends Chapter {
    private final OpenRequest open;
    private final MoveRequest move;
    private final RoundSight rounds;

    /** Days ago, days until the board had it, until it decided, part, why, in short, whether it was accepted. */
    private record Small(
            int ago, int asked, int decided, String number, String login, Cause cause, String title, boolean yes) {}

    private static final List<Small> ALL = List.of(
            new Small(352, 2, 9, "2020", "tomasz", Cause.COST, "Counterweight of cast iron", false),
            new Small(331, 1, 4, "3010", "rafael", Cause.MAKING, "Chamfer where the tool runs out", true),
            new Small(309, 0, 12, "1040", "priya", Cause.FIELD, "Slot of the clamp by 1 mm longer", true),
            new Small(287, 3, 8, "4020", "rafael", Cause.MAKING, "Tube cut square, not by flame", true),
            new Small(262, 1, 21, "3040", "yuki", Cause.SUPPLY, "Gasket in EPDM", false),
            new Small(240, 0, 3, "1010", "tomasz", Cause.FIELD, "Bore of the well pipe free of the seam", true),
            new Small(205, 2, 6, "2030", "tomasz", Cause.MAKING, "Pulley seat ground", true),
            new Small(171, 1, 15, "4030", "yuki", Cause.COST, "Gusset from strip in stock", false),
            new Small(148, 0, 5, "3020", "marit", Cause.FIELD, "Lid groove free of burrs", true),
            new Small(117, 4, 11, "1030", "priya", Cause.MAKING, "Ring turned from tube", true),
            new Small(92, 1, 2, "2010", "marit", Cause.FIELD, "Float tested at 2 bar", true),
            new Small(74, 2, 9, "3010", "tomasz", Cause.MAKING, "Boss 0.5 higher", true));

    PastYear(Book book) {
        super(book);
        this.open = hands.bean(OpenRequest.class);
        this.move = hands.bean(MoveRequest.class);
        this.rounds = hands.bean(RoundSight.class);
    }

    void story() {
        for (Small one : ALL) {
            Instant at = daysAgo(one.ago(), 9, 40);
            hands.at(at);
            String to = open.open(
                    hands.actor(one.login()),
                    List.of(doc(one.number())),
                    Hands.key(),
                    new OpenRequest.Says(
                            one.title(),
                            one.title() + ".",
                            Optional.of(one.cause()),
                            Priority.USUAL,
                            Map.of(),
                            List.of()));
            long request = Long.parseLong(to.substring("/requests/".length()));
            hands.at(at.plus(Duration.ofDays(one.asked())));
            move.toBoard(hands.actor(one.login()), request, Hands.key(), "");
            Instant decided = at.plus(Duration.ofDays(one.decided()));
            if (one.yes()) {
                hands.at(decided);
                long round = rounds.ofDocument(hands.actor("oluwaseun"), request)
                        .orElseThrow()
                        .round()
                        .id();
                hands.answer(decided, "oluwaseun", round, Decision.SIGNED, "");
            } else {
                hands.at(decided);
                move.decide(
                        hands.actor("oluwaseun"),
                        request,
                        Hands.key(),
                        "decline",
                        "It costs more than it brings.",
                        Optional.empty());
            }
        }
        say();
    }
}
