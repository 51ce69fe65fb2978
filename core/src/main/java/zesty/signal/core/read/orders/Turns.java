package zesty.signal.core.read.orders;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.sample.Order;

/**
 * Turns of a shaft between marks of a tachometer: each begins at a rising edge, whose time is found between two samples.
 *
 * @param starts of whole turns, in samples from the beginning of a run, with a fraction. @param ends of them
 * @param bounced edges too soon after one before, left out. @param skipped intervals so long that a mark is missing, left out
 */
record Turns(List<double[]> whole, int bounced, int skipped) {
    /** Edges are told at the middle of the mark's range, with this share of it to come back before the next counts. */
    private static final double HYSTERESIS = 0.2;

    private static final double LOW = 0.02;
    private static final double HIGH = 0.98;
    /** Sooner than this share of a usual interval is a bounce; later than its inverse a mark is missing. */
    private static final double BOUNCE = 0.55;

    private static final double SKIP = 1.6;

    /**
     * @param mark samples of one run without a gap. @param seconds of them. @param perTurn marks a turn
     * @return each whole turn as begin and end
     */
    static Turns of(double[] mark, double[] seconds, int perTurn) {
        double low = Order.quantile(mark, LOW);
        double high = Order.quantile(mark, HIGH);
        if (!(high > low)) {
            // A short mark may be there for less than one sample in fifty.
            low = Order.quantile(mark, 0);
            high = Order.quantile(mark, 1);
        }
        List<Double> edges = new ArrayList<>();
        double middle = (low + high) / 2;
        double back = middle - HYSTERESIS * (high - low);
        boolean up = mark.length > 0 && mark[0] >= middle;
        for (int i = 1; high > low && i < mark.length; i++) {
            if (!up && mark[i] >= middle) {
                up = true;
                edges.add(i - 1 + (middle - mark[i - 1]) / (mark[i] - mark[i - 1]));
            } else if (up && mark[i] < back) {
                up = false;
            }
        }
        return parted(edges, edges.stream().map(at -> between(seconds, at)).toList(), perTurn);
    }

    /** @return what an array has at a place between two of its own, on the straight line */
    static double between(double[] x, double at) {
        int left = (int) Math.max(0, Math.min(x.length - 2, Math.floor(at)));
        return x[left] + (at - left) * (x[left + 1] - x[left]);
    }

    /** @param edges in samples. @param seconds of them */
    private static Turns parted(List<Double> edges, List<Double> seconds, int perTurn) {
        if (edges.size() < 2) {
            return new Turns(List.of(), 0, 0);
        }
        double[] intervals = new double[edges.size() - 1];
        for (int i = 0; i < intervals.length; i++) {
            intervals[i] = seconds.get(i + 1) - seconds.get(i);
        }
        double usual = Order.median(intervals);
        List<Integer> kept = new ArrayList<>(List.of(0));
        int bounced = 0;
        for (int i = 1; i < edges.size(); i++) {
            if (seconds.get(i) - seconds.get(kept.get(kept.size() - 1)) < BOUNCE * usual) {
                bounced++;
            } else {
                kept.add(i);
            }
        }
        double[] at = kept.stream().mapToDouble(seconds::get).toArray();
        List<double[]> whole = new ArrayList<>();
        int skipped = 0;
        int from = 0;
        for (int i = 1; i < at.length; i++) {
            // Compared with its neighbours, since a speed may change much over a record.
            double before = i > 1 ? at[i - 1] - at[i - 2] : Double.NaN;
            double own = at[i] - at[i - 1];
            double after = i + 1 < at.length ? at[i + 1] - at[i] : Double.NaN;
            double near =
                    before == before && after == after ? Math.min(before, after) : before == before ? before : after;
            if (own > SKIP * near) {
                skipped++;
                from = i;
            } else if (i - from == perTurn) {
                whole.add(new double[] {edges.get(kept.get(from)), edges.get(kept.get(i))});
                from = i;
            }
        }
        return new Turns(whole, bounced, skipped);
    }
}
