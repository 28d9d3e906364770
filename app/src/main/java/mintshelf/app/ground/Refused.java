package mintshelf.app.ground;

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
}
