package mintshelf.core.drawing.titleblock;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import mintshelf.core.drawing.dxf.Attributes;
import mintshelf.core.drawing.dxf.DxfTags;

/**
 * Which attribute of a title block carries which fact. A map is data: a house has one for each of its sheet formats.
 *
 * @param block name of the title block, without case; empty for any block
 * @param facts attribute tag (upper case) to fact name
 */
public record SheetMap(String name, String block, Map<String, String> facts) {
    public SheetMap {
        facts = Map.copyOf(facts);
    }

    /** The ready-made map: the fields of an ISO 7200 title block by their usual tags, in any block. */
    public static SheetMap readyMade() {
        return new SheetMap(
                "ISO 7200",
                "",
                Map.of(
                        "NUMBER", "number",
                        "TITLE", "title",
                        "REV", "revision",
                        "MATERIAL", "material",
                        "SURFACE", "surface",
                        "MASS", "mass",
                        "SCALE", "scale",
                        "FORMAT", "format",
                        "CREATED_BY", "created_by",
                        "CREATED", "created"));
    }

    /** What the sheet says, by fact name; what is empty on the sheet is left out; of two the first counts. */
    public Map<String, String> read(DxfTags tags) {
        Map<String, String> said = new LinkedHashMap<>();
        for (Attributes.Attribute attribute : Attributes.of(tags)) {
            if (!block.isEmpty() && !block.equalsIgnoreCase(attribute.block())) continue;
            String fact = facts.get(attribute.tag().toUpperCase(Locale.ROOT));
            if (fact != null && !attribute.value().isBlank()) said.putIfAbsent(fact, attribute.value());
        }
        return said;
    }
}
