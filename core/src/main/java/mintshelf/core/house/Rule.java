package mintshelf.core.house;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.List;
import java.util.Optional;
import mintshelf.core.base.Outcome;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;

/** A rule of the house as one edition has it. What is kept was asked before; what is kept already may name what is not there any more. */
public sealed interface Rule
        permits ChangeControlRule,
                KindRule,
                SeriesRule,
                RouteRule,
                FactRule,
                FilingOrder,
                SignOffRule,
                CalendarRule,
                DistributionRule,
                NoticeFormRule {
    Subject subject();

    /** Stable name within its subject, in small letters. */
    String code();

    String name();

    /** What it says, line by line. */
    List<RuleLine> lines(House house);

    /** Why it cannot be kept in this house; empty when it can. */
    List<Refusal> ask(House house);

    /** Why a name is none: empty, or longer than {@code most}. */
    static Optional<Refusal> named(String name, int most) {
        Outcome<String> said = Texts.required("The name", name, most);
        return said.refusal();
    }

    /**
     * Why a form (regular expression, RE2's syntax) that people typed cannot be kept. Forms are asked in time linear in the text,
     * whatever somebody wrote into them.
     */
    static Optional<Refusal> form(String what, String form) {
        if (form.length() > 200) {
            return Optional.of(Refusal.of("rule.form", what + " is longer than 200 letters.", "Shorten it."));
        }
        try {
            Pattern.compile(form);
        } catch (PatternSyntaxException e) {
            return Optional.of(Refusal.of(
                    "rule.form", what + " is no form that can be read: " + e.getDescription() + ".", "Correct it."));
        }
        return Optional.empty();
    }
}
