package mintshelf.app;

import java.nio.charset.Charset;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import mintshelf.app.store.round.RoundStore;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.SendToReview;
import mintshelf.app.use.round.SignRound;
import mintshelf.core.Dxf;
import mintshelf.core.signoff.Decision;

/** What people of the tests do in reviews. */
final class Review {
    static final Charset WINDOWS = Charset.forName("windows-1252");
    private final Server server;

    Review(Server server) {
        this.server = server;
    }

    /** A drawing that no other test has: CR LF, code page 1252, a section that no reader knows. */
    static byte[] sheet(String said) {
        byte[] sheet = Dxf.sheet("\r\n", WINDOWS, "AC1015", "ANSI_1252");
        return new String(sheet, WINDOWS)
                .replace("a comment that stays", said)
                .replace("old number", "")
                .getBytes(WINDOWS);
    }

    /** A drawing in preparation with two versions of Priya's, on the route *Reviewed*. */
    long drawing(long shelf, String name) {
        long item = server.file("priya", shelf, "drawing", name, sheet("first " + UUID.randomUUID()), true);
        server.checkIn("priya", item, sheet("second " + UUID.randomUUID()), false);
        return item;
    }

    /** Sends documents and gives the round's id. */
    long send(String login, Long... items) {
        String to = server.bean(SendToReview.class)
                .send(server.actor(login), List.of(items), Server.key(), "holes for M6", Map.of(), Map.of());
        return Long.parseLong(to.substring("/rounds/".length()));
    }

    String digest(String login, long round) {
        return server.bean(ReadRounds.class)
                .round(server.actor(login), round)
                .digest()
                .hex();
    }

    void answer(String login, long round, Decision decision, String remark) {
        server.bean(SignRound.class)
                .answer(server.actor(login), round, Server.key(), digest(login, round), decision, remark);
    }

    void sign(String login, long round) {
        answer(login, round, Decision.SIGNED, "");
    }

    /** Sends a document and lets both sign. */
    void release(long item) {
        release("priya", item);
    }

    void release(String login, long item) {
        long round = send(login, item);
        sign("hedda", round);
        sign("oluwaseun", round);
    }

    RoundStore store() {
        return server.bean(RoundStore.class);
    }
}
