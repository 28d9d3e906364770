package mintshelf.core.bom;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What differs between two sets of documents at exact versions (ISO 10007: configuration baselines). O(documents). */
public final class BaselineCompare {
    private BaselineCompare() {}

    /**
     * A document in a version.
     *
     * @param revision as shown
     * @param needed how much of it is needed; nothing where nobody asked
     */
    public record Member(long item, int version, String revision, Optional<BigDecimal> needed, String unit) {}

    /** A document that one of the two lacks, or has otherwise. */
    public record Difference(long item, Optional<Member> old, Optional<Member> now) {
        /** In words: "added", "gone", "A → B, v3 → v5", "2 → 4 pc". */
        public String says() {
            if (old.isEmpty()) return "added";
            if (now.isEmpty()) return "gone";
            Member was = old.get();
            Member is = now.get();
            List<String> said = new ArrayList<>();
            if (!was.revision().equals(is.revision())) said.add(tab(was) + " → " + tab(is));
            if (was.version() != is.version()) said.add("v" + was.version() + " → v" + is.version());
            if (needs(was, is)) said.add(amount(was, !was.unit().equals(is.unit())) + " → " + amount(is, true));
            return String.join(", ", said);
        }

        private static String tab(Member member) {
            return member.revision().isEmpty() ? "no revision" : member.revision();
        }

        private static String amount(Member member, boolean withUnit) {
            return member.needed().map(BomCompare::plain).orElse("?") + (withUnit ? " " + member.unit() : "");
        }
    }

    /** Whether both say how much is needed, and not the same. */
    private static boolean needs(Member was, Member is) {
        if (was.needed().isEmpty() || is.needed().isEmpty()) return false;
        return was.needed().get().compareTo(is.needed().get()) != 0
                || !was.unit().equals(is.unit());
    }

    /** What differs, in the order of the old one, what was added behind. */
    public static List<Difference> of(Collection<Member> old, Collection<Member> now) {
        Map<Long, Member> left = new LinkedHashMap<>();
        now.forEach(m -> left.put(m.item(), m));
        List<Difference> found = new ArrayList<>();
        for (Member was : old) {
            Optional<Member> is = Optional.ofNullable(left.remove(was.item()));
            boolean same = is.isPresent()
                    && is.get().version() == was.version()
                    && is.get().revision().equals(was.revision())
                    && !needs(was, is.get());
            if (!same) found.add(new Difference(was.item(), Optional.of(was), is));
        }
        left.values().forEach(m -> found.add(new Difference(m.item(), Optional.empty(), Optional.of(m))));
        return found;
    }
}
