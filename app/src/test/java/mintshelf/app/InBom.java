package mintshelf.app;

import java.util.Map;
import mintshelf.app.ground.Actor;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.structure.KeepBomLines;
import mintshelf.app.use.structure.KeepBomLines.Typed;

/** Parts and assemblies on a shelf of a test's own, for tests of bills of materials. */
abstract class InBom {
    final Server server = Server.shared();
    final KeepBomLines lines = server.bean(KeepBomLines.class);
    final long shelf = server.shelf();
    final String mark = Server.key().substring(0, 6);
    final Actor priya = server.actor("priya");

    long part(String name, Map<String, String> facts) {
        long item = server.file(
                "priya",
                shelf,
                "part-model",
                name + mark + ".stp",
                number(name),
                StructureTest.assembly(name + mark),
                false);
        server.bean(KeepFacts.class).keep(priya, item, Server.key(), name, facts, Map.of());
        return item;
    }

    String number(String name) {
        return "B" + mark + "-" + name;
    }

    long assembly(String name, Object... filesAndCounts) {
        return server.file(
                "priya", shelf, "part-model", name + mark + ".stp", number(name), model(name, filesAndCounts), false);
    }

    byte[] model(String says, Object... filesAndCounts) {
        Object[] marked = filesAndCounts.clone();
        for (int i = 0; i < marked.length; i += 2) marked[i] = marked[i] + mark + ".stp";
        return StructureTest.assembly(says + mark, marked);
    }

    void write(long item, String find, String number, String title, String quantity, String unit) {
        lines.write(priya, item, Server.key(), new Typed(0, find, number, title, quantity, unit, "bought", "", ""));
    }
}
