package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.Proxy;
import java.net.URI;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;

class ProxiesTest {
    private static String proxy(Map<String, String> environment, String uri) {
        Proxy proxy = new Proxies(new Machine(Machine.Kind.LINUX, Path.of("/home/priya"), environment))
                .select(URI.create(uri))
                .get(0);
        return proxy.type() == Proxy.Type.DIRECT
                ? "none"
                : proxy.address().toString().replaceAll(".*?([^/]+)$", "$1");
    }

    @Test
    void theyAreThoseOfTheEnvironmentByTheSchemeOfTheAddress() {
        Map<String, String> said = Map.of("https_proxy", "http://proxy.works:3128", "HTTP_PROXY", "old.works");
        assertThat(proxy(said, "https://shelf.works/api")).contains("3128");
        assertThat(proxy(said, "http://shelf.works/api")).contains("80");
        assertThat(proxy(Map.of(), "https://shelf.works")).isEqualTo("none");
        assertThat(proxy(Map.of("all_proxy", "any.works:99"), "https://shelf.works"))
                .contains("99");
    }

    @Test
    void whatIsToBeReachedWithoutOneIsAndThisMachineAlwaysIs() {
        Map<String, String> said =
                Map.of("https_proxy", "http://proxy.works:3128", "no_proxy", "shelf.works, .yard.example");
        assertThat(proxy(said, "https://shelf.works")).isEqualTo("none");
        assertThat(proxy(said, "https://a.shelf.works")).isEqualTo("none");
        assertThat(proxy(said, "https://notshelf.works")).contains("3128");
        assertThat(proxy(said, "https://gate.yard.example")).isEqualTo("none");
        assertThat(proxy(said, "https://localhost:8443")).isEqualTo("none");
        assertThat(proxy(Map.of("http_proxy", "p:1"), "http://127.0.0.1:80")).isEqualTo("none");
        assertThat(proxy(Map.of("https_proxy", "p:1", "no_proxy", "*"), "https://x.y"))
                .isEqualTo("none");
    }

    @Test
    void whatIsNoAddressIsNoProxy() {
        assertThat(proxy(Map.of("https_proxy", "http://[broken"), "https://shelf.works"))
                .isEqualTo("none");
        assertThat(proxy(Map.of("https_proxy", "http:///"), "https://shelf.works"))
                .isEqualTo("none");
    }
}
