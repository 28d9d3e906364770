package mintshelf.core.desk;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import mintshelf.core.desk.DeskRules.Act;
import mintshelf.core.desk.DeskRules.Word;

/**
 * What a person is told once a program has saved a file of their desk: of a held one how far it is ahead, of one that is not held its remedy.
 *
 * @param title in a line
 * @param says the sentence under it
 * @param choices what can be done at once, the first one first
 */
public record SaveTold(String title, String says, List<Choice> choices) {
    /** What can be done from there. */
    public enum Choice {
        CHECK_IN("Check in…"),
        /** Nothing more is told of this file for a while. */
        GO_ON("Go on working"),
        TAKE("Take it now"),
        ASK("Ask for it"),
        START("Start the next revision…"),
        /** The document's page, or the desk's. */
        LOOK("Look at it on the shelf");

        private final String words;

        Choice(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** The name by which a program answers: "check-in". */
        public String code() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    public SaveTold {
        choices = List.copyOf(choices);
    }

    /**
     * What is told of a save; nothing of one that leaves the file as the shelf has it, or had it.
     *
     * @param name the document's number, or the file's name where no document has it
     * @param holder who holds it, where that is somebody else
     * @param differences from the version that was brought; unknown for what cannot be compared here
     */
    public static Optional<SaveTold> of(Word word, Act act, String name, String holder, OptionalInt differences) {
        return switch (word) {
            case AHEAD ->
                Optional.of(new SaveTold(
                        name + " is ahead" + counted(differences),
                        "You hold it; the shelf does not have it yet.",
                        List.of(Choice.CHECK_IN, Choice.GO_ON)));
            case STRAYED -> Optional.of(strayed(act, name, holder));
            case NEW ->
                act == Act.FILE
                        ? Optional.of(new SaveTold(
                                name + " is only here", "No document has this file.", List.of(Choice.LOOK)))
                        : Optional.empty();
            case EVEN, BEHIND, ABSENT, SET -> Optional.empty();
        };
    }

    private static SaveTold strayed(Act act, String name, String holder) {
        String title = name + " was changed without a hold";
        return switch (act) {
            case TAKE -> new SaveTold(title, "Nobody holds it.", List.of(Choice.TAKE, Choice.LOOK));
            case ASK ->
                new SaveTold(
                        title,
                        (holder.isEmpty() ? "Somebody else" : holder) + " holds it.",
                        List.of(Choice.ASK, Choice.LOOK));
            case START ->
                new SaveTold(
                        title,
                        "It is released: what you changed belongs into the next revision.",
                        List.of(Choice.START, Choice.LOOK));
            default ->
                new SaveTold(
                        title, "The shelf has moved on meanwhile; nothing of yours is lost.", List.of(Choice.LOOK));
        };
    }

    private static String counted(OptionalInt differences) {
        if (differences.isEmpty()) return "";
        int n = differences.getAsInt();
        return switch (n) {
            case 0 -> ": no difference that shows";
            case 1 -> ": 1 difference";
            default -> ": " + n + " differences";
        };
    }
}
