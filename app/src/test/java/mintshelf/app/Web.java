package mintshelf.app;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.Socket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** A person's browser without a window: cookies, forms with their token, no redirects followed. */
public final class Web {
    private static final Pattern TOKEN = Pattern.compile("name=\"csrf\" content=\"([^\"]+)\"");
    private final String origin;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient client = HttpClient.newBuilder()
            .cookieHandler(cookies)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();
    private String token = "";

    public Web(String origin) {
        this.origin = origin;
    }

    public static Web as(Server server, String login) {
        Web web = new Web(server.origin());
        if (!login.isEmpty()) web.signIn(login, Server.PASSWORD);
        return web;
    }

    /** Gives the address that the sign-in leads to. */
    public String signIn(String login, String password) {
        get("/sign-in");
        String to = post("/sign-in", Map.of("login", login, "password", password))
                .headers()
                .firstValue("Location")
                .orElse("");
        get("/today");
        return to.replace(origin, "");
    }

    /** What stands at an address, as bytes. */
    public HttpResponse<byte[]> bytes(String path) {
        try {
            return client.send(
                    HttpRequest.newBuilder(URI.create(origin + path)).build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    public HttpResponse<String> get(String path) {
        return remember(send(HttpRequest.newBuilder(URI.create(origin + path)).GET()));
    }

    /** The bytes of an answer that does not end, as they come. */
    InputStream stream(String path) throws IOException, InterruptedException {
        HttpResponse<InputStream> answer = client.send(
                HttpRequest.newBuilder(URI.create(origin + path)).GET().build(),
                HttpResponse.BodyHandlers.ofInputStream());
        return answer.body();
    }

    /** The token of the page that was loaded last. */
    String csrf() {
        return token;
    }

    public HttpResponse<String> post(String path, Map<String, String> fields) {
        return postAll(
                path,
                fields.entrySet().stream().collect(Collectors.toMap(Map.Entry::getKey, e -> List.of(e.getValue()))));
    }

    /** With several values of a field. */
    public HttpResponse<String> postAll(String path, Map<String, List<String>> fields) {
        String form = fields.entrySet().stream()
                .flatMap(e -> e.getValue().stream().map(v -> encode(e.getKey()) + "=" + encode(v)))
                .collect(Collectors.joining("&"));
        return postRaw(path, form + (form.isEmpty() ? "" : "&") + "_csrf=" + encode(token));
    }

    HttpResponse<String> postRaw(String path, String form) {
        return send(HttpRequest.newBuilder(URI.create(origin + path))
                .timeout(Duration.ofSeconds(30))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
    }

    public HttpResponse<String> send(String method, String path, byte[] body) {
        return send(HttpRequest.newBuilder(URI.create(origin + path))
                .header("X-CSRF-TOKEN", token)
                .method(method, HttpRequest.BodyPublishers.ofByteArray(body)));
    }

    /** Begins a request with a body and sends only its first bytes; the connection stays open until it is closed. */
    Socket begin(String method, String path, long length, byte[] first) throws IOException {
        URI to = URI.create(origin + path);
        String sent = cookies.getCookieStore().get(to).stream()
                .map(c -> c.getName() + "=" + c.getValue())
                .collect(Collectors.joining("; "));
        Socket socket = new Socket(to.getHost(), to.getPort());
        String head = method + " " + path + " HTTP/1.1\r\nHost: " + to.getAuthority() + "\r\nCookie: " + sent
                + "\r\nX-CSRF-TOKEN: " + token + "\r\nContent-Length: " + length + "\r\n\r\n";
        socket.getOutputStream().write(head.getBytes(StandardCharsets.US_ASCII));
        socket.getOutputStream().write(first);
        socket.getOutputStream().flush();
        return socket;
    }

    /** Begins to send bytes and loses the connection half way. */
    void abort(String path, byte[] bytes, int from, int length) {
        InputStream half =
                new SequenceInputStream(new ByteArrayInputStream(bytes, from, length / 2), new InputStream() {
                    @Override
                    public int read() throws IOException {
                        throw new IOException("connection lost");
                    }

                    @Override
                    public int read(byte[] b, int off, int len) throws IOException {
                        throw new IOException("connection lost");
                    }
                });
        try {
            client.send(
                    HttpRequest.newBuilder(URI.create(origin + path))
                            .header("X-CSRF-TOKEN", token)
                            .PUT(HttpRequest.BodyPublishers.ofInputStream(() -> half))
                            .build(),
                    HttpResponse.BodyHandlers.discarding());
        } catch (IOException e) {
            return;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Posts JSON as a page's script does, with the session's form token. */
    HttpResponse<String> json(String path, String key, String body) {
        get("/today");
        return send(HttpRequest.newBuilder(URI.create(origin + path))
                .header("Content-Type", "application/json")
                .header("Idempotency-Key", key)
                .header("X-CSRF-TOKEN", csrf())
                .POST(HttpRequest.BodyPublishers.ofString(body)));
    }

    HttpResponse<String> send(HttpRequest.Builder request) {
        try {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    private HttpResponse<String> remember(HttpResponse<String> answer) {
        Matcher found = TOKEN.matcher(answer.body());
        if (found.find()) token = found.group(1);
        return answer;
    }

    static String encode(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
