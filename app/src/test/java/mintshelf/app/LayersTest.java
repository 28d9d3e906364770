package mintshelf.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.stereotype.Repository;

/** The floors, and one way down: page and api, use, effect, sight, ground; stores below effect and sight. */
class LayersTest {
    private static final Path STORES = Path.of("src/main/java/mintshelf/app/store");

    /** From the top. Each may ask those after it. */
    private static final List<String> FLOORS = List.of("page", "api", "use", "effect", "sight", "ground");

    /** Which stores know another one, beside the values in the packages below. */
    private static final Map<String, Set<String>> ARROWS = Map.of(
            "structure", Set.of("shelf", "content"),
            "document", Set.of("shelf", "house", "content"),
            "output", Set.of("content"),
            "hold", Set.of("content"),
            "trial", Set.of("content"),
            "change", Set.of("document"),
            "search", Set.of("document"));

    private static final Pattern WRITES =
            Pattern.compile("(?:insertInto|update|deleteFrom|mergeInto|batchInsert)\\(\\s*([A-Z][A-Z_]+)\\b");
    private static final Pattern KNOWS = Pattern.compile("mintshelf\\.app\\.store\\.(\\w+)\\.");

    private static final JavaClasses APP = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("mintshelf.app");

    private static String floor(String name) {
        return "mintshelf.app." + name + "..";
    }

    @Test
    void onlyStoresKnowTheDatabase() {
        noClasses()
                .that()
                .resideOutsideOfPackages("mintshelf.app.store..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.jooq..", "mintshelf.database.schema..")
                .check(APP);
    }

    @Test
    void theWayLeadsDownOnly() {
        noClasses()
                .that()
                .resideInAPackage(floor("store"))
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(FLOORS.stream().map(LayersTest::floor).toArray(String[]::new))
                .check(APP);
        for (int at = 2; at < FLOORS.size(); at++) {
            noClasses()
                    .that()
                    .resideInAPackage(floor(FLOORS.get(at)))
                    .should()
                    .dependOnClassesThat()
                    .resideInAnyPackage(FLOORS.subList(0, at).stream()
                            .map(LayersTest::floor)
                            .toArray(String[]::new))
                    .check(APP);
        }
    }

    /** An act is done once: that its key was used is all that the ground keeps itself. */
    @Test
    void theGroundKeepsActsAlone() {
        noClasses()
                .that()
                .resideInAPackage(floor("ground"))
                .should()
                .dependOnClassesThat(JavaClass.Predicates.resideInAPackage(floor("store"))
                        .and(JavaClass.Predicates.resideOutsideOfPackage(floor("store.act"))))
                .check(APP);
    }

    @Test
    void pagesAndTheInterfaceAskNoStore() {
        noClasses()
                .that()
                .resideInAnyPackage(floor("page"), floor("api"))
                .should()
                .dependOnClassesThat()
                .areAnnotatedWith(Repository.class)
                .check(APP);
    }

    @Test
    void everyUseCaseStandsInTheFolderOfItsNoun() {
        assertThat(APP.stream().filter(c -> c.getPackageName().equals("mintshelf.app.use")))
                .isEmpty();
    }

    @Test
    void everyPackageSaysWhatItIsFor() throws IOException {
        try (Stream<Path> all = Files.walk(Path.of("src/main/java/mintshelf/app"))) {
            assertThat(all.filter(f -> f.toString().endsWith(".java"))
                            .map(Path::getParent)
                            .distinct())
                    .allSatisfy(folder ->
                            assertThat(folder.resolve("package-info.java")).exists());
        }
    }

    @Test
    void pagesDoNotImportPagesNorUseCasesEachOther() {
        slices().matching("mintshelf.app.page.(*)..")
                .should()
                .notDependOnEachOther()
                .check(APP);
        slices().matching("mintshelf.app.use.(*)..")
                .should()
                .notDependOnEachOther()
                .check(APP);
    }

    @Test
    void nothingBelowThePagesKnowsHttp() {
        classes()
                .that()
                .resideInAnyPackage(floor("use"), floor("effect"), floor("sight"), floor("ground"), floor("store"))
                .should()
                .onlyDependOnClassesThat()
                .resideOutsideOfPackages("jakarta.servlet..", "org.springframework.web..", "org.springframework.ui..")
                .check(APP);
    }

    /** What needs more than nine others does more than one thing. */
    @Test
    void nobodyHasMoreThanNineParts() {
        List<String> many = APP.stream()
                .filter(c -> !c.isRecord() && !c.getSimpleName().contains("$"))
                .flatMap(c -> c.getConstructors().stream())
                .filter(made -> made.getRawParameterTypes().size() > 9)
                .map(made -> made.getFullName())
                .toList();
        assertThat(many).isEmpty();
    }

    @Test
    void noFileIsLongerThanOneReadsAtOnce() throws IOException {
        List<String> tooLong = new ArrayList<>();
        for (String module : List.of("core", "companion", "app", "demo", "bench")) {
            try (Stream<Path> files = Files.walk(Path.of("..", module, "src"))) {
                for (Path file :
                        files.filter(f -> f.toString().endsWith(".java")).toList()) {
                    long lines = Files.readString(file).lines().count();
                    if (lines > 450) tooLong.add(file + " has " + lines);
                }
            }
        }
        assertThat(tooLong).isEmpty();
    }

    @Test
    void aTableIsWrittenByOneStore() throws IOException {
        Map<String, Set<String>> writers = new TreeMap<>();
        for (Path file : sources()) {
            Matcher written = WRITES.matcher(Files.readString(file));
            while (written.find()) {
                writers.computeIfAbsent(written.group(1), t -> new TreeSet<>())
                        .add(file.getFileName().toString());
            }
        }
        assertThat(writers).as("the sources are read").hasSizeGreaterThan(50);
        writers.forEach((table, stores) -> assertThat(stores).as(table).hasSize(1));
    }

    @Test
    void storesKnowEachOtherAsListed() throws IOException {
        Map<String, Set<String>> found = new TreeMap<>();
        for (Path file : sources()) {
            Path within = STORES.relativize(file);
            if (within.getNameCount() < 2) continue;
            String mine = within.getName(0).toString();
            Matcher known = KNOWS.matcher(Files.readString(file));
            while (known.find()) {
                if (!known.group(1).equals(mine))
                    found.computeIfAbsent(mine, s -> new TreeSet<>()).add(known.group(1));
            }
        }
        assertThat(found).isEqualTo(ARROWS);
    }

    private static List<Path> sources() throws IOException {
        try (Stream<Path> all = Files.walk(STORES)) {
            return new ArrayList<>(
                    all.filter(f -> f.toString().endsWith(".java")).toList());
        }
    }
}
