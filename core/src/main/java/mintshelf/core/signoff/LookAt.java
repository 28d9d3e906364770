package mintshelf.core.signoff;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/**
 * What a sender lays beside a round, to look at and not decided: "TG40-3030" for the latest version of a document, "TG40-3030 v3" for a
 * certain one, "TG40-3030 v3 to v5" for what differs between two.
 *
 * @param version the version that is looked at; empty for the latest
 * @param old the version that it is compared with
 */
public record LookAt(String number, Optional<Integer> version, Optional<Integer> old) {
    /** Papers that may lie beside a round. */
    public static final int MOST = 20;

    private static final int LONGEST = 4000;

    private static final Pattern WITH_VERSION =
            Pattern.compile("(.+?)\\s+v(\\d{1,9})(?:\\s*(?:to|-|–|→)\\s*v(\\d{1,9}))?", Pattern.CASE_INSENSITIVE);

    /** Reads what was typed, divided by commas or lines; the same twice counts once. Refused when it is more than {@link #MOST}. */
    public static Outcome<List<LookAt>> read(String typed) {
        if (typed.length() > LONGEST) return Outcome.refused(tooMany(MOST + 1));
        List<LookAt> all = new ArrayList<>();
        for (String part : typed.split("[,;\\n]")) {
            String line = Texts.line(part);
            if (line.isEmpty()) continue;
            LookAt one = of(line);
            if (!all.contains(one)) all.add(one);
        }
        return all.size() > MOST ? Outcome.refused(tooMany(all.size())) : Outcome.granted(all);
    }

    public static Refusal tooMany(int papers) {
        return Refusal.of(
                "beside.many",
                papers + " papers or more to look at are more than anybody does.",
                "Leave the " + MOST + " that matter; nothing was sent.");
    }

    private static LookAt of(String line) {
        Matcher m = WITH_VERSION.matcher(line);
        if (!m.matches()) return new LookAt(line, Optional.empty(), Optional.empty());
        int first = Integer.parseInt(m.group(2));
        if (m.group(3) == null) return new LookAt(m.group(1), Optional.of(first), Optional.empty());
        int second = Integer.parseInt(m.group(3));
        if (first == second) return new LookAt(m.group(1), Optional.of(first), Optional.empty());
        return new LookAt(m.group(1), Optional.of(Math.max(first, second)), Optional.of(Math.min(first, second)));
    }
}
