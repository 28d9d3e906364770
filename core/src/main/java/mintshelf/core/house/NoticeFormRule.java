package mintshelf.core.house;

import java.util.ArrayList;
import java.util.List;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.change.NoticeForm;

/** What the house puts on its change notices. */
public record NoticeFormRule(List<NoticeForm.Block> blocks) implements Rule {
    /** The one form of a house. */
    public static final String CODE = "notice-form";

    public NoticeFormRule {
        blocks = List.copyOf(blocks);
    }

    public NoticeForm form() {
        return new NoticeForm(blocks);
    }

    @Override
    public Subject subject() {
        return Subject.NOTICE_FORM;
    }

    @Override
    public String code() {
        return CODE;
    }

    @Override
    public String name() {
        return "The form of change notices";
    }

    @Override
    public List<RuleLine> lines(House house) {
        List<RuleLine> lines = new ArrayList<>();
        for (int i = 0; i < blocks.size(); i++) {
            NoticeForm.Block block = blocks.get(i);
            String says = block.show() == NoticeForm.Show.TEXT
                    ? "own words: " + Texts.shorten(Texts.line(block.text()), 200)
                    : block.show().words();
            lines.add(RuleLine.of("Block " + (i + 1), says));
        }
        return List.copyOf(lines);
    }

    @Override
    public List<Refusal> ask(House house) {
        return form().ask();
    }
}
