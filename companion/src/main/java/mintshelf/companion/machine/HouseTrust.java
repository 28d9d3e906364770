package mintshelf.companion.machine;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.util.Optional;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManager;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509TrustManager;

/** Trusts a certificate of the house beside those that everybody trusts; nothing else is trusted for it. */
public final class HouseTrust {
    private HouseTrust() {}

    /**
     * What to speak TLS with.
     *
     * @param certificate in PEM or DER
     */
    public static SSLContext of(Path certificate) throws IOException {
        try {
            KeyStore own = KeyStore.getInstance(KeyStore.getDefaultType());
            own.load(null, null);
            int n = 0;
            try (InputStream in = Files.newInputStream(certificate)) {
                for (Certificate one : CertificateFactory.getInstance("X.509").generateCertificates(in))
                    own.setCertificateEntry("house" + n++, one);
            }
            if (n == 0) throw new IOException(certificate + " holds no certificate.");
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(
                    null, new TrustManager[] {new Both(manager(Optional.empty()), manager(Optional.of(own)))}, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IOException(certificate + " is no certificate that can be read.", e);
        }
    }

    private static X509TrustManager manager(Optional<KeyStore> keys) throws GeneralSecurityException {
        TrustManagerFactory factory = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        factory.init(keys.orElse(null)); // without one it trusts whom everybody trusts
        for (TrustManager one : factory.getTrustManagers()) if (one instanceof X509TrustManager x) return x;
        throw new GeneralSecurityException("There is no trust manager.");
    }

    private record Both(X509TrustManager everybody, X509TrustManager house) implements X509TrustManager {
        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
            everybody.checkClientTrusted(chain, type);
        }

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
            try {
                everybody.checkServerTrusted(chain, type);
            } catch (CertificateException e) {
                house.checkServerTrusted(chain, type);
            }
        }

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return house.getAcceptedIssuers();
        }
    }
}
