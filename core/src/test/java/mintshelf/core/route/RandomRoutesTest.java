package mintshelf.core.route;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;
import org.junit.jupiter.api.Test;

/** Laws that hold for whatever somebody draws. */
class RandomRoutesTest {
    private static final Pattern NUMBER = Pattern.compile("-?\\d+");

    /** By squaring the relation until nothing is added: slow, and nothing of the proof's own walk in it. */
    private static boolean[][] reach(Route route) {
        int n = route.stages().size();
        List<String> codes = route.stages().stream().map(Stage::code).toList();
        boolean[][] to = new boolean[n][n];
        for (int i = 0; i < n; i++) to[i][i] = true;
        route.moves().forEach(m -> to[codes.indexOf(m.from())][codes.indexOf(m.to())] = true);
        for (int round = 0; round < n; round++) {
            for (int a = 0; a < n; a++) {
                for (int b = 0; b < n; b++) {
                    for (int c = 0; c < n; c++) to[a][c] |= to[a][b] && to[b][c];
                }
            }
        }
        return to;
    }

    @Test
    void theProofAgreesWithANaiveReachabilityCheckOnTwoThousandRoutes() {
        Random random = new Random(2026);
        int sound = 0;
        for (int round = 0; round < 2000; round++) {
            Route route = Routes.random(random);
            boolean[][] reach = reach(route);
            List<Refusal> wrong = RouteProof.ask(route);
            Set<String> unreached = new HashSet<>();
            Set<String> endless = new HashSet<>();
            for (int i = 0; i < route.stages().size(); i++) {
                Stage stage = route.stages().get(i);
                boolean byActs = stage.stageClass() == StageClass.SUPERSEDED
                        || stage.stageClass() == StageClass.CLOSED
                        || (route.moves().isEmpty() && stage.stageClass() == StageClass.RELEASED);
                if (!byActs && !reach[0][i]) unreached.add("Nothing leads to " + stage.name() + ".");
                boolean ends = false;
                for (int k = 0; k < route.stages().size(); k++) {
                    ends |= reach[i][k] && !route.stages().get(k).stageClass().isPending();
                }
                if (!ends && !route.moves().isEmpty()) {
                    endless.add("From " + stage.name() + " no way leads to an end.");
                }
            }
            assertThat(said(wrong, "route.unreached")).as(route.toString()).isEqualTo(unreached);
            assertThat(said(wrong, "route.endless")).as(route.toString()).isEqualTo(endless);
            if (wrong.isEmpty()) sound++;
        }
        assertThat(sound).as("sound ones are among them").isBetween(10, 1990);
    }

    private static Set<String> said(List<Refusal> wrong, String code) {
        Set<String> said = new HashSet<>();
        wrong.stream().filter(r -> r.code().equals(code)).forEach(r -> said.add(r.reason()));
        return said;
    }

    @Test
    void whateverIsDrawnHasAMapWithoutStopsOnEachOtherAndLinesThatEndAtTheirStops() {
        Random random = new Random(12);
        for (int round = 0; round < 500; round++) {
            Route route = Routes.random(random);
            RouteMap map = RouteMap.of(route);
            assertThat(map.stops().stream().map(s -> s.x() + " " + s.y()).distinct())
                    .hasSameSizeAs(map.stops());
            assertThat(map.stops().size() + map.byActs().size())
                    .isEqualTo(route.stages().size());
            for (RouteMap.Stop stop : map.stops()) {
                assertThat(stop.x()).isBetween(0, map.width());
                assertThat(stop.y()).isBetween(20, map.height());
            }
            for (RouteMap.Line line : map.lines()) {
                if (line.move().isEmpty()) continue;
                Matcher numbers = NUMBER.matcher(line.path());
                assertThat(numbers.find()).isTrue();
                assertThat(Integer.parseInt(numbers.group()))
                        .isEqualTo(stop(map, line.move().get().from()).x());
                assertThat(line.label().x()).isBetween(0, map.width());
                assertThat(line.label().y()).isBetween(0, map.height());
                assertThat(line.gates()).hasSameSizeAs(line.move().get().gates());
            }
        }
    }

    /** Two lanes that share columns lie apart. */
    @Test
    void linesThatPassStopsByDoNotRunInOneLane() {
        Random random = new Random(13);
        for (int round = 0; round < 500; round++) {
            RouteMap map = RouteMap.of(Routes.random(random));
            List<RouteMap.Line> lanes =
                    map.lines().stream().filter(l -> l.path().contains("Q")).toList();
            for (RouteMap.Line a : lanes) {
                for (RouteMap.Line b : lanes) {
                    if (a.equals(b) || a.arrow().y() != b.arrow().y()) continue;
                    int[] one = span(map, a);
                    int[] two = span(map, b);
                    assertThat(one[1] <= two[0] || two[1] <= one[0])
                            .as(a + " and " + b)
                            .isTrue();
                }
            }
        }
    }

    private static int[] span(RouteMap map, RouteMap.Line line) {
        int a = stop(map, line.move().orElseThrow().from()).x();
        int b = stop(map, line.move().orElseThrow().to()).x();
        return new int[] {Math.min(a, b), Math.max(a, b)};
    }

    private static RouteMap.Stop stop(RouteMap map, String code) {
        return map.stops().stream()
                .filter(s -> s.stage().code().equals(code))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatIsWrittenAsStateChartIsReadAsItWas() {
        Random random = new Random(14);
        for (int round = 0; round < 500; round++) {
            Route route = Routes.random(random);
            Outcome<Scxml.Read> read = Scxml.read(route.code(), Scxml.write(route));
            assertThat(read.refusal()).isEmpty();
            Scxml.Read back = ((Outcome.Granted<Scxml.Read>) read).value();
            assertThat(back.passed()).isEmpty();
            assertThat(back.route()).isEqualTo(route);
        }
    }

    /** A walk over all steps of drawing: no step breaks what it does not touch, and none throws. */
    @Test
    void stepsOfDrawingKeepCodesUniqueAndEndsTrue() {
        Random random = new Random(15);
        for (int round = 0; round < 200; round++) {
            Route route = Routes.random(random);
            for (int step = 0; step < 12; step++) {
                Outcome<Route> next = step(route, random);
                if (next instanceof Outcome.Granted<Route> granted) route = granted.value();
                List<String> codes = route.stages().stream().map(Stage::code).toList();
                assertThat(codes).doesNotHaveDuplicates();
                assertThat(route.moves().stream().map(Move::code)).doesNotHaveDuplicates();
                assertThat(route.moves()).allMatch(m -> codes.contains(m.from()) && codes.contains(m.to()));
                for (int i = 0; i < route.stages().size(); i++) {
                    if (step > 0 && next.isGranted() && route.stages().get(i).position() > 0) {
                        assertThat(route.stages().get(i).position()).isEqualTo(i + 1);
                    }
                }
                RouteMap.of(route);
            }
        }
    }

    private static Outcome<Route> step(Route route, Random random) {
        String stop = route.stages().get(random.nextInt(route.stages().size())).code();
        String other = route.stages().get(random.nextInt(route.stages().size())).code();
        String move = route.moves().isEmpty()
                ? "none"
                : route.moves().get(random.nextInt(route.moves().size())).code();
        return switch (random.nextInt(8)) {
            case 0 -> RouteEdit.pullStop(route, move, "With quality", StageClass.DECIDING, "checker");
            case 1 -> RouteEdit.takeStop(route, stop);
            case 2 -> RouteEdit.addMove(route, "Go", stop, other, Right.CHANGE);
            case 3 -> RouteEdit.takeMove(route, move);
            case 4 -> RouteEdit.wayBack(route, stop);
            case 5 -> RouteEdit.usual(route, move);
            case 6 -> RouteEdit.renameStop(route, stop, "Renamed", StageClass.PREPARING);
            default -> RouteEdit.addStop(route, "Another", StageClass.RELEASED);
        };
    }
}
