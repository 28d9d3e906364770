package mintshelf.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import java.util.UUID;
import mintshelf.app.ground.Actor;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.change.CarryOutOrder;
import mintshelf.app.use.change.MoveOrder;
import mintshelf.app.use.content.ReceiveContent;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.document.ReadDocument;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.hold.BreakHold;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.neutral.BringNeutral;
import mintshelf.app.use.redline.MakeRemark;
import mintshelf.app.use.redline.TalkOfRemarks;
import mintshelf.app.use.revision.MoveDocument;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.app.use.today.ReadToday;
import mintshelf.app.use.version.Reinstate;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Tool;
import mintshelf.core.signoff.Decision;
import org.springframework.beans.factory.BeanFactory;
import org.springframework.stereotype.Component;

/** Does what people of the story do, through the same use cases as the pages, at the moment that the story tells. */
@Component
class Hands {
    private final StoryClock clock;
    private final PersonStore people;
    private final GrantStore grants;
    private final ReceiveContent receive;
    private final FileDocuments filing;
    private final FilingSheets filingSheets;
    private final CheckOut checkOut;
    private final BreakHold breakHold;
    private final CheckIn checkIn;
    private final StartRevisions startRevisions;
    private final MoveDocument moveDocument;
    private final Reinstate reinstate;
    private final ReadDocument read;
    private final SendToReview send;
    private final SignRound sign;
    private final ReadRounds rounds;
    private final KeepFacts keepFacts;
    private final AskForChange ask;
    private final MoveOrder orders;
    private final CarryOutOrder carryOut;
    private final ReadToday today;
    private final MakeRemark marks;
    private final TalkOfRemarks talk;

    private final BeanFactory beans;

    Hands(StoryClock clock, BeanFactory beans) {
        this.beans = beans;
        this.clock = clock;
        this.people = beans.getBean(PersonStore.class);
        this.grants = beans.getBean(GrantStore.class);
        this.receive = beans.getBean(ReceiveContent.class);
        this.filing = beans.getBean(FileDocuments.class);
        this.filingSheets = beans.getBean(FilingSheets.class);
        this.checkOut = beans.getBean(CheckOut.class);
        this.breakHold = beans.getBean(BreakHold.class);
        this.checkIn = beans.getBean(CheckIn.class);
        this.startRevisions = beans.getBean(StartRevisions.class);
        this.moveDocument = beans.getBean(MoveDocument.class);
        this.reinstate = beans.getBean(Reinstate.class);
        this.read = beans.getBean(ReadDocument.class);
        this.send = beans.getBean(SendToReview.class);
        this.sign = beans.getBean(SignRound.class);
        this.rounds = beans.getBean(ReadRounds.class);
        this.marks = beans.getBean(MakeRemark.class);
        this.talk = beans.getBean(TalkOfRemarks.class);
        this.keepFacts = beans.getBean(KeepFacts.class);
        this.ask = beans.getBean(AskForChange.class);
        this.orders = beans.getBean(MoveOrder.class);
        this.carryOut = beans.getBean(CarryOutOrder.class);
        this.today = beans.getBean(ReadToday.class);
    }

    /** What a chapter does besides. */
    <T> T bean(Class<T> type) {
        return beans.getBean(type);
    }

    Actor actor(String login) {
        PersonStore.Person person = people.byLogin(login).orElseThrow();
        return new Actor(grants.access(person.id(), person.name()), login, person.zone(), "127.0.0.1");
    }

    /** Turns the story's clock. */
    void at(Instant at) {
        clock.tell(at);
    }

    boolean isPending(long item) {
        return read.view(actor("ines"), item).seen().pending().isPresent();
    }

    /** Files one document with the neutral copy that lies beside its file, as the copy's sheet says. */
    long fileWith(
            Instant at,
            String login,
            long shelf,
            OptionalLong folder,
            String name,
            byte[] bytes,
            String beside,
            byte[] copy) {
        clock.tell(at);
        Actor actor = actor(login);
        long sheet =
                filingSheets.open(actor, shelf, folder, List.of(bring(actor, name, bytes), bring(actor, beside, copy)));
        var result = filing.file(actor, sheet, key(), false);
        if (!result.isFiled()) throw new IllegalStateException(name + ": " + result.problems());
        return filingSheets.sheet(actor, sheet).lines().stream()
                .flatMap(l -> l.row().item().stream())
                .findFirst()
                .orElseThrow();
    }

    /** Lays a neutral copy beside the file of a version. */
    void neutral(Instant at, String login, long item, int version, String name, byte[] bytes) {
        clock.tell(at);
        Actor actor = actor(login);
        bean(BringNeutral.class).bring(actor, item, version, key(), List.of(bring(actor, name, bytes)));
    }

    String bring(Actor actor, String name, byte[] bytes) {
        try {
            String token = receive.open(actor, name, bytes.length);
            receive.receive(actor, token, 0, new ByteArrayInputStream(bytes));
            return token;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Files one document under the number and title that its file proposes, and gives its id. */
    long file(
            Instant at,
            String login,
            long shelf,
            OptionalLong folder,
            String name,
            byte[] bytes,
            Map<String, String> facts,
            boolean hold) {
        return file(at, login, shelf, folder, name, bytes, facts, hold, "", "");
    }

    /** Files one document and gives its id; an empty number or title is the one that its file proposes. */
    long file(
            Instant at,
            String login,
            long shelf,
            OptionalLong folder,
            String name,
            byte[] bytes,
            Map<String, String> facts,
            boolean hold,
            String number,
            String title) {
        clock.tell(at);
        Actor actor = actor(login);
        long sheet = filingSheets.open(actor, shelf, folder, List.of(bring(actor, name, bytes)));
        FilingStore.Row row = filingSheets.sheet(actor, sheet).lines().get(0).row();
        Map<String, String> all = new TreeMap<>(row.facts());
        all.putAll(facts);
        filingSheets.keep(
                actor,
                sheet,
                List.of(new FilingStore.Row(
                        row.id(),
                        row.upload(),
                        true,
                        row.kind(),
                        "",
                        number.isEmpty() ? row.number() : number,
                        "",
                        title.isEmpty() ? row.title() : title,
                        "",
                        row.revision(),
                        "",
                        row.folder(),
                        all,
                        row.sameAs(),
                        row.item())));
        var result = filing.file(actor, sheet, key(), hold);
        if (!result.isFiled()) throw new IllegalStateException(name + ": " + result.problems());
        return filingSheets.sheet(actor, sheet).lines().get(0).row().item().orElseThrow();
    }

    /** Drops files on a shelf and leaves the filing sheet for later. */
    void drop(Instant at, String login, long shelf, Map<String, byte[]> files) {
        clock.tell(at);
        Actor actor = actor(login);
        List<String> tokens = files.entrySet().stream()
                .map(f -> bring(actor, f.getKey(), f.getValue()))
                .toList();
        filingSheets.open(actor, shelf, OptionalLong.empty(), tokens);
    }

    void checkOut(Instant at, String login, long item, String desk, String purpose) {
        clock.tell(at);
        checkOut.take(actor(login), List.of(item), key(), desk, purpose);
    }

    void checkIn(Instant at, String login, long item, byte[] bytes, String comment, boolean keep) {
        clock.tell(at);
        Actor actor = actor(login);
        var document = read.view(actor, item).seen().document();
        long hold = document.holder().map(h -> h.hold()).orElse(0L);
        String token = bring(actor, document.fileName(), bytes);
        checkIn.take(actor, List.of(new CheckIn.Row(item, token, hold)), key(), comment, keep);
    }

    /** Releases a document the way its route goes: by review with two who sign, or by hand. */
    void release(Instant at, String login, long item) {
        clock.tell(at);
        var view = read.view(actor(login), item);
        if (view.route().opensRound(view.seen().current().stage().code()).isEmpty()) {
            move(at, login, item, "release", "");
            return;
        }
        String author = people.person(
                        view.versions().get(view.versions().size() - 1).author())
                .orElseThrow()
                .login();
        long round = send(at, author, "", item);
        answer(at.plus(Duration.ofMinutes(25)), "hedda", round, Decision.SIGNED, "");
        boolean own = view.versions().stream().anyMatch(v -> v.authorName().startsWith("Oluwaseun"));
        answer(at.plus(Duration.ofMinutes(70)), own ? "carmen" : "oluwaseun", round, Decision.SIGNED, "");
    }

    /** Sends documents to review and gives the round. */
    /** Marks a version; points are x and y in turn, in millimetres of the sheet. */
    long remark(
            Instant at,
            String login,
            long item,
            int version,
            Tool tool,
            Remark.Kind kind,
            String line,
            double... points) {
        clock.tell(at);
        Actor actor = actor(login);
        List<Point> stroke = new ArrayList<>();
        for (int i = 0; i + 1 < points.length; i += 2) stroke.add(new Point(points[i], points[i + 1]));
        MakeRemark.Draft draft = new MakeRemark.Draft(
                "", tool, List.of(stroke), "", kind, line, "", talk.look(actor), Box.EMPTY, Optional.empty());
        String to = marks.make(actor, item, version, key(), draft);
        return Long.parseLong(to.substring(to.lastIndexOf('/') + 1));
    }

    /** Marks a model: what was picked, where the words stand, from where it is looked at. */
    long remark(
            Instant at,
            String login,
            long item,
            int version,
            Tool tool,
            String wanted,
            Remark.Kind kind,
            String line,
            Space space) {
        clock.tell(at);
        Actor actor = actor(login);
        MakeRemark.Draft draft = new MakeRemark.Draft(
                "", tool, List.of(), wanted, kind, line, "", talk.look(actor), Box.EMPTY, Optional.of(space));
        String to = marks.make(actor, item, version, key(), draft);
        return Long.parseLong(to.substring(to.lastIndexOf('/') + 1));
    }

    /** Says something to a remark, and sets it. */
    void settle(Instant at, String login, long item, long remark, Remark.State to, String says) {
        clock.tell(at);
        talk.set(actor(login), item, List.of(remark), key(), to, says);
    }

    void reply(Instant at, String login, long item, long remark, String says) {
        clock.tell(at);
        talk.reply(actor(login), item, remark, key(), says);
    }

    long send(Instant at, String login, String note, Long... items) {
        clock.tell(at);
        String to = send.send(actor(login), List.of(items), key(), note, Map.of(), Map.of());
        return Long.parseLong(to.substring("/rounds/".length()));
    }

    void answer(Instant at, String login, long round, Decision decision, String remark) {
        clock.tell(at);
        Actor actor = actor(login);
        sign.answer(actor, round, key(), rounds.round(actor, round).digest().hex(), decision, remark);
    }

    /** Asks for a change and gives the order. */
    long order(Instant at, String login, String title, String reason, Map<Long, String> lines) {
        clock.tell(at);
        String to = ask.ask(actor(login), lines.keySet(), key(), title, reason, lines);
        return Long.parseLong(to.substring("/orders/".length()));
    }

    /** As {@link #order(Instant, String, String, String, Map)}, taking up a request that was accepted. */
    long order(Instant at, String login, long request, String title, String reason, Map<Long, String> lines) {
        clock.tell(at);
        String to = ask.ask(
                actor(login),
                lines.keySet(),
                key(),
                title,
                reason,
                new AskForChange.Said(lines, Map.of(), Optional.of(request)));
        return Long.parseLong(to.substring("/orders/".length()));
    }

    void startOrder(Instant at, String login, long order) {
        clock.tell(at);
        orders.start(actor(login), order, key());
    }

    /** Puts an order before the board and gives the round. */
    long board(Instant at, String login, long order, String note) {
        clock.tell(at);
        orders.toBoard(actor(login), order, key(), note, Map.of());
        return read.view(actor(login), order).round().orElseThrow().round().id();
    }

    void carryOut(Instant at, String login, long order) {
        clock.tell(at);
        carryOut.carryOut(actor(login), order, key());
    }

    /** Puts away what somebody read long ago. */
    void putAwayBefore(Instant before, String login) {
        Actor actor = actor(login);
        boolean some = true;
        while (some) {
            var old = today.today(actor).notices().stream()
                    .filter(n -> n.at().isBefore(before))
                    .toList();
            old.forEach(n -> today.putAway(actor, n.id()));
            some = !old.isEmpty();
        }
    }

    void fact(Instant at, String login, long item, String name, String value) {
        clock.tell(at);
        Actor actor = actor(login);
        keepFacts.keep(
                actor, item, key(), read.view(actor, item).seen().document().title(), Map.of(name, value), Map.of());
    }

    void move(Instant at, String login, long item, String move, String remark) {
        clock.tell(at);
        Actor actor = actor(login);
        int head = read.view(actor, item).seen().document().head().number();
        moveDocument.move(actor, item, key(), move, head, remark);
    }

    void start(Instant at, String login, long item, String reason, boolean out) {
        clock.tell(at);
        startRevisions.start(actor(login), List.of(item), key(), reason, "", out);
    }

    void reinstate(Instant at, String login, long item, int version, String comment) {
        clock.tell(at);
        Actor actor = actor(login);
        int head = read.view(actor, item).seen().document().head().number();
        reinstate.reinstate(actor, item, key(), version, head, comment);
    }

    void ask(Instant at, String login, long item, String message) {
        clock.tell(at);
        breakHold.ask(actor(login), item, key(), message);
    }

    static String key() {
        return UUID.randomUUID().toString();
    }
}
