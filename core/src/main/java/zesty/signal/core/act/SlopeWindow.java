package zesty.signal.core.act;

/**
 * The least-squares slope of the samples of the last seconds, by running sums about an origin that moves along, so that nothing of long
 * streams is lost in rounding. The window is open at its old end: (t − length, t].
 */
final class SlopeWindow {
    /** Sums are made anew after so many samples: what adding and taking away has rounded is then gone. */
    private static final int RENEW = 4096;

    private final double length;
    private double[] times = new double[64];
    private double[] values = new double[64];
    private int from;
    private int to;
    private int steps;
    private double originSeconds;
    private double originValue;
    private double st;
    private double sx;
    private double stt;
    private double stx;

    SlopeWindow(double lengthSeconds) {
        length = lengthSeconds;
    }

    /** @return the slope with this sample in it; NaN while there is but one, or no time passes */
    double add(double t, double x) {
        if (to == times.length) {
            room();
        }
        times[to] = t;
        values[to++] = x;
        while (times[from] <= t - length + Controller.ROUNDING_SECONDS) {
            count(times[from], values[from], -1);
            from++;
        }
        if (++steps % RENEW == 1 || to - from == 1) {
            renew();
        } else {
            count(t, x, 1);
        }
        int n = to - from;
        double spread = n * stt - st * st;
        return n < 2 || !(spread > 0) ? Double.NaN : (n * stx - st * sx) / spread;
    }

    private void renew() {
        originSeconds = times[from];
        originValue = values[from];
        st = sx = stt = stx = 0;
        for (int i = from; i < to; i++) {
            count(times[i], values[i], 1);
        }
    }

    private void count(double t, double x, int sign) {
        double dt = t - originSeconds;
        double dx = x - originValue;
        st += sign * dt;
        sx += sign * dx;
        stt += sign * dt * dt;
        stx += sign * dt * dx;
    }

    private void room() {
        int n = to - from;
        int size = Math.max(64, n > times.length / 2 ? 2 * times.length : times.length);
        double[] t = new double[size];
        double[] x = new double[size];
        System.arraycopy(times, from, t, 0, n);
        System.arraycopy(values, from, x, 0, n);
        times = t;
        values = x;
        from = 0;
        to = n;
    }
}
