package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;

/** The scripts that know no page, tested where they run: each file of {@code static/tests} names its tests. */
class ScriptsTest extends InBrowser {
    private static final List<String> FILES =
            List.of("snap", "plan", "folder", "upload", "edges", "pick", "widths", "lines", "stage");

    @BeforeAll
    static void open() {
        browser.open("/sign-in");
    }

    @TestFactory
    Stream<DynamicTest> scripts() {
        return FILES.stream().flatMap(file -> {
            List<?> names = (List<?>) run("done(Object.keys(tests))", file);
            assertThat(names).as(file).isNotEmpty();
            return names.stream()
                    .map(name -> DynamicTest.dynamicTest(
                            file + ": " + name,
                            () -> assertThat(run("await tests[name](); done('')", file, name))
                                    .isEqualTo("")));
        });
    }

    private static Object run(String what, Object... arguments) {
        return browser.driver()
                .executeAsyncScript("""
                        const done = arguments[arguments.length - 1];
                        const [file, name] = arguments;
                        import(`/static/tests/${file}.js`).then(async ({ default: tests }) => {
                        """ + what + "}).catch((e) => done(e.stack || String(e)))", arguments);
    }
}
