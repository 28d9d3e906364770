package mintshelf.core.drawing.dxf;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/** How much of model space the windows of a layout show. */
final class SheetWindows {
    private SheetWindows() {}

    /**
     * The part of the model's entities that begin within a window of the layout; 1 where the model is empty, and where a window looks
     * from aside. O(bytes of entities).
     */
    static double shownPart(DxfDrawing drawing, String block) {
        boolean active = DxfDrawing.isActive(block);
        DxfDrawing.Block own = drawing.blocks.get(DxfDrawing.key(block));
        List<Viewport> windows = new ArrayList<>();
        int[] counts = {0, 0};
        List<double[]> begins = new ArrayList<>();
        if (drawing.entities >= 0) {
            walk(drawing, drawing.entities, drawing.entitiesEnd, e -> {
                boolean paper = e.whole(67, 0) == 1;
                if (paper && active && e.type().equals("VIEWPORT")) {
                    Viewport.of(e, drawing, windows.size() + 1).ifPresent(windows::add);
                } else if (!paper
                        && e.has(10)
                        && !e.type().equals("VERTEX")
                        && !e.type().equals("ATTRIB")) {
                    begins.add(new double[] {e.real(10, 0), e.real(20, 0)});
                }
            });
        }
        if (!active && own != null) {
            walk(drawing, own.from(), own.to(), e -> {
                if (e.type().equals("VIEWPORT")) {
                    Viewport.of(e, drawing, windows.size() + 1).ifPresent(windows::add);
                }
            });
        }
        if (begins.isEmpty() || windows.stream().anyMatch(Viewport::fromAside)) return 1;
        for (double[] p : begins) {
            counts[0]++;
            for (Viewport window : windows) {
                double x = window.placement().x(p[0], p[1]);
                double y = window.placement().y(p[0], p[1]);
                boolean shown = x >= window.frame().minX()
                        && x <= window.frame().maxX()
                        && y >= window.frame().minY()
                        && y <= window.frame().maxY();
                if (shown) {
                    counts[1]++;
                    break;
                }
            }
        }
        return (double) counts[1] / counts[0];
    }

    private static void walk(DxfDrawing drawing, int from, int to, Consumer<Entity> each) {
        TagCursor tags = new TagCursor(drawing.source, from, 1);
        Entity e = new Entity(drawing.source, drawing.names);
        boolean more = tags.next();
        while (tags.begin < to) {
            if (more && tags.code == 0) {
                more = e.fill(tags);
                each.accept(e);
            } else if (more || (tags.damaged && tags.resume())) {
                more = tags.next();
            } else {
                return;
            }
        }
    }
}
