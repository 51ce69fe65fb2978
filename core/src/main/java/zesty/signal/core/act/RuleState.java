package zesty.signal.core.act;

/** A rule at work: what it is now, and for how long it was what. */
abstract class RuleState {
    /** Hears that a rule turned. */
    interface Turned {
        /** @param value behind it; NaN where none was */
        void turned(double seconds, int rule, int to, double value);
    }

    int index;
    private final Rule definition;
    final Watch watch;
    int now;
    int turns;
    boolean acknowledged;
    double turnedSeconds = Double.NEGATIVE_INFINITY;
    double sinceSeconds = Double.NaN;
    final double[] held;
    private final Turned turned;

    RuleState(int index, Rule definition, Watch watch, int states, Turned turned) {
        this.index = index;
        this.definition = definition;
        this.watch = watch;
        this.turned = turned;
        held = new double[states];
    }

    /** @return whether it decides as another one does that has not begun */
    boolean sameAs(RuleState other) {
        return definition.equals(other.definition);
    }

    void sample(double seconds, double value) {
        // Most rules look at samples; those that do not have nothing to do here.
    }

    void happened(double seconds) {
        // As above, of events.
    }

    void follow(double seconds) {
        // As above, of other rules.
    }

    void turn(double seconds, int to, double value) {
        hold(seconds);
        now = to;
        turnedSeconds = seconds;
        turns++;
        turned.turned(seconds, index, to, value);
    }

    void hold(double seconds) {
        if (sinceSeconds == sinceSeconds && now >= 0) {
            held[now] += seconds - sinceSeconds;
        }
        sinceSeconds = seconds;
    }

    boolean dead(double seconds, double deadSeconds) {
        return seconds - turnedSeconds < deadSeconds - Controller.ROUNDING_SECONDS;
    }
}
