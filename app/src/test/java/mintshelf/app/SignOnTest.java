package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.effect.PasswordAgain;
import mintshelf.app.store.person.GroupStore;
import mintshelf.app.store.person.PersonStore;
import mintshelf.app.use.person.EnterBySignOn;
import mintshelf.app.use.person.KeepGrants;
import mintshelf.app.use.person.Leaving;
import mintshelf.standin.OpenIdProvider;
import mintshelf.standin.OpenIdProvider.Account;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** A house's own sign-on: who is let in, into which groups, and who is not. Against a provider that keeps the rules of the flow. */
class SignOnTest {
    private static final OpenIdProvider provider = OpenIdProvider.open(0);
    private static final Server server = start();

    private final KeepGrants grants = server.bean(KeepGrants.class);
    private final GroupStore groups = server.bean(GroupStore.class);
    private final String mark = Server.key().substring(0, 6);

    private static Server start() {
        Map<String, String> settings = Map.of(
                "mint-shelf.sign-on.issuer",
                provider.issuer(),
                "mint-shelf.sign-on.secret",
                OpenIdProvider.SECRET,
                "mint-shelf.sign-on.name",
                "Harbour sign-on",
                "mint-shelf.sign-on.patience",
                "PT1S",
                "mint-shelf.sign-on.new-people",
                "true");
        settings.forEach(System::setProperty);
        try {
            return Server.with();
        } finally {
            settings.keySet().forEach(System::clearProperty);
        }
    }

    @AfterAll
    static void close() {
        server.stop();
        provider.close();
    }

    /** A browser that follows one redirect at a time. */
    private static final class Browser {
        private final HttpClient client =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();

        HttpResponse<String> get(String address) {
            return send(HttpRequest.newBuilder(URI.create(address)).GET());
        }

        HttpResponse<String> post(String address, String form) {
            return send(HttpRequest.newBuilder(URI.create(address))
                    .header("Content-Type", "application/x-www-form-urlencoded")
                    .POST(HttpRequest.BodyPublishers.ofString(form)));
        }

        private HttpResponse<String> send(HttpRequest.Builder request) {
            try {
                return client.send(request.header("Accept", "text/html").build(), HttpResponse.BodyHandlers.ofString());
            } catch (IOException e) {
                throw new IllegalStateException(e);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }

        static String to(HttpResponse<String> answer) {
            assertThat(answer.statusCode()).as(answer.body()).isEqualTo(302);
            String to = answer.headers().firstValue("Location").orElseThrow();
            // The house's own address, as its settings have it, is this server.
            to = to.replaceFirst("^http://localhost:8080", server.origin());
            return to.startsWith("/") ? server.origin() + to : to;
        }

        /** Signs in as one of the provider; where that leads in the end. */
        String signOn(String subject) {
            String asked = to(get(to(get(server.origin() + "/sign-in/house"))));
            assertThat(asked).startsWith(provider.issuer() + "/authorize").contains("code_challenge=", "nonce=");
            return to(get(to(post(asked, "subject=" + encoded(subject))))).replace(server.origin(), "");
        }
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static Account account(String subject, String login, String name, String... in) {
        return new Account(subject, login, name, login + "@x.example", Optional.of(List.of(in)));
    }

    private long person(String login) {
        return server.bean(PersonStore.class).byLogin(login).orElseThrow().id();
    }

    private long group(String name) {
        grants.addGroup(server.actor("ines"), Server.key(), name);
        return groups.groups().stream()
                .filter(g -> g.name().equals(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    @Test
    void whoIsHereIsLetInUnderTheirNameAndStaysThemselvesWhenItChanges() {
        server.add("pia" + mark, "Pia Harbour", "designer");
        provider.with(account("s-" + mark, "pia" + mark, "Pia H."));
        assertThat(new Browser().get(server.origin() + "/sign-in").body()).contains("Sign in by Harbour sign-on");
        Browser pia = new Browser();
        assertThat(pia.signOn("s-" + mark)).isEqualTo("/today");
        assertThat(pia.get(server.origin() + "/today").body()).contains("Pia Harbour");
        // The provider calls her something else now; she is still who she was.
        provider.with(account("s-" + mark, "somebody.else" + mark, "Pia H."));
        Browser again = new Browser();
        assertThat(again.signOn("s-" + mark)).isEqualTo("/today");
        assertThat(again.get(server.origin() + "/today").body()).contains("Pia Harbour");
        // Another subject that comes under her name is not her.
        provider.with(account("other-" + mark, "pia" + mark, "Not Pia"));
        assertThat(new Browser().signOn("other-" + mark)).isEqualTo("/sign-in?unknown");
    }

    @Test
    void thePageThatWasAskedForComesAfterSigningOn() {
        server.add("asks" + mark, "Asks First", "designer");
        provider.with(account("asks-" + mark, "asks" + mark, "Asks First"));
        Browser browser = new Browser();
        assertThat(Browser.to(browser.get(server.origin() + "/people?x=1"))).endsWith("/sign-in");
        assertThat(browser.signOn("asks-" + mark)).startsWith("/people?x=1");
    }

    @Test
    void somebodyNewComesWithTheirGroupsAndTheGroupsFollow() {
        long shop = group("Shop " + mark);
        long night = group("Night " + mark);
        grants.give(server.actor("ines"), Server.key(), true, shop, "reader", 0, 0);
        provider.with(account("new-" + mark, "new" + mark, "Nora New", "SHOP " + mark, "Unheard of"));
        Browser nora = new Browser();
        assertThat(nora.signOn("new-" + mark)).isEqualTo("/today");
        assertThat(nora.get(server.origin() + "/shelves").statusCode()).isEqualTo(200);
        long id = person("new" + mark);
        assertThat(groups.groupsOf(id)).containsExactly("Shop " + mark);
        // By hand into another one: that stays whatever the sign-on says.
        grants.join(server.actor("ines"), Server.key(), night, id);
        provider.with(account("new-" + mark, "new" + mark, "Nora New"));
        new Browser().signOn("new-" + mark);
        assertThat(groups.groupsOf(id)).containsExactly("Night " + mark);
        // A token that says nothing of groups leaves everything as it is.
        provider.with(account("new-" + mark, "new" + mark, "Nora New", "Shop " + mark));
        new Browser().signOn("new-" + mark);
        provider.with(new Account("new-" + mark, "new" + mark, "Nora New", "", Optional.empty()));
        new Browser().signOn("new-" + mark);
        assertThat(groups.groupsOf(id)).containsExactly("Night " + mark, "Shop " + mark);
    }

    @Test
    void whoHasLeftIsTurnedAwayAndNothingIsLeftOfTheirSession() {
        server.add("gone" + mark, "Gil Gone", "designer");
        provider.with(account("gone-" + mark, "gone" + mark, "Gil Gone"));
        Browser before = new Browser();
        assertThat(before.signOn("gone-" + mark)).isEqualTo("/today");
        server.bean(Leaving.class).leave(server.actor("ines"), person("gone" + mark), person("priya"));
        Browser after = new Browser();
        assertThat(after.signOn("gone-" + mark)).isEqualTo("/sign-in?left");
        assertThat(Browser.to(after.get(server.origin() + "/today"))).endsWith("/sign-in");
    }

    /** A provider that takes the code and says nothing: whoever waits is told within the patience of the house. */
    @Test
    void aProviderThatFallsSilentHoldsNobodyUpForLong() {
        provider.with(account("silent-" + mark, "silent" + mark, "Silent " + mark));
        provider.silent(true);
        try {
            long began = System.nanoTime();
            assertThat(new Browser().signOn("silent-" + mark)).isEqualTo("/sign-in?not-signed-on");
            assertThat(System.nanoTime() - began).as("seconds, not minutes").isLessThan(20_000_000_000L);
        } finally {
            provider.silent(false);
        }
        assertThat(new Browser().signOn("silent-" + mark)).isEqualTo("/today");
    }

    @Test
    void whoGivesUpAtTheProviderOrForgesAnAnswerIsNotSignedIn() {
        Browser browser = new Browser();
        String asked = Browser.to(browser.get(Browser.to(browser.get(server.origin() + "/sign-in/house"))));
        assertThat(Browser.to(browser.get(Browser.to(browser.post(asked, "subject=nobody")))))
                .endsWith("/sign-in?not-signed-on");
        // An answer that nobody asked for, and one with another state.
        server.add("forge" + mark, "Fay Forge", "designer");
        provider.with(account("forge-" + mark, "forge" + mark, "Fay Forge"));
        String second = Browser.to(browser.get(Browser.to(browser.get(server.origin() + "/sign-in/house"))));
        String back = Browser.to(browser.post(second, "subject=forge-" + mark));
        assertThat(Browser.to(new Browser().get(back))).endsWith("/sign-in?not-signed-on");
        assertThat(Browser.to(browser.get(back.replaceFirst("state=[^&]+", "state=other"))))
                .endsWith("/sign-in?not-signed-on");
        assertThat(Browser.to(browser.get(server.origin() + "/today"))).endsWith("/sign-in");
    }

    @Test
    void theLastWhoKeepsTheHouseStaysInTheirGroup() {
        EnterBySignOn enter = server.bean(EnterBySignOn.class);
        long keepers = group("Keepers " + mark);
        grants.give(server.actor("ines"), Server.key(), true, keepers, "data-manager", 0, 0);
        EnterBySignOn.Named named = new EnterBySignOn.Named(
                provider.issuer(), "k-" + mark, "keeper" + mark, "Kay", "", Optional.of(List.of("Keepers " + mark)));
        enter.enter(named, "test");
        long kay = person("keeper" + mark);
        assertThat(groups.groupsOf(kay)).containsExactly("Keepers " + mark);
        enter.enter(
                new EnterBySignOn.Named(
                        provider.issuer(), "k-" + mark, "keeper" + mark, "Kay", "", Optional.of(List.of())),
                "test");
        assertThat(groups.groupsOf(kay)).as("Ines keeps it too").isEmpty();
        assertThatThrownBy(() -> server.bean(PasswordAgain.class).said(server.actor("keeper" + mark), "whatever"))
                .as("who has no password here is told so, and not that it is wrong")
                .hasMessageContaining("sign.no_password");

        enter.enter(named, "test");
        long ines = grants.view(server.actor("ines")).grants().stream()
                .filter(g -> g.to().equals("Ines Kallmar"))
                .findFirst()
                .orElseThrow()
                .id();
        grants.takeAway(server.actor("keeper" + mark), Server.key(), ines);
        enter.enter(
                new EnterBySignOn.Named(
                        provider.issuer(), "k-" + mark, "keeper" + mark, "Kay", "", Optional.of(List.of())),
                "test");
        assertThat(groups.groupsOf(kay)).as("nobody else does").containsExactly("Keepers " + mark);
        grants.give(server.actor("keeper" + mark), Server.key(), false, person("ines"), "data-manager", 0, 0);
    }

    @Test
    void whatTheProviderSaysIsNotTakenAtItsLength() {
        EnterBySignOn enter = server.bean(EnterBySignOn.class);
        Map<String, EnterBySignOn.Result> results = new HashMap<>();
        for (String login : List.of("", "a b" + mark, "<script>" + mark, "x".repeat(300) + mark)) {
            results.put(
                    login,
                    enter.enter(
                            new EnterBySignOn.Named(
                                    provider.issuer(),
                                    "odd " + login,
                                    login,
                                    "n".repeat(5000),
                                    "m".repeat(5000),
                                    Optional.empty()),
                            "test"));
        }
        assertThat(results.get("")).isInstanceOf(EnterBySignOn.Result.Unknown.class);
        assertThat(results.get("a b" + mark)).isInstanceOf(EnterBySignOn.Result.Unknown.class);
        assertThat(results.get("<script>" + mark)).isInstanceOf(EnterBySignOn.Result.Unknown.class);
        assertThat(results.get("x".repeat(300) + mark)).isInstanceOf(EnterBySignOn.Result.Unknown.class);
    }
}
