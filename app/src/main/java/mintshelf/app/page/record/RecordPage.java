package mintshelf.app.page.record;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.store.record.RecordQuestionStore.Question;
import mintshelf.app.store.record.RecordQuestionStore.Spot;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.app.use.record.ReadRecord;
import mintshelf.app.use.record.RecordExport;
import mintshelf.core.base.Texts;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The record of the house: asked by who, what, when, document and words; given out as CSV and JSON. */
@Controller
public class RecordPage {
    private static final int PAGE = 60;
    private static final Map<String, String> ACTS = new LinkedHashMap<>();

    static {
        ACTS.put("version.", "versions");
        ACTS.put("revision.", "revisions");
        ACTS.put("hold.", "holds");
        ACTS.put("stray.", "strays");
        ACTS.put("facts.", "facts");
        ACTS.put("signoff.", "sign-offs");
        ACTS.put("remark.", "remarks");
        ACTS.put("house.", "house rules and grants");
        ACTS.put("person.", "people");
        ACTS.put("access.", "refused");
    }

    private final ReadRecord record;
    private final Clock clock;

    public RecordPage(ReadRecord record, Clock clock) {
        this.record = record;
        this.clock = clock;
    }

    /** What the form asks, as it is written in addresses. Days are days of who asks; the last one is included. */
    public record Asked(String who, String document, String acts, String from, String until, String words) {
        static Asked of(Map<String, String> form) {
            return new Asked(
                    text(form, "who"),
                    text(form, "document"),
                    text(form, "acts"),
                    text(form, "from"),
                    text(form, "until"),
                    text(form, "words"));
        }

        private static String text(Map<String, String> form, String name) {
            return Texts.shorten(Texts.line(form.getOrDefault(name, "")).strip(), 100);
        }

        Question question(ZoneId zone) {
            return new Question(
                    who,
                    document,
                    acts,
                    day(from).map(d -> d.atStartOfDay(zone).toInstant()),
                    day(until).map(d -> d.plusDays(1).atStartOfDay(zone).toInstant()),
                    words);
        }

        private static Optional<LocalDate> day(String text) {
            if (text.isEmpty()) return Optional.empty();
            try {
                LocalDate day = LocalDate.parse(text);
                if (day.getYear() < 1970 || day.getYear() > 9000) throw new DateTimeException("far away");
                return Optional.of(day);
            } catch (DateTimeException e) {
                throw Refused.because("record.day", "“" + text + "” is no day.", "Write it as 2026-11-24.");
            }
        }

        public boolean isEmpty() {
            return (who + document + acts + from + until + words).isEmpty();
        }
    }

    @GetMapping("/record")
    String show(Actor actor, @RequestParam Map<String, String> form, Model model) {
        Asked asked = Asked.of(form);
        Optional<Spot> before = form.containsKey("before") ? Optional.of(spot(form)) : Optional.empty();
        List<Shown> entries = record.ofHouse(actor, asked.question(ZoneId.of(actor.zone())), before, PAGE + 1);
        List<Shown> shown = entries.size() > PAGE ? entries.subList(0, PAGE) : entries;
        model.addAttribute("entries", shown);
        model.addAttribute("asked", asked);
        model.addAttribute("kinds", ACTS);
        model.addAttribute("next", entries.size() > PAGE ? shown.get(PAGE - 1).entry() : null);
        return "record/page";
    }

    private static Spot spot(Map<String, String> form) {
        try {
            return new Spot(
                    Instant.parse(form.getOrDefault("before", "")),
                    Long.parseLong(form.getOrDefault("stream", "0")),
                    Integer.parseInt(form.getOrDefault("seq", "0")));
        } catch (DateTimeException | NumberFormatException e) {
            throw new NotThere();
        }
    }

    /** All that the question asks for, not only the page that was seen. */
    @GetMapping("/record/export")
    void export(
            Actor actor, @RequestParam Map<String, String> form, @RequestParam String as, HttpServletResponse response)
            throws IOException {
        boolean csv = as.equals("csv");
        if (!csv && !as.equals("json")) throw new NotThere();
        Question question = Asked.of(form).question(ZoneId.of(actor.zone()));
        // What is wrong with the question is said on a page, before the first byte of a file.
        record.after(actor, question, Optional.empty(), 1);
        response.setContentType(csv ? "text/csv;charset=UTF-8" : "application/json;charset=UTF-8");
        response.setHeader(
                HttpHeaders.CONTENT_DISPOSITION,
                ContentDisposition.attachment()
                        .filename("record-" + LocalDate.now(clock.withZone(ZoneId.of(actor.zone()))) + "." + as)
                        .build()
                        .toString());
        try (Writer out = new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
                RecordExport export = csv ? RecordExport.csv(out) : RecordExport.json(out)) {
            record.giveOut(actor, question, portion -> {
                try {
                    for (Shown each : portion) export.write(each);
                    out.flush();
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }
}
