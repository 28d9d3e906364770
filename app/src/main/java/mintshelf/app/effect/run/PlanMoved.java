package mintshelf.app.effect.run;

import mintshelf.core.base.Plan;

/** Carries the plan that has become true meanwhile out of an act that was asked for with another one; nothing was done. */
public final class PlanMoved extends RuntimeException {
    private final transient Plan<SetAct.PlanLine> plan;

    public PlanMoved(Plan<SetAct.PlanLine> plan) {
        super("The plan is another one by now", null, false, false);
        this.plan = plan;
    }

    public Plan<SetAct.PlanLine> plan() {
        return plan;
    }
}
