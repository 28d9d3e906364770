package mintshelf.app.effect;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.PdfSheets;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.change.RequestStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.NumberStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.change.PaperSpot;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** Finds the versions that somebody names as evidence: "TG40-3900", "TG40-3900 v2", "TG40-1020 v5 with v4", "TG40-0900 v2 at 4.2". */
@Component
public class FindEvidence {
    private static final Pattern FORM =
            Pattern.compile("(\\S.*?)(?: +v?(\\d{1,9}))?(?: +with +v?(\\d{1,9}))?(?: +at +(\\S.*))?");
    private static final int LONGEST = 200;
    private static final String NOTHING = "Write it as TG40-3900 v1; nothing was changed.";

    private final NumberStore numbers;
    private final VersionStore versions;
    private final Sight sight;
    private final PdfSheets pdfs;
    private final ReadingRoom room;

    public FindEvidence(NumberStore numbers, VersionStore versions, Sight sight, PdfSheets pdfs, ReadingRoom room) {
        this.pdfs = pdfs;
        this.room = room;
        this.numbers = numbers;
        this.versions = versions;
        this.sight = sight;
    }

    /** A version of a document that the actor sees, and an older one that it is held against. */
    public record Found(Seen seen, VersionRow version, Optional<VersionRow> against, Optional<PaperSpot> spot) {
        public RequestStore.NewEvidence evidence(String note) {
            return new RequestStore.NewEvidence(version.id(), against.map(VersionRow::id), spot, note);
        }
    }

    /** Refused where nothing that the actor sees is meant. */
    public Found find(Actor actor, String typed) {
        String text = Texts.line(typed);
        Matcher form = FORM.matcher(text);
        if (text.length() > LONGEST || !form.matches()) {
            throw Refused.because("evidence.form", "“" + Texts.shorten(text, 60) + "” names no version.", NOTHING);
        }
        // A number may end in figures itself: the whole text is tried first.
        Optional<Seen> whole = document(actor, text);
        if (whole.isPresent()) return found(whole.get(), Optional.empty(), Optional.empty(), Optional.empty());
        Seen seen = document(actor, form.group(1))
                .orElseThrow(() -> Refused.because(
                        "evidence.none",
                        "“" + Texts.shorten(form.group(1), 60) + "” is the number of no document that you see.",
                        NOTHING));
        return found(
                seen,
                Optional.ofNullable(form.group(2)),
                Optional.ofNullable(form.group(3)),
                Optional.ofNullable(form.group(4)));
    }

    private Optional<Seen> document(Actor actor, String number) {
        if (!(NumberKey.of(number) instanceof Outcome.Granted<NumberKey> key)) return Optional.empty();
        List<Seen> all = List.copyOf(sight.of(actor, numbers.items(key.value())).values());
        return all.stream().filter(s -> !s.spine().isChangePaper()).findFirst();
    }

    private Found found(Seen seen, Optional<String> version, Optional<String> against, Optional<String> at) {
        int number = version.map(Integer::parseInt).orElse(seen.version());
        VersionRow row = shown(seen, number);
        return new Found(
                seen, row, against.map(a -> shown(seen, Integer.parseInt(a))), at.map(typed -> spot(seen, row, typed)));
    }

    /** The chapter or the page of a paper that somebody names. */
    private PaperSpot spot(Seen seen, VersionRow version, String typed) {
        StoredContent content = version.drawn().content();
        String number = seen.document().number();
        if (!PdfSheets.isPaper(content)) {
            throw Refused.because(
                    "evidence.paper",
                    "Chapters and pages are named in papers; " + number + " is none.",
                    "Leave out what stands behind “at”; nothing was changed.");
        }
        Optional<Integer> page = PaperSpot.page(typed);
        if (page.isPresent()) {
            int all = pdfs.pages(content).map(p -> p.count()).orElseThrow(Refused::new);
            if (page.get() >= 1 && page.get() <= all) return new PaperSpot("", page.get());
            throw Refused.because(
                    "evidence.page", number + " has " + all + " pages.", "Name one of them; nothing was changed.");
        }
        List<PaperSpot> chapters = room.apart(() -> pdfs.chapters(content).stream()
                .filter(c -> c.page() > 0)
                .map(c -> new PaperSpot(Texts.shorten(c.title(), 200), c.page()))
                .toList());
        return PaperSpot.chapter(typed, chapters)
                .orElseThrow(() -> Refused.because(
                        "evidence.chapter",
                        number + " has no chapter “" + Texts.shorten(typed, 60) + "”.",
                        chapters.isEmpty()
                                ? "It names no chapters: write “at page 3”; nothing was changed."
                                : "Write one as its list of chapters has it, or “at page 3”; nothing was changed."));
    }

    /** Of a document of which somebody sees what is released only, that version. */
    private VersionRow shown(Seen seen, int number) {
        Optional<VersionRow> row = seen.all() || number == seen.version()
                ? versions.version(seen.spine().id(), number)
                : Optional.empty();
        return row.orElseThrow(() -> Refused.because(
                "evidence.version",
                seen.document().number() + " has no version " + number + " that you see.",
                "The latest that you see is " + seen.version() + "; nothing was changed."));
    }
}
