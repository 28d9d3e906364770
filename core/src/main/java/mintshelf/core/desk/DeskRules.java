package mintshelf.core.desk;

import java.util.Optional;
import mintshelf.core.base.ContentHash;
import mintshelf.core.document.VersionName;

/** From record, disk and shelf: one word for a file, and one proposed act. */
public final class DeskRules {
    private DeskRules() {}

    /** How a file stands. */
    public enum Word {
        /** As the shelf has it. */
        EVEN("even"),
        /** Unchanged here; the shelf has moved on. */
        BEHIND("behind"),
        /** Changed here, under the person's own hold. */
        AHEAD("ahead"),
        /** Changed here without a hold that would let it be checked in. */
        STRAYED("strayed"),
        /** Only here. */
        NEW("new"),
        /** Only on the shelf: it was here and is gone. */
        ABSENT("absent"),
        /** Unchanged here, at an older version on purpose. */
        SET("set at a version");

        private final String words;

        Word(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What is proposed. */
    public enum Act {
        LEAVE("leave alone"),
        BRING("bring the newer one"),
        CHECK_IN("check in"),
        /** The hold is taken and the change kept. */
        TAKE("take it now"),
        /** Somebody else holds it: ask, or leave it as a stray. */
        ASK("ask for it"),
        /** Its base is released: the next revision begins with this content. */
        START("start the next revision with it"),
        /** The shelf moved on meanwhile: the two are compared, and one is kept. */
        COMPARE("compare with the shelf's"),
        FILE("file it");

        private final String words;

        Act(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * What the desk's record says of a file.
     *
     * @param version that was brought: of the main line, or of a trial's
     * @param content of that version
     * @param onPurpose whether it was brought at an older version on purpose
     */
    public record Brought(VersionName version, ContentHash content, boolean onPurpose) {}

    /** Who holds a document, seen by the desk's person. */
    public enum Held {
        BY_NOBODY,
        BY_ME,
        BY_ANOTHER
    }

    /**
     * What the shelf says of the document, on the line on which the desk has it: the main one, or that of a trial.
     *
     * @param latest the version that the person gets there
     * @param content of that version
     * @param olderWith an older version with the bytes that are on the disk, where there is one
     * @param canTake whether the person could check it out now
     * @param canStart whether the next revision could be started
     */
    public record OnShelf(
            VersionName latest,
            ContentHash content,
            Optional<VersionName> olderWith,
            Held held,
            boolean canTake,
            boolean canStart) {}

    /** The word and the act. */
    public record Standing(Word word, Act act) {}

    /**
     * @param record what the desk knows; empty for a file that it did not bring
     * @param disk the bytes that are there; empty where no file is
     * @param shelf the document; empty where there is none of that name in that place
     */
    public static Standing standing(Optional<Brought> record, Optional<ContentHash> disk, Optional<OnShelf> shelf) {
        if (shelf.isEmpty()) return new Standing(Word.NEW, disk.isPresent() ? Act.FILE : Act.LEAVE);
        OnShelf s = shelf.get();
        if (disk.isEmpty()) return new Standing(Word.ABSENT, Act.BRING);
        if (disk.get().equals(s.content())) return new Standing(Word.EVEN, Act.LEAVE);
        Optional<Brought> unchanged = record.filter(r -> r.content().equals(disk.get()));
        if (unchanged.isPresent() || s.olderWith().isPresent()) {
            boolean set = unchanged.filter(Brought::onPurpose).isPresent();
            return set ? new Standing(Word.SET, Act.LEAVE) : new Standing(Word.BEHIND, Act.BRING);
        }
        boolean onLatest = record.filter(r -> r.version().equals(s.latest())).isPresent();
        if (s.held() == Held.BY_ME && onLatest) return new Standing(Word.AHEAD, Act.CHECK_IN);
        if (!onLatest) return new Standing(Word.STRAYED, Act.COMPARE);
        if (s.held() == Held.BY_ANOTHER) return new Standing(Word.STRAYED, Act.ASK);
        if (s.canTake()) return new Standing(Word.STRAYED, Act.TAKE);
        return new Standing(Word.STRAYED, s.canStart() ? Act.START : Act.COMPARE);
    }

    /** Whether bringing a version would lose bytes that are in no version: then the person chooses first. */
    public static boolean wouldLose(Optional<Brought> record, Optional<ContentHash> disk, Optional<OnShelf> shelf) {
        if (disk.isEmpty()) return false;
        Word word = standing(record, disk, shelf).word();
        return word == Word.AHEAD || word == Word.STRAYED || word == Word.NEW;
    }
}
