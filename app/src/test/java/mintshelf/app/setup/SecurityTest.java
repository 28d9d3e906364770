package mintshelf.app.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Who reads the instruments: only whoever asks from an address or a network that is named. */
class SecurityTest {
    @Test
    void instrumentsAreReadFromTheNamedPlacesAlone() {
        List<String> own = List.of("127.0.0.1", "::1");
        assertThat(Security.isFrom(own, "127.0.0.1")).isTrue();
        assertThat(Security.isFrom(own, "0:0:0:0:0:0:0:1")).isTrue();
        assertThat(Security.isFrom(own, "10.1.2.9")).isFalse();
        assertThat(Security.isFrom(List.of("10.1.2.0/24"), "10.1.2.9")).isTrue();
        assertThat(Security.isFrom(List.of("10.1.2.0/24"), "10.1.3.9")).isFalse();
        assertThat(Security.isFrom(List.of("10.1.2.0/24"), "::1")).isFalse();
        assertThat(Security.isFrom(List.of(), "127.0.0.1")).isFalse();
    }
}
