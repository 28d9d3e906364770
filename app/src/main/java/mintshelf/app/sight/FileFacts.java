package mintshelf.app.sight;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.ground.Recent;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.model.step.ModelFacts;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepProperty;
import mintshelf.core.model.step.StepReader;
import org.springframework.stereotype.Component;

/** What files say of themselves that becomes facts: title blocks of drawings, properties of models. */
@Component
public class FileFacts {
    private final Sheets sheets;
    private final ContentStore contents;
    private final HouseStore house;
    /** By content: to read a model takes as long as it is large, and its bytes never change. */
    private final Map<Long, Known> models = Recent.most(1000);

    /** Of what a model says only what some fact is taken from: files may say a great deal. */
    private record Known(Set<String> asked, Map<String, StepProperty> said) {}

    public FileFacts(Sheets sheets, ContentStore contents, HouseStore house) {
        this.sheets = sheets;
        this.contents = contents;
        this.house = house;
    }

    /** By fact name, as it would be typed, what becomes facts; empty for what says nothing. Of a model it reads all, the first time. */
    public Map<String, String> of(StoredContent content) {
        return content.kind() == ContentKind.STEP ? ofModel(content) : sheets.facts(content);
    }

    /** As {@link #of}, with what the shelf itself writes into a title block: the number, the title, the revision. */
    public Map<String, String> said(StoredContent content) {
        return content.kind() == ContentKind.STEP ? ofModel(content) : sheets.said(content);
    }

    /** As {@link #said(StoredContent)}, of bytes that are kept nowhere. */
    public Map<String, String> said(ContentKind kind, byte[] bytes) {
        if (kind != ContentKind.STEP) return kind == ContentKind.DXF ? sheets.said(bytes) : Map.of();
        return ModelFacts.of(read(new ByteArrayInputStream(bytes)), house.facts());
    }

    private Map<String, String> ofModel(StoredContent content) {
        List<FactDefinition> facts = house.facts();
        Set<String> asked = asked(facts);
        if (asked.isEmpty()) return Map.of();
        Known known = models.get(content.id());
        if (known == null || !known.asked().containsAll(asked)) {
            known = known(asked, read(new ContentInput(contents, content.id(), content.size())));
            models.put(content.id(), known);
        }
        return ModelFacts.of(known.said(), facts);
    }

    /** Remembers what a model says that was read for another reason. */
    public void keep(long content, StepModel model) {
        Set<String> asked = asked(house.facts());
        if (!asked.isEmpty()) models.put(content, known(asked, said(model)));
    }

    private static Set<String> asked(List<FactDefinition> facts) {
        return facts.stream()
                .map(f -> Texts.key(f.use().property()))
                .filter(p -> !p.isEmpty())
                .collect(Collectors.toSet());
    }

    private static Known known(Set<String> asked, Map<String, StepProperty> said) {
        Map<String, StepProperty> kept = new LinkedHashMap<>(said);
        kept.keySet().removeIf(name -> !asked.contains(Texts.key(name)));
        return new Known(asked, kept);
    }

    private static Map<String, StepProperty> said(StepModel model) {
        return model.top().map(model::said).orElse(Map.of());
    }

    private static Map<String, StepProperty> read(InputStream file) {
        try {
            return StepReader.read(file) instanceof Outcome.Granted<StepModel> model ? said(model.value()) : Map.of();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where a fact's value stands in a file of this kind, in words. */
    public static String place(ContentKind kind) {
        return kind == ContentKind.STEP ? "the model" : "the title block";
    }
}
