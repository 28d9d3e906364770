package mintshelf.core.content;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * What office documents say: the text of the parts that people read, of Office Open XML (ISO/IEC 29500) and OpenDocument (ISO/IEC
 * 26300). Streamed: neither the archive nor a part is ever held whole, and what unpacks to more than a limit is read no further. Macros,
 * links and document types are not looked at.
 */
public final class OfficeWords {
    /** Bytes that are unpacked of one document, all its parts together. */
    private static final long UNPACKED = 96L << 20;

    private static final int PARTS = 5000;
    private static final int LONGEST_LINE = 2000;
    private static final Pattern READ = Pattern.compile(
            "word/(document|footnotes|header\\d*|footer\\d*)\\.xml|xl/sharedStrings\\.xml|xl/worksheets/sheet\\d+\\.xml"
                    + "|ppt/slides/slide\\d+\\.xml|content\\.xml");

    private OfficeWords() {}

    /**
     * Its lines, each once, until there are letters enough, too much is unpacked, or the time is up; nothing of what is no such archive.
     *
     * @param most letters at most
     */
    public static List<String> of(InputStream file, int most, Duration longest) {
        return read(file, new Lines(most, System.nanoTime() + longest.toNanos(), true));
    }

    /** As {@link #of}, as it stands: lines that are said again are said again, short ones too. */
    public static List<String> text(InputStream file, int most, Duration longest) {
        return read(file, new Lines(most, System.nanoTime() + longest.toNanos(), false));
    }

    private static List<String> read(InputStream file, Lines lines) {
        XMLInputFactory xml = XMLInputFactory.newInstance();
        xml.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        xml.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        try (ZipInputStream zip = new ZipInputStream(new Counted(file, UNPACKED * 2))) {
            InputStream unpacked = new Counted(zip, UNPACKED);
            byte[] rest = new byte[8192];
            for (int parts = 0; parts < PARTS && lines.goOn(); parts++) {
                ZipEntry part = zip.getNextEntry();
                if (part == null) break;
                if (lines.wants(part.getName())) read(xml, unpacked, lines);
                // What is left of a part is passed over within the same limit: it is unpacked all the same.
                while (lines.goOn() && unpacked.read(rest) > 0) {
                    // passed over
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            // Broken, or it unpacks to more than any document: what was read so far stands.
            return lines.all();
        }
        return lines.all();
    }

    private static void read(XMLInputFactory xml, InputStream part, Lines lines) throws IOException {
        try {
            XMLStreamReader reader = xml.createXMLStreamReader(new Kept(part));
            while (lines.goOn() && reader.hasNext()) {
                switch (reader.next()) {
                    case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> lines.add(reader.getText());
                    case XMLStreamConstants.END_ELEMENT -> {
                        // Paragraphs, cells and shared strings end a line.
                        if (List.of("p", "h", "si", "c", "is", "table-cell").contains(reader.getLocalName()))
                            lines.end();
                    }
                    default -> {}
                }
            }
            lines.end();
        } catch (XMLStreamException e) {
            lines.end();
        }
    }

    /** Lines in the making. */
    private static final class Lines {
        private final Set<String> known = new HashSet<>();
        private final List<String> all = new ArrayList<>();
        private final boolean once;
        private final StringBuilder line = new StringBuilder();
        private final long until;
        private int left;

        Lines(int most, long until, boolean once) {
            this.once = once;
            this.left = most;
            this.until = until;
        }

        /** The cells of a sheet are places in its list of texts: of no use to a reader. */
        boolean wants(String part) {
            return READ.matcher(part).matches() && (once || !part.startsWith("xl/worksheets/"));
        }

        boolean goOn() {
            return left > 1 && System.nanoTime() < until;
        }

        void add(String text) {
            if (line.length() < LONGEST_LINE) line.append(text);
        }

        void end() {
            String said = line.toString().strip().replaceAll("\\s+", " ");
            line.setLength(0);
            if (said.isEmpty()) return;
            if (once && (said.length() < 2 || said.chars().noneMatch(Character::isLetter))) return;
            if (once && !known.add(said)) return;
            if (said.length() > left) said = said.substring(0, left).strip();
            all.add(said);
            left -= said.length() + 1;
        }

        List<String> all() {
            return List.copyOf(all);
        }
    }

    /** Ends with an error behind a number of bytes. */
    private static final class Counted extends FilterInputStream {
        private long left;

        Counted(InputStream in, long most) {
            super(in);
            this.left = most;
        }

        @Override
        public int read() throws IOException {
            int read = super.read();
            if (read >= 0) count(1);
            return read;
        }

        @Override
        public int read(byte[] to, int from, int length) throws IOException {
            int read = super.read(to, from, length);
            if (read > 0) count(read);
            return read;
        }

        private void count(int read) throws IOException {
            left -= read;
            if (left < 0) throw new IOException("unpacks to more than any document has");
        }
    }

    /** The reader of a part does not close the archive. */
    private static final class Kept extends FilterInputStream {
        Kept(InputStream in) {
            super(in);
        }

        @Override
        public void close() {
            // the archive is read on
        }
    }
}
