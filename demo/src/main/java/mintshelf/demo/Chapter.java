package mintshelf.demo;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.Map;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.demo.Parts.Part;

/** A chapter of the story: what all chapters know, and when things were. */
abstract class Chapter {
    static final ZoneId ZONE = Scenario.ZONE;

    /** What is written so far, shared by all chapters. */
    static final class Book {
        final Hands hands;
        final ReadShelf shelves;
        final Map<String, Long> documents = new HashMap<>();
        final Map<String, Long> folders = new HashMap<>();
        final Instant now;
        int done;

        Book(Hands hands, ReadShelf shelves, Instant now) {
            this.hands = hands;
            this.shelves = shelves;
            this.now = now;
        }
    }

    final Book book;
    final Hands hands;
    final Map<String, Long> documents;
    final Map<String, Long> folders;
    final Instant now;

    Chapter(Book book) {
        this.book = book;
        this.hands = book.hands;
        this.documents = book.documents;
        this.folders = book.folders;
        this.now = book.now;
    }

    final void say() {
        book.done++;
    }

    final Instant monthsAgo(int months, int hours) {
        return now.minus(Duration.ofDays(30L * months)).plus(Duration.ofHours(hours));
    }

    final Instant daysAgo(int days, int hour, int minute) {
        return now.atZone(ZONE).minusDays(days).with(LocalTime.of(hour, minute)).toInstant();
    }

    final long doc(String number) {
        return documents.get("TG40-" + number);
    }

    final Part part(String number) {
        return Parts.ALL.stream()
                .filter(p -> p.number().equals("TG40-" + number))
                .findFirst()
                .orElseThrow();
    }
}
