package mintshelf.app.store.change;

import static mintshelf.database.schema.Tables.PAPER_DISPOSITION;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import mintshelf.app.store.Times;
import mintshelf.core.change.Disposition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What becomes of the old ones of the lines of orders. */
@Repository
public class DispositionStore {
    private final DSLContext db;

    public DispositionStore(DSLContext db) {
        this.db = db;
    }

    /** By document, then as places are named; one statement. */
    public List<Disposition> of(long paper) {
        return db
                .selectFrom(PAPER_DISPOSITION)
                .where(PAPER_DISPOSITION.PAPER.eq(paper))
                .fetch(row -> new Disposition(
                        row.getItem(),
                        Disposition.Place.valueOf(row.getPlace()),
                        Optional.ofNullable(row.getQuantity()),
                        Optional.ofNullable(row.getWhat()).map(Disposition.What::valueOf),
                        Optional.ofNullable(row.getCost())
                                .map(amount -> new Disposition.Money(amount, row.getCurrency())),
                        row.getNote()))
                .stream()
                .sorted(Comparator.comparing(Disposition::item).thenComparing(Disposition::place))
                .toList();
    }

    /** What is said of a line, in place of what was said of it before. */
    public void keep(long paper, long item, Collection<Disposition> said, long person, Instant now) {
        db.deleteFrom(PAPER_DISPOSITION)
                .where(PAPER_DISPOSITION.PAPER.eq(paper), PAPER_DISPOSITION.ITEM.eq(item))
                .execute();
        for (Disposition one : said) {
            db.insertInto(PAPER_DISPOSITION)
                    .set(PAPER_DISPOSITION.PAPER, paper)
                    .set(PAPER_DISPOSITION.ITEM, item)
                    .set(PAPER_DISPOSITION.PLACE, one.place().name())
                    .set(PAPER_DISPOSITION.QUANTITY, one.quantity().orElse(null))
                    .set(PAPER_DISPOSITION.WHAT, one.what().map(Enum::name).orElse(null))
                    .set(
                            PAPER_DISPOSITION.COST,
                            one.cost().map(Disposition.Money::amount).orElse(null))
                    .set(
                            PAPER_DISPOSITION.CURRENCY,
                            one.cost().map(Disposition.Money::currency).orElse(null))
                    .set(PAPER_DISPOSITION.NOTE, one.note())
                    .set(PAPER_DISPOSITION.SAID_BY, person)
                    .set(PAPER_DISPOSITION.SAID_AT, Times.utc(now))
                    .execute();
        }
    }
}
