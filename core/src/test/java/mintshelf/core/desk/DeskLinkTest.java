package mintshelf.core.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DeskLinkTest {
    private static final String TAG = "0123456789abcdef";

    @Test
    void aLinkIsReadAsItWasWrittenHoweverAProgramHandsItOver() {
        DeskLink link = new DeskLink(TAG, DeskLink.code(new Random(1)));
        assertThat(DeskLink.read(link.text())).contains(link);
        assertThat(DeskLink.read(link.text() + "/")).contains(link);
        assertThat(DeskLink.read(link.text().replace("mint-shelf:", "mint-shelf://")))
                .contains(link);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "mint-shelf:",
                "mint-shelf:open/0123456789abcdef/short",
                "mint-shelf:open/0123456789abcdef/../../../etc/passwd22222",
                "mint-shelf:open/0123456789ABCDEF/abcdefghijklmnopqrstuvwxyz",
                "mint-shelf:fetch/0123456789abcdef/abcdefghijklmnopqrstuvwxyz",
                "mint-shelf:open/0123456789abcdef/abcdefghijklmnopqrstuvwxyz?path=/etc",
                "mint-shelf:open/0123456789abcdef/abcdefghijklmnopqrstuvwxyz#x",
                "mint-shelf:open/0123456789abcdef/abcdefghijklmnopqrstuvwxyz\n",
                "mint-shelf:////open/0123456789abcdef/abcdefghijklmnopqrstuvwxyz",
                "http://mint-shelf:open/0123456789abcdef/abcdefghijklmnopqrstuvwxyz",
                "--desk=/tmp"
            })
    void nothingElseIsALink(String text) {
        assertThat(DeskLink.read(text)).isEmpty();
    }

    @Test
    void codesDoNotComeTwice() {
        Random random = new Random(7);
        assertThat(IntStream.range(0, 1_000)
                        .mapToObj(i -> DeskLink.code(random))
                        .collect(Collectors.toSet()))
                .hasSize(1_000)
                .allMatch(code -> code.matches("[a-z2-7]{26}"));
    }
}
