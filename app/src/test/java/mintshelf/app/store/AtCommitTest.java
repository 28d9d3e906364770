package mintshelf.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;
import org.springframework.transaction.support.DefaultTransactionStatus;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

class AtCommitTest {
    /** Transactions of nothing: only their order of events counts here. */
    private static final class Nothing extends AbstractPlatformTransactionManager {
        private static final long serialVersionUID = 1;

        @Override
        protected Object doGetTransaction() {
            return new Object();
        }

        @Override
        protected boolean isExistingTransaction(Object transaction) {
            return TransactionSynchronizationManager.isActualTransactionActive();
        }

        @Override
        protected void doBegin(Object transaction, TransactionDefinition definition) {}

        @Override
        protected void doCommit(DefaultTransactionStatus status) {}

        @Override
        protected void doRollback(DefaultTransactionStatus status) {}

        @Override
        protected void doSetRollbackOnly(DefaultTransactionStatus status) {}
    }

    private final TransactionTemplate transaction = new TransactionTemplate(new Nothing());
    private final List<List<Integer>> written = new ArrayList<>();
    private final AtCommit<Integer> lines = new AtCommit<>(some -> written.add(some));

    @Test
    void whatAnActAddsIsWrittenTogetherAsItsLastThingInItsOrder() {
        transaction.executeWithoutResult(status -> {
            lines.add(3);
            lines.add(1);
            lines.add(2);
            assertThat(written).isEmpty();
        });
        assertThat(written).containsExactly(List.of(3, 1, 2));
    }

    @Test
    void aTransactionThatIsRolledBackWritesNoneAndLeavesNothingForTheNext() {
        transaction.executeWithoutResult(status -> {
            lines.add(1);
            status.setRollbackOnly();
        });
        assertThatThrownBy(() -> transaction.executeWithoutResult(status -> {
                    lines.add(2);
                    throw new IllegalStateException("no");
                }))
                .hasMessage("no");
        assertThat(written).isEmpty();
        transaction.executeWithoutResult(status -> lines.add(3));
        assertThat(written).containsExactly(List.of(3));
    }

    @Test
    void manyAreWrittenAFewHundredAtATime() {
        transaction.executeWithoutResult(status -> IntStream.range(0, 1_201).forEach(lines::add));
        assertThat(written).extracting(List::size).containsExactly(500, 500, 201);
        assertThat(written.stream().flatMap(List::stream))
                .containsExactlyElementsOf(IntStream.range(0, 1_201).boxed().toList());
    }

    @Test
    void withoutATransactionEachIsWrittenAtOnce() {
        lines.add(1);
        lines.add(2);
        assertThat(written).containsExactly(List.of(1), List.of(2));
    }

    @Test
    void whatJoinsATransactionIsWrittenWithIt() {
        transaction.executeWithoutResult(outer -> {
            lines.add(1);
            transaction.executeWithoutResult(inner -> lines.add(2));
            assertThat(written).isEmpty();
            lines.add(3);
        });
        assertThat(written).containsExactly(List.of(1, 2, 3));
    }

    @Test
    void twoKindsOfLinesDoNotKnowEachOther() {
        List<String> others = new ArrayList<>();
        AtCommit<String> words = new AtCommit<>(others::addAll);
        transaction.executeWithoutResult(status -> {
            lines.add(1);
            words.add("one");
            lines.add(2);
        });
        assertThat(written).containsExactly(List.of(1, 2));
        assertThat(others).containsExactly("one");
    }

    @Test
    void whatCannotBeWrittenEndsTheActThatAskedForIt() {
        AtCommit<Integer> broken = new AtCommit<>(some -> {
            throw new IllegalStateException("the table is gone");
        });
        assertThatThrownBy(() -> transaction.executeWithoutResult(status -> broken.add(1)))
                .hasMessage("the table is gone");
        assertThat(TransactionSynchronizationManager.hasResource(broken)).isFalse();
    }
}
