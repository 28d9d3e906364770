package mintshelf.app.page.document;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import mintshelf.app.ground.Actor;
import mintshelf.app.page.Words;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.trial.TrialStore;
import mintshelf.app.use.document.ReadEarlier;
import mintshelf.app.use.document.ReadMargin;
import mintshelf.app.use.neutral.BringNeutral;
import mintshelf.app.use.part.ReadItem;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.structure.ReadStructure;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.app.use.trial.ReadTrials;
import mintshelf.app.use.trial.StartTrial;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What stands around a document, put into the models of its pages. */
@Component
class Around {
    /** Trials that stand under a strip; the others are a page of their own. */
    private static final int MOST_TRIALS = 6;

    private static final List<TrialStore.State> ORDER =
            List.of(TrialStore.State.ADOPTED, TrialStore.State.OPEN, TrialStore.State.DROPPED);

    private final ReadStructure structure;
    private final ReadWhereUsed used;
    private final ReadMargin margin;
    private final ReadRounds rounds;
    private final BringNeutral neutral;
    private final ReadEarlier earlier;
    private final ReadTrials trials;
    private final ReadItem items;

    Around(
            ReadStructure structure,
            ReadWhereUsed used,
            ReadMargin margin,
            ReadRounds rounds,
            BringNeutral neutral,
            ReadEarlier earlier,
            ReadTrials trials,
            ReadItem items) {
        this.items = items;
        this.trials = trials;
        this.earlier = earlier;
        this.neutral = neutral;
        this.rounds = rounds;
        this.margin = margin;
        this.structure = structure;
        this.used = used;
    }

    /** Its own first level and where it is used, for a panel. */
    void fill(Actor actor, long id, Model model) {
        model.addAttribute("structure", structure.firstLevel(actor, id));
        model.addAttribute("used", used.of(actor, id, false));
    }

    /** What stands across the margin of a version. */
    void fillMargin(Actor actor, Seen seen, VersionRow shown, Model model) {
        model.addAttribute("outOf", margin.of(actor, seen, shown).orElse(null));
    }

    /** The trials beside it, as they stand to its strip; whether one may be started. */
    void fillTrials(Actor actor, Seen seen, Strip strip, Words words, Model model) {
        Map<Integer, Integer> places = new HashMap<>();
        strip.stops().forEach(s -> places.put(s.number(), s.x()));
        // Adopted ones lead back to the strip: they stand next to it, and what was dropped below all.
        List<ReadTrials.Beside> beside = trials.beside(actor, seen.spine().id()).stream()
                .sorted(Comparator.comparingInt(
                        b -> ORDER.indexOf(b.whole().trial().state())))
                .toList();
        model.addAttribute(
                "trials",
                beside.stream()
                        .limit(MOST_TRIALS)
                        .map(b -> TrialStrip.of(b, strip.width(), places, words))
                        .toList());
        model.addAttribute("moreTrials", Math.max(0, beside.size() - MOST_TRIALS));
        model.addAttribute("mayTry", StartTrial.offers(actor, seen));
    }

    /** What it consists of and where it is used; a drawing that refers to nothing shows what its model consists of. */
    void fillPage(Actor actor, Seen seen, VersionRow shown, Model model) {
        long id = seen.spine().id();
        fillMargin(actor, seen, shown, model);
        model.addAttribute("earlier", earlier.of(seen));
        model.addAttribute("neutral", neutral.view(actor, seen, shown).orElse(null));
        model.addAttribute("signed", seen.pending().isPresent() ? List.of() : rounds.signed(seen));
        model.addAttribute(
                "formerly", model.getAttribute("outOf") == null ? List.of() : margin.made(actor, seen, shown));
        ReadWhereUsed.Used around = used.of(actor, id, false);
        ReadStructure.Structure own = structure.firstLevel(actor, id);
        Optional<Seen> shows = own.rows().isEmpty() ? around.shows() : Optional.empty();
        ReadStructure.Structure consists =
                shows.map(s -> structure.firstLevel(actor, s.spine().id())).orElse(own);
        model.addAttribute("structure", consists);
        model.addAttribute("structureOf", consists.top());
        model.addAttribute("standing", consists.standing());
        model.addAttribute("used", around);
        fillOthers(actor, seen, around, model);
    }

    /** What a part's card tells of what else bears its number. */
    void fillCard(Actor actor, Seen seen, Model model) {
        fillOthers(actor, seen, used.of(actor, seen.spine().id(), false), model);
    }

    private void fillOthers(Actor actor, Seen seen, ReadWhereUsed.Used around, Model model) {
        model.addAttribute(
                "withOthers",
                Stream.concat(
                                around.links().stream()
                                        .map(ReadWhereUsed.Linked::other)
                                        .filter(o -> o.document()
                                                .number()
                                                .equals(seen.document().number())),
                                items.ownBeside(actor, seen).stream())
                        .map(o -> o.spine().kindName())
                        .distinct()
                        .toList());
    }
}
