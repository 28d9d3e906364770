package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentSkipListSet;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.NotThere;
import mintshelf.app.store.filing.FilingStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.filing.FileDocuments;
import mintshelf.app.use.filing.FilingSheets;
import mintshelf.app.use.house.KeepRanges;
import mintshelf.app.use.house.ReadSeries;
import mintshelf.core.base.Refusal;
import mintshelf.core.house.KindRule;
import mintshelf.core.house.SeriesRule;
import mintshelf.core.house.Subject;
import mintshelf.core.structure.StructureView;
import org.junit.jupiter.api.Test;

/** Numbers reserved ahead, used by whom they are for, and given back. */
class RangesTest extends InAHouse {
    private final KeepRanges ranges = server.bean(KeepRanges.class);
    private final ReadSeries series = server.bean(ReadSeries.class);
    private final long shelf = server.shelf();
    private final String letters = "R" + mark.toUpperCase(Locale.ROOT) + "-";
    private final String code = "ranged-" + mark;
    private final String kind = "ranged-sheet-" + mark;

    RangesTest() {
        keep(new SeriesRule(code, "Ranged " + mark, letters + "{n:3}", SeriesRule.Counts.SERVER), 0, "");
        keep.copy(server.actor("ines"), Server.key(), Subject.KIND, "drawing", "ranged sheet " + mark);
        KindRule rule = (KindRule) latest(Subject.KIND, kind).rule();
        keep(with(rule, code, rule.revisions(), "straight", List.of()), 1, "");
    }

    private String file(String login) {
        long item = server.file(login, shelf, kind, unread(), Review.sheet(Server.key()), false);
        return server.document(item).number();
    }

    /** Files under a typed number: its document's number, or the codes of what is in the way. */
    private String typed(String login, String number) {
        FilingSheets filing = server.bean(FilingSheets.class);
        long sheet = filing.open(
                server.actor(login),
                shelf,
                OptionalLong.empty(),
                List.of(server.bring(login, unread(), Review.sheet(Server.key()))));
        FilingStore.Row row =
                filing.sheet(server.actor(login), sheet).lines().get(0).row();
        filing.keep(
                server.actor(login),
                sheet,
                List.of(new FilingStore.Row(
                        row.id(),
                        row.upload(),
                        true,
                        Optional.of(server.kind(kind)),
                        "",
                        number,
                        "",
                        "Typed",
                        "",
                        "",
                        "",
                        row.folder(),
                        Map.of(),
                        row.sameAs(),
                        row.item())));
        FileDocuments.Result result =
                server.bean(FileDocuments.class).file(server.actor(login), sheet, Server.key(), false);
        return result.isFiled()
                ? number
                : result.problems().values().stream()
                        .flatMap(List::stream)
                        .map(Refusal::code)
                        .distinct()
                        .toList()
                        .toString();
    }

    private void reserve(int count, String who) {
        ranges.reserve(server.actor("ines"), Server.key(), code, letters + "#", count, who, "the pump skid");
    }

    private ReadSeries.Reserved only() {
        return series.ranges(server.actor("ines"), code).get(0);
    }

    /** A name of a file of its own in which nobody reads a number. */
    private static String unread() {
        return Server.key().replaceAll("\\d", "x") + ".dxf";
    }

    @Test
    void whatIsReservedIsDrawnForNobodyAndTypedByWhomItIsFor() {
        assertThat(file("priya")).isEqualTo(letters + "001");
        reserve(3, "Tomasz Okrent");
        assertThat(only().span()).isEqualTo(letters + "002 to " + letters + "004");
        assertThat(only().says()).isEqualTo("0 of 3 used");
        assertThat(file("priya")).as("the counter goes on behind it").isEqualTo(letters + "005");
        assertThat(typed("priya", letters + "003")).isEqualTo("[number.reserved]");
        assertThat(typed("tomasz", letters + "003")).isEqualTo(letters + "003");
        assertThat(only().says()).isEqualTo("1 of 3 used");
        assertThat(file("priya")).isEqualTo(letters + "006");
        assertThat(series.counters(server.actor("ines"), code).get(0).gaps())
                .as("what is reserved is no gap")
                .isEmpty();
        assertThat(server.bean(NoticeStore.class).open(server.actor("tomasz").person(), 50))
                .anySatisfy(n -> assertThat(n.says()).contains("reserved " + letters + "002 to", "the pump skid"));
    }

    @Test
    void aNewDesignAsksWhomANumberIsReservedForBeforeItIsMade() {
        long item = server.file("priya", shelf, kind, unread(), Review.sheet(Server.key()), false);
        reserve(3, "tomasz");
        ReadDesign.Asked asked = new ReadDesign.Asked(
                "",
                "",
                false,
                new Wish.Design(
                        item,
                        StructureView.LATEST,
                        Map.of(item, letters + "003"),
                        Optional.empty(),
                        "",
                        List.of(),
                        List.of(),
                        false));
        ReadDesign read = server.bean(ReadDesign.class);
        assertThat(read.of(server.actor("priya"), asked).refusals())
                .extracting(Refusal::code)
                .containsExactly("number.reserved");
        assertThat(read.of(server.actor("tomasz"), asked).refusals()).isEmpty();
    }

    @Test
    void whatIsGivenBackIsDrawnAgainBeforeTheCounterGoesOn() {
        reserve(3, "tomasz");
        assertThat(typed("tomasz", letters + "002")).isEqualTo(letters + "002");
        long range = only().range().id();
        ranges.giveBack(server.actor("ines"), Server.key(), code, range);
        // Once more: nothing happens.
        ranges.giveBack(server.actor("ines"), Server.key(), code, range);
        assertThat(only().says()).isEqualTo("given back; 3 are drawn again next");
        assertThat(file("priya")).isEqualTo(letters + "001");
        assertThat(file("priya")).as("used ones are passed over").isEqualTo(letters + "003");
        assertThat(series.ranges(server.actor("ines"), code)).isEmpty();
        assertThat(file("priya")).isEqualTo(letters + "004");
        assertThat(typed("priya", letters + "005")).isEqualTo(letters + "005");
    }

    @Test
    void noNumberIsDrawnTwiceWhileRangesComeAndGo() throws Exception {
        reserve(8, "");
        ranges.giveBack(server.actor("ines"), Server.key(), code, only().range().id());
        Set<String> drawn = new ConcurrentSkipListSet<>();
        List<String> all = new ArrayList<>();
        ExecutorService threads = Executors.newFixedThreadPool(6);
        try {
            List<Future<String>> filed = new ArrayList<>();
            for (int i = 0; i < 18; i++) {
                String who = i % 2 == 0 ? "priya" : "tomasz";
                filed.add(threads.submit(() -> file(who)));
                if (i == 6) threads.submit(() -> reserve(4, "")).get();
            }
            for (Future<String> one : filed) {
                all.add(one.get());
                drawn.add(one.get());
            }
        } finally {
            threads.shutdown();
        }
        assertThat(drawn).hasSize(all.size()).hasSize(18);
        Set<String> first = new TreeSet<>();
        for (int i = 1; i <= 8; i++) first.add(letters + String.format(Locale.ROOT, "%03d", i));
        assertThat(drawn).containsAll(first);
    }

    @Test
    void whatCannotBeReservedIsRefused() {
        assertThat(code(() ->
                        ranges.reserve(server.actor("ines"), Server.key(), code, letters + "#", 1001, "", "too many")))
                .isEqualTo("range.count");
        assertThat(code(() -> ranges.reserve(
                        server.actor("ines"), Server.key(), code, letters + "#", 5, "Nobody At All", "x")))
                .isEqualTo("fact.person");
        assertThat(code(() ->
                        ranges.reserve(server.actor("priya"), Server.key(), code, letters + "#", 5, "", "not hers")))
                .isEqualTo("access.missing");
        assertThatThrownBy(() -> ranges.reserve(server.actor("ines"), Server.key(), code, "OTHER-#", 5, "", "x"))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> ranges.giveBack(server.actor("ines"), Server.key(), code, Long.MAX_VALUE))
                .isInstanceOf(NotThere.class);
        assertThat(series.ranges(server.actor("ines"), code)).isEmpty();
        assertThat(file("priya")).isEqualTo(letters + "001");
    }

    @Test
    void itIsReservedAndGivenBackThroughThePageOfTheSeries() {
        Web ines = Web.as(server, "ines");
        String page = "/house/series/" + code;
        assertThat(ines.get(page).body()).contains("Reserve the next", "next", letters + "001");
        assertThat(ines.post(
                                page + "/ranges",
                                Map.of(
                                        "actKey", Server.key(),
                                        "scope", letters + "#",
                                        "count", "2",
                                        "who", "",
                                        "note", "castings from outside"))
                        .statusCode())
                .isEqualTo(302);
        String body = ines.get(page).body();
        assertThat(body).contains(letters + "001 to " + letters + "002", "castings from outside", "Give back");
        assertThat(body).contains(letters + "003");
        ines.post(page + "/ranges/" + only().range().id() + "/give-back", Map.of("actKey", Server.key()));
        assertThat(ines.get(page).body())
                .contains("given back; 2 are drawn again next")
                .doesNotContain("Give back");
    }
}
