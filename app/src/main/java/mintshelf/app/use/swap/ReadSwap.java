package mintshelf.app.use.swap;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.Numbered;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.StructureMirror;
import mintshelf.app.store.document.SuccessorStore;
import org.springframework.stereotype.Service;

/** What a swap begins with, and what stands above all that it reaches. */
@Service
public class ReadSwap {
    /** Documents above that are named. */
    private static final int NAMED = 4;

    private final Sight sight;
    private final Numbered numbered;
    private final SuccessorStore successors;
    private final StructureMirror mirror;

    public ReadSwap(Sight sight, Numbered numbered, SuccessorStore successors, StructureMirror mirror) {
        this.sight = sight;
        this.numbered = numbered;
        this.successors = successors;
        this.mirror = mirror;
    }

    /** What goes out; of a document that the actor does not see whole, as what is not there. */
    public Seen goesOut(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all() || seen.spine().isWritten()) throw new NotThere();
        return seen;
    }

    /** What goes out, by its number; of the kind of what goes out beside it first, where a drawing and a model have one number. */
    public long named(Actor actor, long beside, String number) {
        return ofKind(actor, beside, number)
                .orElseGet(() -> numbered.named(actor, number))
                .spine()
                .id();
    }

    private Optional<Seen> ofKind(Actor actor, long beside, String number) {
        long kind = goesOut(actor, beside).document().place().kind();
        return numbered.all(actor, number).stream()
                .filter(s -> s.spine().id() != beside && s.document().place().kind() == kind)
                .findFirst();
    }

    /** The number of what took the place of a document that was withdrawn; empty where none did, or none is seen. */
    public String successor(Actor actor, long item) {
        return successors
                .of(item)
                .map(s -> sight.of(actor, List.of(s)))
                .flatMap(seen -> seen.values().stream().findFirst())
                .map(s -> s.document().number())
                .orElse("");
    }

    /** The document of a number that comes in for another one; of the same kind first, where a drawing and a model have one number. */
    public long comesIn(Actor actor, long old, String number) {
        return ofKind(actor, old, number)
                .orElseGet(() -> numbered.successor(actor, old, number))
                .spine()
                .id();
    }

    /**
     * What stands above all that a swap writes, and is not touched by it.
     *
     * @param more how many there are beside those that are named
     */
    public record Above(List<String> numbers, int more) {
        /** "Above them TG40-0000 takes the new versions and is not touched." */
        public String says() {
            boolean one = numbers.size() == 1 && more == 0;
            return "Above them " + String.join(", ", numbers) + (more > 0 ? " and " + more + " more" : "")
                    + (one
                            ? " takes the new versions and is not touched."
                            : " take the new versions and are not touched.");
        }
    }

    public Above above(Actor actor, Parents.All all) {
        Set<Long> written = new HashSet<>();
        all.parents().forEach(p -> written.add(p.seen().spine().id()));
        Set<Long> above = new HashSet<>();
        long[] from = written.stream().mapToLong(Long::longValue).toArray();
        for (long id : mirror.now().graph().whereUsed(from)) above.add(id);
        above.removeAll(written);
        List<String> numbers = sight.of(actor, above).values().stream()
                .map(s -> s.document().number())
                .distinct()
                .sorted()
                .toList();
        return new Above(numbers.stream().limit(NAMED).toList(), Math.max(0, numbers.size() - NAMED));
    }
}
