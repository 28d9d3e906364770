package mintshelf.core.reference;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.Attributes.Attribute;
import mintshelf.core.drawing.dxf.Attributes.Place;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.DxfEdit;
import mintshelf.core.drawing.dxf.SheetContent;
import mintshelf.core.drawing.dxf.SheetContent.Label;
import mintshelf.core.model.step.StepTexts.Called;

/** Numbers of other documents as a sheet says them, in a parts list or beside a view: texts and attributes that are a number, whole. */
public final class SheetNames {
    private SheetNames() {}

    /** Texts of one line stand this near to one height, in the sheet's units. */
    private static final double LINE = 1.0;

    private record Change(Place place, String text) {}

    /** Whether a sheet says one of some numbers. O(bytes). */
    public static boolean says(DxfDrawing drawing, Set<String> numbers) {
        return SheetContent.labels(drawing).stream()
                        .anyMatch(l -> numbers.contains(l.value().strip()))
                || drawing.attributes().stream()
                        .anyMatch(a -> numbers.contains(a.value().strip()));
    }

    /**
     * Puts other numbers in the place of those that a sheet says, and other titles where the former ones stand in the same line; every
     * other byte stays. O(bytes).
     *
     * @param called what stands there from now on, by the number that stands there
     * @return refused where a number stands in a text of several lines, which is read and never written, or the sheet says none of them
     */
    public static Outcome<byte[]> exchange(byte[] file, Map<String, Called> called) {
        if (!(DxfDrawing.read(file) instanceof Outcome.Granted<DxfDrawing> read))
            return Outcome.refused("rewrite.none", "It is no drawing that can be read.", "");
        List<Change> changes = new ArrayList<>();
        List<Label> labels = SheetContent.labels(read.value());
        for (Label label : labels) {
            Called anew = called.get(label.value().strip());
            if (anew == null) continue;
            Optional<Place> site = label.site();
            if (site.isEmpty()) return several(label.value().strip());
            changes.add(new Change(site.get(), kept(label.value(), anew.id())));
            for (Label beside : labels) {
                if (Math.abs(beside.y() - label.y()) > LINE
                        || !beside.value().strip().equals(anew.oldName())) continue;
                if (beside.site().isEmpty()) return several(anew.oldName());
                changes.add(new Change(beside.site().get(), kept(beside.value(), anew.name())));
            }
        }
        for (Attribute attribute : read.value().attributes()) {
            Called anew = called.get(attribute.value().strip());
            if (anew == null) continue;
            for (Place place : attribute.sites()) changes.add(new Change(place, kept(attribute.value(), anew.id())));
        }
        List<Change> once = changes.stream().distinct().toList();
        if (once.isEmpty())
            return Outcome.refused("rewrite.none", "The sheet does not say that number.", "Look at it as it is now.");
        DxfEdit edit = new DxfEdit(read.value());
        once.forEach(c -> edit.replace(c.place(), c.text()));
        byte[] bytes = edit.bytes();
        boolean proved = DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> after
                && !says(after.value(), called.keySet());
        return proved
                ? Outcome.granted(bytes)
                : Outcome.refused(
                        "rewrite.differs",
                        "The sheet as written does not read as it should.",
                        "Change the number in the program that wrote it; nothing was changed.");
    }

    private static Outcome<byte[]> several(String text) {
        return Outcome.refused(
                "rewrite.lines",
                "“" + text + "” stands in a text of several lines, which is not written here.",
                "Change it in the program that wrote it.");
    }

    /** The text with the blanks that stood round the former one. */
    private static String kept(String before, String now) {
        return before.replace(before.strip(), now);
    }
}
