package mintshelf.app.page;

import mintshelf.core.document.VersionName;
import org.springframework.core.convert.converter.Converter;

/** Reads what versions are called in addresses: "7", "t1-2". */
public final class VersionNames implements Converter<String, VersionName> {
    @Override
    public VersionName convert(String written) {
        return VersionName.of(written)
                .orElseThrow(() ->
                        new IllegalArgumentException("No version is called so: " + written.length() + " letters"));
    }
}
