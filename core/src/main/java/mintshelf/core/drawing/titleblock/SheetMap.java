package mintshelf.core.drawing.titleblock;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import mintshelf.core.drawing.Box;
import mintshelf.core.drawing.compare.Zones;
import mintshelf.core.drawing.dxf.Attributes;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.RowBlock;
import mintshelf.core.drawing.dxf.SheetContent;

/**
 * Where a title block carries which fact, and which way: read from the sheet, or written by the shelf. A map is data: a house has
 * one for each of its sheet formats, and its editions are kept, for a proof names the one it was made with.
 *
 * @param block name of the title block, without case; empty for the block with most of the fields, {@link #EVERY_BLOCK} for all
 * @param format the sheet format that it is for, such as A3; empty for any
 * @param revisions how its revision block is written; empty where the shelf leaves that alone
 */
public record SheetMap(
        String name, String block, String format, List<Field> fields, Optional<RevisionBlock> revisions) {
    /** In place of a block's name: attributes of every block are fields. */
    public static final String EVERY_BLOCK = "*";

    public SheetMap {
        fields = List.copyOf(fields);
    }

    /** The same map for a sheet that begins anew: whatever its fields say is written by the shelf. */
    public SheetMap allWritten() {
        return new SheetMap(
                name,
                block,
                format,
                fields.stream()
                        .map(f -> new Field(f.tag(), f.fact(), Way.WRITTEN, f.spot()))
                        .toList(),
                revisions);
    }

    /** Who says what stands in a field. */
    public enum Way {
        /** The sheet says it; the shelf takes it over as a fact. */
        READ,
        /** The shelf says it; what the sheet held is replaced. */
        WRITTEN
    }

    /** A place on the sheet, in mm from its lower right corner: {@code x} leftwards to its left end, {@code y} upwards to its foot. */
    public record Spot(double x, double y, double width, double height) {
        Box box(Zones zones) {
            double mm = zones.millimetre();
            double left = zones.sheet().maxX() - x * mm;
            double foot = zones.sheet().minY() + y * mm;
            return new Box(left, foot, left + width * mm, foot + height * mm);
        }
    }

    /**
     * What carries a fact: an attribute, by its tag without case, or the text at a place.
     *
     * @param tag empty where a place says it
     */
    public record Field(String tag, String fact, Way way, Optional<Spot> spot) {
        public Field(String tag, String fact, Way way) {
            this(tag, fact, way, Optional.empty());
        }

        /** As a person is shown it: the tag, or the place. */
        public String shown() {
            return spot.map(s -> String.format(
                            Locale.ROOT, "at %.0f, %.0f (%.0f x %.0f mm)", s.x(), s.y(), s.width(), s.height()))
                    .orElse(tag);
        }
    }

    /** A place on a sheet that the shelf may write: its field, the fact that belongs there, what stands there now. */
    public record Site(String tag, String fact, String now, List<Place> places) {
        /** Where its value begins in the file. */
        public int from() {
            return places.get(0).from();
        }
    }

    /** What a field says on a sheet. */
    public record Said(Field field, String value) {}

    /**
     * The ready-made map: the fields of an ISO 7200 title block by their usual tags, in any block. Number, revision, status, dates
     * and signatures are the shelf's to say; the rest is the designer's.
     */
    public static SheetMap readyMade() {
        return new SheetMap(
                "ISO 7200",
                "",
                "",
                List.of(
                        new Field("TITLE", "title", Way.READ),
                        new Field("MATERIAL", "material", Way.READ),
                        new Field("SURFACE", "surface", Way.READ),
                        new Field("MASS", "mass", Way.READ),
                        new Field("SCALE", "scale", Way.READ),
                        new Field("FORMAT", "format", Way.READ),
                        new Field("CREATED_BY", "created_by", Way.READ),
                        new Field("CREATED", "created", Way.READ),
                        new Field("NUMBER", "number", Way.WRITTEN),
                        new Field("REV", "revision", Way.WRITTEN),
                        new Field("STATUS", "status", Way.WRITTEN),
                        new Field("ISSUED", "issued", Way.WRITTEN),
                        new Field("CHECKED_BY", "checked_by", Way.WRITTEN),
                        new Field("CHECKED", "checked", Way.WRITTEN),
                        new Field("APPROVED_BY", "approved_by", Way.WRITTEN),
                        new Field("APPROVED", "approved", Way.WRITTEN)),
                Optional.of(RevisionBlock.readyMade()));
    }

    /** Whether the sheet has the map's format. O(1) for a map of any format, else O(bytes + primitives). */
    public boolean isFor(DxfDrawing drawing) {
        return format.isEmpty() || format.equals(Corner.zones(drawing).format());
    }

    /** A text of a sheet and where it stands, in mm from the lower right corner. */
    public record Placed(String value, double x, double y) {}

    /** The texts of a sheet with their places, from the corner outwards: what a map by places is made from. */
    public static List<Placed> placed(DxfDrawing drawing) {
        Zones zones = Corner.zones(drawing);
        if (zones.format().isEmpty()) return List.of();
        double mm = zones.millimetre();
        return SheetContent.labels(drawing).stream()
                .map(l -> new Placed(
                        l.value(),
                        (zones.sheet().maxX() - l.x()) / mm,
                        (l.y() - zones.sheet().minY()) / mm))
                .sorted(Comparator.comparingDouble(p -> p.x() + p.y()))
                .toList();
    }

    /** What is wrong with the map, a sentence each; none when a house can use it. */
    public List<String> wrong() {
        List<String> wrong = new ArrayList<>();
        if (fields.isEmpty() && revisions.isEmpty()) wrong.add("The map knows no field and no revision block.");
        Set<String> tags = new HashSet<>();
        for (Field field : fields) {
            if (!field.fact().matches("[a-z][a-z0-9_]{0,59}")) {
                wrong.add("“" + field.fact() + "” is no name of a fact: small letters, digits and _.");
            }
            if (field.tag().isBlank() == field.spot().isEmpty()) {
                wrong.add("The field for " + field.fact() + " needs a tag or a place, one of them.");
            }
            if (!field.tag().isBlank() && !tags.add(field.tag().toUpperCase(Locale.ROOT))) {
                wrong.add("The tag " + field.tag() + " stands twice.");
            }
            field.spot()
                    .filter(s -> !(s.width() > 0 && s.height() > 0 && s.x() >= 0 && s.y() >= 0 && s.x() <= 1189))
                    .ifPresent(
                            s -> wrong.add("The place of " + field.fact() + " has no size, or lies off every sheet."));
        }
        revisions.ifPresent(r -> wrong.addAll(r.wrong()));
        return wrong;
    }

    /** What the sheet says, by fact name; what is empty on the sheet is left out; of two the first counts. O(bytes). */
    public Map<String, String> read(DxfDrawing drawing) {
        Map<String, String> said = new LinkedHashMap<>();
        for (Said one : found(drawing)) {
            if (!one.value().isBlank()) said.putIfAbsent(one.field().fact(), one.value());
        }
        return said;
    }

    /** The fields that the sheet has, with what stands in them, in the order of the sheet. O(bytes). */
    public List<Said> found(DxfDrawing drawing) {
        List<Said> found = new ArrayList<>();
        for (Attributes.Attribute attribute : titleBlock(drawing)) {
            fieldOf(attribute).ifPresent(field -> found.add(new Said(field, attribute.value())));
        }
        atPlaces(drawing, (field, label) -> found.add(new Said(field, label.value())));
        return List.copyOf(found);
    }

    /** The places that the shelf may write on this sheet. O(bytes). */
    public List<Site> sites(DxfDrawing drawing) {
        List<Site> sites = new ArrayList<>();
        for (Attributes.Attribute attribute : titleBlock(drawing)) {
            fieldOf(attribute)
                    .filter(f -> f.way() == Way.WRITTEN && !attribute.sites().isEmpty())
                    .ifPresent(f -> sites.add(new Site(f.tag(), f.fact(), attribute.value(), attribute.sites())));
        }
        atPlaces(drawing, (field, label) -> {
            if (field.way() == Way.WRITTEN && label.site().isPresent()) {
                sites.add(new Site(
                        field.shown(),
                        field.fact(),
                        label.value(),
                        List.of(label.site().get())));
            }
        });
        return List.copyOf(sites);
    }

    /** The texts that stand at the places of fields; of several the first one. */
    private void atPlaces(DxfDrawing drawing, BiConsumer<Field, SheetContent.Label> each) {
        List<Field> placed = fields.stream().filter(f -> f.spot().isPresent()).toList();
        if (placed.isEmpty()) return;
        Zones zones = Corner.zones(drawing);
        if (zones.format().isEmpty()) return;
        List<SheetContent.Label> labels = SheetContent.labels(drawing);
        for (Field field : placed) {
            Box box = field.spot().orElseThrow().box(zones);
            labels.stream()
                    .filter(l ->
                            l.x() >= box.minX() && l.x() <= box.maxX() && l.y() >= box.minY() && l.y() <= box.maxY())
                    .findFirst()
                    .ifPresent(l -> each.accept(field, l));
        }
    }

    /**
     * The attributes of the title block. Where the map does not name it, it is the block with most of the fields: lines of a parts
     * list have numbers and titles too, but come in rows, and a title block stands once on each layout at the most.
     */
    private List<Attributes.Attribute> titleBlock(DxfDrawing drawing) {
        Map<String, List<Attributes.Attribute>> byBlock = new LinkedHashMap<>();
        for (Attributes.Attribute attribute : drawing.attributes()) {
            String name = attribute.block().toUpperCase(Locale.ROOT);
            boolean any = block.isEmpty() || block.equals(EVERY_BLOCK);
            if (isRow(name) || !(any || block.equalsIgnoreCase(name))) continue;
            byBlock.computeIfAbsent(name, n -> new ArrayList<>()).add(attribute);
        }
        if (!block.isEmpty())
            return byBlock.values().stream().flatMap(List::stream).toList();
        int layouts = drawing.layouts().size();
        return byBlock.values().stream()
                .filter(all -> inserts(all) <= layouts)
                .max(Comparator.comparingLong(this::fieldsIn))
                .filter(all -> fieldsIn(all) > 0)
                .orElse(List.of());
    }

    /** Rows of a revision block may have the same tags: they are no fields. */
    private boolean isRow(String name) {
        return name.equalsIgnoreCase(RowBlock.DRAWN_ROW)
                || revisions.filter(r -> r.block().equalsIgnoreCase(name)).isPresent();
    }

    /** How often a block is inserted: how often its commonest tag comes. */
    private static long inserts(List<Attributes.Attribute> all) {
        return all.stream()
                .collect(Collectors.groupingBy(a -> a.tag().toUpperCase(Locale.ROOT), Collectors.counting()))
                .values()
                .stream()
                .mapToLong(n -> n)
                .max()
                .orElse(0);
    }

    private long fieldsIn(List<Attributes.Attribute> all) {
        return all.stream()
                .flatMap(a -> fieldOf(a).stream())
                .map(Field::fact)
                .distinct()
                .count();
    }

    private Optional<Field> fieldOf(Attributes.Attribute attribute) {
        return fields.stream()
                .filter(f -> f.spot().isEmpty() && f.tag().equalsIgnoreCase(attribute.tag()))
                .findFirst();
    }
}
