package mintshelf.core.signoff;

/**
 * A line of a sign-off rule: what somebody is asked to vouch for before a move opens.
 *
 * @param step lines of one step are asked side by side, steps one after the other
 * @param who whom it asks
 * @param needed how many of them have to sign; {@link #EVERYBODY} for all of them
 * @param meaning what a signature says: "checked", "approved for production"
 * @param fact name of the title block's fact that carries the signer; empty for none
 * @param day name of the title block's fact that carries the day of the signature; empty for none
 * @param days working days until it is due
 * @param fourEyes whether who prepared it does not sign it
 * @param password whether a signature asks for the password again
 */
public record SignOffLine(
        int step,
        Asked who,
        int needed,
        String meaning,
        String fact,
        String day,
        int days,
        boolean fourEyes,
        boolean password) {
    /** Stands for all who are asked. */
    public static final int EVERYBODY = 0;

    /** A line that asks people of a role, of whom nobody prepared what they sign. */
    public SignOffLine(int step, String role, int needed, String meaning, String fact, String day, int days) {
        this(step, new Asked(Asked.Kind.ROLE, role), needed, meaning, fact, day, days, true, false);
    }

    public boolean asksEverybody() {
        return needed == EVERYBODY;
    }

    /** The same line with another number of people. */
    public SignOffLine needing(int people) {
        return new SignOffLine(step, who, people, meaning, fact, day, days, fourEyes, password);
    }
}
