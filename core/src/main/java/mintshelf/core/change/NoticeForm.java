package mintshelf.core.change;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import mintshelf.core.base.Refusal;

/** What a house puts on its change notices, block by block from the top down. */
public record NoticeForm(List<Block> blocks) {
    private static final int MOST = 30;
    private static final int LONGEST = 1000;
    private static final Pattern FIELD = Pattern.compile("\\{([^{}]*)\\}");

    /** What own words may name of a notice, in braces. */
    public static final List<String> FIELDS = List.of("notice", "order", "title", "date", "effective", "cost");

    /** What a block shows. */
    public enum Show {
        HEAD("number, title, order and day"),
        REASON("why it was changed"),
        REQUESTS("the requests that it answers"),
        LINES("the lines, from which revision to which"),
        PICTURES("small pictures of what changed on the sheets"),
        OLD("what becomes of the old ones"),
        DECIDED("who decided"),
        TEXT("own words");

        private final String words;

        Show(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** @param text own words; empty for other blocks */
    public record Block(Show show, String text) {
        public static Block of(Show show) {
            return new Block(show, "");
        }
    }

    /** What a notice has where the house says nothing else. */
    public static final NoticeForm USUAL = new NoticeForm(List.of(
            Block.of(Show.HEAD),
            Block.of(Show.REASON),
            Block.of(Show.REQUESTS),
            Block.of(Show.LINES),
            Block.of(Show.PICTURES),
            Block.of(Show.OLD),
            Block.of(Show.DECIDED)));

    public NoticeForm {
        blocks = List.copyOf(blocks);
    }

    /** Why no notice can be made of it; empty when one can. */
    public List<Refusal> ask() {
        List<Refusal> wrong = new ArrayList<>();
        Set<Show> seen = EnumSet.noneOf(Show.class);
        for (Block block : blocks) {
            if (block.show() == Show.TEXT) {
                text(block.text(), wrong);
            } else if (!seen.add(block.show())) {
                wrong.add(Refusal.of(
                        "notice.twice", "The block “" + block.show().words() + "” stands twice.", "Take one out."));
            }
        }
        for (Show needed : List.of(Show.HEAD, Show.LINES)) {
            if (!seen.contains(needed)) {
                wrong.add(Refusal.of(
                        "notice.lacks",
                        "The notice lacks the block “" + needed.words() + "”.",
                        "Nobody would know what it announces: put it in."));
            }
        }
        if (blocks.size() > MOST) {
            wrong.add(Refusal.of("notice.long", "It has " + blocks.size() + " blocks.", MOST + " are the most."));
        }
        return wrong.stream().distinct().toList();
    }

    private static void text(String text, List<Refusal> wrong) {
        if (text.isBlank()) {
            wrong.add(Refusal.of("notice.empty", "A block of own words is empty.", "Write them, or take it out."));
        }
        if (text.length() > LONGEST) {
            wrong.add(Refusal.of(
                    "notice.words", "A block has " + text.length() + " letters.", LONGEST + " are the most."));
        }
        Matcher fields = FIELD.matcher(text);
        while (fields.find()) {
            if (!FIELDS.contains(fields.group(1))) {
                wrong.add(Refusal.of(
                        "notice.field",
                        "A notice has no field {" + fields.group(1) + "}.",
                        "There are {" + String.join("}, {", FIELDS) + "}."));
            }
        }
    }

    /** Own words with what they name put in; a field that is empty leaves nothing. */
    public static String filled(String text, Map<String, String> fields) {
        return FIELD.matcher(text)
                .replaceAll(m -> Matcher.quoteReplacement(fields.getOrDefault(m.group(1), m.group())));
    }
}
