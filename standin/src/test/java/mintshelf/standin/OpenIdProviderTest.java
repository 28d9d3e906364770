package mintshelf.standin;

import static org.assertj.core.api.Assertions.assertThat;

import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.util.JSONObjectUtils;
import com.nimbusds.jwt.SignedJWT;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** The stand-in keeps the rules of the flow, so that what is tested against it is tested against something. */
class OpenIdProviderTest {
    /** RFC 7636, Appendix B. */
    private static final String VERIFIER = "dBjftJeZ4CVP-mB92K27uhbUJU1p1r_wW1gFWFOEjXk";

    private static final String CHALLENGE = "E9Melhoa2OwvFrEMTJguCHaoeK1t8URWbuGJSstw-cM";
    private static final String REDIRECT = "http://localhost:1/back";

    private final HttpClient client = HttpClient.newHttpClient();

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private HttpResponse<String> post(String address, String form, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form));
        for (int i = 0; i + 1 < headers.length; i += 2) request.header(headers[i], headers[i + 1]);
        return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static String basic(String secret) {
        return "Basic "
                + Base64.getEncoder()
                        .encodeToString((OpenIdProvider.CLIENT + ":" + secret).getBytes(StandardCharsets.UTF_8));
    }

    private String code(OpenIdProvider provider) throws IOException, InterruptedException {
        HttpResponse<String> back = post(
                provider.issuer() + "/authorize?client_id=" + OpenIdProvider.CLIENT + "&redirect_uri="
                        + encoded(REDIRECT) + "&state=s%2B1&nonce=n1&code_challenge=" + CHALLENGE,
                "subject=u1");
        String to = back.headers().firstValue("Location").orElseThrow();
        assertThat(to).startsWith(REDIRECT + "?code=").endsWith("&state=s%2B1");
        return to.substring(to.indexOf('=') + 1, to.indexOf('&'));
    }

    private static String form(String code, String verifier) {
        return "grant_type=authorization_code&code=" + code + "&redirect_uri=" + encoded(REDIRECT) + "&code_verifier="
                + verifier;
    }

    @Test
    void aCodeIsGoodOnceForItsOwnerAndTheTokenIsSigned() throws Exception {
        try (OpenIdProvider provider = OpenIdProvider.open(0)
                .with(new OpenIdProvider.Account(
                        "u1", "pia", "Pia <b>", "pia@x.example", Optional.of(List.of("Shop"))))) {
            HttpResponse<String> page = client.send(
                    HttpRequest.newBuilder(URI.create(provider.issuer() + "/authorize?client_id="
                                    + OpenIdProvider.CLIENT + "&redirect_uri=" + encoded(REDIRECT)))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            assertThat(page.body()).contains("Pia &lt;b>").doesNotContain("<b>Pia <b>");
            String token = provider.issuer() + "/token";
            assertThat(post(token, form(code(provider), VERIFIER), "Authorization", basic("wrong"))
                            .statusCode())
                    .isEqualTo(401);
            assertThat(post(token, form(code(provider), "another"), "Authorization", basic(OpenIdProvider.SECRET))
                            .statusCode())
                    .isEqualTo(400);
            String code = code(provider);
            HttpResponse<String> given =
                    post(token, form(code, VERIFIER), "Authorization", basic(OpenIdProvider.SECRET));
            assertThat(given.statusCode()).isEqualTo(200);
            assertThat(post(token, form(code, VERIFIER), "Authorization", basic(OpenIdProvider.SECRET))
                            .statusCode())
                    .as("once")
                    .isEqualTo(400);
            SignedJWT id =
                    SignedJWT.parse((String) JSONObjectUtils.parse(given.body()).get("id_token"));
            JWKSet keys = JWKSet.load(URI.create(provider.issuer() + "/jwks").toURL());
            assertThat(id.verify(new RSASSAVerifier(
                            keys.getKeyByKeyId(id.getHeader().getKeyID()).toRSAKey())))
                    .isTrue();
            assertThat(id.getJWTClaimsSet().getIssuer()).isEqualTo(provider.issuer());
            assertThat(id.getJWTClaimsSet().getClaims())
                    .containsAllEntriesOf(
                            Map.of("nonce", "n1", "preferred_username", "pia", "groups", List.of("Shop")));
        }
    }

    @Test
    void whoIsNobodyIsSentBackWithoutACodeAndStrangePlacesAreNotLedTo() throws Exception {
        try (OpenIdProvider provider = OpenIdProvider.open(0)) {
            HttpResponse<String> back = post(
                    provider.issuer() + "/authorize?client_id=" + OpenIdProvider.CLIENT + "&redirect_uri="
                            + encoded(REDIRECT) + "&state=s",
                    "subject=nobody");
            assertThat(back.headers().firstValue("Location")).contains(REDIRECT + "?error=access_denied&state=s");
            assertThat(post(
                                    provider.issuer() + "/authorize?client_id=" + OpenIdProvider.CLIENT
                                            + "&redirect_uri=" + encoded("https://elsewhere.example/"),
                                    "subject=u1")
                            .statusCode())
                    .isEqualTo(400);
        }
    }
}
