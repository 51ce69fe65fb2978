package zesty.signal.app.window.lanes;

import java.util.List;
import zesty.signal.core.sample.Times;
import zesty.signal.engine.ChannelSnapshot;

/** Finds what somebody who points roughly means to point at. */
final class Snap {
    /** Among more samples than these under a few pixels a peak is not what was meant. */
    private static final int MOST_SAMPLES = 2000;

    private static final int FEWEST_SAMPLES = 3;

    private Snap() {}

    /** @return the moment that is nearest; NaN when none is within so many seconds */
    static double nearest(List<Double> moments, double at, double withinSeconds) {
        double best = Double.NaN;
        double apart = withinSeconds;
        for (double moment : moments) {
            if (Math.abs(moment - at) < apart) {
                apart = Math.abs(moment - at);
                best = moment;
            }
        }
        return best;
    }

    /**
     * @return the moment of the signal's highest or lowest value close by, if it is no end of that stretch; else where it crosses
     *     the middle of its values there and on either side; else {@code at}
     */
    static double onSignal(ChannelSnapshot channel, double at, double withinSeconds) {
        Times times = channel.stream().times();
        int late = channel.lateSamples();
        long first = Math.max(
                times.firstAtOrAfter(at - withinSeconds), channel.clean().start() - late);
        long last = Math.min(
                times.firstAtOrAfter(at + withinSeconds), channel.clean().end() - late);
        int n = (int) Math.max(0, Math.min(MOST_SAMPLES + 1L, last - first));
        if (n < FEWEST_SAMPLES || n > MOST_SAMPLES || !channel.clean().atHand(first + late, last + late)) {
            return at;
        }
        double[] values = new double[n];
        for (int i = 0; i < n; i++) {
            values[i] = channel.clean().value(first + late + i);
        }
        int inside = extreme(values);
        if (inside > 0) {
            return times.secondsAt(first + inside);
        }
        return crossing(channel, times, first, values, at);
    }

    /** @return index of the one that stands out, higher or lower than both ends; −1 for none */
    private static int extreme(double[] values) {
        int high = 0;
        int low = 0;
        for (int i = 1; i < values.length; i++) {
            high = values[i] > values[high] ? i : high;
            low = values[i] < values[low] ? i : low;
        }
        double first = values[0];
        double last = values[values.length - 1];
        double up = values[high] - Math.max(first, last);
        double down = Math.min(first, last) - values[low];
        return !(up > 0 || down > 0) ? -1 : up >= down ? high : low;
    }

    /** The middle is that of a stretch three times as long, so that a slope is crossed half way up. */
    private static double crossing(ChannelSnapshot channel, Times times, long first, double[] values, double at) {
        float[] range = new float[2];
        int late = channel.lateSamples();
        long from = Math.max(channel.clean().start(), first + late - values.length);
        long to = Math.min(channel.clean().end(), first + late + 2L * values.length);
        channel.clean().range(from, to, range);
        double middle = (range[0] + range[1]) / 2.0;
        for (int i = 1; i < values.length; i++) {
            double before = values[i - 1] - middle;
            double after = values[i] - middle;
            if (before < 0 && after >= 0 || before > 0 && after <= 0) {
                double t0 = times.secondsAt(first + i - 1);
                return t0 + (times.secondsAt(first + i) - t0) * before / (before - after);
            }
        }
        return at;
    }
}
