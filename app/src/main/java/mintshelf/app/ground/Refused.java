package mintshelf.app.ground;

import java.util.List;
import java.util.stream.Collectors;
import mintshelf.core.base.Plan;
import mintshelf.core.base.Refusal;

/** Carries a refusal of the core out of a use case; the transaction is rolled back, a page prints the refusal. */
public final class Refused extends RuntimeException {
    private final transient Refusal refusal;

    public Refused(Refusal refusal) {
        super(refusal.code() + ": " + refusal.reason(), null, false, false);
        this.refusal = refusal;
    }

    public static Refused because(String code, String reason, String remedy) {
        return new Refused(new Refusal(code, reason, remedy));
    }

    public Refusal refusal() {
        return refusal;
    }

    /**
     * Refuses an act whose plan does not open: with all that is in the way, and what stays as it is.
     *
     * @param code of the refusal, where more than one thing is in the way
     * @param kept in a sentence: "Nothing was sent."
     */
    public static void unlessOpen(Plan<?> plan, String code, String kept) {
        if (!plan.opens()) unlessEmpty(plan.refusals(), code, kept);
        if (!plan.opens()) throw because(code, "There is nothing to do.", kept);
    }

    /** As {@link #unlessOpen}, for refusals that are known. */
    public static void unlessEmpty(List<Refusal> inTheWay, String code, String kept) {
        if (inTheWay.isEmpty()) return;
        String all = inTheWay.stream().map(Refusal::says).distinct().collect(Collectors.joining(" "));
        throw because(inTheWay.size() == 1 ? inTheWay.get(0).code() : code, all, kept);
    }
}
