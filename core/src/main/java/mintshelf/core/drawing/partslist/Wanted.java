package mintshelf.core.drawing.partslist;

import java.util.Locale;
import java.util.Map;

/**
 * A line as an assembly's bill of materials has it.
 *
 * @param quantity in words: "4", "6.2 m"
 * @param facts of the part, by their names
 */
public record Wanted(String find, String quantity, String number, String title, Map<String, String> facts) {
    /** What it is told by: its number without regard to case and blanks; where it has none, its title. */
    public String key() {
        return key(number, title);
    }

    static String key(String number, String title) {
        String text = number.isBlank() ? title : number;
        return text.toLowerCase(Locale.ROOT).replaceAll("\\s+", "");
    }

    /** What stands under a tag; nothing of what nobody knows. */
    String says(String tag, String otherwise) {
        if (PartsList.FIND.contains(tag)) return find;
        if (PartsList.QUANTITY.contains(tag)) return quantity;
        if (PartsList.NUMBER.contains(tag)) return number;
        if (PartsList.TITLE.contains(tag)) return title;
        return facts.getOrDefault(tag.toLowerCase(Locale.ROOT).replace('_', '-'), otherwise);
    }
}
