package mintshelf.app;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/** A node in its own process on the shared schema. */
final class Node implements AutoCloseable {
    private final Process process;
    private final String origin;

    Node(Server server, String heap) throws Exception {
        int port;
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        ProcessBuilder builder = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        heap,
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-cp",
                        System.getProperty("java.class.path"),
                        MintShelf.class.getName(),
                        "serve",
                        "--spring.main.lazy-initialization=true",
                        "--server.port=" + port,
                        "--server.address=127.0.0.1",
                        "--mint-shelf.password-strength=4",
                        "--spring.mail.host=127.0.0.1",
                        "--spring.mail.port=" + Server.mail().getSmtp().getPort(),
                        "--mint-shelf.mail-from=shelf@ebbcote.example"))
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD);
        builder.environment()
                .putAll(Map.of(
                        "MINT_SHELF_DB_URL",
                        Server.database().url(server.schema()),
                        "MINT_SHELF_DB_USER",
                        "mint",
                        "MINT_SHELF_DB_PASSWORD",
                        "mint"));
        process = builder.start();
        origin = "http://localhost:" + port;
        HttpClient client = HttpClient.newHttpClient();
        for (int i = 0; i < 600; i++) {
            try {
                if (client.send(
                                        HttpRequest.newBuilder(URI.create(origin + "/actuator/health"))
                                                .build(),
                                        HttpResponse.BodyHandlers.discarding())
                                .statusCode()
                        == 200) return;
            } catch (IOException e) {
                Thread.sleep(100);
            }
        }
        throw new IllegalStateException("The node did not start");
    }

    String origin() {
        return origin;
    }

    @Override
    public void close() {
        kill();
    }

    void kill() {
        try {
            process.destroyForcibly().waitFor(20, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
