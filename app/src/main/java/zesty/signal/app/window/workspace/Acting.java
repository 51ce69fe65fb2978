package zesty.signal.app.window.workspace;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import zesty.signal.core.act.Deed;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;

/** What is done about rules and outputs of the live trail: holding them safe, by hand, and what the window does when a rule turns on. JavaFX thread only. */
public final class Acting {
    private final Workspace workspace;
    private final Supplier<Trail> trail;
    private final Map<String, Integer> turned = new HashMap<>();
    private Trail seen;

    Acting(Workspace workspace, Supplier<Trail> trail) {
        this.workspace = workspace;
        this.trail = trail;
    }

    private void run(Consumer<Trail> what) {
        Trail running = trail.get();
        if (running != null) {
            what.accept(running);
        }
    }

    /** Changes what the rig in the lanes decides and drives; {@link Workspace#undo()} takes it back. */
    public void change(UnaryOperator<ActSetup> change) {
        workspace.change(rig -> rig.withAct(change.apply(rig.act())));
    }

    /** Makes all outputs safe and keeps them so. @param why in words */
    public void hold(String why) {
        run(running -> running.acts().hold(why));
    }

    /** Rules may drive outputs again. */
    public void release() {
        run(running -> running.acts().release());
    }

    /** Lets go of a latched rule. */
    public void acknowledge(String rule) {
        run(running -> running.acts().acknowledge(rule));
    }

    /** Counts points from nought again. */
    public void countAnew() {
        run(running -> running.acts().countAnew());
        turned.clear();
    }

    /** Sends a line of an output by hand. */
    public void byHand(String output, String line) {
        run(running -> running.acts().byHand(output, line));
    }

    /** The hand let go of an output. */
    public void letGo(String output) {
        run(running -> running.acts().makeSafe(output, Messages.of("workspace.released-by-hand")));
    }

    /** Sets one value after the other on an output, watching a channel; it ends safe. */
    public void plan(String output, String column, StepPlan plan) {
        run(running -> running.acts().plan(output, column, plan));
    }

    /** Ends the plan that runs. */
    public void endPlan() {
        run(running -> running.acts().endPlan());
    }

    /** Looks at a live sight: what turned on since the last look is heard, and begins a recording where it is to. */
    public void look(Snapshot live) {
        boolean fresh = trail.get() != seen;
        seen = trail.get();
        if (fresh) {
            turned.clear();
        }
        ActSetup act = live.rig().act();
        for (ActSnapshot.RuleNow rule : live.act().rules()) {
            String name = rule.rule().name();
            Integer before = turned.put(name, rule.timesOn());
            if (before == null || rule.timesOn() <= before) {
                continue;
            }
            if (act.deedsOf(name).contains(Deed.TONE)) {
                Tone.play(workspace.tasks(), Tone.HIGH);
            }
            if (act.deedsOf(name).contains(Deed.RECORD) && !live.recording().running()) {
                workspace.recordings().start(RecordingLimit.NONE);
            }
        }
    }
}
