package mintshelf.app.use.hold;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Packed;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.sight.TakeAlong;
import mintshelf.app.sight.TakeAlong.With;
import mintshelf.app.sight.Trials;
import mintshelf.app.store.document.ListStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.core.document.FileName;
import mintshelf.core.document.NeutralForm;
import mintshelf.core.document.NeutralRules;
import mintshelf.core.hold.AlongRules;
import mintshelf.core.hold.ReturnedFile;
import mintshelf.core.redline.Remark;
import org.springframework.stereotype.Service;

/** What somebody holds, and what could come back of it. */
@Service
public class ReadHeld {
    private final Sight sight;
    private final ListStore lists;
    private final TakeAlong along;
    private final References references;
    private final HouseStore house;
    private final RemarkStore remarks;
    private final Trials trials;

    public ReadHeld(
            Sight sight,
            ListStore lists,
            TakeAlong along,
            References references,
            HouseStore house,
            RemarkStore remarks,
            Trials trials) {
        this.trials = trials;
        this.remarks = remarks;
        this.sight = sight;
        this.lists = lists;
        this.along = along;
        this.references = references;
        this.house = house;
    }

    /** Of documents those that the actor still may see. */
    public List<Seen> still(Actor actor, List<Long> items) {
        return List.copyOf(sight.of(actor, items).values());
    }

    /** The documents of a check-in page: the asked ones, or all that the actor holds. */
    public List<Seen> held(Actor actor, List<Long> items) {
        List<Long> ids = items.isEmpty() ? lists.heldBy(actor.person(), CheckOut.MOST) : items;
        return List.copyOf(sight.of(actor, ids).values());
    }

    /** Open remarks on what the actor holds of the rows of a check-in, by document: each can be settled with it. */
    public Map<Long, List<Remark>> remarks(List<HeldLine> lines) {
        return remarks.open(lines.stream()
                .filter(l -> l.mine() && l.seen().all() && l.seen().spine().remarks() > 0)
                .map(l -> l.seen().spine().id())
                .toList());
    }

    /**
     * A row of the check-in page.
     *
     * @param mine whether the actor holds it
     * @param along whether it was not asked for, but goes with what was
     * @param newer how many of its components are newer than it was saved with
     * @param sends whether it could be sent to review afterwards
     */
    public record HeldLine(Seen seen, boolean mine, boolean along, int newer, boolean sends) {
        /** Where its file lies on a desk. */
        public String path() {
            return path(seen);
        }

        /** Whether its file is shown by what lies beside it. */
        public boolean wantsNeutral() {
            return mine && !seen.document().isTried() && ReadHeld.wantsNeutral(seen);
        }

        private static String path(Seen seen) {
            return Packed.folders(seen.spine()) + seen.document().fileName();
        }
    }

    /** The rows of a check-in: the asked documents and what the actor holds of their structure, or all that the actor holds. */
    public List<HeldLine> plan(Actor actor, List<Long> items) {
        List<HeldLine> lines = new ArrayList<>();
        if (items.isEmpty()) {
            held(actor, items).forEach(s -> lines.add(line(actor, s, false)));
            return lines;
        }
        for (TakeAlong.Along a : along.gather(
                actor, sight.of(actor, items).keySet(), EnumSet.of(With.DRAWINGS, With.ALL_LEVELS, With.PARENTS))) {
            boolean asked = a.via() == AlongRules.Via.ASKED;
            HeldLine line = line(actor, a.seen(), !asked);
            if (asked || line.mine()) lines.add(line);
        }
        return lines;
    }

    /** What the actor holds on a trial. */
    public List<HeldLine> onTrial(Actor actor, long trial) {
        return trials.whole(actor, trial).lines().stream()
                .filter(t -> t.line()
                        .holder()
                        .filter(h -> h.person() == actor.person())
                        .isPresent())
                .map(t -> new HeldLine(t.tried(), true, false, 0, false))
                .toList();
    }

    private HeldLine line(Actor actor, Seen seen, boolean along) {
        boolean mine = seen.document()
                .holder()
                .filter(h -> h.person() == actor.person())
                .isPresent();
        List<Reference> refersTo = mine ? references.of(seen.document().head().version()) : List.of();
        return new HeldLine(
                seen, mine, along, References.moved(refersTo, references.takenUp(refersTo)), mine && sends(seen));
    }

    /** Whether a document stands where its route leads into a review. */
    public boolean sends(Seen seen) {
        return seen.pending()
                .filter(r -> house.edition(r.stage().edition())
                        .opensRound(r.stage().code())
                        .isPresent())
                .isPresent();
    }

    /** To which of the actor's holds a file that came belongs; empty or several: the person is asked. */
    public List<Long> match(Actor actor, String fileName, Optional<Long> trial) {
        List<ReturnedFile.Held> held = trial.map(t -> onTrial(actor, t).stream().map(HeldLine::seen))
                .orElseGet(() -> sight.of(actor, lists.heldBy(actor.person(), CheckOut.MOST)).values().stream())
                .map(s -> new ReturnedFile.Held(s.spine().id(), s.document().fileName()))
                .toList();
        return ReturnedFile.match(fileName, held);
    }

    /** Of the documents that the actor holds, those beside whose file it could lie by its name. */
    public List<Long> beside(Actor actor, String fileName) {
        FileName copy = FileName.of(fileName);
        return sight.of(actor, lists.heldBy(actor.person(), CheckOut.MOST)).values().stream()
                .filter(s -> wantsNeutral(s)
                        && NeutralRules.belongs(FileName.of(s.document().fileName()), copy))
                .map(s -> s.spine().id())
                .toList();
    }

    private static boolean wantsNeutral(Seen seen) {
        return NeutralForm.isWanted(
                seen.spine().content().kind(), FileName.of(seen.document().fileName()));
    }
}
