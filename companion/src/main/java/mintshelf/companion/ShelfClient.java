package mintshelf.companion;

import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.UUID;
import javax.net.ssl.SSLException;
import mintshelf.companion.Companion.Unreadable;
import mintshelf.companion.machine.HouseTrust;
import mintshelf.companion.machine.Machine;
import mintshelf.companion.machine.Proxies;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The server's interface for programs, as the companion uses it. */
final class ShelfClient {
    /** Bytes of one request of an upload; a break costs at most that. */
    private static final int SLICE = 8 << 20;

    private static final int TRIES = 5;

    static final JsonMapper JSON = JsonMapper.builder().build();

    private final HttpClient http;
    private final String origin;
    private final String token;

    /**
     * @param certificate of the house, where its server has none that everybody trusts
     */
    ShelfClient(Machine machine, String origin, String token, Optional<Path> certificate) {
        this.origin = origin.replaceAll("/+$", "");
        this.token = token;
        HttpClient.Builder builder =
                HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(10)).proxy(new Proxies(machine));
        try {
            if (certificate.isPresent()) builder.sslContext(HouseTrust.of(certificate.get()));
        } catch (IOException e) {
            throw new Unreadable(String.valueOf(e.getMessage()));
        }
        this.http = builder.build();
    }

    /** What the server refused, in its words. */
    static class Refusal extends RuntimeException {
        Refusal(String says) {
            super(says);
        }
    }

    /** The token of the desk is not in force: nothing of what it asks is done. */
    static final class NotPaired extends Refusal {
        NotPaired() {
            super(
                    "This desk's token is not in force any more: it was revoked, or it ran out. Nothing on the desk is lost; pair the folder"
                            + " again by a code from Companion and tokens.");
        }
    }

    static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create(origin + "/api/v1" + path)).timeout(Duration.ofMinutes(5));
        return token.isEmpty() ? request : request.header("Authorization", "Bearer " + token);
    }

    private <T> HttpResponse<T> send(HttpRequest request, HttpResponse.BodyHandler<T> body) {
        try {
            try {
                return http.send(request, body);
            } catch (ConnectException | HttpTimeoutException e) {
                throw e;
            } catch (IOException e) {
                // A connection that slept with the machine, or changed its network, is dead. Acts carry a key: sent
                // twice they are done once.
                if (!isRepeatable(request)) throw e;
                return http.send(request, body);
            }
        } catch (ConnectException | HttpTimeoutException e) {
            throw new Unreadable(origin + " does not answer.");
        } catch (SSLException e) {
            throw new Unreadable(origin + " shows a certificate that is not trusted here (" + e.getMessage()
                    + "). Pair with --certificate FILE to trust the one of your house.");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Unreadable("Interrupted.");
        }
    }

    private static boolean isRepeatable(HttpRequest request) {
        return request.method().equals("GET")
                || request.headers().firstValue("Idempotency-Key").isPresent();
    }

    private JsonNode answer(HttpResponse<String> response) {
        String body = response.body();
        if (response.statusCode() == 401 && !token.isEmpty()) throw new NotPaired();
        if (response.statusCode() / 100 == 2) return body.isBlank() ? JSON.createObjectNode() : JSON.readTree(body);
        String says = "The server answered " + response.statusCode() + ".";
        if (body.startsWith("{")) {
            JsonNode problem = JSON.readTree(body);
            says = (problem.path("detail").asString(says) + " "
                            + problem.path("remedy").asString(""))
                    .strip();
        }
        throw new Refusal(says);
    }

    JsonNode get(String path) {
        return answer(send(request(path).GET().build(), BodyHandlers.ofString()));
    }

    JsonNode post(String path, Object body) {
        return answer(send(
                request(path)
                        .header("Content-Type", "application/json")
                        .header("Idempotency-Key", UUID.randomUUID().toString())
                        .POST(HttpRequest.BodyPublishers.ofString(JSON.writeValueAsString(body)))
                        .build(),
                BodyHandlers.ofString()));
    }

    String origin() {
        return origin;
    }

    /** How far this machine's clock is ahead of the server's, in seconds; nothing where the server does not say. */
    OptionalLong clockAhead() {
        return send(request("/me").GET().build(), BodyHandlers.ofString()).headers().firstValue("Date").stream()
                .mapToLong(date -> Duration.between(
                                ZonedDateTime.parse(date, DateTimeFormatter.RFC_1123_DATE_TIME),
                                ZonedDateTime.now(ZoneOffset.UTC))
                        .toSeconds())
                .findFirst();
    }

    /** Puts bytes as they are. */
    JsonNode put(String path, byte[] bytes) {
        return answer(send(
                request(path)
                        .header("Content-Type", "application/octet-stream")
                        .PUT(HttpRequest.BodyPublishers.ofByteArray(bytes))
                        .build(),
                BodyHandlers.ofString()));
    }

    JsonNode put(String path) {
        return answer(
                send(request(path).PUT(HttpRequest.BodyPublishers.noBody()).build(), BodyHandlers.ofString()));
    }

    void delete(String path) {
        answer(send(request(path).DELETE().build(), BodyHandlers.ofString()));
    }

    /** Sends a file in slices; after a break it asks where the server stands and goes on there. */
    String upload(Path file) throws IOException {
        return slices(
                answer(send(
                        request("/uploads?name=" + encode(file.getFileName().toString()) + "&size=" + Files.size(file))
                                .POST(HttpRequest.BodyPublishers.noBody())
                                .build(),
                        BodyHandlers.ofString())),
                file);
    }

    /**
     * Sends a file that an address of its own opens.
     *
     * @return whether bytes were sent: what is there whole is not sent again
     */
    boolean bring(String path, Object body, Path file) throws IOException {
        JsonNode opened = post(path, body);
        if (opened.path("complete").asBoolean()) return false;
        slices(opened, file);
        return true;
    }

    private String slices(JsonNode opened, Path file) throws IOException {
        long size = Files.size(file);
        String upload = opened.path("token").asString();
        long at = opened.path("received").asLong();
        boolean complete = opened.path("complete").asBoolean();
        int failed = 0;
        byte[] slice = new byte[SLICE];
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            while (!complete) {
                in.seek(at);
                int length = (int) Math.min(SLICE, size - at);
                // All of it went, and it is not whole: it was written to, or the server counts otherwise.
                if (length <= 0) throw changed(file);
                in.readFully(slice, 0, length);
                try {
                    JsonNode told = answer(send(
                            request("/uploads/" + upload + "?from=" + at)
                                    .header("Content-Type", "application/octet-stream")
                                    .PUT(HttpRequest.BodyPublishers.ofByteArray(slice, 0, length))
                                    .build(),
                            BodyHandlers.ofString()));
                    at = told.path("received").asLong();
                    complete = told.path("complete").asBoolean();
                    failed = 0;
                } catch (UncheckedIOException e) {
                    if (++failed > TRIES) throw e.getCause();
                    at = get("/uploads/" + upload).path("received").asLong();
                }
            }
        }
        if (Files.size(file) != size) throw changed(file);
        return upload;
    }

    private static Refusal changed(Path file) {
        return new Refusal(file + " changed while it was sent. Nothing was made of it; try again.");
    }

    /**
     * Fetches a version beside its place, to be moved there once it is whole.
     *
     * @param version as addresses name it: "7", "t1-2"
     */
    void download(long document, String version, Path to) throws IOException {
        HttpResponse<InputStream> response = send(
                request("/documents/" + document + "/versions/" + version + "/content")
                        .GET()
                        .build(),
                BodyHandlers.ofInputStream());
        try (InputStream in = response.body()) {
            if (response.statusCode() == 401) throw new NotPaired();
            if (response.statusCode() != 200) {
                throw new Refusal("Version " + version + " cannot be fetched (" + response.statusCode() + ").");
            }
            Files.copy(in, to, StandardCopyOption.REPLACE_EXISTING);
        }
    }
}
