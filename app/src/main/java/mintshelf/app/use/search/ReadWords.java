package mintshelf.app.use.search;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import mintshelf.app.ground.ReadingRoom;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Contents;
import mintshelf.app.sight.Sheets;
import mintshelf.app.store.content.StoredContent;
import mintshelf.app.store.content.TextStore;
import mintshelf.core.content.ContentKind;
import mintshelf.core.drawing.dxf.DrawingWords;
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
    private static final long LARGEST_PAPER = 8L << 20;
    /** Ids are given before transactions end: a lower one may come to be seen after a higher one. */
    private static final int OVERLAP = 1000;

    private final TextStore texts;
    private final Sheets sheets;
    private final ReadingRoom room;
    private final Contents contents;
    private final JsonMapper json;
    private long seen;

    public ReadWords(TextStore texts, Sheets sheets, ReadingRoom room, Contents contents, JsonMapper json) {
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
            Map<Long, List<String>> words = new TreeMap<>();
            for (TextStore.Unread one : some) {
                after = one.version();
                words.put(
                        one.content().id(),
                        room.within(() -> one.isPaper() ? paper(one.content()) : words(one.content())));
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
        try {
            if (content.kind() == ContentKind.DXF) {
                return sheets.opened(content)
                        .map(drawing -> DrawingWords.of(drawing, LETTERS))
                        .orElse(List.of());
            }
            String text = new String(contents.bytes(content, LETTERS), StandardCharsets.UTF_8);
            Set<String> lines = new LinkedHashSet<>(Arrays.asList(text.split("\\R")));
            lines.removeIf(String::isBlank);
            return List.copyOf(lines);
        } catch (Refused e) {
            throw e; // no room now: the next run reads it
        } catch (RuntimeException e) {
            LoggerFactory.getLogger(ReadWords.class).warn("The words of content {} were not read", content.id(), e);
            return List.of();
        }
    }
}
