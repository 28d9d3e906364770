package mintshelf.core.signoff;

import java.time.Instant;
import java.util.Optional;

/**
 * One person's recorded decision on the documents of a round.
 *
 * @param fellAt when a change let it fall; empty while it stands
 * @param fellWhy what changed
 * @param forName name of whom the person stood in for; empty for nobody
 */
public record SignOff(
        long ask,
        long person,
        String name,
        Decision decision,
        String remark,
        Instant at,
        Optional<Instant> fellAt,
        String fellWhy,
        String forName) {
    /** Who signed, and for whom: "Carmen Uribe for Oluwaseun Adebari". */
    public String signer() {
        return forName.isEmpty() ? name : name + " for " + forName;
    }

    public boolean stands() {
        return fellAt.isEmpty();
    }
}
