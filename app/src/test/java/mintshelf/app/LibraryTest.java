package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import mintshelf.app.ground.Refused;
import mintshelf.app.use.document.DropDocument;
import mintshelf.app.use.document.KeepFacts;
import mintshelf.app.use.hold.CheckOut;
import mintshelf.app.use.revision.StartRevisions;
import mintshelf.app.use.shelf.ReadShelf;
import mintshelf.core.hold.AlongRules.Fate;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Library documents are changed by librarians; others get copies. */
class LibraryTest {
    private static final Server SERVER = Server.shared();
    private final Server server = SERVER;
    private final long library =
            server.bean(ReadShelf.class).addShelf(server.actor("ines"), "Library " + Server.key(), "", true);

    @BeforeAll
    static void aLibrarian() {
        SERVER.add("lotte", "Lotte Quist", "librarian");
    }

    private static String code(ThrowingCallable act) {
        Refused refused = catchThrowableOfType(Refused.class, act);
        return refused == null
                ? ""
                : refused.refusal().code() + refused.refusal().reason();
    }

    @Test
    void aDesignerChangesNothingOnALibraryShelf() {
        long screw = server.file("lotte", library, "screw " + library + ".txt", "M5", false);
        assertThat(code(() -> server.checkOut("priya", screw))).contains("librarians");
        assertThat(code(() -> server.bean(KeepFacts.class)
                        .keep(server.actor("priya"), screw, Server.key(), "Bolt", Map.of(), Map.of())))
                .contains("librarians");
        assertThat(code(() -> server.bean(DropDocument.class).drop(server.actor("priya"), screw, Server.key(), "no")))
                .isNotEmpty();
        assertThat(code(() -> server.file("priya", library, "own " + library + ".txt", "M6", false)))
                .startsWith("access.missing");
    }

    @Test
    void aDesignerGetsACopyAndTheReason() {
        long screw = server.file("lotte", library, "copied " + library + ".txt", "M5c", false);
        CheckOut.Plan plan = server.bean(CheckOut.class).plan(server.actor("priya"), List.of(screw), Optional.empty());
        assertThat(plan.rows().get(0).verdict().proposed()).isEqualTo(Fate.COPY);
        assertThat(plan.rows().get(0).verdict().why().orElseThrow().says()).contains("librarians");
        assertThat(Web.as(server, "priya").get("/documents/" + screw).body()).contains("Fetch a copy");
    }

    @Test
    void theNextRevisionIsStartedByALibrarian() {
        long screw = server.file("lotte", library, "revised " + library + ".txt", "M5r", false);
        server.release("lotte", screw);
        assertThat(code(() -> server.bean(StartRevisions.class)
                        .start(server.actor("priya"), List.of(screw), Server.key(), "x", "", true)))
                .contains("librarians");
        server.bean(StartRevisions.class).start(server.actor("lotte"), List.of(screw), Server.key(), "x", "", true);
        assertThat(server.document(screw).holder().orElseThrow().name()).isEqualTo("Lotte Quist");
    }
}
