package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * What a fit of a first order with dead time proposes for holding a value, and what it expects of it, simulated on the fit before anything
 * is tried.
 *
 * @param gain change of what is watched for one unit of the output, {@code tau} and {@code dead} in s
 */
public record LoopProposal(double gain, double tau, double dead) {
    private static final int STEPS_A_DEAD_TIME = 40;
    private static final int LEAST_STEPS_A_TAU = 200;
    private static final int LONGEST_TAUS = 30;
    /** Settled is within this share of the step. */
    private static final double SETTLED = 0.02;

    /** How proportional and integral terms are chosen. */
    public enum Temper {
        /** J. G. Ziegler and N. B. Nichols 1942, "Optimum settings for automatic controllers": by the reaction curve. */
        QUICK(Messages.of("act.quick")),
        /** S. Skogestad 2003, "Simple analytic rules for model reduction and PID controller tuning", with τc = the dead time. */
        CALM(Messages.of("act.calm"));

        private final String words;

        Temper(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Proportional and integral terms with what is expected of a step of the wanted value.
     *
     * @param proportional output for one unit of error. @param integralSeconds in which the integral adds as much again
     * @param overshoot beyond the wanted value, as a share of the step
     * @param settledSeconds until it stays within 2 %; NaN where it does not
     */
    public record Terms(
            Temper temper, double proportional, double integralSeconds, double overshoot, double settledSeconds) {}

    /**
     * Switching between two settings, what is expected once it swings.
     *
     * @param swing from lowest to highest, in the unit of what is watched
     * @param periodSeconds from one switching on to the next; NaN where it does not swing
     */
    public record OnOff(double hysteresis, double swing, double periodSeconds) {}

    /** @throws IllegalArgumentException when nothing can be held by such a thing: no gain, or no time */
    public LoopProposal {
        if (gain == 0 || !Double.isFinite(gain) || !(tau > 0) || !(dead >= 0)) {
            throw new IllegalArgumentException(Messages.of("act.a-gain-other-than-0-and-a-time", gain, tau, dead));
        }
    }

    /** A dead time shorter than a twentieth of the time constant is the sampling's: nothing is quicker than that. */
    private double delay() {
        return Math.max(dead, tau / 20);
    }

    /** @return the terms of a temper, tried on the fit */
    public Terms terms(Temper temper) {
        double theta = delay();
        double proportional = temper == Temper.QUICK ? 0.9 * tau / (gain * theta) : tau / (gain * 2 * theta);
        double integral = temper == Temper.QUICK ? 3.33 * theta : Math.min(tau, 8 * theta);
        double step = Math.min(theta / STEPS_A_DEAD_TIME, tau / LEAST_STEPS_A_TAU);
        int n = (int) (LONGEST_TAUS * (tau + theta) / step);
        double[] late = new double[Math.max(1, (int) Math.round(theta / step))];
        double y = 0;
        double sum = 0;
        double highest = 0;
        double settled = 0;
        for (int i = 0; i < n; i++) {
            double error = 1 - y;
            sum += error * step / integral;
            int slot = i % late.length;
            double u = late[slot];
            late[slot] = proportional * (error + sum);
            y += step / tau * (gain * u - y);
            highest = Math.max(highest, y);
            settled = Math.abs(1 - y) > SETTLED ? (i + 1) * step : settled;
        }
        boolean rests = settled < 0.9 * n * step;
        return new Terms(temper, proportional, integral, Math.max(0, highest - 1), rests ? settled : Double.NaN);
    }

    /** @return both, the quick one first */
    public List<Terms> both() {
        List<Terms> both = new ArrayList<>();
        for (Temper temper : Temper.values()) {
            both.add(terms(temper));
        }
        return both;
    }

    /**
     * Switching on below and off above what is wanted.
     *
     * @param base what is watched comes to with the output off. @param wanted between base and base + gain · on
     * @param on the output's setting when on
     * @param hysteresis from switching on to switching off
     */
    public OnOff onOff(double base, double wanted, double on, double hysteresis) {
        double step = Math.min(delay() / STEPS_A_DEAD_TIME, tau / LEAST_STEPS_A_TAU);
        double[] late = new double[Math.max(1, (int) Math.round(delay() / step))];
        int n = (int) (LONGEST_TAUS * (tau + delay()) / step);
        double sign = Math.signum(gain * on);
        double y = base;
        boolean running = true;
        double low = Double.NaN;
        double high = Double.NaN;
        double first = Double.NaN;
        double last = Double.NaN;
        int turns = 0;
        for (int i = 0; i < n; i++) {
            double away = sign * (wanted - y);
            boolean was = running;
            running = running ? away > -hysteresis / 2 : away >= hysteresis / 2;
            int slot = i % late.length;
            double u = late[slot];
            late[slot] = running ? on : 0;
            y += step / tau * (base + gain * u - y);
            // The first half is the way there.
            if (i > n / 2) {
                low = !(y >= low) ? y : low;
                high = !(y <= high) ? y : high;
                if (running && !was) {
                    turns++;
                    first = Double.isNaN(first) ? i * step : first;
                    last = i * step;
                }
            }
        }
        return new OnOff(hysteresis, high - low, turns > 1 ? (last - first) / (turns - 1) : Double.NaN);
    }
}
