package mintshelf.app.page.structure;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.NotThere;
import mintshelf.app.page.FileAnswer;
import mintshelf.app.page.TableAnswer;
import mintshelf.app.page.Words;
import mintshelf.app.sight.Numbered;
import mintshelf.app.use.columns.BomColumns;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.ReadBom;
import mintshelf.app.use.structure.ReadBom.Read;
import mintshelf.app.use.structure.ReadBomOrders;
import mintshelf.app.use.structure.ReadWhereUsed;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.Effectivity;
import mintshelf.core.bom.Serial;
import mintshelf.core.structure.StructureView;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The bill of materials of a document. */
@Controller
public class BomPages {
    /** Orders that a panel lists. */
    private static final int MOST_ORDERS = 20;

    private final ReadBom bom;
    private final KeepBomLines lines;
    private final Numbered numbered;
    private final ReadWhereUsed used;
    private final ReadBomOrders orders;
    private final FileAnswer files;
    private final BomColumns columns;

    public BomPages(
            ReadBom bom,
            KeepBomLines lines,
            Numbered numbered,
            ReadWhereUsed used,
            ReadBomOrders orders,
            FileAnswer files,
            BomColumns columns) {
        this.columns = columns;
        this.bom = bom;
        this.lines = lines;
        this.numbered = numbered;
        this.used = used;
        this.orders = orders;
        this.files = files;
    }

    /**
     * What is asked for, as it stands in the address.
     *
     * @param pieces of the top, in a flat list
     * @param who for whom: engineering, purchasing, manufacturing
     * @param with what it is compared with: a view of the same document, "v7" for a version of it, another document's number; "none"
     */
    public record Asked(
            String who,
            String shape,
            String view,
            @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) Optional<LocalDate> on,
            Optional<Integer> version,
            String with,
            Optional<Integer> pieces,
            Optional<Integer> from,
            String serial,
            String lot) {
        public Asked {
            who = Objects.requireNonNullElse(who, "");
            shape = Objects.requireNonNullElse(shape, "");
            view = Objects.requireNonNullElse(view, "");
            with = Objects.requireNonNullElse(with, "");
            serial = Objects.requireNonNullElse(serial, "");
            lot = Objects.requireNonNullElse(lot, "");
        }

        /** Which product; what is no serial number is none that was asked for. */
        ReadBom.Asked which() {
            return new ReadBom.Asked(Serial.read(serial).toOptional(), Effectivity.lot(lot));
        }

        /** What was asked for and is no serial number, or no lot; empty where there is nothing to say. */
        String odd() {
            ReadBom.Asked which = which();
            if (!serial.isBlank() && which.serial().isEmpty()) return serial;
            return !lot.isBlank() && which.lot().isEmpty() ? lot : "";
        }

        /** Of a flat list: for how many of the top. */
        int many() {
            int asked = form() == BomView.Shape.FLAT ? pieces.orElse(1) : 1;
            return Math.max(1, Math.min(BomView.MOST_PIECES, asked));
        }

        Bom.For purpose() {
            return who.isEmpty() ? Bom.For.ENGINEERING : Bom.For.of(who).orElseThrow(NotThere::new);
        }

        BomView.Shape form() {
            if (shape.isEmpty()) return purpose() == Bom.For.PURCHASING ? BomView.Shape.FLAT : BomView.Shape.TREE;
            // What is bought has no levels that would be of use to who buys it.
            if (purpose() == Bom.For.PURCHASING) return BomView.Shape.FLAT;
            return Arrays.stream(BomView.Shape.values())
                    .filter(s -> s.code().equals(shape))
                    .findFirst()
                    .orElseThrow(NotThere::new);
        }

        StructureView of() {
            return view.isEmpty()
                    ? StructureView.LATEST
                    : StructureView.of(view).orElseThrow(NotThere::new);
        }

        LocalDate day(Words words) {
            return on.orElseGet(words::today);
        }
    }

    /** What it is compared with, and how that is called. */
    record With(Read read, String says, String code) {}

    private Optional<With> with(Actor actor, Read now, Asked asked, LocalDate day) {
        long item = now.top().spine().id();
        String with = asked.with();
        if (with.equals("none")) return Optional.empty();
        if (with.isEmpty()) {
            // What is being prepared differs from what is in force; what is in force has nothing to differ from
            // unasked.
            boolean usual = now.view() == StructureView.LATEST
                    && asked.version().isEmpty()
                    && now.top().pending().isPresent()
                    && now.top().document().released().isPresent();
            if (!usual) return Optional.empty();
            with = StructureView.AS_RELEASED.code();
        }
        String code = with;
        if (code.matches("v\\d{1,9}")) {
            try {
                return bom.of(
                                actor,
                                item,
                                StructureView.AS_SAVED,
                                Optional.of(Integer.valueOf(code.substring(1))),
                                day,
                                asked.which())
                        .map(r -> new With(r, "version " + r.version(), code));
            } catch (NotThere e) {
                return Optional.empty();
            }
        }
        Optional<StructureView> view = StructureView.of(code);
        if (view.isPresent())
            return bom.of(actor, item, view.get(), Optional.empty(), day, asked.which())
                    .map(r -> new With(r, says(r), code));
        return numbered.leading(actor, item, code)
                .flatMap(other -> bom.of(actor, other.spine().id(), now.view(), Optional.empty(), day, asked.which()))
                .map(r -> new With(
                        r, r.top().document().number() + ", " + r.view().words(), code));
    }

    private static String says(Read read) {
        String revision = read.bom().top().revision();
        return read.view().isReleasedOnly() && !revision.isEmpty()
                ? "revision " + revision
                : "what is " + read.view().words();
    }

    @GetMapping("/documents/{id}/bom")
    String page(Actor actor, @PathVariable long id, Asked asked, @ModelAttribute("w") Words words, Model model) {
        Optional<Read> found = rows(actor, id, asked, words, model);
        if (found.isEmpty()) {
            model.addAttribute("seen", bom.top(actor, id));
            model.addAttribute("view", asked.of());
            return "structure/bom-none";
        }
        Read read = found.get();
        model.addAttribute("shapes", BomView.Shape.values());
        model.addAttribute("purposes", Bom.For.values());
        model.addAttribute(
                "views",
                Arrays.stream(StructureView.values())
                        .filter(v -> read.top().all() || v.isReleasedOnly())
                        .toList());
        model.addAttribute(
                "shows",
                read.bom().size() == 1 ? used.of(actor, id, false).shows().orElse(null) : null);
        return "structure/bom";
    }

    /** More rows of it, as somebody gets to them. */
    @GetMapping("/documents/{id}/bom/rows")
    String more(Actor actor, @PathVariable long id, Asked asked, @ModelAttribute("w") Words words, Model model) {
        if (rows(actor, id, asked, words, model).isEmpty()) throw new NotThere();
        return "structure/_bom :: rows";
    }

    /** What of it changes with orders that are under way, for a panel of the page. */
    @GetMapping("/documents/{id}/bom/orders")
    String orders(Actor actor, @PathVariable long id, Asked asked, @ModelAttribute("w") Words words, Model model) {
        Read read = bom.of(actor, id, asked.of(), asked.version(), asked.day(words), asked.which())
                .orElseThrow(NotThere::new);
        List<ReadBomOrders.Changing> changing = orders.of(actor, read);
        model.addAttribute("changing", changing.stream().limit(MOST_ORDERS).toList());
        model.addAttribute("orders", changing.size());
        model.addAttribute("most", read.bom().size() > ReadBomOrders.MOST_PARTS ? ReadBomOrders.MOST_PARTS : 0);
        return "structure/_bom-orders";
    }

    private Optional<Read> rows(Actor actor, long id, Asked asked, Words words, Model model) {
        LocalDate day = asked.day(words);
        Optional<Read> found = bom.of(actor, id, asked.of(), asked.version(), day, asked.which());
        model.addAttribute("day", day);
        model.addAttribute("asked", asked);
        model.addAttribute("odd", asked.odd());
        if (found.isEmpty()) return found;
        Read read = found.get();
        Optional<With> with = asked.form() == BomView.Shape.FLAT ? Optional.empty() : with(actor, read, asked, day);
        if (with.isEmpty() && !asked.with().isEmpty() && !asked.with().equals("none"))
            model.addAttribute("noOther", asked.with());
        Optional<BomCompare.Result> compared =
                with.map(w -> BomCompare.of(w.read().bom(), read.bom()));
        int from = Math.max(0, asked.from().orElse(0));
        model.addAttribute("b", BomView.of(read, asked.purpose(), asked.form(), asked.many(), from, compared));
        model.addAttribute("extra", columns.of(actor, asked.purpose()));
        model.addAttribute("with", with.orElse(null));
        model.addAttribute("said", compared.map(c -> said(c, read)).orElse(null));
        boolean now = asked.version().isEmpty() && read.view() == StructureView.LATEST;
        model.addAttribute(
                "mayWrite", now && KeepBomLines.refusal(actor, read.top()).isEmpty());
        return found;
    }

    /** What a comparison comes to, in words. */
    private static List<String> said(BomCompare.Result result, Read read) {
        List<String> said = new ArrayList<>();
        for (BomCompare.What what : BomCompare.What.values()) {
            long n = result.count(what);
            if (n > 0) said.add(n + " " + what.name().toLowerCase(Locale.ROOT));
        }
        List<String> sums = new ArrayList<>();
        sums.add(BomView.signed(result.mass(), BomView.kilograms(result.mass().abs()))
                + (result.unknownMass() > 0 ? " known, " + lines(result.unknownMass()) + " unknown" : ""));
        BigDecimal cost = result.cost();
        sums.add(BomView.signed(cost, BomView.money(cost.abs(), read.currency()))
                + (result.unknownCost() > 0 ? " known, " + lines(result.unknownCost()) + " unknown" : ""));
        return List.of(said.isEmpty() ? "nothing differs" : String.join(", ", said), String.join(" · ", sums));
    }

    private static String lines(int n) {
        return n + (n == 1 ? " line" : " lines");
    }

    /** The rows as a table: CSV, XLSX. */
    @GetMapping("/documents/{id}/bom.{format}")
    ResponseEntity<byte[]> table(
            Actor actor,
            @PathVariable long id,
            @PathVariable String format,
            Asked asked,
            @ModelAttribute("w") Words words) {
        Read read = bom.of(actor, id, asked.of(), asked.version(), asked.day(words), asked.which())
                .orElseThrow(NotThere::new);
        return TableAnswer.of(
                read.top().document().number() + " bill of materials",
                format,
                "bill of materials",
                BomTable.rows(read, asked.purpose(), asked.form(), asked.many(), columns.of(actor, asked.purpose())));
    }

    /** What a version changed of it against an earlier one, for a page that names them; nothing where neither has lines. */
    @GetMapping("/documents/{id}/bom/changed")
    String changed(
            Actor actor,
            @PathVariable long id,
            @RequestParam int version,
            @RequestParam int old,
            @ModelAttribute("w") Words words,
            HttpServletResponse response,
            Model model) {
        Optional<Read> now = saved(actor, id, version, words);
        Optional<Read> before = saved(actor, id, old, words);
        boolean some = now.filter(r -> r.top().all()).isPresent()
                && before.isPresent()
                && Math.max(now.get().bom().size(), before.get().bom().size()) > 1;
        if (!some) {
            response.setStatus(HttpServletResponse.SC_NO_CONTENT);
            return null;
        }
        model.addAttribute(
                "said", said(BomCompare.of(before.get().bom(), now.get().bom()), now.get()));
        model.addAttribute("id", id);
        model.addAttribute("now", version);
        model.addAttribute("old", old);
        return "structure/_bom-changed";
    }

    private Optional<Read> saved(Actor actor, long id, int version, Words words) {
        return bom.of(actor, id, StructureView.AS_SAVED, Optional.of(version), words.today());
    }

    /** The structure as an exchange file without shapes. */
    @GetMapping("/documents/{id}/bom.stp")
    void step(
            Actor actor,
            @PathVariable long id,
            Asked asked,
            @ModelAttribute("w") Words words,
            HttpServletResponse response)
            throws IOException {
        Read read = bom.of(actor, id, asked.of(), asked.version(), asked.day(words), asked.which())
                .orElseThrow(NotThere::new);
        String name = read.top().document().number() + " structure.stp";
        files.send(BomStep.of(read, name, words.now(), actor.name()), name, response);
    }

    /** The form of a line, a new one where no find number is said. */
    @GetMapping("/documents/{id}/bom/line")
    String line(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "") String find, Model model) {
        KeepBomLines.Form form = lines.form(actor, id, find);
        model.addAttribute("f", form);
        model.addAttribute("units", BomUnits.ALL);
        model.addAttribute("comes", Comes.values());
        return "structure/bom-line";
    }

    @PostMapping("/documents/{id}/bom/lines")
    String write(
            Actor actor,
            @PathVariable long id,
            @RequestParam String actKey,
            @ModelAttribute KeepBomLines.Typed typed,
            @RequestParam Optional<Long> component) {
        if (component.isPresent()) return "redirect:" + lines.say(actor, id, actKey, component.get(), typed);
        return "redirect:" + lines.write(actor, id, actKey, typed);
    }

    @PostMapping("/documents/{id}/bom/lines/drop")
    String drop(Actor actor, @PathVariable long id, @RequestParam String actKey, @RequestParam int seq) {
        return "redirect:" + lines.drop(actor, id, actKey, seq);
    }
}
