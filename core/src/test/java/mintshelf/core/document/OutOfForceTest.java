package mintshelf.core.document;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import mintshelf.core.Documents;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

class OutOfForceTest {
    private static final Revision A = Documents.revision("A", StageClass.SUPERSEDED);
    private static final Revision B = Documents.revision("B", StageClass.RELEASED);
    private static final Revision C = Documents.revision("C", StageClass.PREPARING);
    private static final Revision GONE = Documents.revision("B", StageClass.WITHDRAWN);

    private static Document document(
            Optional<Revision> pending, Optional<Revision> released, Optional<Revision> ended) {
        Document d = Documents.document(pending, released.or(() -> Optional.of(B)), Optional.empty());
        return new Document(
                d.id(),
                d.number(),
                d.title(),
                d.fileName(),
                d.place(),
                d.line(),
                d.head(),
                pending,
                released,
                ended,
                d.holder(),
                false);
    }

    private static Optional<String> says(Revision of, Document now) {
        return OutOfForce.says(of, now, Optional.of("TG40-3031"));
    }

    @Test
    void aSupersededOneNamesWhatIsInForceAndNeverWhatIsPrepared() {
        Document quiet = document(Optional.empty(), Optional.of(B), Optional.empty());
        assertThat(says(A, quiet)).contains("Replaced by B");
        assertThat(says(A, document(Optional.of(C), Optional.of(B), Optional.empty())))
                .as("the next one is nobody's yet")
                .isEqualTo(says(A, quiet));
    }

    @Test
    void whatIsInForceOrNotYetSaysNothing() {
        Document document = document(Optional.of(C), Optional.of(B), Optional.empty());
        assertThat(says(B, document)).isEmpty();
        assertThat(says(C, document)).isEmpty();
        assertThat(says(Documents.revision("D", StageClass.DECIDING), document)).isEmpty();
        assertThat(says(Documents.revision("E", StageClass.CLOSED), document)).isEmpty();
    }

    @Test
    void aWithdrawnOneNamesWhatTookItsPlaceAndItsFormerRevisionsToo() {
        Document gone = document(Optional.empty(), Optional.empty(), Optional.of(GONE));
        assertThat(says(GONE, gone)).contains("Withdrawn; TG40-3031 in its place");
        assertThat(says(A, gone)).contains("Withdrawn; TG40-3031 in its place");
        assertThat(OutOfForce.says(GONE, gone, Optional.empty())).contains("Withdrawn");
        assertThat(OutOfForce.says(A, document(Optional.of(C), Optional.empty(), Optional.empty()), Optional.empty()))
                .contains("Replaced");
    }
}
