package mintshelf.app.api;

import com.fasterxml.jackson.annotation.JsonProperty;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.net.URI;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mintshelf.app.effect.run.PlanMoved;
import mintshelf.app.effect.run.SetAct;
import mintshelf.app.effect.run.Wish;
import mintshelf.app.ground.Actor;
import mintshelf.app.ground.Acts;
import mintshelf.app.ground.Refused;
import mintshelf.app.sight.Seen;
import mintshelf.app.use.change.ReadImpact;
import mintshelf.app.use.design.MakeDesign;
import mintshelf.app.use.design.ReadDesign;
import mintshelf.app.use.run.ActOverSet;
import mintshelf.app.use.run.ReadRuns;
import mintshelf.app.use.swap.SwapDocuments;
import mintshelf.core.base.Plan;
import mintshelf.core.change.Impact;
import mintshelf.core.reuse.Swaps;
import mintshelf.core.signoff.Decision;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Acts over sets for programs: a plan changes nothing and has a digest; a run does what the plan of that digest says. */
@RestController
@RequestMapping("/api/v1")
class RunApi {
    private static final int RUNS = 100;
    private static final int ROWS = 1000;
    private static final int MOST_LINES = 5000;

    private static final String IMPACT = "impact";
    private static final String DESIGN = "new-design";

    private final ActOverSet over;
    private final ReadRuns runs;
    private final ReadImpact impact;
    private final ChangeActs changes;
    private final Acts acts;
    private final SwapDocuments swap;
    private final ReadDesign designs;

    RunApi(
            ActOverSet over,
            ReadRuns runs,
            ReadImpact impact,
            ChangeActs changes,
            Acts acts,
            SwapDocuments swap,
            ReadDesign designs) {
        this.designs = designs;
        this.swap = swap;
        this.changes = changes;
        this.acts = acts;
        this.over = over;
        this.runs = runs;
        this.impact = impact;
    }

    /** @param old goes out, {@code now} comes in for it */
    record PairOf(
            @NotNull Long old, @NotNull @JsonProperty("new") Long now) {}

    /** A document of which is said whether the new one can take the place of the old one. */
    record Fits(@NotNull Long document, @NotNull Boolean interchangeable) {}

    /**
     * @param act move, sign, reinstate, take-up, swap, new-design; request, decide, order, start-work, carry-out; or impact, which only plans
     * @param documents of all acts but impact
     * @param lines what an impact begins with, and {@code declared} what is said of documents above
     * @param move code of the route's move
     * @param decision signed, remarked, returned or abstained
     * @param note the reason, the remark or the comment
     * @param title in short, of a request and an order; {@code cause} is the code that a request counts under
     * @param pairs what comes in for what, of a swap; {@code parents} where, all that can be written when it is left out; {@code withdraw}
     *     whether what goes out is withdrawn in the same act
     * @param design of a new design: from what, and what its things are called
     * @param until the day until which a request is deferred
     * @param above whether what stands above takes up, too
     * @param plan the digest of the plan that was seen; only runs need it
     */
    record Act(
            @NotNull String act,
            List<@NotNull Long> documents,
            @Valid List<Fits> lines,
            @Valid List<Fits> declared,
            String move,
            String decision,
            String note,
            Integer version,
            Boolean above,
            String title,
            String cause,
            String until,
            @Valid List<PairOf> pairs,
            List<@NotNull Long> parents,
            Boolean withdraw,
            @Valid DesignOf design,
            String plan) {
        mintshelf.app.store.run.Run.What what() {
            return Arrays.stream(mintshelf.app.store.run.Run.What.values())
                    .filter(w -> w.words().equals(act))
                    .findFirst()
                    .orElseThrow(() -> unknown("act", act));
        }

        List<Long> named() {
            needs("documents", documents);
            return documents;
        }

        Wish wish() {
            if (act.equals("move")) needs("move", move);
            if (act.equals("sign")) needs("decision", decision);
            if (act.equals("reinstate")) needs("version", version);
            if (act.equals("swap"))
                return Wish.swap(new Wish.Swap(swapped(), Set.of(), Set.of()), note == null ? "" : note);
            return new Wish(
                    Optional.ofNullable(move),
                    Optional.ofNullable(decision).map(Act::decision),
                    note == null ? "" : note,
                    Optional.ofNullable(version),
                    Boolean.TRUE.equals(above));
        }

        List<Swaps.Pair> swapped() {
            needs("pairs", pairs);
            return pairs.stream().map(p -> new Swaps.Pair(p.old(), p.now())).toList();
        }

        private static Decision decision(String word) {
            return Arrays.stream(Decision.values())
                    .filter(d -> lower(d).equals(word))
                    .findFirst()
                    .orElseThrow(() -> unknown("decision", word));
        }

        void needs(String field, Object value) {
            if (value == null) {
                throw Refused.because(
                        "act.field", "The act " + act + " needs “" + field + "”.", "Send it; nothing was done.");
            }
        }

        private static Refused unknown(String field, String value) {
            return Refused.because(
                    "act.unknown",
                    "There is no " + field + " “" + value + "”.",
                    "The description of this interface lists them; nothing was done.");
        }
    }

    private static String lower(Enum<?> one) {
        return one.name().toLowerCase(Locale.ROOT);
    }

    record Why(String code, String reason, String remedy) {}

    /**
     * @param verdict GOES, STAYS or CANNOT
     * @param from the stage that it leaves, and {@code to} where it goes, where it moves
     */
    record Planned(
            long document,
            String number,
            String verdict,
            String from,
            String to,
            String label,
            List<String> says,
            List<Why> refusals,
            List<Long> because) {
        /** A document that a change reaches, with the verdict of {@link mintshelf.core.change.Impact}. */
        static Planned of(ReadImpact.Row row) {
            return new Planned(
                    row.seen().spine().id(),
                    row.seen().document().number(),
                    row.node().verdict().name(),
                    null,
                    null,
                    null,
                    List.of(row.says()),
                    List.of(),
                    row.node().because());
        }

        static Planned of(Plan.Row<SetAct.PlanLine> row) {
            SetAct.PlanLine line = row.of();
            return new Planned(
                    line.seen().spine().id(),
                    line.seen().document().number(),
                    row.stand().name(),
                    line.from().orElse(null),
                    line.to().orElse(null),
                    line.label().orElse(null),
                    line.says(),
                    row.refusals().stream()
                            .map(r -> new Why(r.code(), r.reason(), r.remedy()))
                            .toList(),
                    null);
        }
    }

    /** @param opens whether a run of it would be done */
    record PlanOf(String act, String digest, boolean opens, String sentence, List<Planned> rows) {
        static PlanOf of(String act, Plan<SetAct.PlanLine> plan) {
            return new PlanOf(
                    act,
                    ActOverSet.digest(plan),
                    plan.opens(),
                    plan.sentence(),
                    plan.rows().stream().map(Planned::of).toList());
        }
    }

    /** What an act would do; changes nothing. */
    @PostMapping("/plans")
    PlanOf plan(Actor actor, @Valid @RequestBody Act act) {
        if (act.act().equals(DESIGN))
            return PlanOf.of(DESIGN, designed(actor, act).plan());
        if (act.act().equals(IMPACT)) return impact(actor, act);
        if (ChangeActs.NAMES.contains(act.act())) return changes.plan(actor, act);
        return PlanOf.of(act.act(), over.plan(actor, act.what(), items(actor, act), act.wish()));
    }

    /** What an act is over: of a swap the parents, and what goes out where it is to be withdrawn. */
    private List<Long> items(Actor actor, Act act) {
        if (!act.act().equals("swap")) return act.named();
        List<Swaps.Pair> pairs = act.swapped();
        List<Long> items =
                new ArrayList<>(act.parents() == null ? swap.written(actor, swap.both(actor, pairs)) : act.parents());
        if (Boolean.TRUE.equals(act.withdraw())) pairs.forEach(p -> items.add(p.old()));
        return items;
    }

    /** A change has no run of its own: what became of it is its paper. */
    private ResponseEntity<?> change(Actor actor, String key, Act act) {
        PlanOf now = changes.plan(actor, act);
        // Sent again under its key it is not done twice; then the plan has come true, and is another one.
        boolean seen = now.digest().equals(act.plan());
        if (!seen && !acts.isDone(actor, key))
            return ResponseEntity.status(HttpStatus.CONFLICT).body(now);
        return ResponseEntity.created(URI.create(changes.run(actor, act, key))).body(now);
    }

    /** @param wish with every number said */
    private record Designed(List<Long> items, Wish wish, Plan<SetAct.PlanLine> plan) {}

    private Designed designed(Actor actor, Act act) {
        act.needs("design", act.design());
        ReadDesign.Asked asked = act.design().asked();
        ReadDesign.View view = designs.of(actor, asked);
        Refused.unlessEmpty(view.refusals(), "design.refused", "Nothing was made.");
        List<Long> items =
                view.outline().copies().stream().map(c -> c.from().id()).toList();
        Wish wish = Wish.design(MakeDesign.said(asked.wish(), view.outline()));
        return new Designed(items, wish, over.plan(actor, act.what(), items, wish));
    }

    /** Its numbers are part of its plan: what another one took meanwhile makes it another plan. */
    private ResponseEntity<?> design(Actor actor, String key, Act act) {
        if (acts.isDone(actor, key)) {
            long done = over.begin(actor, act.what(), List.of(), Wish.NONE, Optional.empty(), key);
            return ResponseEntity.created(URI.create("/api/v1/runs/" + done)).body(of(actor, done, 0));
        }
        Designed now = designed(actor, act);
        if (!ActOverSet.digest(now.plan()).equals(act.plan()))
            return ResponseEntity.status(HttpStatus.CONFLICT).body(PlanOf.of(DESIGN, now.plan()));
        long id = over.begin(actor, act.what(), now.items(), now.wish(), Optional.empty(), key);
        return ResponseEntity.created(URI.create("/api/v1/runs/" + id)).body(of(actor, id, 0));
    }

    private PlanOf impact(Actor actor, Act act) {
        act.needs("lines", act.lines());
        Map<Long, Boolean> declared = new HashMap<>();
        if (act.declared() != null) act.declared().forEach(f -> declared.put(f.document(), f.interchangeable()));
        List<Impact.Line> lines = act.lines().stream()
                .limit(MOST_LINES)
                .map(f -> new Impact.Line(f.document(), f.interchangeable()))
                .toList();
        ReadImpact.Reach reach = impact.of(actor, lines, declared);
        String says = reach.counts().entrySet().stream()
                .map(e -> e.getValue() + " " + e.getKey().words(e.getValue()))
                .collect(Collectors.joining(", "));
        return new PlanOf(
                IMPACT,
                "",
                false,
                says + ".",
                reach.rows().stream().map(Planned::of).toList());
    }

    /** Does what a plan says: 201 with the run, or 409 with the plan that has become true meanwhile. */
    @PostMapping("/runs")
    ResponseEntity<?> run(Actor actor, @RequestHeader("Idempotency-Key") String key, @Valid @RequestBody Act act) {
        if (act.plan() == null) {
            throw Refused.because("act.plan", "A run needs the digest of its plan.", "Ask POST /plans first.");
        }
        if (ChangeActs.NAMES.contains(act.act())) return change(actor, key, act);
        if (act.act().equals(DESIGN)) return design(actor, key, act);
        try {
            long id = over.begin(actor, act.what(), items(actor, act), act.wish(), Optional.of(act.plan()), key);
            return ResponseEntity.created(URI.create("/api/v1/runs/" + id)).body(of(actor, id, 0));
        } catch (PlanMoved e) {
            return ResponseEntity.status(HttpStatus.CONFLICT).body(PlanOf.of(act.act(), e.plan()));
        }
    }

    /**
     * @param became in one word; empty while it waits
     * @param number of the version or the round that it became
     */
    record RunRow(long document, String name, String became, long number) {}

    record Report(List<RunRow> rows) {}

    /**
     * @param state WORKING, DONE or STOPPED
     * @param done rows that are done, {@code of} so many
     */
    record Run(long id, String act, String says, String state, int done, int of, String begun, Report report) {
        static Run of(mintshelf.app.store.run.Run run, Report report) {
            return new Run(
                    run.id(),
                    run.what().words(),
                    run.says(),
                    run.state().name(),
                    run.done(),
                    run.total(),
                    run.begun().toString(),
                    report);
        }
    }

    /** The person's runs, the latest first, before one of them; their reports by their own addresses. */
    @GetMapping("/runs")
    List<Run> runs(Actor actor, @RequestParam(defaultValue = "9223372036854775807") long before) {
        return runs.mine(actor, before, RUNS).stream().map(r -> Run.of(r, null)).toList();
    }

    /** A run with up to a thousand rows of its report, from one on. */
    @GetMapping("/runs/{id}")
    Run run(Actor actor, @PathVariable long id, @RequestParam(defaultValue = "0") int from) {
        return of(actor, id, Math.max(0, from));
    }

    private Run of(Actor actor, long id, int from) {
        mintshelf.app.store.run.Run run = runs.run(actor, id);
        List<mintshelf.app.store.run.Run.Row> rows = runs.rows(run, from, ROWS);
        Map<Long, Seen> seen = runs.seen(actor, rows);
        return Run.of(
                run,
                new Report(rows.stream()
                        .map(r -> new RunRow(
                                r.item(),
                                Optional.ofNullable(seen.get(r.item()))
                                        .map(s -> s.document().number())
                                        .orElse(null),
                                r.became(),
                                r.number()))
                        .toList()));
    }
}
