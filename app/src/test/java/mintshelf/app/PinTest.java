package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.pin.PinStore.Kind;
import mintshelf.app.store.pin.PinStore.Pin;
import mintshelf.app.store.shelf.ShelfStore;
import mintshelf.app.use.pin.Pins;
import mintshelf.app.use.search.LookUp;
import org.junit.jupiter.api.Test;

/** What somebody keeps at hand. */
class PinTest {
    private final Server server = Server.shared();
    private final long shelf = server.shelf();
    private final Pins pins = server.bean(Pins.class);

    private List<String> names(String login) {
        return pins.lines(server.actor(login)).stream().map(Pins.Line::name).toList();
    }

    private void clear(String login) {
        pins.lines(server.actor(login)).forEach(l -> pins.unpin(server.actor(login), l.pin()));
    }

    @Test
    void pinsStandInASequenceOfOnesOwnAndTwiceIsOnce() {
        clear("tomasz");
        long item = server.file("priya", shelf, "pinned.txt", "pinned" + shelf, false);
        String number = server.document(item).number();
        ShelfStore shelves = server.bean(ShelfStore.class);
        long folder = shelves.addFolder(shelves.root(shelf), "Pinned bay");
        for (Pin pin : List.of(
                new Pin(Kind.SHELF, shelf),
                new Pin(Kind.FOLDER, folder),
                new Pin(Kind.ITEM, item),
                new Pin(Kind.ITEM, item))) {
            pins.pin(server.actor("tomasz"), pin);
        }
        assertThat(names("tomasz")).containsExactly(server.shelfName(shelf), "Pinned bay", number);
        pins.up(server.actor("tomasz"), new Pin(Kind.ITEM, item));
        pins.up(server.actor("tomasz"), new Pin(Kind.ITEM, item));
        pins.up(server.actor("tomasz"), new Pin(Kind.ITEM, item));
        assertThat(names("tomasz")).containsExactly(number, server.shelfName(shelf), "Pinned bay");
        Web web = Web.as(server, "tomasz");
        assertThat(web.get("/today").body()).contains("Pinned bay");
        assertThat(web.get("/at-hand").body()).contains("Pinned bay").contains("What you opened");
        assertThat(web.get("/pins/item/" + item).body()).contains("Take the pin away");
        pins.unpin(server.actor("tomasz"), new Pin(Kind.SHELF, shelf));
        assertThat(names("tomasz")).containsExactly(number, "Pinned bay");
    }

    @Test
    void whatIsNotSeenIsNotPinnedNorShown() {
        long draft = server.file("priya", shelf, "unseen.txt", "unseen" + shelf, false);
        assertThatThrownBy(() -> pins.pin(server.actor("rafael"), new Pin(Kind.ITEM, draft)))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> pins.pin(server.actor("nobody"), new Pin(Kind.SHELF, shelf)))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> pins.pin(server.actor("priya"), new Pin(Kind.SEARCH, 999_999)))
                .isInstanceOf(NotThere.class);
        assertThat(Web.as(server, "priya").get("/pins/thing/1").statusCode()).isEqualTo(404);
    }

    @Test
    void fortyAreTheMostAndTheRefusalSaysSo() {
        clear("hedda");
        for (int i = 0; i < Pins.MOST; i++) {
            pins.pin(server.actor("hedda"), new Pin(Kind.ITEM, server.released(shelf, "p" + i + "-" + shelf + ".txt")));
        }
        long more = server.released(shelf, "more-" + shelf + ".txt");
        assertThatThrownBy(() -> pins.pin(server.actor("hedda"), new Pin(Kind.ITEM, more)))
                .isInstanceOf(Refused.class)
                .hasMessageContaining("40 pins");
        clear("hedda");
    }

    @Test
    void aFieldOffersPinsAndRecentOnesBeforeAnythingIsTyped() {
        long item = server.file("priya", shelf, "at hand.txt", "at hand" + shelf, false);
        pins.pin(server.actor("priya"), new Pin(Kind.ITEM, item));
        assertThat(server.bean(LookUp.class).documents(server.actor("priya"), ""))
                .extracting(LookUp.Found::value)
                .contains(server.document(item).number());
        pins.unpin(server.actor("priya"), new Pin(Kind.ITEM, item));
    }

    @Test
    void theWayBackStaysWithinTheHouse() {
        Web web = Web.as(server, "priya");
        web.get("/today");
        for (String back : List.of("//evil.example", "https://evil.example", "/\\evil.example", "/\\\\evil.example")) {
            String to = web.post("/pins/shelf/" + shelf, Map.of("back", back))
                    .headers()
                    .firstValue("Location")
                    .orElseThrow();
            assertThat(to).doesNotContain("evil");
        }
        pins.unpin(server.actor("priya"), new Pin(Kind.SHELF, shelf));
    }
}
