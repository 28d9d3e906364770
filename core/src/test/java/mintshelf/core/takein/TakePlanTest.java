package mintshelf.core.takein;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Refusal;
import mintshelf.core.content.ContentKind;
import mintshelf.core.document.Aspect;
import mintshelf.core.document.FileName;
import mintshelf.core.filing.FilingRule;
import mintshelf.core.numbering.NumberKey;
import mintshelf.core.revision.ShippedSeries;
import mintshelf.core.takein.TakeRules.Stands;
import mintshelf.core.takein.Taking.Verdict;
import org.junit.jupiter.api.Test;

class TakePlanTest {
    private final List<Found> files = new ArrayList<>();
    private final Map<Integer, Map<Column, String>> mended = new HashMap<>();
    private final Shelf shelf = new Shelf();
    private List<List<String>> table = List.of();
    private TakeRules rules = TakeRules.USUAL;

    /** A shelf with two kinds: drawings by their letters, papers without a stop for what is withdrawn. */
    private static final class Shelf implements Grounds {
        private final Known drawing =
                new Known(1, "drawing", Aspect.DRAWING, ShippedSeries.of("letters"), Set.of(Stands.values()));
        private final Known paper = new Known(
                2,
                "specification",
                Aspect.PAPER,
                ShippedSeries.of("letters"),
                Set.of(Stands.IN_PREPARATION, Stands.RELEASED));
        private final Set<String> numbers = new HashSet<>();
        private final Map<String, String> contents = new HashMap<>();
        private final Set<String> names = new HashSet<>();

        @Override
        public List<FilingRule> rules() {
            return List.of(
                    new FilingRule("", "\\.dxf$", 1, "drawing", "ends in dxf"),
                    new FilingRule("", "\\.txt$", 2, "specification", "ends in txt"));
        }

        @Override
        public Optional<Known> kind(long id) {
            return id == 1 ? Optional.of(drawing) : id == 2 ? Optional.of(paper) : Optional.empty();
        }

        @Override
        public Optional<Known> kindNamed(String name) {
            return List.of(drawing, paper).stream()
                    .filter(k -> k.name().equals(name))
                    .findFirst();
        }

        @Override
        public boolean isUsed(Aspect aspect, NumberKey number) {
            return numbers.contains(aspect + " " + number.key());
        }

        @Override
        public Optional<String> withContent(String content) {
            return Optional.ofNullable(contents.get(content));
        }

        @Override
        public boolean isTaken(String folder, FileName name) {
            return names.contains(folder + "/" + name.key());
        }

        @Override
        public boolean isThere(FileName name) {
            return false;
        }

        @Override
        public List<Refusal> facts(long kind, Map<String, String> said) {
            return said.getOrDefault("mass", "").equals("heavy")
                    ? List.of(Refusal.of("fact.form", "“heavy” is no number.", "Write one."))
                    : List.of();
        }

        @Override
        public LocalDate today() {
            return LocalDate.of(2026, 11, 26);
        }
    }

    private Found file(String path, String content, String... refersTo) {
        return file(path, content, Map.of(), refersTo);
    }

    private Found file(String path, String content, Map<String, String> says, String... refersTo) {
        Found found = new Found(
                files.size(),
                FileName.path(path),
                path,
                content,
                content.length(),
                ContentKind.OTHER,
                says,
                List.of(refersTo),
                "");
        files.add(found);
        return found;
    }

    private TakePlan plan() {
        TakeTable read = table.isEmpty()
                ? TakeTable.NONE
                : TakeTable.of(table, Map.of("mass", "mass", "material", "material"))
                        .orElseThrow(r -> new IllegalStateException(r.says()));
        return TakePlan.of(files, read, rules, mended, shelf);
    }

    private static Taking of(TakePlan plan, Found file) {
        return plan.takings().get(file.at());
    }

    private static List<String> codes(List<Refusal> refusals) {
        return refusals.stream().map(Refusal::code).toList();
    }

    @Test
    void aFileSaysItsNumberItsRevisionAndItsTitleByItsName() {
        Found a = file("drawings/TG40-3030_B_gland-plate.dxf", "x");
        Found b = file("drawings/TG40-3031 cable gland rev C.dxf", "y");
        Found c = file("drawings/gland_B.dxf", "z");
        TakePlan plan = plan();
        assertThat(of(plan, a)).satisfies(t -> {
            assertThat(t.verdict()).isEqualTo(Verdict.GOES);
            assertThat(t.number()).isEqualTo("TG40-3030");
            assertThat(t.label()).isEqualTo("B");
            assertThat(t.title()).isEqualTo("Gland plate");
            assertThat(t.folder()).isEqualTo("drawings");
            assertThat(t.stands()).isEqualTo(Stands.RELEASED);
            assertThat(t.why())
                    .isEqualTo("number from the file name, title from the file name, revision from the file name");
        });
        assertThat(of(plan, b).label()).isEqualTo("C");
        assertThat(of(plan, b).title()).isEqualTo("Cable gland");
        // Without a number it is a name: the B belongs to it.
        assertThat(of(plan, c).label()).isEmpty();
        assertThat(of(plan, c).number()).isEmpty();
        assertThat(of(plan, c).why()).startsWith("number from the series");
    }

    @Test
    void theTableGoesBeforeTheSheetAndThatBeforeTheName() {
        Found a = file("old/TG40-101.dxf", "x", Map.of("number", "TG40-7001", "title", "Clamp", "revision", "-"));
        Found b = file("old/TG40-102.dxf", "y", Map.of("title", "Clamp", "material", "1.4404"));
        table = List.of(
                List.of("File", "Number", "Title", "Rev", "Released on", "Signed by", "Old number", "mass", "Colour"),
                List.of(
                        "old\\TG40-102.dxf",
                        "TG40-7002",
                        "Clamp, long",
                        "b",
                        "14.3.2019",
                        "H. Voss",
                        "K 17; K 18",
                        "2.4",
                        "red"));
        TakePlan plan = plan();
        assertThat(of(plan, a).number()).isEqualTo("TG40-7001");
        assertThat(of(plan, a).title()).isEqualTo("Clamp");
        assertThat(of(plan, a).label()).isEmpty();
        assertThat(of(plan, b)).satisfies(t -> {
            assertThat(t.number()).isEqualTo("TG40-7002");
            assertThat(t.title()).isEqualTo("Clamp, long");
            assertThat(t.label()).isEqualTo("B");
            assertThat(t.date()).contains(LocalDate.of(2019, 3, 14));
            assertThat(t.signers()).isEqualTo("H. Voss");
            assertThat(t.former()).containsExactly("K 17", "K 18");
            assertThat(t.facts()).containsEntry("mass", "2.4").containsEntry("material", "1.4404");
        });
        mended.put(b.at(), Map.of(Column.NUMBER, "TG40-7003"));
        assertThat(of(plan(), b).number()).isEqualTo("TG40-7003");
        assertThat(codes(plan.general())).containsExactly("take.columns");
        assertThat(plan.general().get(0).reason()).contains("Colour");
    }

    @Test
    void revisionsOfOneNumberAreItsHistoryWhereverTheyLie() {
        Found b = file("TG40-101_B.dxf", "b");
        Found a = file("old/TG40-101_A.dxf", "a");
        Found d = file("TG40-101_D.dxf", "d");
        TakePlan plan = plan();
        assertThat(List.of(of(plan, a), of(plan, b), of(plan, d)))
                .extracting(Taking::step, Taking::stands, Taking::document)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(0, Stands.SUPERSEDED, 0),
                        org.assertj.core.groups.Tuple.tuple(1, Stands.SUPERSEDED, 0),
                        org.assertj.core.groups.Tuple.tuple(2, Stands.RELEASED, 0));
        assertThat(codes(of(plan, d).hints())).containsExactly("take.gap");
    }

    @Test
    void whatIsInPreparationLeavesTheOneBeforeReleased() {
        Found a = file("TG40-101_A.dxf", "a");
        Found b = file("TG40-101_B.dxf", "b");
        mended.put(b.at(), Map.of(Column.STAGE, "in work"));
        TakePlan plan = plan();
        assertThat(of(plan, a).stands()).isEqualTo(Stands.RELEASED);
        assertThat(of(plan, b).stands()).isEqualTo(Stands.IN_PREPARATION);
        assertThat(of(plan, b).verdict()).isEqualTo(Verdict.GOES);
        mended.put(a.at(), Map.of(Column.STAGE, "draft"));
        assertThat(codes(of(plan(), a).stops())).containsExactly("take.two_pending");
        assertThat(of(plan(), b).verdict()).isEqualTo(Verdict.WAITS);
        mended.put(b.at(), Map.of(Column.STAGE, "superseded"));
        mended.remove(a.at());
        assertThat(codes(of(plan(), b).stops())).containsExactly("take.superseded");
    }

    @Test
    void historiesThatCannotBeSay() {
        Found one = file("a/TG40-101_A.dxf", "a");
        Found two = file("b/TG40-101 rev A.dxf", "b");
        Found c = file("TG40-102_A.dxf", "c");
        Found d = file("TG40-102_B.dxf", "d");
        Found e = file("TG40-103_17.dxf", "e");
        mended.put(c.at(), Map.of(Column.DATE, "2020-05-01"));
        mended.put(d.at(), Map.of(Column.DATE, "2019-05-01"));
        TakePlan plan = plan();
        assertThat(codes(of(plan, one).stops())).containsExactly("take.same_revision");
        assertThat(codes(of(plan, two).stops())).containsExactly("take.same_revision");
        assertThat(codes(of(plan, d).stops())).containsExactly("take.dates");
        assertThat(of(plan, c).verdict()).isEqualTo(Verdict.WAITS);
        assertThat(codes(of(plan, e).stops())).containsExactly("take.revision");
    }

    @Test
    void aRevisionOfUnknownKindHoldsTheOthersOfItsNumber() {
        Found a = file("TG40-101_A.dxf", "a");
        Found b = file("TG40-101_B.dxf", "b");
        Found c = file("TG40-102_A.q7z", "c");
        mended.put(b.at(), Map.of(Column.KIND, "etching"));
        TakePlan plan = plan();
        assertThat(codes(of(plan, b).stops())).containsExactly("take.kind");
        assertThat(of(plan, a).verdict()).isEqualTo(Verdict.WAITS);
        assertThat(of(plan, a).stands()).isEqualTo(Stands.SUPERSEDED);
        assertThat(codes(of(plan, c).stops())).containsExactly("take.kind_missing");
    }

    @Test
    void doublesAreLeftOutWhereTheyAreNobodysNumber() {
        Found first = file("TG40-101.dxf", "same");
        Found again = file("copy/TG40-101.dxf", "same");
        Found nameless = file("plate copy.dxf", "same");
        Found other = file("TG40-102.dxf", "same");
        TakePlan plan = plan();
        assertThat(of(plan, first).verdict()).isEqualTo(Verdict.GOES);
        assertThat(of(plan, again).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(of(plan, nameless).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(of(plan, other).verdict()).isEqualTo(Verdict.GOES);
        assertThat(codes(of(plan, other).hints())).containsExactly("take.double");
        rules = new TakeRules(Stands.RELEASED, false, false, true);
        assertThat(of(plan(), nameless).verdict()).isEqualTo(Verdict.GOES);
    }

    @Test
    void whatIsOnTheShelfIsNotFiledTwice() {
        Found same = file("TG40-101.dxf", "known");
        Found used = file("TG40-102.dxf", "new");
        Found named = file("x/clamp.dxf", "clamp");
        shelf.contents.put("known", "TG40-101");
        shelf.numbers.add("DRAWING tg40-101");
        shelf.numbers.add("DRAWING tg40-102");
        shelf.names.add("x/clamp.dxf");
        TakePlan plan = plan();
        assertThat(of(plan, same).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(codes(of(plan, used).stops())).containsExactly("take.number_used");
        assertThat(codes(of(plan, named).stops())).containsExactly("take.name");
    }

    @Test
    void namesThatDifferInLettersOnlyAreNamed() {
        file("Plan.dxf", "a");
        Found small = file("plan.DXF", "b");
        Found composed = file("Stu\u0308ck.dxf", "c");
        Found other = file("St\u00fcck.dxf", "d");
        TakePlan plan = plan();
        assertThat(of(plan, small).stops().get(0).reason()).contains("small and capital letters");
        assertThat(of(plan, composed).verdict()).isEqualTo(Verdict.GOES);
        assertThat(codes(of(plan, other).stops())).containsExactly("take.name");
    }

    @Test
    void leftoversAndEmptyFilesAreLeftOutAndUnknownOnesStop() {
        Found thumbs = file("a/Thumbs.db", "x");
        Found lock = file("a/~$spec.docx", "x2");
        Found empty = file("TG40-109.dxf", "");
        Found unknown = file("a/what.xyz", "y");
        TakePlan plan = plan();
        assertThat(of(plan, thumbs).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(of(plan, lock).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(of(plan, empty).verdict()).isEqualTo(Verdict.LEFT_OUT);
        assertThat(codes(of(plan, unknown).stops())).containsExactly("take.kind_missing");
        rules = new TakeRules(Stands.RELEASED, true, true, true);
        assertThat(of(plan(), unknown).verdict()).isEqualTo(Verdict.LEFT_OUT);
        mended.put(unknown.at(), Map.of(Column.KIND, "drawing"));
        assertThat(of(plan(), unknown).verdict()).isEqualTo(Verdict.GOES);
        mended.put(unknown.at(), Map.of(Column.KIND, "painting"));
        assertThat(codes(of(plan(), unknown).stops())).containsExactly("take.kind");
    }

    @Test
    void whatThePersonOrTheTableSaysIsChecked() {
        Found a = file("TG40-101.dxf", "a");
        Found paper = file("SP-200.txt", "p");
        for (String day : List.of("3/14/19", "2027-01-01", "spring")) {
            mended.put(a.at(), Map.of(Column.DATE, day));
            assertThat(codes(of(plan(), a).stops())).as(day).containsExactly("take.date");
        }
        mended.put(a.at(), Map.of(Column.STAGE, "somehow"));
        assertThat(codes(of(plan(), a).stops())).containsExactly("take.stage");
        mended.put(a.at(), Map.of(Column.NUMBER, "TG/40"));
        assertThat(codes(of(plan(), a).stops())).containsExactly("number.form");
        mended.put(a.at(), Map.of(Column.FOLDER, "con/x?"));
        assertThat(of(plan(), a).folder()).isEqualTo("_con/x_");
        mended.put(paper.at(), Map.of(Column.STAGE, "withdrawn"));
        assertThat(codes(of(plan(), paper).stops())).containsExactly("take.route");
        mended.put(a.at(), Map.of(Column.LEAVE_OUT, "yes"));
        assertThat(of(plan(), a).verdict()).isEqualTo(Verdict.LEFT_OUT);
        table = List.of(List.of("file", "mass"), List.of("TG40-101.dxf", "heavy"));
        mended.clear();
        assertThat(codes(of(plan(), a).stops())).containsExactly("fact.form");
    }

    @Test
    void formerNumbersBelongToOneDocument() {
        Found a = file("TG40-101.dxf", "a");
        Found b = file("TG40-102.dxf", "b");
        mended.put(b.at(), Map.of(Column.FORMER, "TG40-101, TG40-102"));
        assertThat(codes(of(plan(), b).stops())).containsExactly("take.former_used");
        assertThat(of(plan(), a).stops()).isEmpty();
        mended.put(a.at(), Map.of(Column.FORMER, "K 9"));
        mended.put(b.at(), Map.of(Column.FORMER, "k 9"));
        assertThat(codes(of(plan(), b).stops())).containsExactly("take.former_used");
    }

    @Test
    void linesThatMeanNoFileOrOneThatIsNamedAlreadyAreListed() {
        file("a/x.dxf", "a");
        file("b/x.dxf", "b");
        Found c = file("TG40-101_A.dxf", "c");
        Found d = file("TG40-101_B.dxf", "d");
        table = List.of(
                List.of("number", "file", "revision", "title"),
                List.of("", "x.dxf", "", "which?"),
                List.of("", "nowhere.dxf", "", "none"),
                List.of("TG40-101", "", "B", "By number"),
                List.of("", "TG40-101_B.dxf", "", "Again"));
        TakePlan plan = plan();
        assertThat(of(plan, d).title()).isEqualTo("By number");
        assertThat(of(plan, c).title()).isEqualTo("TG40-101");
        assertThat(plan.general().get(0).reason())
                .contains("3 lines", "line 2 (x.dxf: 2 files of that name)", "line 3 (nowhere.dxf: no such file)")
                .contains("line 5 (TG40-101_B.dxf stands in line 4 already)");
    }

    @Test
    void componentsComeBeforeWhatTheyStandIn() {
        Found top = file("TG40-101.dxf", "t", "..\\parts\\TG40-102.dxf", "gone.dxf");
        Found middle = file("parts/TG40-102.dxf", "m", "TG40-103.dxf");
        Found leaf = file("parts/TG40-103.dxf", "l", "TG40-101.dxf");
        TakePlan plan = plan();
        assertThat(of(plan, leaf).document()).isLessThan(of(plan, middle).document());
        assertThat(of(plan, middle).document()).isLessThan(of(plan, top).document());
        assertThat(of(plan, top).hints().get(0).reason()).isEqualTo("It names 1 file that is not here: gone.dxf.");
    }

    @Test
    void aTableWithoutItsHeadsIsRefused() {
        assertThat(TakeTable.of(List.of(), Map.of()).refusal().map(Refusal::code))
                .contains("table.empty");
        assertThat(TakeTable.of(List.of(List.of("colour", "size")), Map.of())
                        .refusal()
                        .map(Refusal::code))
                .contains("table.heads");
        List<List<String>> many = new ArrayList<>(java.util.Collections.nCopies(TakeTable.MOST + 2, List.of("x")));
        assertThat(TakeTable.of(many, Map.of()).refusal().map(Refusal::code)).contains("table.long");
    }

    @Test
    void twentyThousandFilesArePlannedAtOnce() {
        for (int i = 0; i < 20_000; i++)
            file("d" + i % 50 + "/OD-" + (100000 + i / 2) + "_" + (i % 2 == 0 ? "A" : "B") + ".dxf", "c" + i);
        TakePlan plan = plan();
        assertThat(plan.takings()).hasSize(20_000).allMatch(t -> t.verdict() == Verdict.GOES);
        assertThat(plan.takings().stream().map(Taking::document).distinct()).hasSize(10_000);
    }
}
