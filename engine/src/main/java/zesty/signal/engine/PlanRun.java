package zesty.signal.engine;

import java.util.Arrays;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A plan of settings at work on an output: sets one after the other, and ends early where it must. Trail's thread only. */
final class PlanRun {
    /** What is watched has settled when over so long it moved by less than a share of what it has moved in all, or than its noise. */
    private static final double SETTLED_SECONDS = 10;

    private static final double SETTLED_SHARE = 0.02;
    private static final int MOST_ROWS = 1 << 18;

    /** Sends and tells. */
    interface Effects {
        /** A setting, again and again while it holds. */
        void set(double value);

        /** A setting begins. */
        void began(double value);
    }

    final String output;
    final String column;
    private final StepPlan plan;
    private final Effects effects;
    private double[] seconds = new double[1024];
    private double[] input = new double[1024];
    private double[] response = new double[1024];
    private int rows;
    private int phase = -1;
    private double phaseSeconds = Double.NaN;
    private double nowSeconds = Double.NaN;
    private String ended = "";

    PlanRun(String output, String column, StepPlan plan, Effects effects) {
        this.output = output;
        this.column = column;
        this.plan = plan;
        this.effects = effects;
    }

    boolean isOver() {
        return !ended.isEmpty();
    }

    /** @param why in words */
    void end(String why) {
        if (!isOver()) {
            ended = why;
        }
    }

    /** Takes what is watched, row by row. */
    void row(double at, double value) {
        if (isOver() || value != value) {
            return;
        }
        if (phase >= 0) {
            keep(at, value);
        }
        if (value > plan.stopAbove() || value < plan.stopBelow()) {
            boolean above = value > plan.stopAbove();
            end(Messages.of(
                    "engine.stopped",
                    Digits.about(value, 4),
                    (above ? Messages.of("engine.is-above") : Messages.of("engine.is-below")),
                    Digits.exact(above ? plan.stopAbove() : plan.stopBelow())));
        }
        tick(at);
    }

    /** Time passes. */
    void tick(double at) {
        if (isOver()) {
            return;
        }
        nowSeconds = at;
        if (phase < 0 || over(at)) {
            phase++;
            if (phase == plan.phases().size()) {
                end(ActSnapshot.DONE);
                return;
            }
            phaseSeconds = at;
            effects.began(plan.phases().get(phase).value());
        }
        effects.set(plan.phases().get(phase).value());
    }

    private boolean over(double at) {
        StepPlan.Phase now = plan.phases().get(phase);
        double held = at - phaseSeconds;
        return held >= now.seconds() || now.settled() && held > 2 * SETTLED_SECONDS && settled(at);
    }

    /** The means of the last two stretches differ by little. */
    private boolean settled(double at) {
        double late = mean(at - SETTLED_SECONDS, at);
        double before = mean(at - 2 * SETTLED_SECONDS, at - SETTLED_SECONDS);
        double[] range = range();
        return Math.abs(late - before) < SETTLED_SHARE * (range[1] - range[0]);
    }

    private double mean(double from, double to) {
        double sum = 0;
        int n = 0;
        for (int i = rows - 1; i >= 0 && seconds[i] > from; i--) {
            if (seconds[i] <= to) {
                sum += response[i];
                n++;
            }
        }
        return sum / n;
    }

    private double[] range() {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < rows; i++) {
            low = Math.min(low, response[i]);
            high = Math.max(high, response[i]);
        }
        return new double[] {low, high};
    }

    private void keep(double at, double value) {
        if (rows == MOST_ROWS) {
            // Every other one is enough of so long a run.
            rows /= 2;
            for (int i = 0; i < rows; i++) {
                seconds[i] = seconds[2 * i];
                input[i] = input[2 * i];
                response[i] = response[2 * i];
            }
        } else if (rows == seconds.length) {
            seconds = Arrays.copyOf(seconds, 2 * rows);
            input = Arrays.copyOf(input, 2 * rows);
            response = Arrays.copyOf(response, 2 * rows);
        }
        seconds[rows] = at;
        input[rows] = plan.phases().get(phase).value();
        response[rows++] = value;
    }

    /** @return what there is to see of it */
    ActSnapshot.PlanNow now() {
        boolean over = isOver();
        int at = Math.max(0, Math.min(phase, plan.phases().size() - 1));
        return new ActSnapshot.PlanNow(
                output,
                column,
                plan,
                at,
                over || phase < 0 ? 0 : Math.max(0, plan.phases().get(at).seconds() - (nowSeconds - phaseSeconds)),
                ended,
                over ? Arrays.copyOf(seconds, rows) : new double[0],
                over ? Arrays.copyOf(input, rows) : new double[0],
                over ? Arrays.copyOf(response, rows) : new double[0]);
    }
}
