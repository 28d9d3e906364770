package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import mintshelf.app.store.house.RouteStore;
import mintshelf.core.route.Move;
import mintshelf.core.route.Route;
import mintshelf.core.route.Scxml;
import org.apache.commons.scxml.io.SCXMLParser;
import org.apache.commons.scxml.model.SCXML;
import org.apache.commons.scxml.model.Transition;
import org.apache.commons.scxml.model.TransitionTarget;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXParseException;

/** What is given out as State Chart XML is read by a reader that is none of ours, with the same stages reachable. */
class StateChartTest {
    private static final class Said implements ErrorHandler {
        private final List<String> said = new ArrayList<>();

        @Override
        public void warning(SAXParseException e) {
            said.add(e.getMessage());
        }

        @Override
        public void error(SAXParseException e) {
            said.add(e.getMessage());
        }

        @Override
        public void fatalError(SAXParseException e) {
            said.add(e.getMessage());
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"straight", "reviewed", "reviewed-twice", "paper", "change-request", "change-order", "notice"})
    void shippedRoutesAreReadWithTheSameStagesReachable(String code) throws Exception {
        RouteStore routes = Server.shared().bean(RouteStore.class);
        Route route = routes.latest(routes.route(code).orElseThrow());
        Said said = new Said();
        SCXML chart = SCXMLParser.parse(new InputSource(new StringReader(Scxml.write(route))), said);
        assertThat(said.said).isEmpty();
        Map<?, ?> targets = chart.getTargets();
        assertThat(targets.keySet().stream().map(String::valueOf))
                .containsExactlyInAnyOrderElementsOf(
                        route.stages().stream().map(s -> s.code()).toList());
        assertThat(reached(chart)).isEqualTo(reached(route));
    }

    private static Set<String> reached(SCXML chart) {
        Set<String> seen = new TreeSet<>();
        Deque<TransitionTarget> open = new ArrayDeque<>(List.of(chart.getInitialTarget()));
        while (!open.isEmpty()) {
            TransitionTarget at = open.pop();
            if (!seen.add(at.getId())) continue;
            for (Object t : at instanceof org.apache.commons.scxml.model.State s ? s.getTransitionsList() : List.of()) {
                for (Object to : ((Collection<?>) ((Transition) t).getTargets())) open.push((TransitionTarget) to);
            }
        }
        return seen;
    }

    private static Set<String> reached(Route route) {
        Set<String> seen = new HashSet<>(Set.of(route.firstStage().code()));
        boolean more = true;
        while (more) {
            more = seen.addAll(route.moves().stream()
                    .filter(m -> seen.contains(m.from()))
                    .map(Move::to)
                    .collect(Collectors.toSet()));
        }
        return new TreeSet<>(seen);
    }
}
