package mintshelf.app.store.house;

import static mintshelf.database.schema.Tables.CURRENCY_RATE;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.app.store.Times;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** What other currencies are in that of the house. */
@Repository
public class RateStore {
    private final DSLContext db;

    public RateStore(DSLContext db) {
        this.db = db;
    }

    /** A rate, who wrote it and when. */
    public record Rate(String code, BigDecimal rate, long person, Instant at) {}

    public List<Rate> all() {
        return db.selectFrom(CURRENCY_RATE)
                .orderBy(CURRENCY_RATE.CODE)
                .fetch(r -> new Rate(
                        r.getCode(), r.getRate().stripTrailingZeros(), r.getPerson(), Times.instant(r.getAt())));
    }

    /** By their codes. */
    public Map<String, BigDecimal> rates() {
        Map<String, BigDecimal> rates = new LinkedHashMap<>();
        all().forEach(r -> rates.put(r.code(), r.rate()));
        return rates;
    }

    public void keep(String code, BigDecimal rate, long person, Instant at) {
        drop(code);
        db.insertInto(CURRENCY_RATE)
                .set(CURRENCY_RATE.CODE, code)
                .set(CURRENCY_RATE.RATE, rate)
                .set(CURRENCY_RATE.PERSON, person)
                .set(CURRENCY_RATE.AT, Times.utc(at))
                .execute();
    }

    public void drop(String code) {
        db.deleteFrom(CURRENCY_RATE).where(CURRENCY_RATE.CODE.eq(code)).execute();
    }
}
