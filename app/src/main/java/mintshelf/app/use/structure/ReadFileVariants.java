package mintshelf.app.use.structure;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.NotThere;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.bom.FileVariants;
import mintshelf.core.bom.Variant;
import mintshelf.core.content.ContentKind;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.model.step.ModelFacts;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import org.springframework.stereotype.Service;

/** The variants that the latest file of a document has as products beside each other. */
@Service
public class ReadFileVariants {
    private final VersionStore versions;
    private final ContentStore contents;
    private final HouseStore house;

    public ReadFileVariants(VersionStore versions, ContentStore contents, HouseStore house) {
        this.versions = versions;
        this.contents = contents;
        this.house = house;
    }

    private StoredContent latest(Seen document) {
        long version = document.document().head().version();
        return Optional.ofNullable(versions.versionsById(List.of(version)).get(version))
                .orElseThrow(NotThere::new)
                .drawnNow()
                .content();
    }

    /** Whether the latest file is one that could have them, and is for this person's eyes. */
    public boolean mayHave(KeepVariants.Read read) {
        return read.top().all() && latest(read.top()).kind() == ContentKind.STEP;
    }

    /** The variants as they are with what the file says of them. Reads it, as long as it is. */
    public List<Variant> with(KeepVariants.Read read) {
        if (!mayHave(read)) throw new NotThere();
        return FileVariants.over(read.variants(), of(read.top()));
    }

    private List<Variant> of(Seen document) {
        StoredContent content = latest(document);
        try {
            Outcome<StepModel> read = StepReader.read(new ContentInput(contents, content.id(), content.size()));
            return read instanceof Outcome.Granted<StepModel> model
                    ? FileVariants.of(
                            products(model.value(), house.facts()),
                            document.document().number())
                    : List.of();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<FileVariants.Told> products(StepModel model, List<FactDefinition> facts) {
        Set<String> inside = model.usages().stream().map(StepModel.Usage::child).collect(Collectors.toSet());
        return model.products().stream()
                .filter(p -> !inside.contains(p.id()))
                .limit(Variant.MOST + 1L)
                .map(p -> new FileVariants.Told(p.id(), p.name(), values(model, p, facts)))
                .toList();
    }

    private static Map<String, String> values(StepModel model, StepModel.Product product, List<FactDefinition> facts) {
        return ModelFacts.of(model.said(product), facts);
    }
}
