package mintshelf.core.route;

/**
 * A line of a sign-off rule: what somebody is asked to vouch for before a move opens.
 *
 * @param step lines of one step are asked side by side, steps one after the other
 * @param role code of the role whose people are asked
 * @param needed how many of them have to sign
 * @param meaning what a signature says: "checked", "approved for production"
 * @param fact name of the title block's fact that carries the signer; empty for none
 * @param day name of the title block's fact that carries the day of the signature; empty for none
 * @param days working days until it is due
 */
public record SignOffLine(int step, String role, int needed, String meaning, String fact, String day, int days) {}
