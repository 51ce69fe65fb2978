package zesty.signal.core.act;

/** On while nothing comes. */
final class SilenceSwitch extends RuleState {
    private final Rule.OnSamples rule;
    private final double forSeconds;
    private double lastSeconds = Double.NaN;

    SilenceSwitch(int index, Rule.OnSamples rule, double forSeconds, Turned turned) {
        super(index, rule, rule.watch(), 2, turned);
        this.rule = rule;
        this.forSeconds = forSeconds;
    }

    double due() {
        return now == 1 || lastSeconds != lastSeconds
                ? Double.POSITIVE_INFINITY
                : Math.max(
                        lastSeconds + forSeconds, turnedSeconds + rule.holds().deadSeconds());
    }

    void dueAt(double seconds) {
        if (seconds >= due() - Controller.ROUNDING_SECONDS) {
            turn(seconds, 1, Double.NaN);
        }
    }

    @Override
    void sample(double seconds, double value) {
        lastSeconds = seconds;
        boolean may = !rule.holds().latch() || acknowledged;
        if (now == 1 && may && !dead(seconds, rule.holds().deadSeconds())) {
            turn(seconds, 0, value);
            acknowledged = false;
        }
    }
}
