package mintshelf.core.takein;

import java.util.Optional;
import mintshelf.core.base.Texts;

/** What a column of the table of a taking-in says of a file. */
public enum Column {
    FILE("file", "path", "file name", "filename"),
    NUMBER("number", "drawing number", "document number", "no", "no."),
    TITLE("title", "name", "designation"),
    KIND("kind", "type"),
    REVISION("revision", "rev", "rev.", "index"),
    STAGE("stage", "state", "status"),
    DATE("date", "released", "released on", "date of release"),
    SIGNERS("signers", "signed by", "approved by"),
    FORMER("former numbers", "former number", "old number", "old numbers"),
    FOLDER("folder"),
    LEAVE_OUT("leave out");

    private final String head;
    /** Each between two bars. */
    private final String names;

    Column(String... names) {
        this.head = names[0];
        this.names = "|" + String.join("|", names) + "|";
    }

    /** As it is written at the head of a table that goes out. */
    public String head() {
        return head;
    }

    /** The column that a head means; nothing where it means none. */
    public static Optional<Column> of(String head) {
        String key = Texts.key(head);
        for (Column column : values())
            if (!key.isEmpty() && column.names.contains("|" + key + "|")) return Optional.of(column);
        return Optional.empty();
    }
}
