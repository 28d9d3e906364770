package mintshelf.core.document;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a version is called: by its number on the main line, or by its trial and its number on that.
 *
 * @param trial number of the trial line on its document; 0 for the main line
 * @param number on its line, from 1
 */
public record VersionName(int trial, int number) {
    private static final Pattern FORM = Pattern.compile("(?:t([1-9]\\d{0,4})-)?([1-9]\\d{0,8})");
    private static final Pattern LINE = Pattern.compile("t([1-9]\\d{0,4})");

    /** A version of the main line. */
    public static VersionName main(int number) {
        return new VersionName(0, number);
    }

    /** Reads what {@link #address} wrote: "7", "t1-2"; nothing for anything else. */
    public static Optional<VersionName> of(String written) {
        Matcher m = FORM.matcher(written);
        if (!m.matches()) return Optional.empty();
        int trial = m.group(1) == null ? 0 : Integer.parseInt(m.group(1));
        return Optional.of(new VersionName(trial, Integer.parseInt(m.group(2))));
    }

    /** The number of a trial line by its name, "t1"; nothing for anything else. */
    public static Optional<Integer> line(String name) {
        Matcher m = LINE.matcher(name);
        return m.matches() ? Optional.of(Integer.parseInt(m.group(1))) : Optional.empty();
    }

    /** What the line of a trial is called: "t1". */
    public static String line(int trial) {
        return "t" + trial;
    }

    public boolean isTrial() {
        return trial > 0;
    }

    /** As it stands in an address: "7", "t1-2". */
    public String address() {
        return isTrial() ? line(trial) + "-" + number : Integer.toString(number);
    }

    /** As it is read: "7", "t1/2". */
    public String says() {
        return isTrial() ? line(trial) + "/" + number : Integer.toString(number);
    }

    /** As it stands alone: "v7", "t1/2". */
    public String shortly() {
        return isTrial() ? says() : "v" + says();
    }

    @Override
    public String toString() {
        return address();
    }
}
