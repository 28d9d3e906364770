package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import mintshelf.app.use.desk.Desks;
import mintshelf.core.base.ContentHash;
import mintshelf.core.desk.DeskRules;
import org.junit.jupiter.api.Test;

/** Standings of what lies on a desk. */
class DesksTest {
    private final Server server = Server.shared();
    private final String mark = Server.key();

    @Test
    void theStatusOfManyFilesTakesAFewStatements() {
        Desks desks = server.bean(Desks.class);
        desks.open(server.actor("priya"), "MANY " + mark);
        List<Desks.OnDisk> disk = new ArrayList<>();
        for (int i = 0; i < 2000; i++) {
            disk.add(new Desks.OnDisk(
                    "Berth/" + mark + i + ".stp", ContentHash.compute((mark + i).getBytes(StandardCharsets.UTF_8))));
        }
        int before = Server.statements();
        assertThat(desks.status(server.actor("priya"), "MANY " + mark, disk))
                .filteredOn(l -> l.seen().isEmpty())
                .hasSize(2000)
                .allMatch(l -> l.standing().word() == DeskRules.Word.NEW);
        assertThat(Server.statements() - before).isLessThan(30);
    }
}
