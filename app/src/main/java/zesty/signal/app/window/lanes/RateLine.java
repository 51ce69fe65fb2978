package zesty.signal.app.window.lanes;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ReaderSnapshot;

/**
 * Moments that stand too close for a seed each, as what there is to see of them from so far: how many a minute. Pure
 * numbers; pixels are painted by others.
 */
final class RateLine {
    /** From so many on, and nearer to each other than this on average, in pixels, they are a rate. */
    private static final int FEWEST = 24;

    private static final double CROWDED = 7;
    /** A rate is taken over what lies so far to either side, in pixels, of this many moments at least. */
    private static final double REACH = 9;

    private static final int LEAST = 4;

    private final double[] perMinute;
    private final String kind;
    private double low = Double.POSITIVE_INFINITY;
    private double high = Double.NEGATIVE_INFINITY;

    private RateLine(double[] perMinute, String kind) {
        this.perMinute = perMinute;
        this.kind = kind;
        for (double each : perMinute) {
            low = each < low ? each : low;
            high = each > high ? each : high;
        }
    }

    /** @return the rate over the columns in sight; null where the moments have room enough, or are none */
    static RateLine of(ReaderSnapshot reader, ColumnEdges edges, int width) {
        List<Event> events = reader.events();
        double[] x = new double[events.size()];
        double[] seconds = new double[events.size()];
        String kind = "";
        int n = 0;
        for (Event event : events) {
            if (event.lasts() || !event.believed()) {
                continue;
            }
            double at = edges.pixelOf(event.startSeconds() + reader.lateSeconds());
            if (at >= 0 && at <= width) {
                x[n] = at;
                seconds[n++] = event.startSeconds();
                kind = kind.isEmpty() ? event.kind() : kind;
            }
        }
        if (n < FEWEST || (x[n - 1] - x[0]) / (n - 1) >= CROWDED) {
            return null;
        }
        double[] rates = new double[width];
        int first = 0;
        int last = 0;
        for (int column = 0; column < width; column++) {
            while (first < n && x[first] < column - REACH) {
                first++;
            }
            while (last < n && x[last] <= column + REACH) {
                last++;
            }
            rates[column] = last - first < LEAST ? Double.NaN : rate(seconds, first, last);
        }
        return new RateLine(rates, kind);
    }

    /** The usual time from one to the next: a hole where none was believed is no slow stretch. */
    private static double rate(double[] seconds, int first, int last) {
        double[] apart = new double[last - first - 1];
        for (int i = 0; i < apart.length; i++) {
            apart[i] = seconds[first + i + 1] - seconds[first + i];
        }
        Arrays.sort(apart);
        double middle = apart[apart.length / 2];
        return middle > 0 ? 60 / middle : Double.NaN;
    }

    double at(int column) {
        return perMinute[column];
    }

    /** @return the lower end of a range that the line lies in, in whole tens */
    double low() {
        return 10 * Math.floor(low / 10);
    }

    /** @return the upper end */
    double high() {
        return Math.max(low() + 10, 10 * Math.ceil(high / 10));
    }

    /** @return what the line is, such as "beats a minute, 60 to 90" */
    String words() {
        return Messages.of("lanes.s-a-minute-to", kind, (long) low(), (long) high());
    }
}
