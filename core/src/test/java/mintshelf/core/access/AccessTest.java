package mintshelf.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.OptionalLong;
import java.util.Set;
import org.junit.jupiter.api.Test;

class AccessTest {
    private static final Place GLAND = new Place(1, List.of(30L, 3L), 7);
    private static final Role DESIGNER = new Role("designer", "Designer", Set.of(Right.CHANGE, Right.SEE_ALL));
    private static final Role READER = new Role("reader", "Reader", Set.of(Right.SEE_RELEASED));

    private static Access with(Grant... grants) {
        return new Access(5, "Priya", List.of(grants));
    }

    private static Grant grant(Role role, Scope scope) {
        return new Grant(1, "Drawing office", role, scope, "here");
    }

    @Test
    void allPartsOfAScopeMustMatch() {
        Scope all = new Scope(OptionalLong.of(1), OptionalLong.of(3), OptionalLong.of(7));
        assertThat(all.covers(GLAND)).isTrue();
        assertThat(new Scope(OptionalLong.of(1), OptionalLong.of(3), OptionalLong.of(8)).covers(GLAND))
                .isFalse();
        assertThat(Scope.shelf(2).covers(GLAND)).isFalse();
        assertThat(Scope.EVERYWHERE.covers(GLAND)).isTrue();
    }

    @Test
    void aFolderCoversTheFoldersBelowIt() {
        Scope above = new Scope(OptionalLong.empty(), OptionalLong.of(3), OptionalLong.empty());
        assertThat(above.covers(GLAND)).isTrue();
        assertThat(above.covers(new Place(1, List.of(40L, 4L), 7))).isFalse();
    }

    @Test
    void rightsAddUp() {
        Access access = with(grant(READER, Scope.EVERYWHERE), grant(DESIGNER, Scope.shelf(1)));
        assertThat(access.may(Right.CHANGE, GLAND)).isTrue();
        assertThat(access.may(Right.SEE_RELEASED, GLAND)).isTrue();
        assertThat(access.may(Right.CHANGE, new Place(2, List.of(9L), 7))).isFalse();
        assertThat(access.mayEverywhere(Right.CHANGE)).isFalse();
        assertThat(access.maySomewhere(Right.CHANGE)).isTrue();
    }

    @Test
    void aRefusalSaysWhoLiftsIt() {
        assertThat(with().ask(Right.SIGN, GLAND).orElseThrow().remedy()).contains("data manager");
        assertThat(with(grant(DESIGNER, Scope.shelf(1))).through(Right.CHANGE, GLAND))
                .extracting(Grant::says)
                .containsExactly("Designer through Drawing office, here");
    }
}
