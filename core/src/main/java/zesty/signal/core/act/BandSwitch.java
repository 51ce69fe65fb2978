package zesty.signal.core.act;

/** The number of a band. */
final class BandSwitch extends RuleState {
    private final Rule.InBands rule;
    private int aimedAt = -1;
    private double aimedSince;

    BandSwitch(int index, Rule.InBands rule, Turned turned) {
        super(index, rule, rule.watch(), rule.edges().length + 1, turned);
        this.rule = rule;
        now = -1;
    }

    @Override
    void sample(double seconds, double value) {
        double[] edges = rule.edges();
        if (now < 0) {
            int band = 0;
            while (band < edges.length && value >= edges[band]) {
                band++;
            }
            hold(seconds);
            now = band;
            return;
        }
        double half = rule.hysteresis() / 2;
        int to = now;
        while (to < edges.length && value >= edges[to] + half) {
            to++;
        }
        while (to > 0 && value < edges[to - 1] - half) {
            to--;
        }
        if (to == now) {
            aimedAt = -1;
            return;
        }
        if (to != aimedAt) {
            aimedAt = to;
            aimedSince = seconds;
        }
        if (seconds - aimedSince >= rule.leastSeconds() - Controller.ROUNDING_SECONDS) {
            turn(seconds, to, value);
            aimedAt = -1;
        }
    }
}
