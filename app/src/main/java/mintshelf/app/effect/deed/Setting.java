package mintshelf.app.effect.deed;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.effect.Asking;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.core.route.By;
import mintshelf.core.signoff.Round;

/**
 * In what deeds are done: who acts and why, and what the act has brought along for them.
 *
 * @param why in words of who acts; stands in the record
 * @param together all documents of the act in their order, those that stay where they are too
 * @param round the round that the act ends, or whose signatures it carries out
 * @param ends how it ends the round
 * @param asks whom it asks, where it opens a round
 * @param order the paper that takes the others along
 */
public record Setting(
        Actor actor,
        By by,
        String why,
        Instant now,
        List<Seen> together,
        Optional<Round> round,
        Optional<Round.State> ends,
        Optional<Asking.Asks> asks,
        Optional<Seen> order) {

    public static Setting of(Actor actor, By by, String why, Instant now, List<Seen> together) {
        return new Setting(
                actor, by, why, now, together, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }

    /** As it is, carrying out what a round has signed. */
    public Setting signed(Round signed) {
        return new Setting(actor, by, why, now, together, Optional.of(signed), ends, asks, order);
    }

    /** As it is, ending a round. */
    public Setting ending(Round open, Round.State as) {
        return new Setting(actor, by, why, now, together, Optional.of(open), Optional.of(as), asks, order);
    }

    /** As it is, asking people. */
    public Setting asking(Asking.Asks whom) {
        return new Setting(actor, by, why, now, together, round, ends, Optional.of(whom), order);
    }

    /** As it is, with documents that go along with an order. */
    public Setting with(Seen paper) {
        return new Setting(actor, by, why, now, together, round, ends, asks, Optional.of(paper));
    }

    /** What the record of a document says: of one that an order takes along, the order. */
    public String whyOf(long document) {
        return order.filter(o -> o.spine().id() != document)
                .map(o -> o.document().number())
                .orElse(why);
    }
}
