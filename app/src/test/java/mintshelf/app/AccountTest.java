package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.person.People;
import mintshelf.app.use.person.SignIn;
import mintshelf.database.schema.Tables;
import org.junit.jupiter.api.Test;

/** Signing in, and all that hangs on it: brakes, sessions, passwords, leaving. */
class AccountTest {
    private final Server server = Server.shared();

    private String person(String role) {
        String login = "p" + Server.key().substring(0, 8);
        server.add(login, "Person " + login, role);
        return login;
    }

    @Test
    void thirtyGuessesAtOnceAreBrakedLikeThirtyOneAfterTheOther() throws Exception {
        String login = person("designer");
        SignIn signIn = server.bean(SignIn.class);
        ExecutorService guessers = Executors.newFixedThreadPool(15);
        try {
            List<Callable<SignIn.Result>> guesses = new ArrayList<>();
            for (int i = 0; i < 30; i++) guesses.add(() -> signIn.signIn(login, "wrong", "192.0.2.7"));
            int tried = 0;
            for (Future<SignIn.Result> guess : guessers.invokeAll(guesses)) {
                if (guess.get() instanceof SignIn.Result.Wrong) tried++;
            }
            assertThat(tried).isLessThanOrEqualTo(8);
        } finally {
            guessers.shutdownNow();
        }
        // Who guesses is braked, not who is guessed at.
        assertThat(signIn.signIn(login, Server.PASSWORD, "192.0.2.7")).isInstanceOf(SignIn.Result.Braked.class);
        assertThat(signIn.signIn(login, Server.PASSWORD, "198.51.100.9")).isInstanceOf(SignIn.Result.In.class);
        assertThat(Web.as(server, "ines").get("/record?acts=person.").body())
                .contains("could not sign in as “" + login);
    }

    @Test
    void whoIsNotSignedInHasNoSession() throws Exception {
        HttpResponse<String> page = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(server.origin() + "/sign-in"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(page.headers().allValues("Set-Cookie")).noneMatch(c -> c.startsWith("mint-shelf="));
        int before = server.db().fetchOne("select count(*) from SPRING_SESSION").get(0, Integer.class);
        new Web(server.origin()).get("/shelves/1");
        assertThat(server.db().fetchOne("select count(*) from SPRING_SESSION").get(0, Integer.class))
                .isEqualTo(before);
    }

    @Test
    void aMailedLinkSurvivesTheSignInAndLeadsNowhereElse() throws Exception {
        long item = server.file("priya", server.shelf(), "linked.txt", "l" + Server.key(), false);
        Web web = new Web(server.origin());
        var asked = web.send(HttpRequest.newBuilder(URI.create(server.origin() + "/documents/" + item + "?version=1"))
                .header("Accept", "text/html")
                .GET());
        assertThat(asked.headers().firstValue("Location").orElse("")).isEqualTo("/sign-in");
        assertThat(web.signIn("priya", Server.PASSWORD)).isEqualTo("/documents/" + item + "?version=1");
    }

    @Test
    void aPasswordIsChangedWithTheOldOneAndEndsOtherSessions() {
        String login = person("designer");
        Web here = Web.as(server, login);
        Web there = Web.as(server, login);
        long id = server.actor(login).person();
        String page = here.get("/people/" + id).body();
        assertThat(page).contains("This browser").contains("Another browser");
        assertThat(here.post("/me/password", Map.of("old", "wrong", "fresh", "calm estuary 77"))
                        .statusCode())
                .isEqualTo(409);
        here.post("/me/password", Map.of("old", Server.PASSWORD, "fresh", "calm estuary 77"));
        assertThat(here.get("/today").statusCode()).isEqualTo(200);
        assertThat(there.get("/today").statusCode()).isEqualTo(302);
        assertThat(new Web(server.origin()).signIn(login, "calm estuary 77")).isEqualTo("/today");
    }

    @Test
    void commonPasswordsAreRefusedWhateverTheirLength() {
        String login = person("designer");
        People people = server.bean(People.class);
        for (String common : List.of(
                "passwordpassword",
                "P@ssw0rd1234",
                "123456789012",
                "abcdefghijkl",
                "qwertyuiop123",
                "monkeymonkey",
                "letmein 123456")) {
            Refused refused = catchThrowableOfType(
                    Refused.class, () -> people.changePassword(server.actor(login), Server.PASSWORD, common));
            assertThat(refused).as(common).isNotNull();
            assertThat(refused.refusal().code()).as(common).startsWith("password.");
        }
    }

    @Test
    void whoHasLeftHasNoRightsAtOnce() {
        String login = person("designer");
        Web web = Web.as(server, login);
        long id = server.actor(login).person();
        assertThat(Web.as(server, "priya")
                        .post("/people/" + id + "/leave", Map.of())
                        .statusCode())
                .isEqualTo(403);
        Web.as(server, "ines").post("/people/" + id + "/leave", Map.of());
        assertThat(web.get("/today").statusCode()).isEqualTo(302);
        assertThat(server.actor(login).access().grants()).isEmpty();
        assertThat(new Web(server.origin()).signIn(login, Server.PASSWORD)).contains("/sign-in?wrong");
    }

    @Test
    void whoStaysSignedInHasASessionOfThirtyDays() {
        String login = person("designer");
        Web web = new Web(server.origin());
        web.get("/sign-in");
        var answer = web.post("/sign-in", Map.of("login", login, "password", Server.PASSWORD, "stay", "true"));
        assertThat(answer.headers().allValues("Set-Cookie"))
                .anyMatch(c -> c.startsWith("mint-shelf=") && c.contains("Max-Age"));
        assertThat(web.get("/people/" + server.actor(login).person()).body()).contains("stays signed in");
    }

    @Test
    void anInvitationIsMailedAndForgottenByTheOutbox() throws Exception {
        Web ines = Web.as(server, "ines");
        String mail = "new" + Server.key().substring(0, 8) + "@ebbcote.example";
        String added = ines.post(
                        "/people/" + server.actor("priya").person() + "/like",
                        Map.of("name", "Nu Person", "mail", mail))
                .body();
        String link = added.replaceAll("(?s).*(/invitations/[A-Za-z0-9_-]+).*", "$1");
        server.post();
        boolean arrived = false;
        for (int turn = 0; turn < 50 && !arrived; turn++) {
            for (var message : Server.mail().getReceivedMessages()) {
                arrived |= message.getAllRecipients()[0].toString().equals(mail)
                        && message.getSubject().contains("invites you to Mint Shelf");
            }
            Thread.sleep(100);
        }
        assertThat(arrived).isTrue();
        assertThat(server.db().fetchExists(Tables.OUTBOX_EVENT, Tables.OUTBOX_EVENT.TO_PAGE.eq(link)))
                .isFalse();
        Web nu = new Web(server.origin());
        assertThat(nu.get(link).body()).contains("Nu Person");
    }

    @Test
    void theBrakeOfPairingHoldsForAnAddress() {
        HttpClient http = HttpClient.newHttpClient();
        List<Integer> answers = new ArrayList<>();
        for (int i = 0; i < 14; i++) {
            try {
                var answer = http.send(
                        HttpRequest.newBuilder(URI.create(server.origin() + "/api/v1/pairings"))
                                .header("Content-Type", "application/json")
                                .POST(HttpRequest.BodyPublishers.ofString("{\"code\":\"AAAAA-AAAAA\",\"desk\":\"d\"}"))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                answers.add(answer.body().contains("pairing.braked") ? 1 : 0);
            } catch (IOException | InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
        assertThat(answers).endsWith(1);
        server.db().deleteFrom(Tables.SIGN_IN_ATTEMPT).execute();
    }
}
