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
     * @param mark samples of one run without a gap. @param perTurn marks a turn
     * @return each whole turn as begin and end
     */
    static Turns of(double[] mark, int perTurn) {
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
        return parted(edges, perTurn);
    }

    private static Turns parted(List<Double> edges, int perTurn) {
        if (edges.size() < 2) {
            return new Turns(List.of(), 0, 0);
        }
        double[] intervals = new double[edges.size() - 1];
        for (int i = 0; i < intervals.length; i++) {
            intervals[i] = edges.get(i + 1) - edges.get(i);
        }
        double usual = Order.median(intervals);
        List<Double> kept = new ArrayList<>(List.of(edges.get(0)));
        int bounced = 0;
        for (double edge : edges.subList(1, edges.size())) {
            if (edge - kept.get(kept.size() - 1) < BOUNCE * usual) {
                bounced++;
            } else {
                kept.add(edge);
            }
        }
        List<double[]> whole = new ArrayList<>();
        int skipped = 0;
        int from = 0;
        for (int i = 1; i < kept.size(); i++) {
            // Compared with its neighbours, since a speed may change much over a record.
            double before = i > 1 ? kept.get(i - 1) - kept.get(i - 2) : Double.NaN;
            double own = kept.get(i) - kept.get(i - 1);
            double after = i + 1 < kept.size() ? kept.get(i + 1) - kept.get(i) : Double.NaN;
            double near =
                    before == before && after == after ? Math.min(before, after) : before == before ? before : after;
            if (own > SKIP * near) {
                skipped++;
                from = i;
            } else if (i - from == perTurn) {
                whole.add(new double[] {kept.get(from), kept.get(i)});
                from = i;
            }
        }
        return new Turns(whole, bounced, skipped);
    }
}
