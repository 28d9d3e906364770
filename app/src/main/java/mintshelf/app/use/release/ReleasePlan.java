package mintshelf.app.use.release;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.core.base.ContentHash;
import mintshelf.core.base.Refusal;
import mintshelf.core.release.Blocks;
import mintshelf.core.release.ReleaseSet;
import mintshelf.core.structure.StructureGraph.Use;

/**
 * What it takes to release some documents.
 *
 * @param asked those that somebody asked for
 * @param lines all that goes along, in the order in which it goes
 * @param enough what they consist of or show that is in force and stays
 * @param uses among lines and enough, for a picture
 * @param blocks what is in the way, by what helps
 * @param rounds those that wait for signatures, each once
 * @param first those that can be released now without the others; empty where all of it can
 * @param hidden how many documents below are not shown to who asks; each is in the way
 */
public record ReleasePlan(
        List<Seen> asked,
        List<Line> lines,
        List<Seen> enough,
        List<Use> uses,
        List<Blocks.Block> blocks,
        List<RoundView> rounds,
        List<Line> first,
        int hidden) {
    /** How a document stands to its release. */
    public enum Verdict {
        /** A hand releases it now. */
        GOES("goes along"),
        /** It is to be sent to who signs it. */
        SEND("not signed yet"),
        /** Its signers have it. */
        WAITS("being signed"),
        /** Something is in the way. */
        BLOCKED("in the way"),
        /** It is in force, and nothing newer is worked on. */
        STAYS("is released");

        private final String words;

        Verdict(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A document of the plan.
     *
     * @param of the document that it goes along with; empty where it was asked for
     * @param move that it makes, as its route names it; empty where it stays
     */
    public record Line(
            Seen seen,
            ReleaseSet.Why why,
            Optional<Seen> of,
            Verdict verdict,
            Optional<String> move,
            List<Refusal> refusals) {
        public long item() {
            return seen.spine().id();
        }

        /** Why it stands in the plan, in words. */
        public String says() {
            String other = of.map(s -> s.document().number()).orElse("");
            return switch (why) {
                case ASKED -> "asked for";
                case COMPONENT -> "stands in " + other;
                case MODEL -> "shown on " + other;
                case DRAWING -> "shows " + other;
            };
        }
    }

    public List<Line> of(Verdict verdict) {
        return lines.stream().filter(l -> l.verdict() == verdict).toList();
    }

    /** All that moves, sooner or later. */
    public List<Line> moving() {
        return lines.stream().filter(l -> l.verdict() != Verdict.STAYS).toList();
    }

    /** Whether one hand can release all of it now. */
    public boolean opens() {
        List<Line> moving = moving();
        return hidden == 0 && !moving.isEmpty() && moving.stream().allMatch(l -> l.verdict() == Verdict.GOES);
    }

    /** In one sentence: "7 move together, 3 are in the way". */
    public String sentence() {
        String blocked = inTheWay();
        return blocked.isEmpty() ? move() : move() + ", " + blocked;
    }

    /** "7 move together". */
    public String move() {
        int moving = moving().size();
        if (moving == 0) return "Nothing is left to release";
        return moving == 1 ? "1 moves" : moving + " move together";
    }

    /** "3 are in the way"; empty where none is. */
    public String inTheWay() {
        int blocked = of(Verdict.BLOCKED).size() + hidden;
        return blocked == 0 ? "" : blocked + (blocked == 1 ? " is in the way" : " are in the way");
    }

    /** What the plan says of which versions: an act carries out the plan that was seen, or none. */
    public String digest() {
        StringBuilder all = new StringBuilder();
        for (Line line : lines) {
            all.append(line.item())
                    .append(' ')
                    .append(line.seen().version())
                    .append(' ')
                    .append(line.verdict());
            all.append(' ').append(line.seen().current().stage().code()).append('\n');
        }
        return ContentHash.compute(all.append(hidden).toString().getBytes(StandardCharsets.UTF_8))
                .hex();
    }
}
