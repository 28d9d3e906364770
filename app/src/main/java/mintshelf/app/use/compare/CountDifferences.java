package mintshelf.app.use.compare;

import java.util.Optional;
import mintshelf.app.store.document.VersionRow;
import org.springframework.stereotype.Service;

/** How many differences two versions have, whatever they are versions of. */
@Service
public class CountDifferences {
    private final CompareSheets sheets;
    private final CompareModels models;

    CountDifferences(CompareSheets sheets, CompareModels models) {
        this.sheets = sheets;
        this.models = models;
    }

    /** Their number; nothing where the two are neither sheets nor models that can be read. The actor may see both. */
    public Optional<Integer> of(VersionRow old, VersionRow now) {
        return sheets.compare(old.drawn().content(), now.drawn().content())
                .map(c -> c.differences().size())
                .or(() -> models.compare(old.drawn().content(), now.drawn().content())
                        .map(c -> c.differences().size()));
    }
}
