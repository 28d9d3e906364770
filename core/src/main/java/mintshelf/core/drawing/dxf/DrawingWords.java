package mintshelf.core.drawing.dxf;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.Primitive;
import mintshelf.core.drawing.Scene;

/** What a drawing says in words, for the search: texts, attributes, notes and dimensions with letters. */
public final class DrawingWords {
    private DrawingWords() {}

    /**
     * The lines of text, each once: those of the sheet first, then those of its other layouts, of model space and of attributes that no
     * view shows.
     * Lines without a letter, such as plain dimensions, are left out. O(bytes + primitives).
     *
     * @param most letters at most, all together
     */
    public static List<String> of(DxfDrawing drawing, int most) {
        Set<String> lines = new LinkedHashSet<>();
        int[] left = {most};
        Set<String> spaces = new LinkedHashSet<>(List.of(drawing.sheet()));
        spaces.addAll(drawing.layouts());
        spaces.add(DxfDrawing.MODEL);
        for (String space : spaces) {
            if (left[0] < 2) break;
            if (!(drawing.scene(space, 0) instanceof Outcome.Granted<Scene> scene)) continue;
            for (Primitive p : scene.value().primitives()) {
                if (p instanceof Primitive.Text text) add(lines, text.text(), left);
            }
        }
        drawing.attributes().forEach(a -> add(lines, a.value(), left));
        return List.copyOf(lines);
    }

    private static void add(Set<String> lines, String text, int[] left) {
        String line = text.strip().replaceAll("\\s+", " ");
        if (line.length() < 2 || line.length() > left[0] || line.chars().noneMatch(Character::isLetter)) return;
        if (lines.add(line)) left[0] -= line.length() + 1;
    }
}
