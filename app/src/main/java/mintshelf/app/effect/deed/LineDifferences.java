package mintshelf.app.effect.deed;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.app.store.document.RevisionStore;
import mintshelf.app.store.document.Spine;
import mintshelf.app.store.document.SpineStore;
import mintshelf.app.store.structure.BomLineStore;
import mintshelf.app.store.structure.BomLineStore.Kept;
import mintshelf.app.store.structure.PartStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.store.structure.ReferenceStore;
import mintshelf.core.bom.Bom;
import mintshelf.core.bom.BomCompare;
import mintshelf.core.bom.BomLine;
import mintshelf.core.bom.BomPart;
import mintshelf.core.bom.BomUnits;
import mintshelf.core.bom.Comes;
import mintshelf.core.bom.LevelLines;
import mintshelf.core.bom.Variant;
import mintshelf.core.change.ChangeNotice;
import mintshelf.core.reference.Written;
import org.springframework.stereotype.Component;

/**
 * What lines of an order change of sheets, of what documents consist of and of their variants, for notices. Parts are those of one level: what is
 * changed further down has a line of its own.
 */
@Component
class LineDifferences {
    /** Parts of a line that a notice names. */
    private static final int MOST = 12;

    private final DifferencePictures pictures;
    private final RevisionStore revisions;
    private final ReferenceStore references;
    private final BomLineStore lines;
    private final PartStore parts;
    private final SpineStore spines;

    LineDifferences(
            DifferencePictures pictures,
            RevisionStore revisions,
            ReferenceStore references,
            BomLineStore lines,
            PartStore parts,
            SpineStore spines) {
        this.pictures = pictures;
        this.revisions = revisions;
        this.references = references;
        this.lines = lines;
        this.parts = parts;
        this.spines = spines;
    }

    /**
     * A document that comes into force in the place of another revision of it.
     *
     * @param version with which it does: while a notice is written it is not noted yet
     */
    record Replaced(long item, long from, long to, long version) {}

    /** What is said of one of them; empty where nothing differs. */
    record Said(String parts, String variants) {
        static final Said NOTHING = new Said("", "");
    }

    List<ChangeNotice.Picture> pictures(List<DifferencePictures.Between> all) {
        return pictures.of(all);
    }

    /** By document; a handful of statements for each few hundred of them. */
    Map<Long, Said> said(List<Replaced> all) {
        Set<Long> both = new HashSet<>();
        all.forEach(r -> both.addAll(List.of(r.from(), r.to())));
        Map<Long, Long> versions = new HashMap<>(
                revisions.releasedVersions(all.stream().map(Replaced::from).toList()));
        all.forEach(r -> versions.put(r.to(), r.version()));
        Map<Long, List<Reference>> refersTo = references.of(Set.copyOf(versions.values()));
        Map<Long, List<Kept>> kept = lines.of(both);
        Map<Long, List<Variant>> variants = parts.variants(both);
        Set<Long> named = new HashSet<>();
        refersTo.values().forEach(l -> l.forEach(r -> r.component().ifPresent(c -> named.add(c.item()))));
        kept.values().forEach(l -> l.forEach(k -> k.component().ifPresent(named::add)));
        Map<Long, Spine> documents = spines.spines(named);
        Map<Long, Said> said = new HashMap<>();
        for (Replaced one : all) {
            Bom[] boms = new Bom[2];
            for (int i = 0; i < 2; i++) {
                long revision = i == 0 ? one.from() : one.to();
                boms[i] = level(
                        refersTo.getOrDefault(versions.getOrDefault(revision, 0L), List.of()),
                        kept.getOrDefault(revision, List.of()),
                        documents);
            }
            List<String> differ = Variant.changes(
                    variants.getOrDefault(one.from(), List.of()), variants.getOrDefault(one.to(), List.of()));
            said.put(one.item(), new Said(BomCompare.of(boms[0], boms[1]).named(MOST), String.join("; ", differ)));
        }
        return said;
    }

    /** What stands next below, as the file refers to it and as people wrote it. */
    private static Bom level(List<Reference> refersTo, List<Kept> kept, Map<Long, Spine> documents) {
        Map<String, BigDecimal> counted = new LinkedHashMap<>();
        Map<String, Long> items = new HashMap<>();
        for (Reference r : refersTo)
            if (r.written().role() == Written.Role.COMPONENT)
                r.component().ifPresent(c -> {
                    items.put(Kept.ofFile(c.item()), c.item());
                    counted.merge(
                            Kept.ofFile(c.item()),
                            BigDecimal.valueOf(r.written().quantity()),
                            BigDecimal::add);
                });
        Map<String, Kept> byKey = new HashMap<>();
        for (Kept one : kept) {
            byKey.put(one.key(), one);
            one.component().ifPresent(c -> items.put(one.key(), c));
        }
        List<BomPart> parts = new ArrayList<>(List.of(part(0, "", "", Comes.MADE, BomUnits.PIECE)));
        List<BomLine> below = new ArrayList<>();
        for (LevelLines.Line line :
                LevelLines.of(counted, kept.stream().map(Kept::line).toList())) {
            String unit = line.quantity().unit();
            below.add(new BomLine(line.find(), parts.size(), line.quantity().quantity(), unit, line.byHand()));
            Optional<Kept> said = Optional.ofNullable(byKey.get(line.key()));
            parts.add(Optional.ofNullable(items.get(line.key()))
                    .map(item -> document(item, said.map(Kept::variant).orElse(""), unit, documents))
                    .orElseGet(() -> said.map(k -> part(
                                    -k.seq(),
                                    k.says().number(),
                                    k.says().title(),
                                    k.says().comes(),
                                    unit))
                            .orElseThrow()));
        }
        List<List<BomLine>> all = new ArrayList<>();
        parts.forEach(p -> all.add(new ArrayList<>()));
        all.get(0).addAll(below);
        return Bom.of(parts, all);
    }

    private static BomPart document(long item, String variant, String unit, Map<Long, Spine> documents) {
        String number = Optional.ofNullable(documents.get(item))
                .map(s -> s.document().number())
                .orElse("");
        BomPart part = part(item, number, "", Comes.MADE, unit);
        return variant.isEmpty() ? part : part.lacking(variant, "");
    }

    private static BomPart part(long item, String number, String title, Comes comes, String unit) {
        return new BomPart(item, number, title, "", 0, comes, unit, Optional.empty(), Optional.empty());
    }
}
