package mintshelf.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mintshelf.app.effect.References;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Trials;
import mintshelf.app.sight.Trials.Tried;
import mintshelf.app.store.document.VersionRow;
import mintshelf.app.store.document.VersionStore;
import mintshelf.app.store.notice.NoticeStore;
import mintshelf.app.store.structure.Reference;
import mintshelf.app.use.hold.CheckIn;
import mintshelf.app.use.trial.AdoptTrial;
import mintshelf.app.use.trial.AskOpinions;
import mintshelf.app.use.trial.DropTrial;
import mintshelf.app.use.trial.PlanAdoption;
import mintshelf.app.use.trial.ReadTrials;
import mintshelf.app.use.trial.StartTrial;
import mintshelf.app.use.trial.TrialHolds;
import mintshelf.core.document.VersionName;
import mintshelf.core.hold.Became;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;

/** Trials of a house: started, worked on and ended by its people. */
class InTrial {
    final Server server = Server.shared();
    final Actor priya = server.actor("priya");
    final Actor tomasz = server.actor("tomasz");
    final Actor hedda = server.actor("hedda");
    final Actor ines = server.actor("ines");
    final long shelf = server.shelf();
    final String mark = Server.key().substring(0, 6);
    final StartTrial start = server.bean(StartTrial.class);
    final TrialHolds holds = server.bean(TrialHolds.class);
    final AskOpinions ask = server.bean(AskOpinions.class);
    final DropTrial drop = server.bean(DropTrial.class);
    final PlanAdoption plans = server.bean(PlanAdoption.class);
    final AdoptTrial adopt = server.bean(AdoptTrial.class);
    final ReadTrials read = server.bean(ReadTrials.class);
    final Trials trials = server.bean(Trials.class);

    long sheet(String name, byte[] bytes) {
        return server.file("priya", shelf, "drawing", mark + " " + name + ".dxf", mark + "-" + name, bytes, false);
    }

    /** Of a kind that is released by hand. */
    long plain(String name, byte[] bytes) {
        return server.file("priya", shelf, Server.PLAIN, mark + " " + name + ".dxf", mark + "-" + name, bytes, false);
    }

    long begin(Actor actor, String what, Long... items) {
        String to = start.start(actor, List.of(items), what, Server.key());
        return Long.parseLong(to.substring("/trials/".length()));
    }

    Tried tried(long trial, long item) {
        return trials.whole(ines, trial).lines().stream()
                .filter(t -> t.item() == item)
                .findFirst()
                .orElseThrow();
    }

    Became bring(Actor actor, long trial, long item, byte[] bytes) {
        return back(
                actor, item, tried(trial, item).line().holder().orElseThrow().hold(), bytes);
    }

    Became back(Actor actor, long item, long hold, byte[] bytes) {
        String token = server.bring(
                actor.name().split(" ")[0].toLowerCase(java.util.Locale.ROOT),
                server.document(item).fileName(),
                bytes);
        return server.bean(CheckIn.class)
                .take(actor, List.of(new CheckIn.Row(item, token, hold)), Server.key(), "tried", false)
                .get(0);
    }

    /** Checks out on the trial, and in again. */
    Became change(Actor actor, long trial, long item, byte[] bytes) {
        holds.take(actor, trial, List.of(item), Server.key(), "", "");
        return bring(actor, trial, item, bytes);
    }

    void changeMain(long item, byte[] bytes) {
        server.checkOut("priya", item);
        server.checkIn("priya", item, bytes, false);
    }

    PlanAdoption.Plan plan(long trial) {
        return plans.plan(priya, trial);
    }

    AdoptTrial.Choice all(PlanAdoption.Plan plan) {
        return new AdoptTrial.Choice(
                plan.rows().stream()
                        .filter(PlanAdoption.Row::isProposed)
                        .map(r -> r.tried().item())
                        .collect(Collectors.toSet()),
                plan.rows().stream()
                        .collect(Collectors.toMap(
                                r -> r.tried().item(),
                                r -> r.differences().stream()
                                        .filter(d -> d.isOpen())
                                        .map(d -> d.difference().number())
                                        .collect(Collectors.toSet()))),
                List.of(),
                "",
                plan.shown());
    }

    VersionRow version(long item, String name) {
        return server.bean(VersionStore.class)
                .version(item, VersionName.of(name).orElseThrow())
                .orElseThrow();
    }

    List<Reference> refersTo(VersionRow version) {
        return server.bean(References.class).of(version.id());
    }

    List<String> notices(Actor actor) {
        return server.bean(NoticeStore.class).open(actor.person(), 20).stream()
                .map(NoticeStore.Notice::says)
                .toList();
    }

    /** A trial of a drawing with one version, held again by the data manager; its address. */
    static String begun(Server server, long item) {
        Actor ines = server.actor("ines");
        String address = server.bean(StartTrial.class).start(ines, List.of(item), "tried", Server.key());
        long trial = Long.parseLong(address.substring("/trials/".length()));
        TrialHolds holds = server.bean(TrialHolds.class);
        holds.take(ines, trial, List.of(item), Server.key(), "", "");
        long hold = server.bean(Trials.class)
                .whole(ines, trial)
                .first()
                .line()
                .holder()
                .orElseThrow()
                .hold();
        String token =
                server.bring("ines", server.document(item).fileName(), Review.sheet("TRIED-" + item + " " + trial));
        server.bean(CheckIn.class)
                .take(ines, List.of(new CheckIn.Row(item, token, hold)), Server.key(), "tried", false);
        holds.take(ines, trial, List.of(item), Server.key(), "", "");
        return address;
    }

    static String code(ThrowingCallable act) {
        try {
            act.call();
        } catch (Refused e) {
            return e.refusal().code();
        } catch (Throwable e) {
            throw new AssertionError(e);
        }
        return "";
    }

    static Optional<String> says(Became became) {
        return Optional.of(became.fate().word() + " " + became.number());
    }

    static void same(byte[] a, byte[] b) {
        assertThat(Arrays.equals(a, b)).isTrue();
    }
}
