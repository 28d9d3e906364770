package mintshelf.app;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.sight.OnOrders;
import mintshelf.app.store.change.PaperStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.change.ReadOrders;
import mintshelf.core.change.PaperLine;

/** Change orders as people take them along, for tests. */
final class Orders {
    private final Server server;
    private final Review review;

    Orders(Server server) {
        this.server = server;
        this.review = new Review(server);
    }

    long released(long shelf, String name) {
        long item = review.drawing(shelf, name);
        review.release(item);
        return item;
    }

    /** An order over documents of which none is on another one. */
    long ask(String login, Long... items) {
        return ask(login, AskForChange.Said.of(Map.of(items[0], "duplex 2205")), items);
    }

    /** As {@link #ask(String, Long...)}, which takes a request up. */
    long askFor(String login, long request, Long... items) {
        return ask(login, new AskForChange.Said(Map.of(), Map.of(), Optional.of(request)), items);
    }

    long ask(String login, AskForChange.Said said, Long... items) {
        String to = server.bean(AskForChange.class)
                .ask(server.actor(login), List.of(items), Server.key(), "Intake in duplex", "pitting at berth 3", said);
        return Long.parseLong(to.substring("/orders/".length()));
    }

    /** An order over a document that goes behind another one. */
    long askAfter(String login, long order, Long... items) {
        Map<Long, Long> after = new HashMap<>();
        for (long item : items) after.put(item, order);
        return ask(login, new AskForChange.Said(Map.of(), after, Optional.empty()), items);
    }

    /** Puts a document on an order, which takes a request up. */
    void addTo(String login, long order, long request, long item) {
        server.bean(AskForChange.class)
                .addTo(
                        server.actor(login),
                        order,
                        List.of(item),
                        Server.key(),
                        new AskForChange.Said(Map.of(), Map.of(), Optional.of(request)));
    }

    void addAfter(String login, long order, long after, long item) {
        server.bean(AskForChange.class)
                .addTo(
                        server.actor(login),
                        order,
                        List.of(item),
                        Server.key(),
                        new AskForChange.Said(Map.of(), Map.of(item, after), Optional.empty()));
    }

    void start(long order) {
        server.bean(MoveOrder.class).start(server.actor("oluwaseun"), order, Server.key());
    }

    void stop(long order) {
        server.bean(MoveOrder.class).stop(server.actor("oluwaseun"), order, Server.key(), "another way was found");
    }

    void work(long item) {
        server.checkOut("priya", item);
        server.checkIn("priya", item, Review.sheet("work on " + item + " " + System.nanoTime()), false);
    }

    long board(long order) {
        server.bean(MoveOrder.class).toBoard(server.actor("priya"), order, Server.key(), "", Map.of());
        return review.store().openRound(order).orElseThrow();
    }

    void signed(long order) {
        long round = board(order);
        review.sign("hedda", round);
        review.sign("oluwaseun", round);
    }

    void carryOut(long order) {
        server.bean(CarryOutOrder.class).carryOut(server.actor("oluwaseun"), order, Server.key());
    }

    /** From outlined to carried out, with work on each line that is not withdrawn. */
    void through(long order) {
        start(order);
        for (PaperLine line : lines(order)) if (!line.withdraws()) work(line.item());
        signed(order);
        carryOut(order);
    }

    List<PaperLine> lines(long order) {
        return server.bean(PaperStore.class).lines(order);
    }

    PaperLine line(long order, long item) {
        return lines(order).stream().filter(l -> l.item() == item).findFirst().orElseThrow();
    }

    ReadOrders.View view(String login, long order) {
        return server.bean(ReadOrders.class).order(server.actor(login), order);
    }

    List<OnOrders.GoalView> goals(String login, long order) {
        return server.bean(ReadOrders.class).goals(server.actor(login), order);
    }

    String stage(long item) {
        return server.document(item).current().stage().code();
    }

    /** What somebody was told, the latest first. */
    List<String> told(String login) {
        List<String> says = new ArrayList<>();
        server.bean(NoticeStore.class).open(server.actor(login).person(), 50).forEach(n -> says.add(n.says()));
        return says;
    }
}
