package mintshelf.app.use.redline;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.effect.Recorder;
import mintshelf.app.effect.SetRemarks;
import mintshelf.app.effect.Telling;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Redlines;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.redline.RemarkStore;
import mintshelf.core.base.Numbers;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Pins;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.exchange.PdfAnnotations;
import mintshelf.core.redline.exchange.WebAnnotations;
import mintshelf.core.redline.exchange.WebAnnotations.Answer;
import mintshelf.core.redline.exchange.WebAnnotations.Brought;
import mintshelf.core.redline.exchange.WebAnnotations.New;
import org.springframework.stereotype.Service;

/**
 * Takes in what people outside wrote: replies join their threads, new remarks become a set of who wrote them. What is here already,
 * by its id, stays as it is, however often a file comes.
 */
@Service
public class TakeInRemarks {
    private static final int NAME = 200;
    private static final String OUTSIDE = " (outside)";

    private final ReadRemarks read;
    private final VersionStore versions;
    private final Redlines redlines;
    private final RemarkStore remarks;
    private final Recorder recorder;
    private final Telling telling;
    private final Acts acts;
    private final Clock clock;

    public TakeInRemarks(
            ReadRemarks read,
            VersionStore versions,
            Redlines redlines,
            RemarkStore remarks,
            Recorder recorder,
            Telling telling,
            Acts acts,
            Clock clock) {
        this.read = read;
        this.versions = versions;
        this.redlines = redlines;
        this.remarks = remarks;
        this.recorder = recorder;
        this.telling = telling;
        this.acts = acts;
        this.clock = clock;
    }

    /** Takes a file of annotations in, of whatever form, on a version's sheet or the layout or page of it that is named; gives what became of it, in words. */
    public String take(Actor actor, long item, int number, String layout, String key, byte[] file) {
        Seen seen = read.seen(actor, item);
        MakeRemark.refusal(actor, seen).ifPresent(r -> {
            throw new Refused(r);
        });
        VersionRow version = versions.version(item, number).orElseThrow(NotThere::new);
        Redlines.Read sheet =
                redlines.read(version, layout).filter(r -> !r.paper().isSpace()).orElseThrow(NotThere::new);
        Look look = remarks.look(actor.person()).orElseGet(() -> Look.of(actor.person()));
        Brought brought = brought(file, version, sheet, look).orElseThrow(Refused::new);
        Map<String, Mark> pinned = new HashMap<>();
        for (New one : brought.remarks()) pinned.put(one.uid(), Pins.pin(one.mark(), sheet.scene()));
        return acts.once(actor, key, () -> taken(actor, seen, version, sheet, brought, pinned));
    }

    /** A PDF with annotations, or a collection of Web Annotations. */
    private Outcome<Brought> brought(byte[] file, VersionRow version, Redlines.Read sheet, Look look) {
        Redlines.Paper paper = sheet.paper();
        return ContentKind.of(Arrays.copyOf(file, Math.min(file.length, ContentKind.SAMPLE))) == ContentKind.PDF
                ? PdfAnnotations.read(file, redlines.where(version, paper), sheet.extents(), paper.scale(), look)
                : WebAnnotations.read(file, paper.box(), paper.scale(), look);
    }

    private String taken(
            Actor actor,
            Seen seen,
            VersionRow version,
            Redlines.Read sheet,
            Brought brought,
            Map<String, Mark> pinned) {
        long item = seen.spine().id();
        Map<String, Remark> known = new HashMap<>();
        remarks.of(item).forEach(r -> known.put(r.uid(), r));
        int made = 0;
        int there = 0;
        List<String> unread = new ArrayList<>(brought.unread());
        for (New one : brought.remarks()) {
            if (known.containsKey(one.uid())) {
                there++;
                continue;
            }
            Remark kept = add(actor, item, version, sheet, one, pinned.get(one.uid()));
            known.put(kept.uid(), kept);
            made++;
        }
        int replied = 0;
        Set<String> spoken = new HashSet<>();
        known.values().forEach(r -> r.replies().forEach(x -> spoken.add(x.uid())));
        for (Answer one : brought.answers()) {
            Remark remark = known.get(one.target());
            if (remark == null) {
                unread.add("A reply of " + one.name() + " answers a remark that is not here.");
            } else if (!spoken.add(one.uid())) {
                there++;
            } else {
                answer(actor, seen, remark, one);
                replied++;
            }
        }
        String says = says(made, replied, there, unread.size());
        if (made + replied > 0) {
            recorder.note(actor, item, "remark.taken_in", version.number(), says, String.join(" ", unread));
        }
        return says;
    }

    private Remark add(Actor actor, long item, VersionRow version, Redlines.Read sheet, New one, Mark mark) {
        Instant now = clock.instant();
        String zone = sheet.paper().zones().at(mark.at().x(), mark.at().y());
        Remark remark = new Remark(
                0,
                one.uid(),
                item,
                version.number(),
                sheet.paper().layout(),
                "",
                one.kind(),
                Remark.State.OPEN,
                one.line(),
                one.description(),
                actor.person(),
                actor.name(),
                outside(one.name()),
                Optional.empty(),
                one.at().filter(at -> at.isBefore(now)).orElse(now),
                mark,
                Box.EMPTY,
                List.of());
        return remarks.remark(remarks.add(remark, version.id(), zone)).orElseThrow();
    }

    private void answer(Actor actor, Seen seen, Remark remark, Answer one) {
        Instant now = clock.instant();
        Remark.Reply reply = new Remark.Reply(
                one.uid(),
                actor.person(),
                outside(one.name()),
                one.at().filter(at -> at.isBefore(now)).orElse(now),
                one.says(),
                Optional.empty());
        // Somebody outside is nobody of the house: their words answer, whoever brings them.
        Remark.State state = remark.state().isOpen() ? Remark.State.ANSWERED : remark.state();
        remarks.reply(reply, remark.id(), state);
        telling.tell(
                actor,
                telling.seeing(Set.of(remark.author()), seen.document().place()),
                "remark.answered",
                Optional.empty(),
                remark.item(),
                outside(one.name()) + " replied to " + remark.number() + " on "
                        + seen.document().number() + ": " + one.says(),
                SetRemarks.address(remark));
    }

    /** A name alone might be that of somebody in the house: it is kept apart. */
    private static String outside(String name) {
        String said = name.contains("<") ? name : name + OUTSIDE;
        return said.length() <= NAME ? said : said.substring(0, NAME);
    }

    private static String says(int made, int replied, int there, int unread) {
        List<String> parts = new ArrayList<>();
        if (made > 0) parts.add("took in " + Numbers.count(made, "remark", "remarks"));
        if (replied > 0) {
            parts.add((made > 0 ? "" : "took in ") + Numbers.count(replied, "reply", "replies"));
        }
        if (there > 0) parts.add(Numbers.grouped(there) + (there == 1 ? " was" : " were") + " here already");
        if (unread > 0) parts.add(Numbers.grouped(unread) + " could not be read");
        return parts.isEmpty() ? "took in nothing" : String.join(", ", parts);
    }
}
