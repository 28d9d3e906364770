package mintshelf.app.use.design;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.RewriteReferences;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sheets;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionRow.MadeBy;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.structure.LinkStore;
import mintshelf.app.store.structure.LinkStore.Link;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.merge.ThreeWay;
import mintshelf.core.hold.HoldRules;
import org.springframework.stereotype.Service;

/** What became of the document from which another one was derived, since that was done or it was taken up last. */
@Service
public class ReadOrigin {
    /** Versions by which nobody has changed what came from the other one. */
    private static final Set<MadeBy> UNTOUCHED =
            Set.of(MadeBy.FILED, MadeBy.REWRITTEN, MadeBy.TAKEN_UP, MadeBy.STAMPED);

    private final Sight sight;
    private final LinkStore links;
    private final VersionStore versions;
    private final Sheets sheets;
    private final ReadingRoom room;

    public ReadOrigin(Sight sight, LinkStore links, VersionStore versions, Sheets sheets, ReadingRoom room) {
        this.sight = sight;
        this.links = links;
        this.versions = versions;
        this.sheets = sheets;
        this.room = room;
    }

    /** How it can be taken up. */
    public enum Way {
        /** Difference by difference, on the sheet. */
        SHEET,
        /** Nothing was changed here: as a whole. */
        WHOLE,
        /** In the program that it is of. */
        BY_HAND
    }

    /**
     * A document and what it was derived from.
     *
     * @param base the version that it was derived from, or that was taken up last
     * @param theirs the latest one of that, {@code mine} the latest one of its own
     */
    public record Origin(
            Seen seen, Seen other, Link link, VersionRow base, VersionRow theirs, VersionRow mine, Way way) {
        public boolean isBehind() {
            return link.isBehind();
        }

        /** By which it is known whether what is taken up is what was looked at. */
        public String shown() {
            return base.number() + "-" + theirs.number() + "-" + mine.number();
        }
    }

    /**
     * @param three of sheets, what becomes of each difference
     * @param acts whether the actor may change the document now: take up, or leave aside
     * @param refusal why it cannot be taken up now; nothing where it can
     */
    public record View(Origin origin, Optional<ThreeWay> three, boolean acts, Optional<Refusal> refusal) {
        public List<ThreeWay.Row> rows() {
            return three.map(ThreeWay::rows).orElse(List.of());
        }
    }

    /** What a document was derived from, where the actor sees both; nothing where it was not, or sees only what is released of it. */
    public Optional<Origin> origin(Actor actor, long item) {
        Seen seen = sight.of(actor, item);
        if (!seen.all()) return Optional.empty();
        return links.origin(item)
                .flatMap(l -> Optional.ofNullable(
                                sight.of(actor, List.of(l.target())).get(l.target()))
                        .filter(Seen::all)
                        .map(other -> origin(seen, other, l)));
    }

    private Origin origin(Seen seen, Seen other, Link link) {
        VersionRow base = version(link.target(), link.capturedNumber());
        VersionRow theirs = version(link.target(), other.version());
        VersionRow mine = version(seen.spine().id(), seen.version());
        return new Origin(seen, other, link, base, theirs, mine, way(seen, theirs, mine));
    }

    private VersionRow version(long item, int number) {
        return versions.version(item, number).orElseThrow(NotThere::new);
    }

    private Way way(Seen seen, VersionRow theirs, VersionRow mine) {
        ContentKind kind = mine.content().kind();
        if (kind == ContentKind.DXF && theirs.content().kind() == ContentKind.DXF) return Way.SHEET;
        boolean untouched = versions.versions(seen.spine().id()).stream().allMatch(v -> UNTOUCHED.contains(v.madeBy()));
        boolean written = kind != ContentKind.STEP || theirs.content().size() <= RewriteReferences.MOST_BYTES;
        return untouched && written && kind == theirs.content().kind() ? Way.WHOLE : Way.BY_HAND;
    }

    /** What can be taken up; not there where it was not derived from anything that the actor sees. */
    public View view(Actor actor, long item) {
        Origin origin = origin(actor, item).orElseThrow(NotThere::new);
        Outcome<ThreeWay> three = three(origin);
        Optional<Refusal> may = may(actor, origin);
        Optional<Refusal> refusal = may.or(() -> origin.way() == Way.BY_HAND
                        ? Optional.of(Refusal.of(
                                "origin.by_hand",
                                "Both files have changed, and only the program that wrote them can put them together.",
                                "Work on it there; say here afterwards what it holds."))
                        : Optional.empty())
                .or(() -> origin.way() == Way.SHEET ? three.refusal() : Optional.empty());
        return new View(origin, three.toOptional(), may.isEmpty(), refusal);
    }

    /** Whether the actor may change it now. */
    Optional<Refusal> may(Actor actor, Origin origin) {
        return actor.access()
                .ask(Right.CHANGE, origin.seen().document().place())
                .or(() -> HoldRules.between(origin.seen().document(), actor.access()));
    }

    /** The three sheets held against each other; refused for what is no sheet. */
    Outcome<ThreeWay> three(Origin origin) {
        if (origin.way() != Way.SHEET) return Outcome.refused("origin.no_sheet", "It is no sheet.", "");
        return room.apart(() -> {
            DxfDrawing base = opened(origin.base().content());
            DxfDrawing theirs = opened(origin.theirs().content());
            DxfDrawing mine = opened(origin.mine().content());
            if (base == null || theirs == null || mine == null)
                return Outcome.refused(
                        "origin.unread",
                        "One of the three sheets cannot be read here.",
                        "Take the changes up in the program that drew them.");
            return ThreeWay.of(base, theirs, mine, sheets.scale(theirs));
        });
    }

    private @org.jspecify.annotations.Nullable DxfDrawing opened(StoredContent content) {
        return sheets.opened(content).orElse(null);
    }
}
