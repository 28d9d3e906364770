package mintshelf.core.bom;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import mintshelf.core.bom.BaselineCompare.Difference;
import mintshelf.core.bom.BaselineCompare.Member;
import org.junit.jupiter.api.Test;

class BaselineCompareTest {
    private static Member member(long item, int version, String revision, String needed) {
        return new Member(
                item,
                version,
                revision,
                needed.isEmpty() ? Optional.empty() : Optional.of(new BigDecimal(needed)),
                "pc");
    }

    @Test
    void whatIsThereGoneAndOtherwiseIsToldInTheOrderOfTheOldOne() {
        List<Member> old =
                List.of(member(1, 3, "A", "1"), member(2, 1, "A", "2"), member(3, 7, "B", "6"), member(4, 1, "A", ""));
        List<Member> now = List.of(
                member(5, 1, "", "1"), member(4, 1, "A", "9"), member(3, 7, "B", "8.0"), member(1, 5, "B", "1.0"));
        assertThat(BaselineCompare.of(old, now))
                .extracting(d -> d.item() + " " + d.says())
                .containsExactly("1 A → B, v3 → v5", "2 gone", "3 6 → 8 pc", "5 added");
        assertThat(BaselineCompare.of(old, old)).isEmpty();
        assertThat(BaselineCompare.of(List.of(), List.of())).isEmpty();
    }

    @Test
    void anotherUnitIsAnotherAmount() {
        Member piece = member(1, 1, "A", "2");
        Member metre = new Member(1, 1, "A", piece.needed(), "m");
        assertThat(BaselineCompare.of(List.of(piece), List.of(metre)))
                .extracting(Difference::says)
                .containsExactly("2 pc → 2 m");
    }
}
