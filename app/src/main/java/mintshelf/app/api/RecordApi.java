package mintshelf.app.api;

import java.time.DateTimeException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.record.RecordQuestionStore.Question;
import mintshelf.app.store.record.RecordQuestionStore.Spot;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.app.use.record.ReadRecord;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The record, to be followed and checked by programs outside. */
@RestController
@RequestMapping("/api/v1")
class RecordApi {
    private static final int PAGE = 500;

    private final ReadRecord record;

    RecordApi(ReadRecord record) {
        this.record = record;
    }

    /**
     * @param stream the document's id, or 0 for the house
     * @param seq place in its stream, from 1
     * @param person empty for what the server did by itself
     * @param previous hash of the entry before it in its stream, {@code hash} its own; SHA-256, hexadecimal
     */
    record Entry(
            long stream,
            int seq,
            String at,
            Long person,
            String name,
            String address,
            String act,
            Long document,
            String number,
            Integer version,
            String says,
            String why,
            String previous,
            String hash) {
        static Entry of(Shown s) {
            var e = s.entry();
            return new Entry(
                    e.stream(),
                    e.seq(),
                    e.at().toString(),
                    e.person().isPresent() ? e.person().getAsLong() : null,
                    s.personName(),
                    e.address(),
                    e.act(),
                    e.item().isPresent() ? e.item().getAsLong() : null,
                    s.number(),
                    e.version().isPresent() ? e.version().getAsInt() : null,
                    e.says(),
                    e.why(),
                    s.previous().hex(),
                    s.hash().hex());
        }
    }

    /** @param next what to send as {@code after} for what comes later; the same again where nothing came */
    record Page(List<Entry> entries, String next) {}

    /**
     * Entries in the order of their moments, at most 500, for who keeps the house rules.
     *
     * @param after {@code next} of the page before; empty for the first ones
     * @param acts how the names of the acts begin
     */
    @GetMapping("/record")
    Page record(
            Actor actor, @RequestParam(defaultValue = "") String after, @RequestParam(defaultValue = "") String acts) {
        Question question = new Question("", "", acts, Optional.empty(), Optional.empty(), "");
        List<Shown> found = record.after(actor, question, spot(after), PAGE);
        String next = found.isEmpty() ? after : word(Spot.of(found.get(found.size() - 1)));
        return new Page(found.stream().map(Entry::of).toList(), next);
    }

    private static String word(Spot spot) {
        return spot.at() + "," + spot.stream() + "," + spot.seq();
    }

    private static Optional<Spot> spot(String word) {
        if (word.isEmpty()) return Optional.empty();
        String[] parts = word.split(",", 4);
        try {
            if (parts.length != 3) throw new NumberFormatException("three parts");
            return Optional.of(new Spot(Instant.parse(parts[0]), Long.parseLong(parts[1]), Integer.parseInt(parts[2])));
        } catch (DateTimeException | NumberFormatException e) {
            throw Refused.because("record.after", "“after” is not what a page said as “next”.", "Send that.");
        }
    }
}
