package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.EditOrder;
import mintshelf.app.use.change.KeepDisposition;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.NewOnOrder;
import mintshelf.app.use.job.DoJob;
import mintshelf.app.use.job.GiveJob;
import mintshelf.core.change.Disposition.Place;
import mintshelf.core.change.Disposition.Written;
import mintshelf.core.signoff.Asked;

/** What orders bring with them: from when on they count, what becomes of the old ones, who does what, what follows, what is stopped. */
final class Aftermath extends Chapter {
    private final EditOrder edit;
    private final KeepDisposition old;
    private final GiveJob give;
    private final DoJob jobs;
    private final AskForChange ask;
    private final MoveOrder move;
    private final PaperStore papers;
    private final NewOnOrder fresh;

    Aftermath(Book book) {
        super(book);
        this.edit = hands.bean(EditOrder.class);
        this.old = hands.bean(KeepDisposition.class);
        this.give = hands.bean(GiveJob.class);
        this.jobs = hands.bean(DoJob.class);
        this.ask = hands.bean(AskForChange.class);
        this.move = hands.bean(MoveOrder.class);
        this.papers = hands.bean(PaperStore.class);
        this.fresh = hands.bean(NewOnOrder.class);
    }

    /** While an order is outlined. */
    void counts(Instant at, String login, long order, String by, String from) {
        hands.at(at);
        edit.edit(
                hands.actor(login),
                order,
                Hands.key(),
                new EditOrder.Written(
                        papers.order(order).orElseThrow().reason(),
                        Map.of(),
                        List.of(),
                        Map.of(),
                        List.of(),
                        List.of(),
                        Map.of(),
                        by,
                        from));
    }

    /** Places and what is written of them, in turn: "6", "USE", "", "fresh water". */
    private void old(Instant at, String login, long order, String number, Object... said) {
        hands.at(at);
        Map<Place, Written> written = new EnumMap<>(Place.class);
        for (int i = 0; i < said.length; i += 2) {
            String[] words = ((String) said[i + 1]).split("\\|", -1);
            written.put((Place) said[i], new Written(words[0], words[1], words[2], "EUR", words[3]));
        }
        old.keep(hands.actor(login), order, doc(number), Hands.key(), written);
    }

    void oldFloats(Instant at, long order) {
        old(
                at,
                "priya",
                order,
                "2010",
                Place.STOCK,
                "12|USE||on LS18",
                Place.ORDERED,
                "0|||",
                Place.FIELD,
                "26|USE||until the next service");
        old(at, "priya", order, "2020", Place.STOCK, "9|REWORK|135|filled up", Place.FIELD, "26|USE||");
        old(at, "priya", order, "2030", Place.STOCK, "4|SCRAP|96|", Place.MAKING, "6|REWORK|60|seat turned deeper");
    }

    void oldIntakes(long order) {
        Instant at = daysAgo(4, 11, 0);
        old(
                at,
                "tomasz",
                order,
                "1020",
                Place.STOCK,
                "6|USE||fresh water only",
                Place.ORDERED,
                "10|RETURN|0|the maker takes them back",
                Place.MAKING,
                "2|SCRAP|792|",
                Place.FIELD,
                "14|||which of them stand in salt water?");
        old(
                at,
                "tomasz",
                order,
                "1030",
                Place.STOCK,
                "9|USE||fresh water only",
                Place.MAKING,
                "4|SCRAP|228|",
                Place.FIELD,
                "14|USE||");
        old(
                at,
                "tomasz",
                order,
                "1010",
                Place.STOCK,
                "3|REWORK|210|seam ground and welded anew",
                Place.MAKING,
                "1|REWORK|50|");
    }

    private long job(Instant at, String giver, String to, long order, String what, int days, String number) {
        hands.at(at);
        String address = give.give(
                hands.actor(giver),
                Hands.key(),
                List.of(doc(number)),
                order == 0 ? Optional.empty() : Optional.of(order),
                what,
                new Asked(Asked.Kind.PERSON, Long.toString(hands.actor(to).person())),
                Optional.of(LocalDate.ofInstant(now, ZONE).plusDays(days)));
        return Long.parseLong(address.substring("/jobs/".length()));
    }

    void jobs(long order) {
        long cone = job(
                daysAgo(5, 9, 30), "oluwaseun", "tomasz", order, "Material to 1.4462, weld prep as before", 1, "1020");
        hands.at(daysAgo(4, 16, 10));
        jobs.begin(hands.actor("tomasz"), cone, Hands.key());
        hands.at(daysAgo(4, 16, 50));
        jobs.done(hands.actor("tomasz"), cone, Hands.key());
        long ring = job(daysAgo(5, 9, 32), "oluwaseun", "tomasz", order, "Material to 1.4462", 10, "1030");
        hands.at(daysAgo(1, 8, 36));
        jobs.begin(hands.actor("tomasz"), ring, Hands.key());
        job(daysAgo(5, 9, 35), "oluwaseun", "priya", order, "Weld seam to duplex, note 4", 8, "1010");
        job(daysAgo(2, 13, 0), "oluwaseun", "priya", 0, "Thread M6 × 22, washer face against the lid", 1, "3020");
        say();
    }

    /** A document that the order makes: it begins as what the intake cone is. */
    void strainer(Instant at, long order) {
        hands.at(at);
        fresh.make(
                hands.actor("tomasz"),
                order,
                Hands.key(),
                "TG40-1020",
                "TG40-1060",
                "Intake strainer",
                "keeps weed from the seam, bolted to the cone");
    }

    /** Waits for the order before it on the same cone. */
    void lug(long first) {
        hands.at(daysAgo(2, 15, 20));
        ask.ask(
                hands.actor("priya"),
                List.of(doc("1020")),
                Hands.key(),
                "Lifting lug on the intake cone",
                "Divers lift the cone by its rim. A lug on the side of the seam takes the shackle.",
                new AskForChange.Said(Map.of(), Map.of(doc("1020"), first), Optional.empty()));
        say();
    }

    void stopped() {
        Instant at = daysAgo(41, 10, 5);
        long order = hands.order(
                at,
                "tomasz",
                "Lamp bracket welded to the gusset",
                "One screw less, and nothing that works loose.",
                Map.of(doc("4030"), "tab 40 × 25"));
        hands.at(at.plus(Duration.ofDays(6)));
        move.stop(hands.actor("oluwaseun"), order, Hands.key(), "The lamp comes with a stay of its own now.");
        say();
    }
}
