package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import mintshelf.core.house.SignOffRule;
import mintshelf.core.house.Subject;
import mintshelf.core.signoff.Asked;
import mintshelf.core.signoff.Decision;
import mintshelf.core.signoff.Policy;
import mintshelf.core.signoff.SignOffLine;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.Keys;

/** Many rounds gone through one after the other, decided together; what cannot be signed says why and stays. */
class SignManyTest extends InAHouse {
    private final Review review = new Review(server);

    private long sent() {
        long item = review.drawing(server.shelf(), "many " + Server.key() + ".dxf");
        review.send("priya", item);
        return item;
    }

    private String number(long item) {
        return server.document(item).number();
    }

    private static String ids(Long... items) {
        return String.join(",", Stream.of(items).map(String::valueOf).toList());
    }

    private static String location(java.net.http.HttpResponse<String> answer) {
        return answer.headers().firstValue("Location").orElse("");
    }

    private Map<String, String> form(String decision, Long... items) {
        Map<String, String> form = new HashMap<>(Map.of("actKey", Server.key(), "decision", decision));
        form.put("document", ids(items));
        for (long item : items) {
            review.store().openRound(item).ifPresent(r -> form.put("seen." + item, review.digest("hedda", r)));
        }
        return form;
    }

    @Test
    void whatWaitsIsSignedTogetherAndTheRestSaysWhyItStays() {
        long one = sent();
        long two = sent();
        long answered = sent();
        review.sign("hedda", review.store().openRound(answered).orElseThrow());
        long alone = review.drawing(server.shelf(), "alone " + mark + ".dxf");
        Web hedda = Web.as(server, "hedda");
        String page = hedda.get("/sign?items=" + ids(one, two, answered, alone)).body();
        assertThat(page)
                .contains("2 questions to decide", number(one), number(two), "Stays as it is")
                .contains("You answered in this round", "is in no open round");
        String to = location(hedda.post("/sign", form("signed", one, two)));
        assertThat(to).contains("/runs/");
        assertThat(hedda.get(to.substring(to.indexOf("/runs"))).body()).contains("Sign 2 rounds", "signed");
        for (long item : List.of(one, two)) {
            assertThat(review.store()
                            .round(review.store().openRound(item).orElseThrow())
                            .orElseThrow()
                            .signOffs())
                    .hasSize(1);
        }
        assertThat(hedda.post("/sign", form("signed", one, two)).body()).contains("Nothing was changed");
    }

    @Test
    void theWholeTrayIsGoneThroughAndAReturnNeedsAWord() {
        long one = sent();
        Web hedda = Web.as(server, "hedda");
        assertThat(hedda.get("/sign").body()).contains(number(one));
        assertThat(hedda.post("/sign", form("returned", one)).body()).contains("Returning needs a word why");
        Map<String, String> form = form("returned", one);
        form.put("remark", "all of them lack the new logo");
        assertThat(location(hedda.post("/sign", form))).contains("/runs/");
        assertThat(server.document(one).current().stage().name()).isEqualTo("In preparation");
        assertThat(hedda.post("/sign", Map.of("actKey", Server.key(), "decision", "signed"))
                        .body())
                .contains("Nothing is chosen");
        assertThat(Web.as(server, "rafael").get("/sign").body()).contains("Nothing of this waits for you");
        assertThat(Web.as(server, "rafael").get("/sign?items=" + one).statusCode())
                .as("readers learn nothing")
                .isEqualTo(200);
        assertThat(Web.as(server, "rafael").get("/sign?items=" + one).body()).doesNotContain(number(one));
    }

    /** What changed after the page was made is not signed unseen, and neither is the rest. */
    @Test
    void whatHasMovedOnSinceIsNotSigned() {
        long one = sent();
        long two = sent();
        Map<String, String> form = form("signed", one, two);
        // As a page that was made before a fact of the second one changed has it.
        form.put("seen." + two, "0".repeat(64));
        assertThat(Web.as(server, "hedda").post("/sign", form).body())
                .contains("has moved on since your page was made");
        for (long item : List.of(one, two)) {
            assertThat(review.store()
                            .round(review.store().openRound(item).orElseThrow())
                            .orElseThrow()
                            .signOffs())
                    .isEmpty();
        }
        form.remove("seen." + one);
        form.put("actKey", Server.key());
        assertThat(Web.as(server, "hedda").post("/sign", form).body()).contains("has moved on");
    }

    @Test
    void oneOfThemIsItsOwnRound() {
        long one = sent();
        assertThat(location(Web.as(server, "hedda").get("/sign?items=" + one)))
                .endsWith("/rounds/" + review.store().openRound(one).orElseThrow());
    }

    /** The password once for all of them; without it those that ask for it are not signed, and nothing is. */
    @Test
    void thePasswordIsSaidOnceForAll() {
        SignOffRule usual =
                (SignOffRule) latest(Subject.SIGN_OFF, "check-and-approve").rule();
        SignOffLine strict = new SignOffLine(
                1, new Asked(Asked.Kind.ROLE, "checker"), 1, "checked", "checked_by", "checked", 2, true, true);
        int shown = latest(Subject.SIGN_OFF, usual.code()).number();
        keep(new SignOffRule(usual.code(), usual.name(), List.of(strict), Policy.FIRST_RETURN), shown, "strict");
        long one = sent();
        long two = sent();
        keep.setBack(server.actor("ines"), Server.key(), Subject.SIGN_OFF, usual.code(), shown, shown + 1);
        Web hedda = Web.as(server, "hedda");
        assertThat(hedda.get("/sign?items=" + ids(one, two)).body()).contains("Your password");
        assertThat(hedda.post("/sign", form("signed", one, two)).body()).contains("asks for your password again");
        Map<String, String> form = form("signed", one, two);
        form.put("password", "guess");
        assertThat(hedda.post("/sign", form).body()).contains("That is not your password");
        form.put("actKey", Server.key());
        form.put("password", Server.PASSWORD);
        assertThat(location(hedda.post("/sign", form))).contains("/runs/");
        assertThat(server.document(one).released()).isPresent();
        assertThat(server.document(two).released()).isPresent();
    }

    @Test
    @Tag("browser")
    void sheetsAreWalkedByKeysAndTheChosenAreSigned() {
        long one = sent();
        long two = sent();
        try (Browser browser = new Browser(server.origin())) {
            browser.signIn("hedda");
            browser.open("/sign?items=" + ids(one, two));
            browser.awaitText("Sign all 2");
            assertThat(browser.find(".many-row[data-current]").getText()).contains(number(one));
            browser.find("body").sendKeys("n");
            browser.await(b -> b.find(".many-look .look").getText().contains(number(two)));
            assertThat(browser.find(".many-row[data-current]").getText()).contains(number(two));
            browser.find("body").sendKeys("x");
            browser.awaitText("Sign 1 of 2");
            browser.find("body").sendKeys("p");
            browser.await(b -> b.find(".many-look .look").getText().contains(number(one)));
            browser.find("[data-many-sign]").sendKeys(Keys.ENTER);
            browser.awaitText("Sign 1 round");
        }
        assertThat(review.store()
                        .round(review.store().openRound(one).orElseThrow())
                        .orElseThrow()
                        .signOffs())
                .extracting(s -> s.decision())
                .containsExactly(Decision.SIGNED);
        assertThat(review.store()
                        .round(review.store().openRound(two).orElseThrow())
                        .orElseThrow()
                        .signOffs())
                .isEmpty();
    }
}
