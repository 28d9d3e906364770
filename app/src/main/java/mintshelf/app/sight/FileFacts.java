package mintshelf.app.sight;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Map;
import mintshelf.app.ground.Recent;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.house.HouseStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.content.ContentKind;
import mintshelf.core.fact.FactDefinition;
import mintshelf.core.fact.ModelFacts;
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
    private final Map<Long, Map<String, StepProperty>> models = Recent.most(1000);

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
        if (facts.stream().allMatch(f -> f.use().property().isEmpty())) return Map.of();
        Map<String, StepProperty> said = models.get(content.id());
        if (said == null) {
            said = read(new ContentInput(contents, content.id(), content.size()));
            models.put(content.id(), said);
        }
        return ModelFacts.of(said, facts);
    }

    /** Remembers what a model says that was read for another reason. */
    public void keep(long content, StepModel model) {
        models.put(content, said(model));
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
