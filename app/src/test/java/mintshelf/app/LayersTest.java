package mintshelf.app;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import org.junit.jupiter.api.Test;

/** Three floors and one way down. */
class LayersTest {
    private final JavaClasses app = new ClassFileImporter()
            .withImportOption(ImportOption.Predefined.DO_NOT_INCLUDE_TESTS)
            .importPackages("mintshelf.app");

    @Test
    void onlyStoresKnowTheDatabase() {
        noClasses()
                .that()
                .resideOutsideOfPackages("mintshelf.app.store..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("org.jooq..", "mintshelf.database.schema..")
                .check(app);
    }

    @Test
    void theWayLeadsDownOnly() {
        noClasses()
                .that()
                .resideInAPackage("mintshelf.app.store..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("mintshelf.app.use..", "mintshelf.app.page..", "mintshelf.app.api..")
                .check(app);
        noClasses()
                .that()
                .resideInAPackage("mintshelf.app.use..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage("mintshelf.app.page..", "mintshelf.app.api..")
                .check(app);
    }

    @Test
    void pagesDoNotImportPagesNorUseCasesEachOther() {
        slices().matching("mintshelf.app.page.(*)..")
                .should()
                .notDependOnEachOther()
                .check(app);
        slices().matching("mintshelf.app.use.(*)..")
                .should()
                .notDependOnEachOther()
                .check(app);
    }

    @Test
    void useCasesKnowNoHttp() {
        classes()
                .that()
                .resideInAPackage("mintshelf.app.use..")
                .should()
                .onlyDependOnClassesThat()
                .resideOutsideOfPackages("jakarta.servlet..", "org.springframework.web..", "org.springframework.ui..")
                .check(app);
    }
}
