package mintshelf.app.use.check;

import java.time.Clock;
import java.util.Optional;
import mintshelf.app.effect.Recorder;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.NotThere;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.CheckSheets;
import mintshelf.app.sight.CheckSheets.Held;
import mintshelf.app.sight.Seen;
import mintshelf.app.sight.Sight;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.house.CheckRuleStore;
import mintshelf.app.store.person.GrantStore;
import mintshelf.core.access.Right;
import mintshelf.core.base.Refusal;
import mintshelf.core.base.Texts;
import mintshelf.core.document.Document;
import mintshelf.core.revision.StageClass;
import org.springframework.stereotype.Service;

/** Letting a binding finding pass, in words, for one revision; and taking that back. */
@Service
public class WaiveFindings {
    private final Sight sight;
    private final VersionStore versions;
    private final CheckSheets checks;
    private final CheckRuleStore rules;
    private final GrantStore grants;
    private final Acts acts;
    private final Recorder recorder;
    private final Clock clock;

    public WaiveFindings(
            Sight sight,
            VersionStore versions,
            CheckSheets checks,
            CheckRuleStore rules,
            GrantStore grants,
            Acts acts,
            Recorder recorder,
            Clock clock) {
        this.sight = sight;
        this.versions = versions;
        this.checks = checks;
        this.rules = rules;
        this.grants = grants;
        this.acts = acts;
        this.recorder = recorder;
        this.clock = clock;
    }

    /** What stands in the way of letting findings of a document pass. */
    public Optional<Refusal> refusal(Actor actor, Document document) {
        String role = checks.rules(document).waivedBy();
        boolean may =
                actor.access().has(role, document.place()) || actor.access().may(Right.KEEP_SHELF, document.place());
        if (!may) {
            String name = grants.roleNames().getOrDefault(role, role);
            return Optional.of(Refusal.of(
                    "waiver.role", "A finding of " + document.number() + " is let pass by: " + name + ".", "Ask one."));
        }
        boolean preparing = document.pending()
                .filter(r -> r.stage().stageClass() == StageClass.PREPARING)
                .isPresent();
        if (!preparing) {
            return Optional.of(Refusal.of(
                    "waiver.stage",
                    document.number() + " is not in preparation.",
                    "Findings are let pass before a review."));
        }
        return Optional.empty();
    }

    /** Lets a finding of the latest version pass, for its revision. */
    public String waive(Actor actor, long item, String key, String finding, String words) {
        String said = Texts.required("Why it may pass", words, 500).orElseThrow(Refused::new);
        return acts.once(actor, key, () -> {
            Document document = asked(actor, item);
            VersionRow head = versions.version(item, document.head().number()).orElseThrow(NotThere::new);
            Held held = checks.findings(document, head).orElseThrow(NotThere::new).stream()
                    .filter(h -> CheckSheets.key(h.finding()).equals(finding))
                    .findFirst()
                    .orElseThrow(() -> Refused.because(
                            "waiver.gone", "The sheet does not say that any more.", "Look at its checks again."));
            if (held.waiver().isPresent()) return checksOf(head, item);
            rules.waive(head.revision(), finding, said, actor.person(), clock.instant());
            recorder.note(
                    actor,
                    item,
                    "check.waived",
                    head.number(),
                    "let pass: " + held.finding().says(),
                    said);
            return checksOf(head, item);
        });
    }

    /** Takes a waiver back. */
    public String takeBack(Actor actor, long item, String key, long waiver) {
        return acts.once(actor, key, () -> {
            Document document = asked(actor, item);
            VersionRow head = versions.version(item, document.head().number()).orElseThrow(NotThere::new);
            String finding = rules.end(head.revision(), waiver, clock.instant()).orElseThrow(NotThere::new);
            String says = finding.substring(finding.indexOf(' ') + 1);
            recorder.note(actor, item, "check.waiver_ended", head.number(), "does not let pass any more: " + says, "");
            return checksOf(head, item);
        });
    }

    private Document asked(Actor actor, long item) {
        Seen seen = sight.locked(actor, item);
        if (!seen.all()) throw new NotThere();
        refusal(actor, seen.document()).ifPresent(r -> {
            throw new Refused(r);
        });
        return seen.document();
    }

    private static String checksOf(VersionRow head, long item) {
        return "/documents/" + item + "/versions/" + head.number() + "/checks";
    }
}
