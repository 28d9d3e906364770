package mintshelf.core.search;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.fact.FactDefinition;

/** What one condition of a search asks of a document. */
public sealed interface Wanted {
    /** Where words are looked for. */
    enum Where {
        ANYWHERE,
        TITLE,
        FILE,
        TEXT,
        COMMENT
    }

    /** What is one of a few known things. */
    enum Field {
        STAGE,
        STAGE_CLASS,
        REVISION,
        KIND,
        SHELF,
        FOLDER,
        HOLDER,
        AUTHOR,
        FORMAT
    }

    /** A moment of a document. */
    enum Moment {
        CHANGED,
        RELEASED,
        HELD
    }

    /** What only the asking person's own papers say. */
    enum Mine {
        WAITS_FOR_ME,
        SENT_BY_ME
    }

    /**
     * Each word is the beginning of one there; of a phrase the words stand in this order and side by side.
     *
     * @param text as typed, for numbers
     */
    record Words(Where where, String text, List<String> words, boolean phrase) implements Wanted {}

    /** A number or the beginning of one, current or former. */
    record Numbered(List<String> texts) implements Wanted {}

    /** One of these terms; without terms: any, as far as there is one. */
    record Among(Field field, Set<String> terms) implements Wanted {}

    /** From the first moment on, before the second one. */
    record Within(Moment moment, Optional<Instant> from, Optional<Instant> until) implements Wanted {}

    /** A fact's text has one of these, as its words begin. */
    record FactSays(FactDefinition fact, List<String> texts) implements Wanted {}

    /** A number, or a day as days since 1970, between two that count. */
    record FactWithin(FactDefinition fact, double least, double most) implements Wanted {}

    /** A fact has a value. */
    record FactFilled(FactDefinition fact) implements Wanted {}

    /** What concerns the asking person. */
    record Own(Mine mine) implements Wanted {}
}
