package mintshelf.standin;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jose.util.JSONObjectUtils;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;

/**
 * A provider of single sign-on as a house has one: OpenID Connect Core 1.0 (code flow, 3.1), discovery (OpenID Connect Discovery 1.0), proof
 * of the code's owner (RFC 7636, S256). It asks for no password: whoever reaches it says who they are. On loopback, for the demo and tests.
 */
public final class OpenIdProvider implements AutoCloseable {
    /** The one program that may ask. */
    public static final String CLIENT = "mint-shelf";

    /** Its secret; public, as everything here is made up. */
    public static final String SECRET = "tide-table-1887";

    private static final int MINUTES = 5;

    private final HttpServer server;
    private final RSAKey key;
    private final Map<String, Account> accounts = new LinkedHashMap<>();
    private final Map<String, Asked> codes = new ConcurrentHashMap<>();
    private final Map<String, Account> tokens = new ConcurrentHashMap<>();

    /**
     * Somebody whom the provider knows.
     *
     * @param subject what they are called for ever (claim {@code sub})
     * @param login claim {@code preferred_username}
     * @param groups claim {@code groups}; empty for an answer without that claim
     */
    public record Account(String subject, String login, String name, String mail, Optional<List<String>> groups) {}

    /** What a code was given for. */
    private record Asked(Account account, String redirect, String nonce, String challenge) {}

    private volatile boolean silent;

    private OpenIdProvider(HttpServer server, RSAKey key) {
        this.server = server;
        this.key = key;
    }

    /** Begins to answer on a port of loopback; 0 for any. */
    public static OpenIdProvider open(int port) {
        try {
            HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 16);
            RSAKey key = new RSAKeyGenerator(2048)
                    .keyID(UUID.randomUUID().toString())
                    .generate();
            OpenIdProvider provider = new OpenIdProvider(server, key);
            server.createContext("/", provider::answer);
            server.setExecutor(Executors.newFixedThreadPool(2, work -> {
                Thread thread = new Thread(work, "sign-on stand-in");
                thread.setDaemon(true);
                return thread;
            }));
            server.start();
            return provider;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (JOSEException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Its address, by which its tokens are known (claim {@code iss}). */
    public String issuer() {
        return "http://localhost:" + server.getAddress().getPort();
    }

    /** Lets somebody sign in here, or changes what is said of them. */
    public OpenIdProvider with(Account account) {
        synchronized (accounts) {
            accounts.put(account.subject(), account);
        }
        return this;
    }

    /** Takes requests for tokens and does not answer them, until it is asked to again. */
    public void silent(boolean now) {
        silent = now;
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            switch (exchange.getRequestURI().getPath()) {
                case "/.well-known/openid-configuration" -> json(exchange, 200, configuration());
                case "/jwks" -> json(exchange, 200, new JWKSet(key.toPublicJWK()).toJSONObject());
                case "/authorize" -> authorize(exchange);
                case "/token" -> {
                    while (silent) pause();
                    token(exchange);
                }
                case "/userinfo" -> userInfo(exchange);
                default -> send(exchange, 404, "text/plain", "Nothing is here.");
            }
        } catch (JOSEException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void pause() {
        try {
            Thread.sleep(50);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    private Map<String, Object> configuration() {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("issuer", issuer());
        all.put("authorization_endpoint", issuer() + "/authorize");
        all.put("token_endpoint", issuer() + "/token");
        all.put("userinfo_endpoint", issuer() + "/userinfo");
        all.put("jwks_uri", issuer() + "/jwks");
        all.put("response_types_supported", List.of("code"));
        all.put("subject_types_supported", List.of("public"));
        all.put("id_token_signing_alg_values_supported", List.of("RS256"));
        all.put("code_challenge_methods_supported", List.of("S256"));
        all.put("token_endpoint_auth_methods_supported", List.of("client_secret_basic"));
        return all;
    }

    /** GET: who is it? POST: back to the program with a code. */
    private void authorize(HttpExchange exchange) throws IOException {
        String query =
                Optional.ofNullable(exchange.getRequestURI().getRawQuery()).orElse("");
        Map<String, String> asked = fields(query);
        String redirect = asked.getOrDefault("redirect_uri", "");
        if (!CLIENT.equals(asked.get("client_id")) || !redirect.startsWith("http://localhost:")) {
            send(exchange, 400, "text/plain", "This program is not known here.");
            return;
        }
        if (exchange.getRequestMethod().equals("GET")) {
            send(exchange, 200, "text/html; charset=utf-8", page(query));
            return;
        }
        Map<String, String> form = fields(body(exchange));
        Account account;
        synchronized (accounts) {
            account = accounts.get(form.getOrDefault("subject", ""));
        }
        String state = "state=" + encoded(asked.getOrDefault("state", ""));
        String back = redirect + (redirect.contains("?") ? "&" : "?");
        if (account == null) {
            back += "error=access_denied&" + state;
        } else {
            String code = UUID.randomUUID().toString();
            codes.put(
                    code,
                    new Asked(
                            account,
                            redirect,
                            asked.getOrDefault("nonce", ""),
                            asked.getOrDefault("code_challenge", "")));
            back += "code=" + code + "&" + state;
        }
        exchange.getResponseHeaders().set("Location", back);
        exchange.sendResponseHeaders(302, -1);
    }

    private String page(String query) {
        StringBuilder page = new StringBuilder(
                "<!DOCTYPE html><html lang=\"en\"><meta charset=\"utf-8\"><title>Harbour sign-on</title>"
                        + "<style>body{font:16px/1.5 sans-serif;max-width:30rem;margin:12vh auto;color:#20302c;background:#fff}"
                        + "button{display:block;width:100%;margin:.4rem 0;padding:.6rem;text-align:left;font:inherit;background:#f3f6f5;border:1px solid #9fb0aa}"
                        + "</style><h1>Harbour sign-on</h1><p>The stand-in of a house's own sign-on. Who are you?</p><form method=\"post\" action=\"/authorize?");
        page.append(escaped(query)).append("\">");
        List<Account> all;
        synchronized (accounts) {
            all = new ArrayList<>(accounts.values());
        }
        for (Account a : all) {
            page.append("<button name=\"subject\" value=\"")
                    .append(escaped(a.subject()))
                    .append("\"><b>")
                    .append(escaped(a.name()))
                    .append("</b> ")
                    .append(escaped(a.mail()))
                    .append("</button>");
        }
        return page.append("<button name=\"subject\" value=\"\">Nobody of these</button></form></html>")
                .toString();
    }

    private void token(HttpExchange exchange) throws IOException, JOSEException {
        Map<String, String> form = fields(body(exchange));
        String basic =
                "Basic " + Base64.getEncoder().encodeToString((CLIENT + ":" + SECRET).getBytes(StandardCharsets.UTF_8));
        if (!basic.equals(exchange.getRequestHeaders().getFirst("Authorization"))) {
            json(exchange, 401, Map.of("error", "invalid_client"));
            return;
        }
        // A code is good once.
        Asked asked = codes.remove(form.getOrDefault("code", ""));
        if (asked == null
                || !asked.redirect().equals(form.get("redirect_uri"))
                || !asked.challenge().equals(challenge(form.getOrDefault("code_verifier", "")))) {
            json(exchange, 400, Map.of("error", "invalid_grant"));
            return;
        }
        Instant now = Instant.now();
        JWTClaimsSet.Builder claims = new JWTClaimsSet.Builder()
                .issuer(issuer())
                .audience(CLIENT)
                .issueTime(Date.from(now))
                .expirationTime(Date.from(now.plusSeconds(MINUTES * 60L)));
        if (!asked.nonce().isEmpty()) claims.claim("nonce", asked.nonce());
        said(asked.account()).forEach(claims::claim);
        SignedJWT id = new SignedJWT(
                new JWSHeader.Builder(JWSAlgorithm.RS256).keyID(key.getKeyID()).build(), claims.build());
        id.sign(new RSASSASigner(key));
        String access = UUID.randomUUID().toString();
        tokens.put(access, asked.account());
        json(
                exchange,
                200,
                Map.of(
                        "access_token",
                        access,
                        "token_type",
                        "Bearer",
                        "expires_in",
                        MINUTES * 60,
                        "id_token",
                        id.serialize()));
    }

    private void userInfo(HttpExchange exchange) throws IOException {
        String header = Optional.ofNullable(exchange.getRequestHeaders().getFirst("Authorization"))
                .orElse("");
        Account account = tokens.get(header.startsWith("Bearer ") ? header.substring(7) : "");
        if (account == null) json(exchange, 401, Map.of("error", "invalid_token"));
        else json(exchange, 200, said(account));
    }

    private static Map<String, Object> said(Account account) {
        Map<String, Object> said = new LinkedHashMap<>();
        said.put("sub", account.subject());
        said.put("preferred_username", account.login());
        said.put("name", account.name());
        said.put("email", account.mail());
        account.groups().ifPresent(g -> said.put("groups", g));
        return said;
    }

    /** RFC 7636, 4.2: BASE64URL(SHA-256(verifier)). */
    private static String challenge(String verifier) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(verifier.getBytes(StandardCharsets.US_ASCII));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(hash);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Map<String, String> fields(String form) {
        Map<String, String> fields = new LinkedHashMap<>();
        for (String pair : form.split("&", -1)) {
            int at = pair.indexOf('=');
            if (at < 0) continue;
            fields.put(
                    URLDecoder.decode(pair.substring(0, at), StandardCharsets.UTF_8),
                    URLDecoder.decode(pair.substring(at + 1), StandardCharsets.UTF_8));
        }
        return fields;
    }

    private static String body(HttpExchange exchange) throws IOException {
        return new String(exchange.getRequestBody().readNBytes(20_000), StandardCharsets.UTF_8);
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace("\"", "&quot;");
    }

    private static void json(HttpExchange exchange, int status, Map<String, ?> what) throws IOException {
        send(exchange, status, "application/json", JSONObjectUtils.toJSONString(new LinkedHashMap<>(what)));
    }

    private static void send(HttpExchange exchange, int status, String type, String text) throws IOException {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
    }
}
