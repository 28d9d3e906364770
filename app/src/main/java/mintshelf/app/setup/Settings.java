package mintshelf.app.setup;

import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * What a house may set, as {@code mint-shelf.…} in a file or {@code MINT_SHELF_…} in the environment.
 *
 * @param largestFile in bytes
 * @param passwordStrength cost of a password's hash, as a power of two
 */
@ConfigurationProperties("mint-shelf")
public record Settings(
        @DefaultValue("4294967296") long largestFile,
        @DefaultValue("11") int passwordStrength,
        @DefaultValue("false") boolean demo) {}
