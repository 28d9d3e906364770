package mintshelf.core.drawing.pdf;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigInteger;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.PrivateKey;
import java.security.SecureRandom;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.security.spec.ECGenParameterSpec;
import java.time.Duration;
import java.time.Instant;
import java.util.Calendar;
import java.util.Collections;
import java.util.Date;
import java.util.Hashtable;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TimeZone;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.interactive.digitalsignature.PDSignature;
import org.apache.pdfbox.pdmodel.interactive.digitalsignature.SignatureOptions;
import org.bouncycastle.asn1.ASN1InputStream;
import org.bouncycastle.asn1.DERSet;
import org.bouncycastle.asn1.cms.Attribute;
import org.bouncycastle.asn1.cms.AttributeTable;
import org.bouncycastle.asn1.cms.CMSAttributes;
import org.bouncycastle.asn1.cms.ContentInfo;
import org.bouncycastle.asn1.ess.ESSCertIDv2;
import org.bouncycastle.asn1.ess.SigningCertificateV2;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.KeyUsage;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaCertStore;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.cert.jcajce.JcaX509v3CertificateBuilder;
import org.bouncycastle.cms.CMSException;
import org.bouncycastle.cms.CMSProcessableByteArray;
import org.bouncycastle.cms.CMSSignedData;
import org.bouncycastle.cms.CMSSignedDataGenerator;
import org.bouncycastle.cms.DefaultSignedAttributeTableGenerator;
import org.bouncycastle.cms.SignerInformation;
import org.bouncycastle.cms.jcajce.JcaSignerInfoGeneratorBuilder;
import org.bouncycastle.cms.jcajce.JcaSimpleSignerInfoVerifierBuilder;
import org.bouncycastle.operator.ContentSigner;
import org.bouncycastle.operator.OperatorCreationException;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.operator.jcajce.JcaDigestCalculatorProviderBuilder;

/**
 * The house's seal on a PDF: a signature over every byte of it (ETSI EN 319 142-1, baseline B-B; CMS of RFC 5652 with the certificate named as
 * RFC 5035 says), by which a reader without a network sees that nothing was changed since. O(bytes).
 */
public final class PdfSeal {
    private static final int ROOM = 9_000;
    private static final char[] NO_WORD = new char[0];
    private static final String ALIAS = "seal";

    private final PrivateKey key;
    private final X509Certificate certificate;

    private PdfSeal(PrivateKey key, X509Certificate certificate) {
        this.key = key;
        this.certificate = certificate;
    }

    /** A seal with a certificate that it wrote itself, good for ten years. */
    public static PdfSeal made(String name, Instant now) {
        try {
            KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
            generator.initialize(new ECGenParameterSpec("secp256r1"));
            KeyPair pair = generator.generateKeyPair();
            X500Name who = new X500Name(
                    "CN=" + name.replaceAll("[^\\p{L}\\p{N} .-]", " ").strip());
            JcaX509v3CertificateBuilder builder = new JcaX509v3CertificateBuilder(
                    who,
                    new BigInteger(120, new SecureRandom()),
                    Date.from(now.minus(Duration.ofDays(1))),
                    Date.from(now.plus(Duration.ofDays(3653))),
                    who,
                    pair.getPublic());
            builder.addExtension(
                    Extension.keyUsage, true, new KeyUsage(KeyUsage.digitalSignature | KeyUsage.nonRepudiation));
            X509Certificate certificate = new JcaX509CertificateConverter()
                    .getCertificate(builder.build(
                            new JcaContentSignerBuilder(algorithm(pair.getPrivate())).build(pair.getPrivate())));
            return new PdfSeal(pair.getPrivate(), certificate);
        } catch (GeneralSecurityException | OperatorCreationException | IOException e) {
            throw new IllegalStateException("No seal could be made", e);
        }
    }

    private static String algorithm(PrivateKey key) {
        return key.getAlgorithm().equals("RSA") ? "SHA256withRSA" : "SHA256withECDSA";
    }

    /** Reads a seal from PKCS #12 (RFC 7292): its first key. */
    public static PdfSeal read(byte[] pkcs12, char[] word) {
        try {
            KeyStore store = KeyStore.getInstance("PKCS12");
            store.load(new ByteArrayInputStream(pkcs12), word);
            for (String alias : Collections.list(store.aliases())) {
                if (store.getKey(alias, word) instanceof PrivateKey key
                        && store.getCertificate(alias) instanceof X509Certificate certificate)
                    return new PdfSeal(key, certificate);
            }
            throw new IllegalArgumentException("The file has no key with a certificate");
        } catch (GeneralSecurityException | IOException e) {
            throw new IllegalArgumentException("The file of the seal cannot be read", e);
        }
    }

    /** As PKCS #12 without a word. */
    public byte[] kept() {
        try {
            KeyStore store = KeyStore.getInstance("PKCS12");
            store.load(null, NO_WORD);
            store.setKeyEntry(ALIAS, key, NO_WORD, new X509Certificate[] {certificate});
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            store.store(out, NO_WORD);
            return out.toByteArray();
        } catch (GeneralSecurityException | IOException e) {
            throw new IllegalStateException("The seal could not be kept", e);
        }
    }

    /** Its certificate (DER), by which a reader knows the seal. */
    public byte[] certificate() {
        try {
            return certificate.getEncoded();
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("The certificate could not be written", e);
        }
    }

    public String name() {
        return certificate.getSubjectX500Principal().getName().replaceFirst("^CN=([^,]*).*", "$1");
    }

    /**
     * The PDF with the seal; what is there stays byte for byte, the seal is added behind it.
     *
     * @param reason what it vouches for
     */
    public byte[] on(byte[] pdf, String reason, Instant at) {
        try (PDDocument document = Loader.loadPDF(pdf);
                SignatureOptions options = new SignatureOptions()) {
            PDSignature signature = new PDSignature();
            signature.setFilter(PDSignature.FILTER_ADOBE_PPKLITE);
            signature.setSubFilter(COSName.getPDFName("ETSI.CAdES.detached"));
            signature.setName(name());
            signature.setReason(reason);
            Calendar when = Calendar.getInstance(TimeZone.getTimeZone("UTC"));
            when.setTimeInMillis(at.toEpochMilli());
            signature.setSignDate(when);
            options.setPreferredSignatureSize(ROOM);
            document.addSignature(signature, content -> signed(content.readAllBytes()), options);
            ByteArrayOutputStream out = new ByteArrayOutputStream(pdf.length + 2 * ROOM);
            document.saveIncremental(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException("The PDF cannot be read", e);
        }
    }

    private byte[] signed(byte[] content) throws IOException {
        try {
            ContentSigner signer = new JcaContentSignerBuilder(algorithm(key)).build(key);
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded());
            Attribute named = new Attribute(
                    PKCSObjectIdentifiers.id_aa_signingCertificateV2,
                    new DERSet(new SigningCertificateV2(new ESSCertIDv2[] {new ESSCertIDv2(hash)})));
            AttributeTable own = new AttributeTable(new DERSet(named));
            // The time stands in the PDF's own entry; the standard wants none in the signature.
            DefaultSignedAttributeTableGenerator table = new DefaultSignedAttributeTableGenerator(own) {
                @Override
                @SuppressWarnings("rawtypes")
                protected Hashtable createStandardAttributeTable(Map parameters) {
                    Hashtable standard = super.createStandardAttributeTable(parameters);
                    standard.remove(CMSAttributes.signingTime);
                    return standard;
                }
            };
            CMSSignedDataGenerator generator = new CMSSignedDataGenerator();
            generator.addSignerInfoGenerator(
                    new JcaSignerInfoGeneratorBuilder(new JcaDigestCalculatorProviderBuilder().build())
                            .setSignedAttributeGenerator(table)
                            .build(signer, certificate));
            generator.addCertificates(new JcaCertStore(List.of(certificate)));
            return generator
                    .generate(new CMSProcessableByteArray(content), false)
                    .getEncoded();
        } catch (GeneralSecurityException | OperatorCreationException | CMSException e) {
            throw new IOException("It could not be signed", e);
        }
    }

    /**
     * What a seal on a PDF proves.
     *
     * @param name in the certificate
     * @param at when it was set, as it says itself
     * @param unchanged whether every byte is as it was then, and nothing was added behind
     * @param certificate in DER
     */
    public record Proof(String name, Instant at, boolean unchanged, byte[] certificate) {
        public boolean isBy(PdfSeal seal) {
            return MessageDigest.isEqual(certificate, seal.certificate());
        }
    }

    /** The last seal on a PDF; nothing where it has none or is no PDF. Whatever is wrong with it, it proves nothing. */
    public static Optional<Proof> proof(byte[] pdf) {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            List<PDSignature> all = document.getSignatureDictionaries();
            if (all.isEmpty()) return Optional.empty();
            PDSignature last = all.get(all.size() - 1);
            byte[] kept = last.getContents(pdf);
            ContentInfo info;
            int left = 0;
            try (ASN1InputStream in = new ASN1InputStream(kept)) {
                info = ContentInfo.getInstance(in.readObject());
                for (byte b : in.readAllBytes()) left |= b;
            }
            CMSSignedData data = new CMSSignedData(new CMSProcessableByteArray(last.getSignedContent(pdf)), info);
            SignerInformation signer =
                    data.getSignerInfos().getSigners().iterator().next();
            Optional<X509CertificateHolder> found = data.getCertificates().getMatches(null).stream()
                    .filter(c -> c.getSerialNumber().equals(signer.getSID().getSerialNumber())
                            && c.getIssuer().equals(signer.getSID().getIssuer()))
                    .findFirst();
            if (found.isEmpty()) return Optional.empty();
            byte[] der = found.get().getEncoded();
            X509Certificate certificate = (X509Certificate)
                    CertificateFactory.getInstance("X.509").generateCertificate(new ByteArrayInputStream(der));
            int[] range = last.getByteRange();
            // Behind the signature its room is empty: what were hidden there would be a change, too.
            boolean whole = left == 0 && range.length == 4 && range[0] == 0 && (long) range[2] + range[3] == pdf.length;
            boolean unchanged = whole && signer.verify(new JcaSimpleSignerInfoVerifierBuilder().build(certificate));
            return Optional.of(new Proof(
                    certificate.getSubjectX500Principal().getName().replaceFirst("^CN=([^,]*).*", "$1"),
                    last.getSignDate() == null
                            ? Instant.EPOCH
                            : last.getSignDate().toInstant(),
                    unchanged,
                    der));
        } catch (IOException
                | CMSException
                | GeneralSecurityException
                | OperatorCreationException
                | RuntimeException e) {
            return Optional.empty();
        }
    }
}
