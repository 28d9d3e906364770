package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalLong;
import mintshelf.app.store.hold.StrayStore;
import mintshelf.app.use.change.AskForChange;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.core.signoff.Decision;
import org.junit.jupiter.api.Test;

/** Every page, looked at by a checker of access: names of fields and buttons, order of headings, roles, contrast. */
class AccessibilityTest extends InBrowser {
    /** Rules whose faults are never serious: nobody would hear of them here. */
    private static final List<String> MILD = List.of(
            "region",
            "heading-order",
            "page-has-heading-one",
            "skip-link",
            "empty-heading",
            "aria-allowed-role",
            "image-redundant-alt",
            "presentation-role-conflict",
            "scope-attr-valid",
            "empty-table-header",
            "landmark-unique",
            "landmark-one-main",
            "landmark-no-duplicate-banner",
            "landmark-no-duplicate-contentinfo",
            "landmark-no-duplicate-main",
            "landmark-banner-is-top-level",
            "landmark-complementary-is-top-level",
            "landmark-contentinfo-is-top-level",
            "landmark-main-is-top-level");

    /** The checker is asked for what is wrong and for nothing else: for a hundred pages the rest takes as long as the check. */
    private static final String CHECKER = checker();

    private static final String FAULTS = """
            const [options, done] = arguments;
            const asked = { ...options, resultTypes: ["violations"], selectors: false };
            axe.run({ exclude: [[".drawing"]] }, asked).then(
              (said) => done(said.violations
                .filter((rule) => ["serious", "critical"].includes(rule.impact))
                .map((rule) => `${rule.id} ${rule.nodes[0].html}`)),
              (error) => done(String(error)));
            """;

    @Test
    void noPageHasASeriousFaultOfAccess() {
        long shelf = SERVER.shelf();
        long item = SERVER.file("priya", shelf, "axe.txt", "axe", true);
        long revised = SERVER.released(shelf, "axe released.txt");
        SERVER.bean(StartRevisions.class).start(SERVER.actor("priya"), List.of(revised), Server.key(), "r", "", true);
        SERVER.checkIn("priya", revised, "two", false);
        SERVER.checkIn("tomasz", revised, "unheld", false);
        long stray = SERVER.bean(StrayStore.class).kept(revised).get(0).id();
        long sheet = SERVER.bean(FilingSheets.class)
                .open(
                        SERVER.actor("ines"),
                        shelf,
                        OptionalLong.empty(),
                        List.of(SERVER.bring("ines", "axe.dxf", EverydayWalksTest.sheet("AX-1", "Axe", "n" + shelf))));
        long drawn = EverydayWalksTest.drawing(shelf, "axe drawn.dxf", "AX" + shelf + "-2");
        Review review = new Review(SERVER);
        long sent = review.drawing(shelf, "axe sent.dxf");
        long round = review.send("priya", sent, review.drawing(shelf, "axe too.dxf"));
        review.answer("hedda", round, Decision.REMARKED, "so far so good");
        RedlineTest.noted(SERVER, "hedda", sent, 2, "Axe this edge");
        long tosend = review.drawing(shelf, "axe to send.dxf");
        String asked = SERVER.bean(AskForChange.class)
                .ask(
                        SERVER.actor("priya"),
                        List.of(SERVER.released(shelf, "axe ordered.txt")),
                        Server.key(),
                        "Order",
                        "because",
                        Map.of());
        long wanted = RequestTest.asked(SERVER, "ines", SERVER.released(shelf, "axe wanted.txt"));
        long person = SERVER.actor("priya").person();
        String mark = Server.key().substring(0, 8);
        long part = SERVER.file(
                "priya", shelf, "part-model", "axe part " + mark + ".stp", StructureTest.assembly("x" + mark), false);
        long top = SERVER.file(
                "priya",
                shelf,
                "part-model",
                "axe top " + mark + ".stp",
                StructureTest.assembly("a" + mark, "axe part " + mark + ".stp", 2, "nowhere.stp", 1),
                false);
        long other = SERVER.file(
                "priya", shelf, "part-model", "axe other " + mark + ".stp", StructureTest.assembly("o" + mark), false);
        String trial = InTrial.begun(SERVER, drawn);
        List<String> faults = new ArrayList<>();
        browser.open("/sign-in");
        check("/sign-in", faults);
        assertThat(faults).isEmpty();
        browser.driver().executeScript("document.querySelector('main').append(document.createElement('input'))");
        check("/sign-in", faults);
        assertThat(faults).as("a field without a name is found").singleElement().isEqualTo("/sign-in: label <input>");
        faults.clear();
        browser.signIn("ines");
        for (String path : List.of(
                "/today",
                "/shelves",
                "/shelves/" + shelf,
                "/documents/" + item,
                "/documents/" + revised,
                "/documents/" + revised + "?edit=",
                "/documents/" + item + "/who",
                "/documents/" + item + "/record",
                "/documents/" + item + "/break-hold",
                "/check-out?items=" + item + "," + revised,
                "/check-in?items=" + item,
                "/runs",
                "/strays/" + stray,
                "/requests/" + wanted,
                "/requests/" + wanted + "?edit=",
                "/changes/" + wanted + "/reach",
                "/changes?show=everything",
                "/start-revision?items=" + revised,
                "/documents/" + revised + "/drop-revision",
                "/documents/" + top + "/new-design",
                "/documents/" + top + "/pack",
                "/packs",
                "/trials",
                "/trials/new?items=" + drawn,
                trial,
                trial + "/ask",
                trial + "/adopt",
                "/documents/" + drawn,
                "/check-in?trial=" + trial.substring("/trials/".length()),
                "/swap?items=" + part,
                "/swap?pairs=" + part + "-" + other,
                "/documents/" + top + "/versions/1/model?with=1&of=" + part,
                "/documents/" + revised + "/moves/release",
                "/release-plan?items=" + top + "," + sent,
                "/documents/" + revised + "/versions/1/reinstate",
                "/filings/" + sheet,
                "/documents/" + drawn + "/title-block",
                "/write-sheets?items=" + drawn + "&place=true",
                "/open-rounds",
                "/house/people",
                "/house/sign-offs/check-and-approve",
                "/house/calendar",
                "/house/distribution",
                "/house/change-control",
                "/house/notice-form",
                "/changes/flow",
                "/house/facts/mass",
                "/house/series/documents",
                "/house/kinds/drawing/fill/mass",
                "/house/people/directory",
                "/house/routes/reviewed/draw?stop=withdrawn",
                "/house/running",
                "/follows",
                "/sign",
                "/house/kinds/drawing?beside=1",
                "/house/routes/reviewed",
                "/house/routes/reviewed/draw?move=send",
                "/house/filing",
                "/house/try?name=lid.stp",
                "/sheet-maps",
                "/sheet-maps/1",
                "/check-rules",
                "/check-rules/drawing",
                "/documents/" + drawn + "/versions/1/checks",
                "/people",
                "/people/" + person,
                "/people/" + person + "/like",
                "/documents/" + drawn + "/versions/1/sheet",
                "/documents/" + drawn,
                "/documents/" + sent,
                "/rounds/" + round,
                "/documents/" + sent + "/versions/2/send-remarks",
                "/send-to-review?items=" + tosend + "," + item,
                "/in-tray",
                "/desk/programs",
                "/desk/programs/interface",
                "/start-revision?items=" + revised + "&stray=" + stray,
                "/changes",
                asked,
                asked + "?edit=",
                asked + "/carry-out",
                "/ask-for-change?items=" + revised + "," + sent,
                "/search?q=axe",
                "/documents/" + top + "/structure",
                "/documents/" + top + "/bom",
                "/documents/" + top + "/bom?who=purchasing",
                "/documents/" + top + "/bom/line",
                "/documents/" + top + "/variants",
                "/documents/" + top + "/item",
                "/documents/" + drawn + "/item",
                "/parts/new",
                "/documents/" + BoughtPartsTest.made(SERVER, shelf, "axe grease"),
                "/documents/" + drawn + "/parts-list",
                "/house/currencies",
                "/baselines/new?of=" + top,
                "/baselines",
                "/documents/" + top + "/refers-to",
                "/documents/" + part + "/where-used?ever=",
                "/check-out?items=" + top + "&along=first-level",
                "/take-up?items=" + top,
                "/undo-check-out?items=" + item,
                "/desk",
                "/habits",
                "/record",
                "/documents/0")) {
            browser.open(path);
            check(path, faults);
        }
        // The same pages in other colours: only they can be wrong in the dark theme alone, and PaletteTest asks all of
        // those.
        browser.dark(true);
        for (String path : List.of(
                "/today",
                "/shelves/" + shelf,
                "/documents/" + revised,
                "/rounds/" + round,
                asked,
                "/documents/" + drawn + "/versions/1/checks")) {
            browser.open(path);
            check(path + " dark", faults, Map.of("runOnly", List.of("color-contrast")));
        }
        browser.dark(false);
        browser.signIn("oluwaseun");
        browser.size(390, 844);
        for (String path : List.of("/in-tray", "/rounds/" + round)) {
            browser.open(path);
            check(path + " on a phone", faults);
            assertThat((Long) browser.driver().executeScript("return document.documentElement.scrollWidth"))
                    .as(path + " is no wider than the phone")
                    .isLessThanOrEqualTo(390);
        }
        browser.size(1280, 800);
        assertThat(faults).isEmpty();
    }

    private static void check(String path, List<String> faults) {
        Map<String, Object> off = new HashMap<>();
        MILD.forEach(rule -> off.put(rule, Map.of("enabled", false)));
        check(path, faults, Map.of("rules", off));
    }

    /** Drawings are left out: the checker overlooks their white paper; their ink on it is asserted where a sheet is drawn. */
    private static void check(String path, List<String> faults, Map<String, Object> options) {
        String title = browser.driver().getTitle();
        if (!title.matches("[^<>]+ · Mint Shelf")) faults.add(path + ": its tab says " + title);
        browser.driver().executeScript(CHECKER);
        Object found = browser.driver().executeAsyncScript(FAULTS, options);
        assertThat(found).as(path).isInstanceOf(List.class);
        ((List<?>) found).forEach(fault -> faults.add(path + ": " + fault));
    }

    private static String checker() {
        try (InputStream in = AxeBuilder.class.getResourceAsStream("/axe.min.js")) {
            return new String(Objects.requireNonNull(in).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
