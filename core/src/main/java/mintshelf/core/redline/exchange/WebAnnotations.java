package mintshelf.core.redline.exchange;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Pattern;
import java.util.stream.DoubleStream;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.drawing.Box;
import mintshelf.core.redline.Colour;
import mintshelf.core.redline.Look;
import mintshelf.core.redline.Mark;
import mintshelf.core.redline.Point;
import mintshelf.core.redline.RedlineSvg.Placed;
import mintshelf.core.redline.Remark;
import mintshelf.core.redline.Tool;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Remarks as a collection of Web Annotations in JSON-LD, and back. What the model has no word for (tool, number, state, ink, letters,
 * the wanted size) stands under terms of our own. Whatever is read is text and points: nothing of it is followed, fetched or run.
 */
public final class WebAnnotations {
    /** The context that the model asks for (Web Annotation Vocabulary, 1.2). */
    public static final String CONTEXT = "http://www.w3.org/ns/anno.jsonld";

    public static final String TERMS = "urn:mint-shelf:redlines#";
    /** Bytes of a file that is read. */
    public static final int LARGEST = 2 << 20;

    public static final int MOST = 2000;
    private static final int NAME = 120;
    private static final int REPLY = 2000;
    private static final Pattern UUID_URN = Pattern.compile("urn:uuid:([0-9a-fA-F-]{36})");
    private static final JsonMapper JSON = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(60)
                            .maxStringLength(1 << 20)
                            .maxNumberLength(60)
                            .build())
                    .build())
            .build();

    private WebAnnotations() {}

    /**
     * What marks lie on.
     *
     * @param label in words: "TG40-3030 version 10"
     * @param source that is annotated: of the exact bytes, such as {@code urn:sha256:…}
     */
    public record Source(String label, String source) {}

    /** A collection of remarks as they stand on a sheet, with their threads. */
    public static String write(List<Placed> all, Source sheet) {
        List<Map<String, Object>> items = new ArrayList<>();
        for (Placed one : all) {
            items.add(annotation(one, sheet));
            for (Remark.Reply reply : one.remark().replies()) items.add(reply(one.remark(), reply));
        }
        Map<String, Object> page = new LinkedHashMap<>();
        page.put("type", "AnnotationPage");
        page.put("startIndex", 0);
        page.put("items", items);
        Map<String, Object> root = new LinkedHashMap<>();
        root.put("@context", List.of(CONTEXT, Map.of("shelf", TERMS)));
        root.put("id", "urn:uuid:" + named(sheet.source() + sheet.label()));
        root.put("type", "AnnotationCollection");
        root.put("label", sheet.label());
        root.put("total", items.size());
        root.put("first", page);
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(root);
    }

    private static String named(String text) {
        return UUID.nameUUIDFromBytes(text.getBytes(StandardCharsets.UTF_8)).toString();
    }

    private static Map<String, Object> annotation(Placed one, Source sheet) {
        Remark remark = one.remark();
        Mark mark = one.followed().mark();
        Map<String, Object> a = new LinkedHashMap<>();
        a.put("id", "urn:uuid:" + remark.uid());
        a.put("type", "Annotation");
        a.put(
                "motivation",
                switch (remark.kind()) {
                    case CHANGE -> "editing";
                    case QUESTION -> "questioning";
                    case NOTE -> "commenting";
                });
        a.put("creator", person(remark.by()));
        a.put("created", remark.at().toString());
        List<Map<String, Object>> bodies = new ArrayList<>();
        if (!remark.line().isEmpty()) bodies.add(body(remark.line(), "commenting"));
        if (!remark.description().isEmpty()) bodies.add(body(remark.description(), "describing"));
        if (!bodies.isEmpty()) a.put("body", bodies);
        a.put(
                "target",
                Map.of(
                        "type",
                        "SpecificResource",
                        "source",
                        sheet.source(),
                        "selector",
                        Map.of("type", "SvgSelector", "value", SvgSelector.write(mark))));
        a.put("shelf:number", remark.number());
        a.put("shelf:tool", mark.tool().code());
        a.put("shelf:state", remark.state().words());
        a.put("shelf:ink", mark.look().colour().code());
        a.put("shelf:letters", mark.look().letters());
        if (!mark.text().isEmpty()) a.put("shelf:wanted", mark.text());
        return a;
    }

    private static Map<String, Object> person(String name) {
        return Map.of("type", "Person", "name", name);
    }

    private static Map<String, Object> body(String text, String purpose) {
        return Map.of("type", "TextualBody", "value", text, "format", "text/plain", "purpose", purpose);
    }

    private static Map<String, Object> reply(Remark remark, Remark.Reply reply) {
        Map<String, Object> a = new LinkedHashMap<>();
        a.put("id", "urn:uuid:" + reply.uid());
        a.put("type", "Annotation");
        a.put("motivation", "replying");
        a.put("creator", person(reply.name()));
        a.put("created", reply.at().toString());
        String words = reply.says().isEmpty()
                ? reply.state().map(s -> "Set " + s.words()).orElse("")
                : reply.says();
        a.put("body", body(words, "replying"));
        a.put("target", "urn:uuid:" + remark.uid());
        reply.state().ifPresent(s -> a.put("shelf:state", s.words()));
        return a;
    }

    /**
     * A remark that came from outside.
     *
     * @param uid of the annotation, or one made of its name or its text: the same file read twice brings the same
     * @param name of who wrote it, with their address where it is said
     */
    public record New(
            String uid,
            String name,
            Remark.Kind kind,
            String line,
            String description,
            Mark mark,
            Optional<Instant> at) {}

    /**
     * A reply that came from outside.
     *
     * @param target uid of the remark that it answers
     */
    public record Answer(String uid, String target, String name, String says, Optional<Instant> at) {}

    /**
     * What a file brought.
     *
     * @param unread what could not be read, a sentence each
     */
    public record Brought(List<New> remarks, List<Answer> answers, List<String> unread) {}

    /**
     * Reads a file of annotations; one that cannot be read is told of, and keeps no other back.
     *
     * @param sheet what is drawn, {@code scale} of its views
     * @param otherwise the look of marks that bring none
     */
    public static Outcome<Brought> read(byte[] json, Box sheet, double scale, Look otherwise) {
        if (json.length > LARGEST) {
            return Outcome.refused(
                    "annotations.large",
                    "The file has more than 2 MB.",
                    "Give fewer remarks at once; nothing was taken in.");
        }
        JsonNode root;
        try {
            root = JSON.readTree(json);
        } catch (JacksonException e) {
            return refusedForm();
        }
        List<JsonNode> all = items(root);
        if (all.isEmpty()) return refusedForm();
        if (all.size() > MOST) {
            return Outcome.refused(
                    "annotations.many",
                    "The file has " + all.size() + " annotations; " + MOST + " are the most.",
                    "Give fewer at once; nothing was taken in.");
        }
        Brought brought = new Brought(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (JsonNode one : all) take(one, sheet, scale, otherwise, brought);
        return Outcome.granted(brought);
    }

    private static Outcome<Brought> refusedForm() {
        return Outcome.refused(
                "annotations.form", "The file is no collection of Web Annotations.", "Nothing was taken in.");
    }

    private static List<JsonNode> items(JsonNode root) {
        List<JsonNode> all = new ArrayList<>();
        if (root.isArray()) root.forEach(all::add);
        else if (text(root, "type").equals("Annotation")) all.add(root);
        JsonNode page = root.path("first").isObject() ? root.path("first") : root;
        page.path("items").forEach(all::add);
        all.removeIf(n -> !n.isObject());
        return all;
    }

    private static void take(JsonNode one, Box sheet, double scale, Look otherwise, Brought brought) {
        String target = one.path("target").isString() ? one.path("target").asString() : text(one.path("target"), "id");
        String words = words(one, "replying");
        boolean replies = text(one, "motivation").equals("replying");
        Optional<String> answered = uuid(target);
        String uid = uuid(text(one, "id"))
                .orElseGet(() -> named(text(one, "id").isEmpty() ? one.toString() : text(one, "id")));
        String name = name(one.path("creator"));
        if (replies) {
            String says = Texts.shorten(Texts.lines(words), REPLY);
            if (answered.isEmpty() || says.isEmpty()) brought.unread().add("A reply says nothing, or to nothing.");
            else brought.answers().add(new Answer(uid, answered.get(), name, says, at(one)));
            return;
        }
        String line = Texts.shorten(Texts.line(words(one, "commenting")), Remark.LONGEST_LINE);
        Optional<Mark> mark = mark(one, sheet, scale, otherwise);
        if (mark.isEmpty()) {
            String which = line.isEmpty() ? text(one, "shelf:number") : line;
            brought.unread()
                    .add("“" + Texts.shorten(Texts.line(which.isEmpty() ? "An annotation" : which), 40)
                            + "” marks nothing that lies on the sheet.");
            return;
        }
        String more = Texts.shorten(Texts.lines(words(one, "describing")), Remark.LONGEST_DESCRIPTION);
        brought.remarks().add(new New(uid, name, kind(text(one, "motivation")), line, more, mark.get(), at(one)));
    }

    private static Remark.Kind kind(String motivation) {
        return switch (motivation) {
            case "editing" -> Remark.Kind.CHANGE;
            case "questioning" -> Remark.Kind.QUESTION;
            default -> Remark.Kind.NOTE;
        };
    }

    /** The text of the body with a purpose; of those without one the first, for what is commented. */
    private static String words(JsonNode one, String purpose) {
        JsonNode body = one.path("body");
        if (body.isString()) return purpose.equals("describing") ? "" : body.asString();
        List<JsonNode> all = new ArrayList<>();
        if (body.isArray()) body.forEach(all::add);
        else if (body.isObject()) all.add(body);
        for (JsonNode b : all) if (text(b, "purpose").equals(purpose)) return text(b, "value");
        if (purpose.equals("describing")) return "";
        for (JsonNode b : all) if (text(b, "purpose").isEmpty()) return text(b, "value");
        String value = text(one, "bodyValue");
        return value;
    }

    private static Optional<Mark> mark(JsonNode one, Box sheet, double scale, Look otherwise) {
        JsonNode target = one.path("target");
        if (target.isArray()) target = target.path(0);
        JsonNode selector = target.path("selector");
        if (selector.isArray()) selector = selector.path(0);
        String value = text(selector, "value");
        Optional<SvgSelector.Shape> shape = switch (text(selector, "type")) {
            case "SvgSelector" -> SvgSelector.read(value);
            case "FragmentSelector" -> fragment(value);
            default -> Optional.empty();
        };
        if (shape.isEmpty()) return Optional.empty();
        Look look = new Look(
                Colour.of(text(one, "shelf:ink")).orElse(otherwise.colour()),
                one.path("shelf:letters").isNumber() ? one.path("shelf:letters").asDouble() : otherwise.letters());
        Optional<Tool> own = Tool.of(text(one, "shelf:tool"));
        if (own.isPresent()) {
            Optional<Mark> as = SvgSelector.of(own.get(), shape.get())
                    .flatMap(points -> granted(own.get(), points, text(one, "shelf:wanted"), look, scale, sheet));
            if (as.isPresent()) return as;
        }
        return foreign(shape.get(), look, scale, sheet);
    }

    /** What others drew: a shape round something is a cloud, a point a note, lines are ink. */
    private static Optional<Mark> foreign(SvgSelector.Shape shape, Look look, double scale, Box sheet) {
        List<List<Point>> strokes = shape.strokes();
        if (strokes.size() == 1 && strokes.get(0).size() == 1) {
            return granted(Tool.NOTE, strokes, "", look, scale, sheet);
        }
        if (shape.closed()) {
            double[] all = strokes.stream()
                    .flatMap(List::stream)
                    .flatMapToDouble(p -> DoubleStream.of(p.x(), p.y()))
                    .toArray();
            Box box = Box.of(all);
            List<Point> corners = List.of(new Point(box.minX(), box.minY()), new Point(box.maxX(), box.maxY()));
            return granted(Tool.CLOUD, List.of(corners), "", look, scale, sheet);
        }
        List<List<Point>> lines = strokes.stream().filter(s -> s.size() > 1).toList();
        return granted(Tool.INK, lines, "", look, scale, sheet);
    }

    private static Optional<Mark> granted(
            Tool tool, List<List<Point>> strokes, String text, Look look, double scale, Box sheet) {
        String word =
                tool == Tool.STAMP && text.isBlank() ? "Stamp" : Texts.shorten(Texts.line(text), Mark.LONGEST_TEXT);
        return Mark.read(tool, strokes, word, look, scale, sheet) instanceof Outcome.Granted<Mark> mark
                ? Optional.of(mark.value())
                : Optional.empty();
    }

    /** A box in pixels of the picture (Media Fragments URI 1.0, 4.2.2). */
    private static Optional<SvgSelector.Shape> fragment(String value) {
        String[] v = value.replaceFirst("^xywh=(pixel:)?", "").split(",");
        if (!value.startsWith("xywh=") || value.contains("percent") || v.length != 4) return Optional.empty();
        try {
            double x = Double.parseDouble(v[0]);
            double y = Double.parseDouble(v[1]);
            double w = Double.parseDouble(v[2]);
            double h = Double.parseDouble(v[3]);
            return Optional.of(new SvgSelector.Shape(
                    List.of(List.of(new Point(x, -y), new Point(x + w, -y - h))), true));
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    private static String name(JsonNode creator) {
        JsonNode one = creator.isArray() ? creator.path(0) : creator;
        String name = Texts.shorten(Texts.line(one.isString() ? one.asString() : text(one, "name")), NAME);
        String address = text(one, "email").replaceFirst("^mailto:", "");
        String shown = name.isEmpty() ? "Somebody outside" : name;
        return address.isEmpty() ? shown : shown + " <" + Texts.shorten(Texts.line(address), 70) + ">";
    }

    private static Optional<Instant> at(JsonNode one) {
        try {
            return Optional.of(Instant.parse(text(one, "created").toUpperCase(Locale.ROOT)));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    private static Optional<String> uuid(String id) {
        var match = UUID_URN.matcher(id);
        return match.matches() ? Optional.of(match.group(1).toLowerCase(Locale.ROOT)) : Optional.empty();
    }

    private static String text(JsonNode node, String field) {
        JsonNode value = node.path(field);
        return value.isString() ? value.asString() : "";
    }
}
