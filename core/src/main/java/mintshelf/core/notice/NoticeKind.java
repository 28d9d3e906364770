package mintshelf.core.notice;

import java.util.Arrays;
import java.util.List;

/** What a notice is about. By it people choose when they are mailed; Today says everything at once. */
public enum NoticeKind {
    ASKED("A signature is asked of me", "sign."),
    ROUND("A round or release of mine is decided, late or stuck", "round. signoff. release."),
    REMARK("Somebody marks a sheet of mine, or answers a remark", "remark."),
    HOLD("Somebody needs what I hold", "hold."),
    CHANGE("A change or a job that I am in goes on", "order. request. notice. job."),
    FOLLOWED("Something that I follow moves", "followed."),
    SHOWN("Somebody shows me something", "shown."),
    HOUSE("My grants change, or somebody stands in", "");

    private final String words;
    private final String codes;

    /** @param codes how the codes of its notices begin */
    NoticeKind(String words, String codes) {
        this.words = words;
        this.codes = codes;
    }

    public String words() {
        return words;
    }

    /** The kind of a notice, by how its code begins. */
    public static NoticeKind of(String code) {
        return Arrays.stream(values())
                .filter(k ->
                        !k.codes.isEmpty() && Arrays.stream(k.codes.split(" ")).anyMatch(code::startsWith))
                .findFirst()
                .orElse(HOUSE);
    }

    /** When somebody is mailed who has chosen nothing: what is followed and remarks come together, all else at once. */
    public MailTime usual() {
        return this == FOLLOWED || this == REMARK ? MailTime.HOURLY : MailTime.AT_ONCE;
    }

    /** What can be chosen for it: who is asked to sign learns of it within a day. */
    public List<MailTime> choices() {
        return this == ASKED ? List.of(MailTime.AT_ONCE, MailTime.HOURLY, MailTime.DAILY) : List.of(MailTime.values());
    }
}
