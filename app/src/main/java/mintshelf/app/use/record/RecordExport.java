package mintshelf.app.use.record;

import java.io.Closeable;
import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.function.Consumer;
import mintshelf.app.store.record.RecordStore.Shown;
import mintshelf.core.audit.RecordEntry;
import mintshelf.core.base.ContentHash;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.json.JsonMapper;

/**
 * The record as a file: every field of an entry that its hash covers, the hash before it and its own, so that an outsider can follow the
 * chains. CSV by RFC 4180, one line an entry; JSON, one array of objects with the same names.
 */
public abstract sealed class RecordExport implements Closeable {
    static final List<String> FIELDS = List.of(
            "stream",
            "seq",
            "at",
            "person",
            "name",
            "address",
            "act",
            "document",
            "number",
            "version",
            "says",
            "why",
            "previous",
            "hash");

    private RecordExport() {}

    public abstract void write(Shown shown) throws IOException;

    public static RecordExport csv(Writer out) throws IOException {
        return new Csv(new CSVPrinter(out, CSVFormat.RFC4180));
    }

    public static RecordExport json(Writer out) {
        return new Json(new JsonMapper().createGenerator(out));
    }

    /** The fields of an entry by their names; empty for those that it does not have. */
    static Map<String, String> fields(Shown shown) {
        RecordEntry e = shown.entry();
        Map<String, String> fields = new LinkedHashMap<>();
        fields.put("stream", Long.toString(e.stream()));
        fields.put("seq", Integer.toString(e.seq()));
        fields.put("at", e.at().toString());
        fields.put("person", e.person().isPresent() ? Long.toString(e.person().getAsLong()) : "");
        fields.put("name", shown.personName());
        fields.put("address", e.address());
        fields.put("act", e.act());
        fields.put("document", e.item().isPresent() ? Long.toString(e.item().getAsLong()) : "");
        fields.put("number", shown.number());
        fields.put(
                "version",
                e.version().isPresent() ? Integer.toString(e.version().getAsInt()) : "");
        fields.put("says", e.says());
        fields.put("why", e.why());
        fields.put("previous", shown.previous().hex());
        fields.put("hash", shown.hash().hex());
        return fields;
    }

    private static final class Csv extends RecordExport {
        private final CSVPrinter out;

        Csv(CSVPrinter out) throws IOException {
            this.out = out;
            out.printRecord(FIELDS);
        }

        @Override
        public void write(Shown shown) throws IOException {
            out.printRecord(fields(shown).values());
        }

        @Override
        public void close() throws IOException {
            out.close(true);
        }
    }

    private static final class Json extends RecordExport {
        private final JsonGenerator out;

        Json(JsonGenerator out) {
            this.out = out;
            out.writeStartArray();
        }

        @Override
        public void write(Shown shown) {
            out.writeRaw("\n");
            out.writeStartObject();
            fields(shown).forEach(out::writeStringProperty);
            out.writeEndObject();
        }

        @Override
        public void close() {
            out.writeEndArray();
            out.close();
        }
    }

    /** A line of an export that was taken earlier. */
    public record Line(RecordEntry entry, ContentHash previous, ContentHash hash) {}

    /**
     * Reads an export line by line.
     *
     * @throws IOException where it is none
     */
    static void read(Reader in, boolean json, Consumer<Line> to) throws IOException {
        try {
            if (json) readJson(in, to);
            else readCsv(in, to);
        } catch (JacksonException | IllegalArgumentException | DateTimeException e) {
            throw new IOException("This is no export of the record: " + e.getMessage(), e);
        }
    }

    private static void readCsv(Reader in, Consumer<Line> to) throws IOException {
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get();
        try (var lines = format.parse(in)) {
            for (CSVRecord line : lines) to.accept(line(line.toMap()));
        }
    }

    private static void readJson(Reader in, Consumer<Line> to) throws IOException {
        try (JsonParser parser = new JsonMapper().createParser(in)) {
            if (parser.nextToken() != JsonToken.START_ARRAY) throw new IOException("This is no export of the record.");
            while (parser.nextToken() == JsonToken.START_OBJECT) {
                Map<String, String> fields = new LinkedHashMap<>();
                while (parser.nextToken() != JsonToken.END_OBJECT) {
                    String name = parser.currentName();
                    parser.nextToken();
                    fields.put(name, parser.getString());
                }
                to.accept(line(fields));
            }
        }
    }

    private static Line line(Map<String, String> f) {
        for (String name : FIELDS) if (f.get(name) == null) throw new IllegalArgumentException("it lacks " + name);
        String person = f.getOrDefault("person", "");
        String item = f.getOrDefault("document", "");
        String version = f.getOrDefault("version", "");
        return new Line(
                new RecordEntry(
                        Long.parseLong(f.getOrDefault("stream", "")),
                        Integer.parseInt(f.getOrDefault("seq", "")),
                        Instant.parse(f.getOrDefault("at", "")),
                        person.isEmpty() ? OptionalLong.empty() : OptionalLong.of(Long.parseLong(person)),
                        f.getOrDefault("address", ""),
                        f.getOrDefault("act", ""),
                        item.isEmpty() ? OptionalLong.empty() : OptionalLong.of(Long.parseLong(item)),
                        version.isEmpty() ? OptionalInt.empty() : OptionalInt.of(Integer.parseInt(version)),
                        f.getOrDefault("says", ""),
                        f.getOrDefault("why", "")),
                ContentHash.ofHex(f.getOrDefault("previous", "")),
                ContentHash.ofHex(f.getOrDefault("hash", "")));
    }
}
