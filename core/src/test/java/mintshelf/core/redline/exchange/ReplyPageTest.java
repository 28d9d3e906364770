package mintshelf.core.redline.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.redline.exchange.WebAnnotations.Source;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** The page that takes answers without a server. */
class ReplyPageTest {
    private static final Source SHEET = new Source("TG40-3030 version 10", "urn:sha256:" + "ab".repeat(32));
    private static final String DATA = WebAnnotations.write(WebAnnotationsTest.everyTool(), SHEET);

    private static String page(String title, String sheet) {
        return ReplyPage.write(title, sheet, "<svg viewBox=\"0 0 9 9\"></svg>", DATA);
    }

    private static String between(String page, String from, String to) {
        int at = page.indexOf(from) + from.length();
        return page.substring(at, page.indexOf(to, at));
    }

    @Test
    void itHoldsItsRemarksAndNoTextOfThemEndsTheScript() {
        String page = page("TG40-3030 version 10", "<svg>sheet</svg>");
        String data = between(page, "<script type=\"application/json\" id=\"data\">", "</script>");
        assertThat(data).doesNotContain("<");
        assertThat(JsonMapper.builder().build().readTree(data))
                .isEqualTo(JsonMapper.builder().build().readTree(DATA));
        assertThat(page).contains("<svg>sheet</svg>", "\\u003cscript>alert(1)");
    }

    @Test
    void itsPolicyLetsItsOwnScriptRunAndNothingElseAndItFetchesNothing() throws Exception {
        String page = page("t", "");
        String script = page.substring(page.lastIndexOf("<script>") + 8, page.lastIndexOf("</script>"));
        String hash = Base64.getEncoder()
                .encodeToString(MessageDigest.getInstance("SHA-256").digest(script.getBytes(StandardCharsets.UTF_8)));
        assertThat(page).contains("default-src 'none'", "script-src 'sha256-" + hash + "'", "form-action 'none'");
        Matcher addresses = Pattern.compile("(src|href)\\s*=\\s*\"(?!#)").matcher(page.replace(DATA, ""));
        assertThat(addresses.find()).as("nothing is fetched").isFalse();
        assertThat(script).doesNotContain("fetch(", "XMLHttpRequest", "innerHTML", "eval(");
    }

    @Test
    void aTitleIsTextAndNoPlaceIsFilledTwice() {
        String page = page("<b>%DATA% & \"x\"</b>", "");
        assertThat(page).contains("<title>&lt;b&gt;%DATA% &amp; &quot;x&quot;&lt;/b&gt;</title>");
        assertThat(page).contains("class=\"bare\"").doesNotContain("%SHEET%", "%MARKS%", "%SCRIPT%", "%POLICY%");
    }
}
