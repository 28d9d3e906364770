package mintshelf.companion.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A server with a certificate that only its house trusts. */
class HouseTrustTest {
    private static final String PASSWORD = "for-this-test-alone";

    @TempDir
    Path folder;

    private HttpsServer server;

    private Path certificate(String name) throws Exception {
        Path store = folder.resolve(name + ".p12");
        keytool(
                "-genkeypair",
                "-keystore",
                store.toString(),
                "-dname",
                "CN=localhost",
                "-ext",
                "san=dns:localhost",
                "-keyalg",
                "EC",
                "-alias",
                name,
                "-validity",
                "2");
        Path pem = folder.resolve(name + ".pem");
        keytool("-exportcert", "-rfc", "-keystore", store.toString(), "-alias", name, "-file", pem.toString());
        return pem;
    }

    private static void keytool(String... arguments) throws IOException, InterruptedException {
        String[] command = new String[arguments.length + 3];
        command[0] = Path.of(System.getProperty("java.home"), "bin", "keytool").toString();
        System.arraycopy(arguments, 0, command, 1, arguments.length);
        command[command.length - 2] = "-storepass";
        command[command.length - 1] = PASSWORD;
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0)
                .as(said)
                .isTrue();
    }

    @BeforeEach
    void serve() throws Exception {
        certificate("shelf");
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(folder.resolve("shelf.p12"))) {
            keys.load(in, PASSWORD.toCharArray());
        }
        KeyManagerFactory factory = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        factory.init(keys, PASSWORD.toCharArray());
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(factory.getKeyManagers(), null, null);
        server = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setHttpsConfigurator(new HttpsConfigurator(context));
        server.createContext("/", exchange -> {
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private int asked(SSLContext context) throws IOException, InterruptedException {
        return HttpClient.newBuilder()
                .sslContext(context)
                .build()
                .send(
                        HttpRequest.newBuilder(URI.create("https://localhost:"
                                        + server.getAddress().getPort() + "/"))
                                .build(),
                        BodyHandlers.discarding())
                .statusCode();
    }

    @Test
    void itsCertificateIsTrustedWhereItIsNamedAndNoOtherIsForIt() throws Exception {
        assertThat(asked(HouseTrust.of(folder.resolve("shelf.pem")))).isEqualTo(204);
        assertThatThrownBy(() -> asked(SSLContext.getDefault())).isInstanceOf(SSLException.class);
        Path other = certificate("other");
        assertThatThrownBy(() -> asked(HouseTrust.of(other))).isInstanceOf(SSLException.class);
    }

    @Test
    void whatIsNoCertificateIsSaid() throws IOException {
        Path file = Files.writeString(folder.resolve("note.pem"), "nothing");
        assertThatThrownBy(() -> HouseTrust.of(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("certificate");
    }
}
