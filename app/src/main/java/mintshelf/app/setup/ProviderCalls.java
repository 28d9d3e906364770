package mintshelf.app.setup;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.http.client.SimpleClientHttpRequestFactory;
import org.springframework.http.converter.FormHttpMessageConverter;
import org.springframework.security.oauth2.client.endpoint.OAuth2AccessTokenResponseClient;
import org.springframework.security.oauth2.client.endpoint.OAuth2AuthorizationCodeGrantRequest;
import org.springframework.security.oauth2.client.endpoint.RestClientAuthorizationCodeTokenResponseClient;
import org.springframework.security.oauth2.client.http.OAuth2ErrorResponseErrorHandler;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenDecoderFactory;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenValidator;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserService;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.userinfo.DefaultOAuth2UserService;
import org.springframework.security.oauth2.core.DelegatingOAuth2TokenValidator;
import org.springframework.security.oauth2.core.converter.ClaimTypeConverter;
import org.springframework.security.oauth2.core.http.converter.OAuth2AccessTokenResponseHttpMessageConverter;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.jwt.JwtDecoderFactory;
import org.springframework.security.oauth2.jwt.JwtTimestampValidator;
import org.springframework.security.oauth2.jwt.NimbusJwtDecoder;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestTemplate;

/**
 * What the server asks of a house's sign-on while somebody waits: tokens, its keys, who it was. Each with a limit of time, so that a provider
 * that says nothing holds up nobody but whoever signs in by it.
 */
@Component
class ProviderCalls implements JwtDecoderFactory<ClientRegistration> {
    private final SimpleClientHttpRequestFactory requests = new SimpleClientHttpRequestFactory();
    private final RestTemplate rest;
    private final Map<String, JwtDecoder> decoders = new ConcurrentHashMap<>();

    ProviderCalls(Settings settings) {
        Duration patience = settings.signOn().patience();
        requests.setConnectTimeout(patience);
        requests.setReadTimeout(patience);
        rest = new RestTemplate(requests);
    }

    OAuth2AccessTokenResponseClient<OAuth2AuthorizationCodeGrantRequest> tokens() {
        RestClientAuthorizationCodeTokenResponseClient client = new RestClientAuthorizationCodeTokenResponseClient();
        client.setRestClient(RestClient.builder()
                .requestFactory(requests)
                .configureMessageConverters(c -> c.addCustomConverter(new FormHttpMessageConverter())
                        .addCustomConverter(new OAuth2AccessTokenResponseHttpMessageConverter()))
                .defaultStatusHandler(new OAuth2ErrorResponseErrorHandler())
                .build());
        return client;
    }

    OidcUserService users() {
        DefaultOAuth2UserService asked = new DefaultOAuth2UserService();
        RestTemplate told = new RestTemplate(requests);
        told.setErrorHandler(new OAuth2ErrorResponseErrorHandler());
        asked.setRestOperations(told);
        OidcUserService users = new OidcUserService();
        users.setOauth2UserService(asked);
        return users;
    }

    /** Holds a token of who signed in (OpenID Connect Core 1.0, 3.1.3.7) against the provider's keys. */
    @Override
    public JwtDecoder createDecoder(ClientRegistration provider) {
        return decoders.computeIfAbsent(provider.getProviderDetails().getJwkSetUri(), keys -> {
            NimbusJwtDecoder decoder =
                    NimbusJwtDecoder.withJwkSetUri(keys).restOperations(rest).build();
            decoder.setJwtValidator(new DelegatingOAuth2TokenValidator<>(
                    new JwtTimestampValidator(), new OidcIdTokenValidator(provider)));
            decoder.setClaimSetConverter(
                    new ClaimTypeConverter(OidcIdTokenDecoderFactory.createDefaultClaimTypeConverters()));
            return decoder;
        });
    }
}
