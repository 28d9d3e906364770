package mintshelf.app.effect;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import mintshelf.app.ground.Actor;
import mintshelf.app.sight.Seen;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.document.FactStore;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.house.HouseStore;
import mintshelf.app.store.house.KindFact;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a part without a file holds as its content: the facts that only a revision changes, as canonical JSON. So it has versions, which are signed,
 * released and frozen as those of files are. What changes freely once released, as prices do, is not in it.
 */
@Component
public class PartCard {
    private final FactStore facts;
    private final HouseStore house;
    private final KeepContent contents;
    private final NewVersions versions;
    private final JsonMapper json;

    PartCard(FactStore facts, HouseStore house, KeepContent contents, NewVersions versions, JsonMapper json) {
        this.facts = facts;
        this.house = house;
        this.contents = contents;
        this.versions = versions;
        this.json = json;
    }

    /** The content of a part of a kind that says this of itself, by the names of its facts. */
    StoredContent of(long kind, Map<String, String> said) {
        Map<String, String> card = new TreeMap<>();
        for (KindFact one : house.factSheets().getOrDefault(kind, List.of())) {
            String value = said.getOrDefault(one.fact().name(), "");
            boolean free = one.fact().use().hands().in(StageClass.RELEASED).isPresent();
            if (!free && !value.isEmpty()) card.put(one.fact().name(), value);
        }
        return contents.keep(json.writerWithDefaultPrettyPrinter().writeValueAsBytes(card));
    }

    /**
     * After its facts changed, under its lock: a part under way gets its next version where its card says something else, and its
     * first one of a revision with the first change in it.
     */
    void follow(Actor actor, Seen seen, String says) {
        Document document = seen.document();
        if (!document.part() || document.pending().isEmpty()) return;
        long revision = document.pending().get().id();
        StoredContent card = of(document.place().kind(), facts.facts(revision));
        if (document.head().revision() == revision
                && card.hash().equals(document.head().content())) return;
        versions.add(
                actor,
                document,
                new NewVersions.Made(
                        card,
                        List.of(),
                        says,
                        VersionRow.MadeBy.CHECKED_IN,
                        Optional.of(document.head().version()),
                        Optional.empty(),
                        says));
    }
}
