package zesty.signal.core.act;

/** A value over and over. */
final class ValueDriver extends OutputDriver {
    final Output.ByValue setup;
    private final double share;
    double firstSeconds = Double.NaN;
    private long period;
    double newest = Double.NaN;
    private double smoothed = Double.NaN;
    private double slewed = Double.NaN;
    private double sentValue = Double.NaN;

    ValueDriver(int index, Output.ByValue setup, Controller.Listener listener) {
        super(index, setup.safe(), listener);
        this.setup = setup;
        share = setup.smoothSeconds() > 0 ? 1 - Math.exp(-setup.periodSeconds() / setup.smoothSeconds()) : 1;
    }

    @Override
    boolean sameAs(OutputDriver other) {
        return other instanceof ValueDriver one && setup.equals(one.setup);
    }

    double due() {
        return firstSeconds + period * setup.periodSeconds();
    }

    @Override
    void dueAt(double seconds) {
        if (!(seconds >= due() - Controller.ROUNDING_SECONDS)) {
            return;
        }
        double at = due();
        period++;
        if (newest != newest) {
            return;
        }
        double mapped = mapped(newest);
        smoothed = smoothed == smoothed ? smoothed + share * (mapped - smoothed) : mapped;
        double most = setup.slewPerSecond() * setup.periodSeconds();
        slewed = slewed == slewed ? slewed + Math.max(-most, Math.min(most, smoothed - slewed)) : smoothed;
        if (sentValue == sentValue && Math.abs(slewed - sentValue) < setup.deadZone()) {
            return;
        }
        sentValue = slewed;
        send(at, setup.line().replace("{value}", Decimals.upToThree(slewed)), Controller.Why.VALUE);
    }

    @Override
    void madeSafe() {
        super.madeSafe();
        sentValue = Double.NaN;
        slewed = Double.NaN;
        smoothed = Double.NaN;
        // What came before is over: only a value that comes now drives it again.
        newest = Double.NaN;
    }

    private double mapped(double in) {
        double[][] map = setup.map();
        if (map.length == 0) {
            return in;
        }
        if (in <= map[0][0]) {
            return map[0][1];
        }
        for (int i = 1; i < map.length; i++) {
            if (in <= map[i][0]) {
                double way = (in - map[i - 1][0]) / (map[i][0] - map[i - 1][0]);
                return map[i - 1][1] + way * (map[i][1] - map[i - 1][1]);
            }
        }
        return map[map.length - 1][1];
    }
}
