package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import mintshelf.database.PrivateMariaDb;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;

/** A private database that dies is started again; meanwhile requests are answered in words. */
class DatabaseDiesTest {
    @TempDir
    Path folder;

    @Test
    void theDatabaseIsStartedAgainAndTheApplicationGoesOn() throws Exception {
        List<String> says = new CopyOnWriteArrayList<>();
        try (PrivateMariaDb db = PrivateMariaDb.start(folder.resolve("db"), 64, PrivateMariaDb.Durability.RELAXED)) {
            db.keepAlive(says::add);
            SpringApplication application = new SpringApplication(MintShelf.class);
            application.setRegisterShutdownHook(false);
            try (ConfigurableApplicationContext context = application.run(
                    "--server.port=0",
                    "--server.address=127.0.0.1",
                    "--spring.datasource.url=" + db.url("mint_dies"),
                    "--spring.datasource.username=" + db.user(),
                    "--spring.datasource.password=" + db.password(),
                    "--spring.datasource.hikari.connection-timeout=1000",
                    "--mint-shelf.password-strength=4",
                    "--logging.level.root=error")) {
                String origin = "http://localhost:" + context.getEnvironment().getProperty("local.server.port");
                assertThat(status(origin)).isEqualTo(302);
                ProcessHandle.of(db.pid()).orElseThrow().destroyForcibly();
                // Until it answers again, each request is answered in words, or waits for it.
                int status = 0;
                for (int turn = 0; turn < 100; turn++) {
                    HttpResponse<String> answer = answer(origin);
                    status = answer.statusCode();
                    if (status == 302
                            && !says.isEmpty()
                            && says.get(says.size() - 1).contains("answers again")) break;
                    assertThat(status).isIn(302, 503);
                    if (status == 503) {
                        assertThat(answer.body()).contains("does not answer").contains("tries again by itself");
                        assertThat(answer.headers().firstValue("Refresh")).contains("5");
                    }
                    Thread.sleep(200);
                }
                assertThat(status).isEqualTo(302);
                assertThat(says).anyMatch(s -> s.contains("it is started again (1 of 5)"));
            }
        }
        assertThat(Files.exists(folder.resolve("db/pid"))).isFalse();
    }

    private static int status(String origin) throws IOException, InterruptedException {
        return answer(origin).statusCode();
    }

    private static HttpResponse<String> answer(String origin) throws IOException, InterruptedException {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(origin + "/sign-in")).build(),
                        HttpResponse.BodyHandlers.ofString());
    }
}
