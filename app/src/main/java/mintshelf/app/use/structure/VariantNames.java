package mintshelf.app.use.structure;

import java.util.List;
import java.util.Optional;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.structure.PartStore;
import mintshelf.core.base.Texts;
import mintshelf.core.bom.Variant;
import mintshelf.core.numbering.NumberKey;
import org.springframework.stereotype.Component;

/** The variants that documents describe, as people name them. */
@Component
class VariantNames {
    private final Sight sight;
    private final PartStore parts;

    VariantNames(Sight sight, PartStore parts) {
        this.sight = sight;
        this.parts = parts;
    }

    /** Those that a document describes now, as somebody sees it. */
    List<Variant> of(Seen document) {
        long revision = document.current().id();
        return parts.variants(List.of(revision)).getOrDefault(revision, List.of());
    }

    /** The document that describes the variant of a part number now, of those that somebody sees. */
    Optional<Seen> describes(Actor actor, NumberKey number) {
        return parts.described(number)
                .flatMap(item ->
                        Optional.ofNullable(sight.of(actor, List.of(item)).get(item)))
                .filter(document -> !numbered(document, number.number()).isEmpty());
    }

    /** The name of a variant as the document writes it; empty for none. */
    String named(Seen document, String typed) {
        if (typed.isBlank()) return "";
        return of(document).stream()
                .filter(v -> Texts.key(v.name()).equals(Texts.key(typed)))
                .findFirst()
                .map(Variant::name)
                .orElseThrow(() -> Refused.because(
                        "variant.gone",
                        document.document().number() + " has no variant “" + Texts.shorten(typed.strip(), 40) + "”.",
                        "Name one that it has, or none; nothing was changed."));
    }

    /** The name of the variant that has a part number; empty where the number is the document's. */
    String numbered(Seen document, String number) {
        String key = NumberKey.of(number).orElseThrow(Refused::new).key();
        return of(document).stream()
                .filter(v -> NumberKey.of(v.number())
                        .toOptional()
                        .filter(n -> n.key().equals(key))
                        .isPresent())
                .findFirst()
                .map(Variant::name)
                .orElse("");
    }
}
