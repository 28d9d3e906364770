package mintshelf.app.setup;

import java.time.Duration;
import java.time.ZoneId;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * What a house may set, as {@code mint-shelf.…} in a file or {@code MINT_SHELF_…} in the environment.
 *
 * @param largestFile in bytes
 * @param largestSheet in bytes: drawings beyond it are kept without being read
 * @param readingMemory the memory of which drawings that are being read have their part, in bytes; 0 for the heap
 * @param uploadAllowance bytes that one person may have sent without filing them or checking them in
 * @param passwordStrength cost of a password's hash, as a power of two
 * @param staySignedIn whether people may stay signed in on a machine for thirty days
 * @param databaseFolder where the private database lies, so that a disk that fills is told; empty with an external one
 * @param indexFolder where this node keeps its search index from one start to the next; empty: made anew at each start
 * @param zone of the house: dates on sheets and due days are its days
 * @param origin the address under which people reach the server; links in mails begin with it
 * @param metricsFrom addresses and networks from which the instruments are read
 * @param largestMail bytes of files that go with one mail, before they are encoded for it
 * @param mailFrom the sender of mails; they are sent where {@code spring.mail.host} names a server
 */
@ConfigurationProperties("mint-shelf")
public record Settings(
        @DefaultValue("4294967296") long largestFile,
        @DefaultValue("268435456") long largestSheet,
        @DefaultValue("0") long readingMemory,
        @DefaultValue("68719476736") long uploadAllowance,
        @DefaultValue("11") int passwordStrength,
        @DefaultValue("true") boolean staySignedIn,
        @DefaultValue("") String databaseFolder,
        @DefaultValue("") String indexFolder,
        @DefaultValue("UTC") ZoneId zone,
        @DefaultValue("http://localhost:8080") String origin,
        @DefaultValue("10000000") long largestMail,
        @DefaultValue("mint-shelf@localhost") String mailFrom,
        @DefaultValue({"127.0.0.1", "::1"}) List<String> metricsFrom,
        @DefaultValue("false") boolean demo,
        @DefaultValue SignOn signOn,
        @DefaultValue Bounces bounces,
        @DefaultValue Seal seal) {

    /**
     * The key and certificate with which released PDFs are sealed; without a file the shelf makes its own.
     *
     * @param file PKCS #12
     */
    public record Seal(
            @DefaultValue("") String file, @DefaultValue("") String password) {}

    /**
     * The mailbox to which mails come back that could not be delivered, read by IMAP; none without a host. What is sent names it as the
     * envelope's sender with {@code spring.mail.properties.mail.smtp.from}.
     */
    public record Bounces(
            @DefaultValue("") String host,
            @DefaultValue("993") int port,
            @DefaultValue("") String user,
            @DefaultValue("") String password,
            @DefaultValue("true") boolean tls) {}

    /**
     * A house's own sign-on, by OpenID Connect; none without an issuer.
     *
     * @param issuer address of the provider
     * @param client by which the provider knows this server, with its secret
     * @param name as people call it, on the sign-in page
     * @param groups claim that says in which groups somebody is
     * @param newPeople whether somebody whom nobody added is let in, with the grants of their groups
     * @param patience how long the server waits for each answer of the provider
     */
    public record SignOn(
            @DefaultValue("") String issuer,
            @DefaultValue("mint-shelf") String client,
            @DefaultValue("") String secret,
            @DefaultValue("the house's sign-on") String name,
            @DefaultValue("groups") String groups,
            @DefaultValue("false") boolean newPeople,
            @DefaultValue("PT10S") Duration patience) {
        public boolean isThere() {
            return !issuer.isEmpty();
        }
    }
}
