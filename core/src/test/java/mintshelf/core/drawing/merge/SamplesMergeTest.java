package mintshelf.core.drawing.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import mintshelf.core.base.Outcome;
import mintshelf.core.drawing.dxf.DxfDrawing;
import mintshelf.core.drawing.dxf.SheetParts;
import mintshelf.core.drawing.dxf.SheetParts.Part;
import mintshelf.core.drawing.dxf.TakeOver;
import mintshelf.core.drawing.merge.ThreeWay.Fate;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;

/** Drawings of other origins: what is taken out on both sides is out afterwards, and nothing else is touched. */
class SamplesMergeTest {
    private static final int LARGEST = 1_500_000;

    private static Stream<Path> samples() {
        Path folder = Path.of("../../shared/samples/dxf");
        Assumptions.assumeTrue(Files.isDirectory(folder), "samples are not here");
        try (Stream<Path> all = Files.walk(folder)) {
            return all
                    .filter(p -> p.toString().toLowerCase(java.util.Locale.ROOT).endsWith(".dxf"))
                    .filter(p -> p.toFile().length() < LARGEST)
                    .sorted()
                    .toList()
                    .stream();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static DxfDrawing read(byte[] bytes) {
        return DxfDrawing.read(bytes).orElseThrow(r -> new IllegalStateException(r.says()));
    }

    @TestFactory
    Stream<DynamicTest> whatGoesOnBothSidesIsGoneAndEverythingElseStays() {
        return samples()
                .map(path -> DynamicTest.dynamicTest(path.getFileName().toString(), () -> {
                    byte[] bytes = Files.readAllBytes(path);
                    if (!(DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> granted)) return;
                    SheetParts base = SheetParts.of(granted.value());
                    List<Part> own = new ArrayList<>(base.parts().stream()
                            .filter(p -> base.count(p.thing()) == 1)
                            .toList());
                    if (!base.isWhole() || own.size() < 12) return;
                    Random random = new Random(path.getFileName().toString().hashCode());
                    for (int turn = 0; turn < 3; turn++) {
                        Part there = own.remove(random.nextInt(own.size()));
                        Part here = own.remove(random.nextInt(own.size()));
                        DxfDrawing theirs = without(base, there);
                        DxfDrawing mine = without(base, here);
                        Outcome<ThreeWay> held = ThreeWay.of(read(bytes), theirs, mine);
                        if (!(held instanceof Outcome.Granted<ThreeWay> three)) return;
                        assertThat(three.value().rows())
                                .allSatisfy(r -> assertThat(r.fate()).isIn(Fate.GOES, Fate.OWN));
                        byte[] written = three.value()
                                .write(three.value().rows().stream()
                                        .map(r -> r.difference().number())
                                        .toList())
                                .orElseThrow(r -> new IllegalStateException(r.says()));
                        Map<String, Integer> wanted = new HashMap<>(base.things());
                        wanted.remove(here.thing());
                        // What draws nothing is no difference; what is of the form stays.
                        if (three.value().count(Fate.GOES) > 0) wanted.remove(there.thing());
                        assertThat(SheetParts.of(read(written)).things()).isEqualTo(wanted);
                    }
                }));
    }

    private static DxfDrawing without(SheetParts base, Part part) {
        return read(TakeOver.write(base, List.of(part), base, List.of())
                .orElseThrow(r -> new IllegalStateException(r.says())));
    }

    @TestFactory
    Stream<DynamicTest> nothingIsToTakeUpFromTheSameSheet() {
        return samples()
                .map(path -> DynamicTest.dynamicTest(path.getFileName().toString(), () -> {
                    byte[] bytes = Files.readAllBytes(path);
                    if (!(DxfDrawing.read(bytes) instanceof Outcome.Granted<DxfDrawing> base)) return;
                    if (ThreeWay.of(base.value(), read(bytes), read(bytes))
                            instanceof Outcome.Granted<ThreeWay> three) {
                        assertThat(three.value().rows()).isEmpty();
                        assertThat(three.value().write(List.of()).toOptional()).contains(bytes);
                    }
                }));
    }
}
