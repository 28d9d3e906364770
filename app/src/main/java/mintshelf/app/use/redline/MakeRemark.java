package mintshelf.app.use.redline;

import java.time.Clock;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SetRemarks;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.app.store.round.RoundStore;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.DropRules;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Pins;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.RemarkRules;
import mintshelf.core.redline.Space;
import mintshelf.core.redline.Tool;
import org.springframework.stereotype.Service;

/** Marks a sheet. Needs no hold, waits for nobody, never changes the sheet. */
@Service
public class MakeRemark {
    private final Sight sight;
    private final VersionStore versions;
    private final Redlines redlines;
    private final RemarkStore remarks;
    private final RoundStore rounds;
    private final Recorder recorder;
    private final Telling telling;
    private final Acts acts;
    private final Clock clock;

    public MakeRemark(
            Sight sight,
            VersionStore versions,
            Redlines redlines,
            RemarkStore remarks,
            RoundStore rounds,
            Recorder recorder,
            Telling telling,
            Acts acts,
            Clock clock) {
        this.sight = sight;
        this.versions = versions;
        this.redlines = redlines;
        this.remarks = remarks;
        this.rounds = rounds;
        this.recorder = recorder;
        this.telling = telling;
        this.acts = acts;
        this.clock = clock;
    }

    /**
     * A draft that is finished.
     *
     * @param layout that it was drawn on; empty for the sheet
     * @param text the wanted value of a size, the word of a stamp
     * @param view what was looked at
     * @param space where it stands on a model; empty on sheets
     */
    public record Draft(
            String layout,
            Tool tool,
            List<List<Point>> strokes,
            String text,
            Remark.Kind kind,
            String line,
            String description,
            Look look,
            Box view,
            Optional<Space> space) {}

    /** What is in the way of marking the sheets of a document; empty for who may. */
    public static Optional<Refusal> refusal(Actor actor, Seen seen) {
        return RemarkRules.mark(actor.access(), seen.document().place()).or(() -> DropRules.refusal(seen.document()));
    }

    /** Keeps the remark and gives its address. */
    public String make(Actor actor, long item, int number, String key, Draft draft) {
        Seen seen = sight.of(actor, item);
        refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        Redlines.Read sheet = redlines.read(version, draft.layout()).orElseThrow(NotThere::new);
        Mark pinned = pinned(draft, sheet);
        String line =
                Texts.optional("The line", draft.line(), Remark.LONGEST_LINE).orElseThrow(Refused::new);
        String description = Texts.optionalLines("The description", draft.description(), Remark.LONGEST_DESCRIPTION)
                .orElseThrow(Refused::new);
        String zone = sheet.paper().isSpace()
                ? ""
                : sheet.paper().zones().at(pinned.at().x(), pinned.at().y());
        String chapter = redlines.chapter(version, sheet.paper(), pinned)
                .map(c -> " in “" + c + "”")
                .orElse("");
        return acts.once(actor, key, () -> {
            Optional<Long> round = rounds.openRound(item);
            Remark remark = new Remark(
                    0,
                    UUID.randomUUID().toString(),
                    item,
                    number,
                    sheet.paper().layout(),
                    "",
                    draft.kind(),
                    Remark.State.OPEN,
                    line,
                    description,
                    actor.person(),
                    actor.name(),
                    "",
                    round,
                    clock.instant(),
                    pinned,
                    draft.view(),
                    List.of());
            Remark kept =
                    remarks.remark(remarks.add(remark, version.id(), zone)).orElseThrow();
            recorder.note(actor, item, "remark.made", number, "made remark " + kept.number() + chapter, kept.says());
            // In a round its decision tells; marks on what nobody decides on are told one by one.
            if (round.isEmpty()) tell(actor, seen, version, kept, chapter);
            return SetRemarks.address(kept);
        });
    }

    private static Mark pinned(Draft draft, Redlines.Read sheet) {
        if (sheet.paper().isSpace()) {
            Space space = draft.space()
                    .orElseThrow(() -> Refused.because(
                            "mark.form", "What was drawn stands nowhere on the model.", "Pick a place of it."));
            return Mark.read(draft.tool(), space, draft.text(), draft.look()).orElseThrow(Refused::new);
        }
        if (draft.space().isPresent()) {
            throw Refused.because("mark.form", "This is no model.", "Draw on the sheet; nothing was kept.");
        }
        if (!sheet.paper().tools().contains(draft.tool())) {
            throw Refused.because(
                    "mark.form", "A picture has no sizes: it does not say how large a dot is.", "Draw an arrow note.");
        }
        Mark mark = Mark.read(
                        draft.tool(),
                        draft.strokes(),
                        draft.text(),
                        draft.look(),
                        sheet.paper().scale(),
                        sheet.paper().box())
                .orElseThrow(Refused::new);
        return Pins.pin(mark, sheet.scene());
    }

    private void tell(Actor actor, Seen seen, VersionRow version, Remark remark, String chapter) {
        Set<Long> receivers = new LinkedHashSet<>(List.of(version.author()));
        seen.document().holder().ifPresent(h -> receivers.add(h.person()));
        String what = remark.says().isEmpty() ? "" : ": " + remark.says();
        telling.tell(
                actor,
                telling.seeing(receivers, seen.document().place()),
                "remark.made",
                Optional.empty(),
                remark.item(),
                actor.name() + " marked " + seen.document().number() + ", " + remark.number() + chapter + what,
                SetRemarks.address(remark));
    }
}
