package zesty.signal.engine;

import java.util.List;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Decision;

/**
 * What is decided and driven at one moment.
 *
 * @param rules in the rig's order
 * @param outputs in the rig's order
 * @param held why all outputs are held safe; empty where they are not
 * @param plan the one that runs, or that ran last; null for none
 * @param log the newest decisions, oldest first, at seconds of the trail
 */
public record ActSnapshot(List<RuleNow> rules, List<OutputNow> outputs, String held, List<Decision> log, PlanNow plan) {
    /** What a plan ended by that went to its end. */
    public static final String DONE = Messages.of("engine.done");

    public static final ActSnapshot NONE = new ActSnapshot(List.of(), List.of(), "", List.of(), null);

    public ActSnapshot {
        rules = List.copyOf(rules);
        outputs = List.copyOf(outputs);
        log = List.copyOf(log);
    }

    /**
     * A rule at one moment.
     *
     * @param rule as it is in force
     * @param state 0 off, 1 on; of bands the band's number, −1 before its first sample
     * @param sinceSeconds when it turned last, in s of the trail; NaN for never
     * @param turns how often it has turned, on and off
     * @param timesOn how often it has turned on
     * @param onSeconds for how long it has been on in all
     * @param value of what it watches, the newest; NaN for none yet
     * @param found whether anything has come of what it watches
     */
    public record RuleNow(
            Rule rule,
            int state,
            double sinceSeconds,
            int turns,
            int timesOn,
            double onSeconds,
            double value,
            boolean found) {
        public boolean isOn() {
            return state == 1 && !(rule instanceof Rule.InBands);
        }
    }

    /**
     * An output at one moment.
     *
     * @param line what its board has of it, or would have in a dry run; empty while it was never sent anything
     * @param safe whether that is the safe line, or nothing
     * @param drives whether its lines are sent; else it is a dry run
     * @param sinceSeconds since when it is not safe, in s of the trail; NaN while it is
     * @param answer what the board said to the line; empty for nothing yet
     * @param trouble why a line was not sent or not answered, in words; empty for none
     */
    public record OutputNow(
            Output output,
            String line,
            boolean safe,
            boolean drives,
            double sinceSeconds,
            String answer,
            String trouble) {}

    /**
     * A plan of settings at one moment.
     *
     * @param output that it sets. @param column that it watches
     * @param phase index of the setting it is at
     * @param leftSeconds of that setting
     * @param ended why it is over, "done" where it went through; empty while it runs
     * @param seconds when it was looked at, with {@code input} as it was set and {@code response}; empty while it runs
     */
    public record PlanNow(
            String output,
            String column,
            StepPlan plan,
            int phase,
            double leftSeconds,
            String ended,
            double[] seconds,
            double[] input,
            double[] response) {}

    /** @return whether any output that is sent for true is not safe */
    public boolean anyOn() {
        return outputs.stream().anyMatch(one -> one.drives() && !one.safe());
    }
}
