package mintshelf.core;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** The allowed arrows between the packages of the core; every other import fails the build. */
class ArrowsTest {
    private static final Map<String, Set<String>> ARROWS = Map.ofEntries(
            Map.entry("base", Set.of()),
            Map.entry("content", Set.of("base")),
            Map.entry("fact", Set.of("base", "access", "revision")),
            Map.entry("access", Set.of("base")),
            Map.entry("audit", Set.of("base")),
            Map.entry("notice", Set.of()),
            Map.entry("revision", Set.of("base")),
            Map.entry("search", Set.of("base", "fact", "revision")),
            Map.entry("numbering", Set.of("base", "fact")),
            Map.entry("document", Set.of("base", "content", "fact", "numbering", "revision", "access")),
            Map.entry("hold", Set.of("base", "document", "access", "revision")),
            Map.entry("filing", Set.of("base", "document", "numbering", "fact", "access")),
            Map.entry("takein", Set.of("base", "content", "document", "filing", "numbering", "revision")),
            Map.entry("route", Set.of("base", "document", "revision", "access", "fact")),
            Map.entry(
                    "house",
                    Set.of(
                            "access",
                            "base",
                            "change",
                            "content",
                            "document",
                            "drawing.check",
                            "drawing.titleblock",
                            "fact",
                            "notice",
                            "numbering",
                            "revision",
                            "route",
                            "signoff")),
            Map.entry("next", Set.of("base", "document", "access", "hold", "route")),
            Map.entry("signoff", Set.of("base", "document", "access")),
            Map.entry(
                    "change",
                    Set.of(
                            "base",
                            "document",
                            "numbering",
                            "revision",
                            "access",
                            "drawing",
                            "drawing.compare",
                            "fact",
                            "release")),
            Map.entry("stamp", Set.of("base", "drawing", "drawing.dxf", "drawing.titleblock")),
            Map.entry("drawing", Set.of("base")),
            Map.entry("redline", Set.of("base", "access", "drawing", "drawing.compare", "drawing.svg")),
            Map.entry("redline.exchange", Set.of("base", "drawing", "drawing.pdf", "redline")),
            Map.entry("release", Set.of("base", "structure")),
            Map.entry("model.step", Set.of("base", "fact", "model.shape")),
            Map.entry("model.shape", Set.of("base")),
            Map.entry("model.compare", Set.of("base", "model.shape", "model.step")),
            Map.entry("model.picture", Set.of("base", "drawing", "model.step")),
            Map.entry("trial", Set.of("base", "access", "document", "hold", "revision")),
            Map.entry("reuse", Set.of("base", "access", "document", "numbering", "revision", "structure")),
            Map.entry("bom", Set.of("base", "fact")),
            Map.entry("desk", Set.of("base", "document")),
            Map.entry("reference", Set.of("base", "document", "drawing.dxf", "model.step")),
            Map.entry("family", Set.of("base")),
            Map.entry("structure", Set.of("base", "document", "revision")),
            Map.entry(
                    "drawing.check",
                    Set.of(
                            "base",
                            "drawing",
                            "drawing.compare",
                            "drawing.dxf",
                            "drawing.partslist",
                            "drawing.titleblock",
                            "fact")),
            Map.entry("drawing.partslist", Set.of("base", "bom", "drawing", "drawing.dxf")),
            Map.entry("drawing.compare", Set.of("base", "drawing")),
            Map.entry("drawing.merge", Set.of("base", "drawing", "drawing.compare", "drawing.dxf")),
            Map.entry("drawing.alike", Set.of("drawing")),
            Map.entry("drawing.pdf", Set.of("base", "drawing", "drawing.compare")),
            Map.entry("drawing.svg", Set.of("base", "drawing", "drawing.compare")),
            Map.entry("drawing.dxf", Set.of("base", "drawing")),
            Map.entry("drawing.titleblock", Set.of("base", "drawing", "drawing.compare", "drawing.dxf", "fact")));

    private static final JavaClasses CORE = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("mintshelf.core");

    @Test
    void packagesImportOnlyAlongTheAllowedArrows() {
        ArchRuleDefinition.classes().should(followTheArrows()).check(CORE);
    }

    private static ArchCondition<JavaClass> followTheArrows() {
        return new ArchCondition<>("import along the allowed arrows") {
            @Override
            public void check(JavaClass type, ConditionEvents events) {
                String from = shortName(type.getPackageName());
                type.getDirectDependenciesFromSelf().forEach(d -> {
                    String target = d.getTargetClass().getPackageName();
                    if (!target.startsWith("mintshelf.core")) return;
                    String to = shortName(target);
                    boolean allowed = from.equals(to)
                            || ARROWS.getOrDefault(from, Set.of()).contains(to);
                    if (!allowed)
                        events.add(SimpleConditionEvent.violated(
                                d, from + " may not import " + to + ": " + d.getDescription()));
                });
            }
        };
    }

    private static String shortName(String name) {
        return name.replaceFirst("^mintshelf\\.core\\.?", "");
    }

    @Test
    void onlyOnePackageKnowsHowPagesOfPdfAreWritten() {
        noClasses()
                .that()
                .resideOutsideOfPackage("mintshelf.core.drawing.pdf")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.apache.pdfbox..")
                .check(CORE);
    }

    @Test
    void theCoreHasNoClockAndNoFramework() {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.springframework..", "org.jooq..", "jakarta..", "java.sql..", "java.net.http..")
                .check(CORE);
        noClasses().should().callMethod(Instant.class, "now").check(CORE);
        noClasses().should().callMethod(LocalDate.class, "now").check(CORE);
    }
}
