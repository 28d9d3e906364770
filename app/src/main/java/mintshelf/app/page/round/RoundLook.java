package mintshelf.app.page.round;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.page.Pages;
import mintshelf.app.sight.ModelFormat;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.round.BesideStore.Found;
import mintshelf.app.use.change.ReadRequests;
import mintshelf.app.use.compare.CompareModels;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.document.Sheet;
import mintshelf.app.use.release.ReadReleasePlan;
import mintshelf.app.use.release.ReleasePlan;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.round.WalkRound;
import mintshelf.core.drawing.compare.Comparison;
import mintshelf.core.model.compare.ModelComparison;
import mintshelf.core.redline.RedlineSvg;
import mintshelf.core.redline.Remark;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** What a round looks like: the version that is decided on, drawn with what differs from the one that it is compared with. */
@Component
public class RoundLook {
    private final ReadRounds rounds;
    private final ReadingRoom room;
    private final ReadSheet sheets;
    private final CompareSheets compare;
    private final CompareModels models;
    private final Redlines redlines;
    private final WalkRound walk;
    private final ReadReleasePlan plans;
    private final ReadRequests requests;

    public RoundLook(
            ReadRounds rounds,
            ReadingRoom room,
            ReadSheet sheets,
            CompareSheets compare,
            CompareModels models,
            Redlines redlines,
            WalkRound walk,
            ReadReleasePlan plans,
            ReadRequests requests) {
        this.requests = requests;
        this.plans = plans;
        this.redlines = redlines;
        this.walk = walk;
        this.rounds = rounds;
        this.room = room;
        this.sheets = sheets;
        this.compare = compare;
        this.models = models;
    }

    /** The document that is looked at: the one that is asked for, else the first that is no order; an order has a page of its own. */
    static RoundLine shown(RoundView view, Optional<Long> document) {
        return document.map(d -> view.lines().stream()
                        .filter(l -> l.item().item() == d)
                        .findFirst()
                        .orElseThrow(NotThere::new))
                .orElseGet(() -> view.lines().stream()
                        .filter(l -> !RoundPages.isOrder(l))
                        .findFirst()
                        .orElse(view.lines().get(0)));
    }

    /**
     * Something that a version can be held against.
     *
     * @param code as the address names it
     * @param says "since your return (v5)"
     */
    public record Since(String code, String says, VersionRow version) {}

    /** What the version may be held against, what the actor knows best of it first: what they signed or what came back, whichever is later. */
    private List<Since> since(
            Actor actor,
            RoundView view,
            RoundLine shown,
            VersionRow version,
            Optional<ReadRounds.Return> returned,
            Optional<VersionRow> former) {
        List<Since> all = new ArrayList<>();
        returned.ifPresent(r -> all.add(new Since(
                "return",
                "since " + (r.mine() ? "your" : "the") + " return (v"
                        + r.version().number() + ")",
                r.version())));
        // Where what was signed came back, or is in force, that says more.
        Optional<Since> signed = walk.signedLast(actor, view, shown)
                .filter(v -> all.stream().noneMatch(s -> s.version().number() == v.number()))
                .filter(v -> former.filter(f -> f.number() == v.number()).isEmpty())
                .map(v -> new Since("signed", "since you signed (v" + v.number() + ")", v));
        // What is in force has left behind what was signed before it.
        int inForce = former.map(VersionRow::number).orElse(0);
        signed.filter(s -> s.version().number() > inForce).ifPresent(all::add);
        all.sort(Comparator.comparing((Since s) -> s.version().number()).reversed());
        former.ifPresent(v -> all.add(new Since(
                "release",
                "since "
                        + rounds.formerRevision(shown.item().item(), v, version).orElse("the version before") + " (v"
                        + v.number() + ")",
                v)));
        signed.filter(s -> s.version().number() < inForce).ifPresent(all::add);
        return all;
    }

    /** @param since code of what to compare with, where there are several */
    void fill(Actor actor, RoundView view, RoundLine shown, String since, Model model) {
        var version = rounds.version(shown);
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("version", version);
        model.addAttribute("sheet", sheet(version, shown.item().item()));
        long item = shown.item().item();
        // A request is read as its page says it, not as the bytes that are signed.
        boolean asks = shown.seen().spine().isRequest();
        model.addAttribute("said", asks ? requests.request(actor, item) : null);
        // After a return its signers look at what became of it first; what is released is one click away.
        Optional<ReadRounds.Return> returned = rounds.returnedBefore(actor, view, shown);
        Optional<VersionRow> former = compare.before(item, version);
        List<Since> against = since(actor, view, shown, version, returned, former);
        Optional<Since> chosen = against.stream()
                .filter(s -> s.code().equals(since))
                .findFirst()
                .or(() -> against.stream().findFirst());
        Optional<VersionRow> before = chosen.map(Since::version);
        model.addAttribute("signedBefore", rounds.signedBefore(view));
        model.addAttribute("returned", returned.orElse(null));
        model.addAttribute("against", against);
        model.addAttribute("since", chosen.map(Since::code).orElse(""));
        model.addAttribute("before", before.orElse(null));
        model.addAttribute(
                "compared",
                before.flatMap(old -> room.soon(
                                () -> compare.ringed(old, version), Optional.<mintshelf.app.sight.Compared>empty()))
                        .orElse(null));
        model.addAttribute("isModel", ModelFormat.of(version).isPresent());
        model.addAttribute(
                "modelled",
                before.flatMap(old -> room.soon(
                                () -> room.apart(() -> models.compare(
                                        old.drawn().content(), version.drawn().content())),
                                Optional.<ModelComparison>empty()))
                        .orElse(null));
        Map<Long, List<Remark>> open = rounds.remarks(view);
        model.addAttribute("remarks", open.getOrDefault(item, List.of()));
        model.addAttribute(
                "citable", open.values().stream().flatMap(List::stream).toList());
        model.addAttribute(
                "citesMine",
                open.values().stream()
                        .flatMap(List::stream)
                        .anyMatch(r -> r.author() == actor.person()
                                && r.round().equals(Optional.of(view.round().id()))));
        model.addAttribute("marks", marks(version, open.getOrDefault(item, List.of())));
    }

    /** What the release of documents takes besides that nobody has sent to be signed yet. */
    List<Seen> unsigned(Actor actor, List<Long> items) {
        return plans.plan(actor, items).of(ReleasePlan.Verdict.SEND).stream()
                .filter(l -> !items.contains(l.item()))
                .map(ReleasePlan.Line::seen)
                .limit(Pages.MOST - items.size())
                .toList();
    }

    /** The walk through the sheets, with what was found and what lies beside. */
    void fillWalk(Actor actor, RoundView view, RoundLine shown, Model model) {
        List<Found> found = walk.found(view, shown);
        model.addAttribute("walk", walk.walk(actor, view, shown));
        model.addAttribute("found", found);
        model.addAttribute(
                "sinceThen",
                room.soon(() -> walk.sinceThen(view, shown, rounds.version(shown), found), List.<String>of()));
        model.addAttribute("papers", walk.papers(actor, view));
        Map<Long, Comparison> changed = new HashMap<>();
        if (view.lines().size() > 1) {
            view.lines().stream()
                    .filter(l -> !RoundPages.isOrder(l))
                    .limit(COMPARED)
                    .forEach(
                            l -> compared(l).ifPresent(c -> changed.put(l.item().item(), c)));
        }
        model.addAttribute("differing", changed);
    }

    /** A page or a picture as marks are laid over it. */
    private Sheet sheet(VersionRow version, long item) {
        Sheet sheet = sheets.sheetSoon(version.drawn().content());
        return sheet.isWhole() && !sheet.isDrawing()
                ? sheets.layout(
                        version.drawn().content(),
                        Optional.empty(),
                        "/documents/" + item + "/versions/" + version.number())
                : sheet;
    }

    /** Open marks, to be laid over the sheet; empty where there are none, or where finding their places takes long. */
    private String marks(VersionRow version, List<Remark> open) {
        if (open.isEmpty()) return "";
        return room.soon(
                () -> redlines.paper(version, "")
                        .filter(paper -> !paper.isSpace())
                        .map(paper ->
                                RedlineSvg.over(redlines.on(version, paper, open), paper.box(), paper.millimetre()))
                        .orElse(""),
                "");
    }

    /** Rounds of a list that are compared; of a longer one the others are when they are opened. */
    private static final int COMPARED = 20;

    /** What the first documents of rounds change on their sheets, by round: of a long list the first rounds'. */
    Map<Long, Comparison> differences(List<RoundView> views) {
        Map<Long, Comparison> all = new HashMap<>();
        views.stream()
                .limit(COMPARED)
                .forEach(view ->
                        compared(view).ifPresent(c -> all.put(view.round().id(), c)));
        return all;
    }

    private Optional<Comparison> compared(RoundView view) {
        return view.lines().stream()
                .filter(l -> !RoundPages.isOrder(l))
                .findFirst()
                .flatMap(this::compared);
    }

    private Optional<Comparison> compared(RoundLine line) {
        return room.soon(
                () -> room.apart(() -> compare.toBefore(line.item().item(), rounds.version(line))),
                Optional.<Comparison>empty());
    }
}
