package mintshelf.app.effect;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import mintshelf.app.effect.deed.Deed;
import mintshelf.app.effect.deed.Mover;
import mintshelf.app.effect.deed.Setting;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Cases;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.DocumentStore;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.hold.HoldStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.base.Plan;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import mintshelf.core.route.By;
import mintshelf.core.route.Case;
import mintshelf.core.route.Effect;
import mintshelf.core.route.Move;
import mintshelf.core.route.MoveRules;
import mintshelf.core.route.Route;
import mintshelf.core.route.Way;
import org.springframework.stereotype.Component;

/**
 * Documents that move together along their routes: what would happen, and that it happens. Every move of every act goes through
 * here, so that a gate that is asked before is the gate that is asked under the lock, and a deed is done once for all.
 */
@Component
public class Bundles {
    private final Cases cases;
    private final DocumentStore documents;
    private final RevisionStore revisions;
    private final VersionStore versions;
    private final HouseStore house;
    private final HoldStore holds;
    private final ReferenceStore references;
    private final SheetWriter sheets;
    private final Recorder recorder;
    private final Map<Effect, Deed> deeds = new EnumMap<>(Effect.class);

    public Bundles(
            Cases cases,
            DocumentStore documents,
            RevisionStore revisions,
            VersionStore versions,
            HouseStore house,
            HoldStore holds,
            ReferenceStore references,
            SheetWriter sheets,
            Recorder recorder,
            List<Deed> deeds) {
        this.cases = cases;
        this.documents = documents;
        this.revisions = revisions;
        this.versions = versions;
        this.house = house;
        this.holds = holds;
        this.references = references;
        this.sheets = sheets;
        this.recorder = recorder;
        deeds.forEach(deed -> this.deeds.put(deed.effect(), deed));
        for (Effect effect : Effect.values()) {
            if (!this.deeds.containsKey(effect)) throw new IllegalStateException("Nobody does " + effect);
        }
    }

    /** A document and the move that is meant; none where it stays. */
    public record Going(Seen seen, Route route, Optional<Move> move) {
        public Document document() {
            return seen.document();
        }
    }

    /** What an act would do with these documents. Nothing is changed; no row is left out. */
    public Plan<Going> plan(Actor actor, Collection<Seen> all, Way way, By by) {
        return plan(actor, all, seen -> way, seen -> by);
    }

    /** As {@link #plan(Actor, Collection, Way, By)}, for documents that go different ways in one act. */
    public Plan<Going> plan(Actor actor, Collection<Seen> all, Function<Seen, Way> ways, Function<Seen, By> bys) {
        Map<Long, Case> known = cases.of(actor, all);
        Map<Long, Route> routes = new HashMap<>();
        List<Plan.Row<Going>> rows = new ArrayList<>();
        for (Seen seen : all) {
            Document document = seen.document();
            Route route = routes.computeIfAbsent(document.current().stage().edition(), house::edition);
            Way.Found found = ways.apply(seen).of(route, document);
            Going going = new Going(seen, route, found.move());
            if (found.refusal().isPresent())
                rows.add(Plan.Row.asked(going, List.of(found.refusal().get())));
            else if (found.move().isEmpty()) rows.add(Plan.Row.stays(going));
            else
                rows.add(Plan.Row.asked(
                        going, MoveRules.ask(found.move().get(), known.get(document.id()), bys.apply(seen))));
        }
        return new Plan<>(rows);
    }

    /**
     * Does what a plan that opens says, under the locks of the caller: deeds in the order of the routes, then the stages, the record.
     *
     * @return those that moved, with what deeds made of them
     */
    public List<Mover> carryOut(Plan<Going> plan, Setting setting) {
        Map<Long, VersionRow> heads = versions.versionsById(
                plan.going().stream().map(g -> g.document().head().version()).toList());
        List<Mover> movers = plan.going().stream()
                .map(g -> new Mover(
                        g.seen(),
                        g.route(),
                        g.move().orElseThrow(),
                        heads.get(g.document().head().version())))
                .toList();
        if (setting.by().endsOwnHold()) movers.forEach(m -> endHold(setting, m.document()));
        Set<Effect> effects = new LinkedHashSet<>();
        movers.forEach(m -> effects.addAll(m.move().effects()));
        for (Effect effect : effects) {
            deeds.get(effect)
                    .carryOut(
                            setting,
                            movers.stream().filter(m -> m.move().does(effect)).toList());
        }
        movers.forEach(m -> arrive(setting, m));
        return movers;
    }

    private void endHold(Setting setting, Document document) {
        document.holder().ifPresent(h -> {
            holds.end(h.hold(), HoldStore.Ending.REVIEW, setting.actor().person(), "", setting.now());
            recorder.note(
                    setting.actor(),
                    document.id(),
                    "hold.undone",
                    document.head().number(),
                    "ended the check-out by sending it to review",
                    "");
        });
    }

    private void arrive(Setting setting, Mover one) {
        long id = one.document().id();
        revisions.setStage(one.revision().id(), one.to(), setting.now());
        if (one.to().stageClass() == StageClass.RELEASED) {
            revisions.noteRelease(one.revision().id(), one.out().id(), setting.now());
            references.freeze(one.revision().id(), one.out().id());
        }
        documents.touch(id, setting.now());
        recorder.recent(setting.actor(), id, "moved");
        recorder.note(
                setting.actor(),
                id,
                "revision." + one.move().to(),
                one.out().number(),
                says(setting, one),
                setting.whyOf(id));
    }

    private String says(Setting setting, Mover one) {
        String label = one.label();
        return switch (one.to().stageClass()) {
            case RELEASED ->
                label.isEmpty()
                        ? "is " + one.to().name().toLowerCase(Locale.ROOT) + " with version "
                                + one.out().number()
                        : "released revision " + label + " with version "
                                + one.out().number() + written(one)
                                + (setting.round().isEmpty() ? "" : ", by the last sign-off of its round");
            case WITHDRAWN -> "withdrew revision " + label;
            default ->
                "moved " + (label.isEmpty() ? "it" : "revision " + label) + " to "
                        + one.to().name();
        };
    }

    private String written(Mover one) {
        return one.writtenFrom()
                .map(from -> ", written from version " + from)
                .orElseGet(() -> silent(one.route(), one.move(), one.out().content())
                        .map(why -> "; nothing was written into the sheet: " + why)
                        .orElse(""));
    }

    /** Why a move that releases writes nothing into a sheet that it is meant to write into; else empty. */
    public Optional<String> silent(Route route, Move move, StoredContent content) {
        boolean writes = move.does(Effect.WRITE_SHEET) && route.stage(move.to()).stageClass() == StageClass.RELEASED;
        return writes ? sheets.silent(content) : Optional.empty();
    }
}
