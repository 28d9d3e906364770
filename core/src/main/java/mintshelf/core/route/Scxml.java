package mintshelf.core.route;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import javax.xml.stream.XMLStreamWriter;
import mintshelf.core.access.Right;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Stage;
import mintshelf.core.revision.StageClass;

/**
 * Routes as State Chart XML (W3C Recommendation, 1 September 2015): stages are {@code state}s (3.3) or {@code final} ones (3.7), moves
 * {@code transition}s (3.5) whose event is the move's code. Names, classes, rights, gates, effects and sign-off lines are elements and
 * attributes of a namespace of our own, which other readers pass over.
 *
 * <p>What is not ours (data models, scripts, elements of other namespaces) is kept as it is, never run, and given out again where it
 * stood. Reading takes in nothing from outside: document types and entities are refused. O(letters).
 */
public final class Scxml {
    static final String SCXML = "http://www.w3.org/2005/07/scxml";
    public static final String OURS = "urn:mint-shelf:route:1";
    /** The longest text that is read. */
    public static final int LONGEST = 500_000;

    private Scxml() {}

    public static String write(Route route) {
        StringWriter text = new StringWriter();
        try {
            XMLStreamWriter out = XMLOutputFactory.newFactory().createXMLStreamWriter(text);
            out.writeStartDocument("UTF-8", "1.0");
            out.writeCharacters("\n");
            out.writeStartElement("scxml");
            out.writeDefaultNamespace(SCXML);
            out.writeNamespace("ms", OURS);
            out.writeAttribute("version", "1.0");
            out.writeAttribute("name", route.code());
            if (!route.stages().isEmpty()) {
                out.writeAttribute("initial", route.firstStage().code());
            }
            out.writeAttribute("ms", OURS, "name", route.name());
            foreign(out, route, "", 1);
            for (Stage stage : route.stages()) stage(out, route, stage);
            line(out, 0);
            out.writeEndElement();
            out.writeCharacters("\n");
            out.writeEndDocument();
            out.close();
        } catch (XMLStreamException e) {
            throw new IllegalStateException(e);
        }
        return text.toString();
    }

    private static void line(XMLStreamWriter out, int deep) throws XMLStreamException {
        out.writeCharacters("\n" + "  ".repeat(deep));
    }

    private static void stage(XMLStreamWriter out, Route route, Stage stage) throws XMLStreamException {
        List<Move> moves = route.from(stage.code());
        line(out, 1);
        out.writeStartElement(moves.isEmpty() ? "final" : "state");
        out.writeAttribute("id", stage.code());
        out.writeAttribute("ms", OURS, "name", stage.name());
        out.writeAttribute("ms", OURS, "class", stage.stageClass().name().toLowerCase(Locale.ROOT));
        StopRule rule = route.rule(stage.code());
        if (rule.fetch().isPresent())
            out.writeAttribute("ms", OURS, "fetch", rule.fetch().get().name());
        if (!rule.facts()) out.writeAttribute("ms", OURS, "facts", "closed");
        boolean foreign = foreign(out, route, "stop " + stage.code(), 2);
        for (Move move : moves) move(out, route, move);
        if (!moves.isEmpty() || foreign) line(out, 1);
        out.writeEndElement();
    }

    private static void move(XMLStreamWriter out, Route route, Move move) throws XMLStreamException {
        line(out, 2);
        out.writeStartElement("transition");
        out.writeAttribute("event", move.code());
        out.writeAttribute("target", move.to());
        out.writeAttribute("ms", OURS, "name", move.name());
        out.writeAttribute("ms", OURS, "who", move.who().name());
        // Which of several moves comes first is the order of the document; across stages it is said.
        out.writeAttribute("ms", OURS, "order", Integer.toString(route.moves().indexOf(move)));
        for (Gate gate : move.gates()) empty(out, "gate", Map.of("code", gate.code()));
        for (Effect effect : move.effects()) empty(out, "effect", Map.of("code", effect.name()));
        if (move.asksSignOffs()) empty(out, "sign", Map.of("rule", move.signOff()));
        boolean foreign = foreign(out, route, "move " + move.code(), 3);
        if (!move.gates().isEmpty() || !move.effects().isEmpty() || move.asksSignOffs() || foreign) line(out, 2);
        out.writeEndElement();
    }

    /** Gives back what stood here for other readers; whether there was any. */
    private static boolean foreign(XMLStreamWriter out, Route route, String key, int deep) throws XMLStreamException {
        String kept = route.foreign().getOrDefault(key, "");
        if (kept.isEmpty()) return false;
        line(out, deep);
        Foreign.give(kept, out);
        return true;
    }

    private static void empty(XMLStreamWriter out, String name, Map<String, String> attributes)
            throws XMLStreamException {
        line(out, 3);
        out.writeEmptyElement("ms", name, OURS);
        for (Map.Entry<String, String> a : attributes.entrySet()) out.writeAttribute(a.getKey(), a.getValue());
    }

    /**
     * Reads a route. What only other readers know is kept for them and said.
     *
     * @param code the code that the route gets, whatever the text calls it
     */
    public static Outcome<Read> read(String code, String text) {
        if (text.length() > LONGEST) return no("The text is longer than " + LONGEST + " letters.");
        try {
            return new Reader(code, Foreign.factory().createXMLStreamReader(new StringReader(text))).read();
        } catch (XMLStreamException e) {
            int at = e.getLocation() == null ? 0 : e.getLocation().getLineNumber();
            return no("It is no XML that can be read" + (at > 0 ? "; line " + at : "") + ".");
        } catch (NumberFormatException e) {
            return no("A number in it is none.");
        }
    }

    /**
     * A route that was read.
     *
     * @param passed what was kept for others or is not known here, a sentence each
     */
    public record Read(Route route, List<String> passed) {
        public Read {
            passed = List.copyOf(passed);
        }
    }

    private static <T> Outcome<T> no(String why) {
        return Outcome.refused("route.scxml", why, "Nothing was taken in.");
    }

    private static final class Reader {
        private static final int MOST_SAID = 10;
        private final String code;
        private final XMLStreamReader in;
        private final List<Stage> stages = new ArrayList<>();
        private final Map<Integer, List<Move>> moves = new HashMap<>();
        private final List<String> passed = new ArrayList<>();
        private final Map<String, StopRule> rules = new HashMap<>();
        private final Map<String, String> foreign = new HashMap<>();
        private int kept;

        Reader(String code, XMLStreamReader in) {
            this.code = code;
            this.in = in;
        }

        Outcome<Read> read() throws XMLStreamException {
            while (in.hasNext() && in.getEventType() != XMLStreamConstants.START_ELEMENT) {
                if (in.getEventType() == XMLStreamConstants.DTD) return no("It has a document type.");
                in.next();
            }
            if (in.getEventType() != XMLStreamConstants.START_ELEMENT
                    || !in.getLocalName().equals("scxml")
                    || !SCXML.equals(in.getNamespaceURI())) {
                return no("It is no State Chart XML.");
            }
            String name = Texts.line(
                    attribute(OURS, "name").or(() -> attribute("name")).orElse(code));
            String initial = attribute("initial").orElse("");
            while (in.hasNext()) {
                int event = in.next();
                if (event == XMLStreamConstants.ENTITY_REFERENCE) return no("It refers to an entity.");
                if (event != XMLStreamConstants.START_ELEMENT) continue;
                boolean theirs = SCXML.equals(in.getNamespaceURI());
                if (theirs
                        && (in.getLocalName().equals("state")
                                || in.getLocalName().equals("final"))) {
                    Optional<String> wrong = stage();
                    if (wrong.isPresent()) return no(wrong.get());
                } else {
                    keep("");
                }
            }
            if (kept > Foreign.MOST) return no("It holds more than " + Foreign.MOST + " letters for other readers.");
            Optional<Stage> first =
                    stages.stream().filter(s -> s.code().equals(initial)).findFirst();
            first.ifPresent(s -> {
                stages.remove(s);
                stages.add(0, s);
            });
            List<Move> all = new ArrayList<>();
            moves.keySet().stream().sorted().forEach(at -> all.addAll(moves.getOrDefault(at, List.of())));
            List<Stage> numbered = new ArrayList<>();
            for (Stage s : stages) {
                numbered.add(new Stage(0, s.code(), s.name(), s.stageClass(), numbered.size() + 1));
            }
            if (all.size() > RouteEdit.MOST_MOVES) {
                return no("It has " + all.size() + " moves; " + RouteEdit.MOST_MOVES + " are the most.");
            }
            return Outcome.granted(
                    new Read(new Route(0, code, Texts.shorten(name, 100), numbered, all, rules, foreign), passed));
        }

        private Optional<String> attribute(String namespace, String name) {
            return Optional.ofNullable(in.getAttributeValue(namespace, name));
        }

        /** An attribute without a prefix: it is of no namespace. */
        private Optional<String> attribute(String name) {
            for (int i = 0; i < in.getAttributeCount(); i++) {
                String of = in.getAttributeNamespace(i);
                if (in.getAttributeLocalName(i).equals(name) && (of == null || of.isEmpty())) {
                    return Optional.of(in.getAttributeValue(i));
                }
            }
            return Optional.empty();
        }

        /** Keeps an element, with all that is in it, for whoever knows it. */
        private void keep(String key) throws XMLStreamException {
            String said = "<" + in.getLocalName() + "> is kept for other readers.";
            if (passed.size() < MOST_SAID && !passed.contains(said)) passed.add(said);
            String text = Foreign.take(in);
            kept += text.length();
            // What is too much is counted on, not gathered.
            if (kept <= Foreign.MOST) foreign.merge(key, text, String::concat);
        }

        private static String id(String text) {
            String id = Texts.key(text).replaceAll("[^a-z0-9_-]+", "-");
            return id.length() > 40 ? id.substring(0, 40) : id;
        }

        private Optional<String> stage() throws XMLStreamException {
            if (stages.size() >= RouteEdit.MOST_STOPS) {
                return Optional.of("It has more than " + RouteEdit.MOST_STOPS + " states.");
            }
            boolean last = in.getLocalName().equals("final");
            String of = attribute("id").orElse("");
            if (of.isBlank()) return Optional.of("A state has no id.");
            String id = id(of);
            String name = Texts.line(attribute(OURS, "name").orElse(of));
            Optional<StageClass> stageClass = attribute(OURS, "class").flatMap(Reader::stageClass);
            // Of a chart that knows no classes: work first, an end is in force, the rest decides.
            StageClass guessed =
                    stages.isEmpty() ? StageClass.PREPARING : last ? StageClass.RELEASED : StageClass.DECIDING;
            stages.add(new Stage(0, id, Texts.shorten(name, 60), stageClass.orElse(guessed), 0));
            rules.put(
                    id,
                    new StopRule(
                            attribute(OURS, "fetch").flatMap(Reader::right),
                            attribute(OURS, "facts").filter("closed"::equals).isEmpty()));
            while (in.hasNext()) {
                int event = in.next();
                if (event == XMLStreamConstants.ENTITY_REFERENCE) return Optional.of("It refers to an entity.");
                if (event == XMLStreamConstants.END_ELEMENT) return Optional.empty();
                if (event != XMLStreamConstants.START_ELEMENT) continue;
                boolean theirs = SCXML.equals(in.getNamespaceURI());
                if (theirs && in.getLocalName().equals("state")) {
                    return Optional.of(
                            "The state “" + Texts.shorten(name, 40) + "” holds states; stops lie side by side.");
                }
                if (theirs && in.getLocalName().equals("transition")) transition(id);
                else keep("stop " + id);
            }
            return Optional.empty();
        }

        private static Optional<StageClass> stageClass(String text) {
            for (StageClass c : StageClass.values()) {
                if (c.name().equalsIgnoreCase(text)) return Optional.of(c);
            }
            return Optional.empty();
        }

        private void transition(String from) throws XMLStreamException {
            String event = attribute("event").orElse("move");
            String to = id(attribute("target").orElse(from).strip());
            String name = Texts.shorten(Texts.line(attribute(OURS, "name").orElse(event)), 60);
            Right who = attribute(OURS, "who").flatMap(Reader::right).orElse(Right.CHANGE);
            int order = Integer.parseInt(attribute(OURS, "order").orElse("1000"));
            List<Gate> gates = new ArrayList<>();
            List<Effect> effects = new ArrayList<>();
            String signOff = "";
            while (in.hasNext()) {
                int next = in.next();
                if (next == XMLStreamConstants.END_ELEMENT) break;
                if (next != XMLStreamConstants.START_ELEMENT) continue;
                if (!OURS.equals(in.getNamespaceURI())) {
                    keep("move " + id(event));
                    continue;
                }
                String of = attribute("code").orElse("");
                switch (in.getLocalName()) {
                    case "gate" -> known(Gates.of(of), gates, of);
                    case "effect" ->
                        known(
                                Arrays.stream(Effect.values())
                                        .filter(e -> e.name().equals(of))
                                        .findFirst(),
                                effects,
                                of);
                    case "sign" ->
                        signOff = attribute("rule")
                                .filter(r -> r.matches("[a-z0-9-]{1,40}"))
                                .orElse("");
                    default -> passed.add("<" + in.getLocalName() + "> is not known to this release.");
                }
                pastEnd();
            }
            moves.computeIfAbsent(order, o -> new ArrayList<>())
                    .add(new Move(id(event), name, from, to, who, gates, effects, signOff));
        }

        private static Optional<Right> right(String name) {
            return Arrays.stream(Right.values())
                    .filter(r -> r.name().equals(name))
                    .findFirst();
        }

        private <T> void known(Optional<T> one, List<T> all, String code) {
            one.ifPresentOrElse(
                    all::add, () -> passed.add("“" + Texts.shorten(code, 40) + "” is not known to this release."));
        }

        private void pastEnd() throws XMLStreamException {
            int deep = 1;
            while (deep > 0 && in.hasNext()) {
                int event = in.next();
                if (event == XMLStreamConstants.START_ELEMENT) deep++;
                if (event == XMLStreamConstants.END_ELEMENT) deep--;
            }
        }
    }
}
