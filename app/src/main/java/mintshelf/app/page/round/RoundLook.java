package mintshelf.app.page.round;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.RoundSight.RoundLine;
import mintshelf.app.sight.RoundSight.RoundView;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.use.compare.CompareSheets;
import mintshelf.app.use.document.ReadSheet;
import mintshelf.app.use.round.ReadRounds;
import mintshelf.app.use.structure.ReadModel;
import mintshelf.core.drawing.compare.Comparison;
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
    private final Redlines redlines;

    public RoundLook(ReadRounds rounds, ReadingRoom room, ReadSheet sheets, CompareSheets compare, Redlines redlines) {
        this.redlines = redlines;
        this.rounds = rounds;
        this.room = room;
        this.sheets = sheets;
        this.compare = compare;
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

    /** @param since {@code release} to compare with what is in force, where it was returned before */
    void fill(Actor actor, RoundView view, RoundLine shown, String since, Model model) {
        var version = rounds.version(shown);
        model.addAttribute("view", view);
        model.addAttribute("shown", shown);
        model.addAttribute("version", version);
        model.addAttribute("sheet", sheets.sheetSoon(version.content()));
        long item = shown.item().item();
        // After a return its signers look at what became of it first; what is released is one click away.
        Optional<ReadRounds.Return> returned = rounds.returnedBefore(actor, view, shown);
        Optional<VersionRow> former = compare.before(item, version);
        boolean sinceReturn = returned.isPresent() && !"release".equals(since);
        Optional<VersionRow> before = sinceReturn ? returned.map(ReadRounds.Return::version) : former;
        model.addAttribute("signedBefore", rounds.signedBefore(view));
        model.addAttribute("returned", returned.orElse(null));
        model.addAttribute("former", former.orElse(null));
        model.addAttribute(
                "formerRevision",
                former.flatMap(old -> rounds.formerRevision(item, old, version)).orElse("the version before"));
        model.addAttribute("sinceReturn", sinceReturn);
        model.addAttribute("before", before.orElse(null));
        model.addAttribute(
                "compared",
                before.flatMap(old -> room.soon(
                                () -> compare.ringed(old, version), Optional.<mintshelf.app.sight.Compared>empty()))
                        .orElse(null));
        model.addAttribute("isModel", ReadModel.format(version).isPresent());
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

    /** Open marks, to be laid over the sheet; empty where there are none, or where finding their places takes long. */
    private String marks(VersionRow version, List<Remark> open) {
        if (open.isEmpty()) return "";
        return room.soon(
                () -> redlines.paper(version.content(), "")
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
                .flatMap(line -> room.soon(
                        () -> room.apart(() -> compare.toBefore(line.item().item(), rounds.version(line))),
                        Optional.<Comparison>empty()));
    }
}
