package mintshelf.app.use.search;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.ContentInput;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.ContentStore;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.TextStore;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Texts;
import mintshelf.core.content.ContentKind;
import mintshelf.core.content.OfficeWords;
import mintshelf.core.drawing.alike.Traits;
import mintshelf.core.drawing.dxf.DrawingWords;
import mintshelf.core.drawing.pdf.PdfWords;
import mintshelf.core.model.step.StepModel;
import mintshelf.core.model.step.StepReader;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads what drawings and texts say, once for each content, so that the search finds them. */
@Service
public class ReadWords {
    private static final int LETTERS = 40_000;
    private static final int PORTION = 50;
    private static final long LARGEST_PDF = 48L << 20;
    private static final Duration LONGEST = Duration.ofSeconds(20);
    private static final long LARGEST_PAPER = 8L << 20;
    /** Ids are given before transactions end: a lower one may come to be seen after a higher one. */
    private static final int OVERLAP = 1000;

    private final TextStore texts;
    private final Sheets sheets;
    private final ReadingRoom room;
    private final Contents contents;
    private final ContentStore store;
    private final JsonMapper json;
    private long seen;

    public ReadWords(
            TextStore texts, Sheets sheets, ReadingRoom room, Contents contents, ContentStore store, JsonMapper json) {
        this.store = store;
        this.json = json;
        this.texts = texts;
        this.sheets = sheets;
        this.room = room;
        this.contents = contents;
    }

    /**
     * Reads the contents of versions that came since the last run, all of them after a start. What cannot be read says nothing and
     * is not tried again.
     */
    @Scheduled(initialDelayString = "PT4S", fixedDelayString = "PT4S")
    public synchronized void run() {
        try {
            readAll();
        } catch (Refused e) {
            LoggerFactory.getLogger(ReadWords.class)
                    .info("Words are read later: {}", e.refusal().reason());
        }
    }

    private void readAll() {
        // Read first: versions that come meanwhile are the next run's.
        long latest = texts.latestVersion();
        long after = Math.max(0, seen - OVERLAP);
        for (List<TextStore.Unread> some = texts.unread(TextStore.READABLE, after, PORTION);
                !some.isEmpty();
                some = texts.unread(TextStore.READABLE, after, PORTION)) {
            Map<Long, TextStore.Read> words = new TreeMap<>();
            for (TextStore.Unread one : some) {
                after = one.version();
                words.put(
                        one.content().id(),
                        room.within(() ->
                                one.isPaper() ? new TextStore.Read(paper(one.content()), "") : read(one.content())));
            }
            texts.keep(words);
        }
        seen = latest;
    }

    /** A paper of a change gives its sentences, not the data that it is kept as. */
    private List<String> paper(StoredContent content) {
        if (content.kind() != ContentKind.TEXT) return words(content);
        try {
            JsonNode paper = json.readTree(contents.bytes(content, LARGEST_PAPER));
            Set<String> lines = new LinkedHashSet<>();
            lines.add((paper.path("order").asString("") + " "
                            + paper.path("title").asString(""))
                    .strip());
            lines.addAll(Arrays.asList(paper.path("reason").asString("").split("\\R")));
            for (JsonNode line : paper.path("lines")) {
                String why = line.path("reason").asString("");
                lines.add(line.path("document").asString("") + " "
                        + line.path("title").asString("") + (why.isEmpty() ? "" : ": " + why));
            }
            lines.removeIf(String::isBlank);
            return List.copyOf(lines);
        } catch (JacksonException e) {
            return words(content);
        }
    }

    private List<String> words(StoredContent content) {
        return read(content).words();
    }

    private TextStore.Read read(StoredContent content) {
        try {
            return switch (content.kind()) {
                case DXF ->
                    sheets.opened(content)
                            .map(drawing -> new TextStore.Read(
                                    DrawingWords.of(drawing, LETTERS),
                                    Sheets.scene(drawing)
                                            .map(scene -> Traits.of(scene).text())
                                            .orElse("")))
                            .orElse(NOTHING);
                case PDF -> said(pdf(content));
                case OFFICE -> {
                    try (InputStream file = new ContentInput(store, content.id(), content.size())) {
                        yield said(OfficeWords.of(file, LETTERS, LONGEST));
                    }
                }
                case STEP -> said(model(content));
                default -> said(text(content));
            };
        } catch (Refused e) {
            throw e; // no room now: the next run reads it
        } catch (RuntimeException | IOException e) {
            LoggerFactory.getLogger(ReadWords.class).warn("The words of content {} were not read", content.id(), e);
            return NOTHING;
        }
    }

    private static final TextStore.Read NOTHING = new TextStore.Read(List.of(), "");

    private static TextStore.Read said(List<String> words) {
        return new TextStore.Read(words, "");
    }

    private List<String> text(StoredContent content) {
        if (content.kind() == ContentKind.TEXT && content.size() <= LARGEST_PAPER) {
            byte[] head = contents.bytes(content, ContentKind.SAMPLE);
            if (MailWords.isMail(head)) return MailWords.of(contents.bytes(content, LARGEST_PAPER), LETTERS);
        }
        String text = new String(contents.bytes(content, LETTERS), StandardCharsets.UTF_8);
        // Of a picture that is text the letters are read, not how they are drawn.
        if (content.kind() == ContentKind.SVG) text = text.replaceAll("<[^>]*>", "\n");
        Set<String> lines = new LinkedHashSet<>(Arrays.asList(text.split("\\R")));
        lines.removeIf(String::isBlank);
        return List.copyOf(lines);
    }

    /** A PDF is held whole while it is read: larger ones are found by their names. */
    private List<String> pdf(StoredContent content) {
        if (content.size() > LARGEST_PDF || !room.takes(3 * content.size())) return List.of();
        return PdfWords.of(contents.bytes(content, content.size()), LETTERS, LONGEST);
    }

    /** What the products of a model are called. */
    private List<String> model(StoredContent content) throws IOException {
        Outcome<StepModel> read = StepReader.read(new ContentInput(store, content.id(), content.size()));
        if (!(read instanceof Outcome.Granted<StepModel> model)) return List.of();
        Set<String> lines = new LinkedHashSet<>();
        int left = LETTERS;
        for (StepModel.Product p : model.value().products()) {
            String line = Texts.line(p.id() + " " + p.name() + " " + p.description());
            if (line.length() > left) break;
            if (lines.add(line)) left -= line.length() + 1;
        }
        lines.removeIf(String::isBlank);
        return List.copyOf(lines);
    }
}
