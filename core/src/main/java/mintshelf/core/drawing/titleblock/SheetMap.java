package mintshelf.core.drawing.titleblock;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import mintshelf.core.drawing.dxf.Attributes;
import mintshelf.core.drawing.dxf.DxfDrawing;

/**
 * Which attribute of a title block carries which fact, and which way: read from the sheet, or written by the shelf. A map is
 * data: a house has one for each of its sheet formats, and its editions are kept, for a proof names the one it was made with.
 *
 * @param block name of the title block, without case; empty for any block
 */
public record SheetMap(String name, String block, List<Field> fields) {
    public SheetMap {
        fields = List.copyOf(fields);
    }

    /** Who says what stands in a field. */
    public enum Way {
        /** The sheet says it; the shelf takes it over as a fact. */
        READ,
        /** The shelf says it; what the sheet held is replaced. */
        WRITTEN
    }

    /** An attribute, by its tag without case, and the fact that it carries. */
    public record Field(String tag, String fact, Way way) {}

    /** A place on a sheet that the shelf may write: an attribute, the fact that belongs there, what stands there now. */
    public record Site(String tag, String fact, String now, List<Attributes.Place> places) {}

    /**
     * The ready-made map: the fields of an ISO 7200 title block by their usual tags, in any block. Number, revision, status, dates
     * and signatures are the shelf's to say; the rest is the designer's.
     */
    public static SheetMap readyMade() {
        return new SheetMap(
                "ISO 7200",
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
                        new Field("APPROVED", "approved", Way.WRITTEN)));
    }

    /** What the sheet says, by fact name; what is empty on the sheet is left out; of two the first counts. O(bytes). */
    public Map<String, String> read(DxfDrawing drawing) {
        Map<String, String> said = new LinkedHashMap<>();
        for (Attributes.Attribute attribute : drawing.attributes()) {
            for (Field field : fieldsOf(attribute)) {
                if (!attribute.value().isBlank()) said.putIfAbsent(field.fact(), attribute.value());
            }
        }
        return said;
    }

    /** The places that the shelf may write on this sheet. O(bytes). */
    public List<Site> sites(DxfDrawing drawing) {
        List<Site> sites = new ArrayList<>();
        for (Attributes.Attribute attribute : drawing.attributes()) {
            for (Field field : fieldsOf(attribute)) {
                if (field.way() == Way.WRITTEN && !attribute.sites().isEmpty()) {
                    sites.add(new Site(field.tag(), field.fact(), attribute.value(), attribute.sites()));
                }
            }
        }
        return List.copyOf(sites);
    }

    private List<Field> fieldsOf(Attributes.Attribute attribute) {
        if (!block.isEmpty() && !block.equalsIgnoreCase(attribute.block())) return List.of();
        return fields.stream()
                .filter(f -> f.tag().equalsIgnoreCase(attribute.tag()))
                .limit(1)
                .toList();
    }
}
