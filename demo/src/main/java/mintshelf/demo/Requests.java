package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.RoundSight;
import mintshelf.app.use.change.KeepImpact;
import mintshelf.app.use.change.MoveRequest;
import mintshelf.app.use.change.OpenRequest;
import mintshelf.app.use.change.WriteRequest;
import mintshelf.core.change.Cause;
import mintshelf.core.change.Goal;
import mintshelf.core.change.Priority;
import mintshelf.core.signoff.Decision;

/** What is wanted of the gauge, and what the board said to it. */
final class Requests extends Chapter {
    private final OpenRequest open;
    private final WriteRequest write;
    private final MoveRequest move;
    private final RoundSight rounds;
    private final KeepImpact reach;

    Requests(Book book) {
        super(book);
        this.open = hands.bean(OpenRequest.class);
        this.write = hands.bean(WriteRequest.class);
        this.move = hands.bean(MoveRequest.class);
        this.rounds = hands.bean(RoundSight.class);
        this.reach = hands.bean(KeepImpact.class);
    }

    private long ask(
            Instant at,
            String login,
            String title,
            String reason,
            Cause cause,
            Priority priority,
            Map<Long, String> lines,
            String... evidence) {
        hands.at(at);
        String to = open.open(
                hands.actor(login),
                lines.keySet(),
                Hands.key(),
                new OpenRequest.Says(title, reason, Optional.of(cause), priority, lines, List.of(evidence)));
        say();
        return Long.parseLong(to.substring("/requests/".length()));
    }

    private void goal(
            Instant at, String login, long request, long item, String fact, Goal.Relation relation, String wanted) {
        hands.at(at);
        write.addGoal(hands.actor(login), request, Hands.key(), item, fact, relation, wanted);
    }

    private void board(Instant at, String login, long request) {
        hands.at(at);
        move.toBoard(hands.actor(login), request, Hands.key(), "");
    }

    private void answer(Instant at, String login, long request, Decision decision, String remark) {
        hands.at(at);
        long round = rounds.ofDocument(hands.actor(login), request)
                .orElseThrow()
                .round()
                .id();
        hands.answer(at, login, round, decision, remark);
    }

    private static Map<Long, String> lines(Object... pairs) {
        Map<Long, String> lines = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) lines.put((Long) pairs[i], (String) pairs[i + 1]);
        return lines;
    }

    /** The corrosion of the intake: asked, decided; the order that takes it up follows. */
    long intake(Map<Long, String> lines) {
        Instant at = daysAgo(9, 9, 20);
        long request = ask(
                at,
                "marit",
                "Intake cone pits at berth 3",
                "Pits 0.4 mm deep on the intake of berth 3 after fourteen months, where cone and ring stand below low water.\nThe report asks for a steel of pitting resistance 34 or more.",
                Cause.FIELD,
                Priority.SOON,
                lines,
                "TG40-3900 v1");
        goal(at.plus(Duration.ofMinutes(6)), "marit", request, doc("1020"), "mass", Goal.Relation.AT_MOST, "+5 %");
        goal(at.plus(Duration.ofMinutes(8)), "marit", request, doc("1020"), "material", Goal.Relation.EQUAL, "1.4462");
        board(daysAgo(9, 9, 40), "marit", request);
        answer(daysAgo(8, 15, 5), "oluwaseun", request, Decision.SIGNED, "");
        return request;
    }

    /** One declined, one deferred, one that goes on alone, two before the board, one being written. */
    void story() {
        long gusset = ask(
                daysAgo(60, 10, 0),
                "tomasz",
                "Gusset of 6 in place of 8",
                "Lighter by 0.3 kg; the mast never bends as far as was reckoned.",
                Cause.COST,
                Priority.USUAL,
                lines(doc("4030"), "thickness 6"));
        board(daysAgo(60, 10, 20), "tomasz", gusset);
        hands.at(daysAgo(56, 9, 0));
        move.decide(
                hands.actor("oluwaseun"),
                gusset,
                Hands.key(),
                "decline",
                "The gust of 2019 bent it further than the reckoning says.",
                Optional.empty());
        long gasket = ask(
                daysAgo(30, 14, 0),
                "yuki",
                "Lid gasket of another supplier",
                "The maker of the gasket ends its line in spring; the other one has it 0.2 thicker.",
                Cause.SUPPLY,
                Priority.USUAL,
                lines(doc("3040"), ""));
        board(daysAgo(30, 14, 5), "yuki", gasket);
        hands.at(daysAgo(27, 11, 0));
        move.decide(
                hands.actor("oluwaseun"),
                gasket,
                Hands.key(),
                "defer",
                "Until the sample was pressed a thousand times.",
                Optional.of(LocalDate.ofInstant(now, ZONE).plusDays(24)));
        long mast = ask(
                daysAgo(3, 8, 30),
                "rafael",
                "Deburr the mast tube inside",
                "The cable is scratched when it is drawn in; two of five were cut open again.",
                Cause.MAKING,
                Priority.SOON,
                lines(doc("4020"), "edge 0.5 × 45° on both ends"));
        board(daysAgo(3, 8, 35), "rafael", mast);
        long clamp = ask(
                daysAgo(1, 10, 10),
                "priya",
                "Slot of the pipe clamp 2 longer for berth 3",
                "The fit test showed 2 mm more is needed where the pile is out of round.",
                Cause.FIELD,
                Priority.USUAL,
                lines(doc("1040"), "slot 9 × 18", doc("3010"), "the boss follows"));
        goal(daysAgo(1, 10, 15), "priya", clamp, doc("3010"), "mass", Goal.Relation.AT_MOST, "+10 %");
        hands.at(daysAgo(1, 10, 17));
        reach.say(
                hands.actor("priya"),
                clamp,
                doc("1040"),
                Hands.key(),
                KeepImpact.Says.NEW_NUMBER,
                "with the old slot it does not close at berth 3");
        board(daysAgo(1, 10, 20), "priya", clamp);
        ask(
                daysAgo(0, 8, 20),
                "priya",
                "Axle of the pulley in 1.4462",
                "Where the pulley runs wet the axle pits as the intake did.",
                Cause.FIELD,
                Priority.USUAL,
                lines(doc("2030"), ""),
                "TG40-3900");
        say();
    }
}
