package zesty.signal.core.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.spectrum.EvenRecord;
import zesty.signal.core.text.Messages;

/**
 * A reader whose answer is worked out from the samples of a stretch as a whole, each time it is asked: it keeps what came,
 * up to a limit, the oldest going first. Kinds say what an answer is; pieces, gaps and spans are dealt with here. One thread.
 */
public abstract class Recorded implements Reader {
    /** So many values are kept, of all ports together: 128 MB, eight minutes of a waveform at 16 000/s. */
    private static final int MOST_VALUES = 1 << 24;

    /** An answer that lacks a part of what it was asked for is worth this at most. */
    private static final double PARTLY = 0.4;

    private int ports;
    private int most;
    private double[][] values;
    private double[] seconds = new double[1024];
    private int count;
    /** Indices at which a stretch begins anew, in order; the first sample is none. */
    private final List<Integer> breaks = new ArrayList<>();

    /** Of each sample, whether it was filled in; null while none was. */
    private boolean[] filled;

    private boolean broken;
    private long dropped;

    /** @param fewestPorts how many signals it takes at least; as many as come first are taken from then on */
    protected Recorded(int fewestPorts) {
        take(fewestPorts);
    }

    private void take(int signals) {
        ports = signals;
        most = MOST_VALUES / (ports + 1);
        values = new double[ports][seconds.length];
    }

    /**
     * A stretch of samples.
     *
     * @param ports one array a port
     * @param seconds the time of each sample
     * @param breaks indices at which samples are missing before, rising; 0 is none of them
     * @param filled which samples were filled in, not measured; null when none was
     */
    protected record Segment(double[][] ports, double[] seconds, int[] breaks, boolean[] filled) {
        public int length() {
            return seconds.length;
        }

        /** @return seconds from the first sample to the last */
        public double span() {
            return seconds.length < 2 ? 0 : seconds[seconds.length - 1] - seconds[0];
        }

        /** @return begin and end of each run without a gap, and without a missing value in any port */
        public List<int[]> runs() {
            List<int[]> runs = new ArrayList<>();
            int from = 0;
            int next = 0;
            for (int i = 0; i <= length(); i++) {
                boolean gap = next < breaks.length && breaks[next] == i;
                next += gap ? 1 : 0;
                boolean missing = i < length() && missing(i);
                if (gap || missing || i == length()) {
                    if (i > from) {
                        runs.add(new int[] {from, i});
                    }
                    from = missing ? i + 1 : i;
                }
            }
            return runs;
        }

        private boolean missing(int i) {
            for (double[] port : ports) {
                if (port[i] != port[i]) {
                    return true;
                }
            }
            return false;
        }

        /** @return whether a sample was measured, in all ports */
        public boolean measured(int i) {
            return !(filled != null && filled[i]) && !missing(i);
        }

        /** @return the same on an even grid, where its samples come unevenly; itself where they come evenly */
        public Segment even(double rateHz) {
            EvenRecord even = EvenRecord.of(ports, seconds, runs(), this::measured, rateHz);
            if (even.unevenness() == 0) {
                return this;
            }
            double[] when = new double[even.axes()[0].length];
            int[] begins = new int[even.runs().size()];
            for (int r = 0; r < begins.length; r++) {
                int[] run = even.runs().get(r);
                begins[r] = run[0];
                for (int i = run[0]; i < run[1]; i++) {
                    when[i] = even.begins()[r] + (i - run[0]) / rateHz;
                }
            }
            return new Segment(even.axes(), when, Arrays.stream(begins).skip(1).toArray(), null);
        }

        /** @return the values of a port that were measured */
        public double[] present(int port) {
            double[] there = new double[length()];
            int n = 0;
            for (int i = 0; i < there.length; i++) {
                double value = ports[port][i];
                there[n] = value;
                n += value == value && !(filled != null && filled[i]) ? 1 : 0;
            }
            return Arrays.copyOf(there, n);
        }
    }

    /** @return the answer for a stretch; it may be empty */
    protected abstract Reading read(Segment stretch);

    @Override
    public final void accept(double[][] signals, int length, TimeBase time) {
        accept(signals, length, time, null);
    }

    @Override
    public final void accept(double[][] signals, int length, TimeBase time, boolean[] notMeasured) {
        if (notMeasured != null && filled == null) {
            filled = new boolean[seconds.length];
        }
        if (count == 0 && signals.length != ports) {
            take(signals.length);
        }
        if (broken && count > 0 && length > 0) {
            breaks.add(count);
        }
        broken = broken && length == 0;
        for (int from = 0; from < length; ) {
            if (count == most) {
                drop();
            }
            if (count == seconds.length) {
                int more = Math.min(most, count * 2);
                seconds = Arrays.copyOf(seconds, more);
                filled = filled == null ? null : Arrays.copyOf(filled, more);
                for (int p = 0; p < ports; p++) {
                    values[p] = Arrays.copyOf(values[p], more);
                }
            }
            int some = Math.min(length - from, seconds.length - count);
            for (int i = 0; i < some; i++) {
                seconds[count + i] = time.secondsAt(from + i);
            }
            if (filled != null) {
                for (int i = 0; i < some; i++) {
                    filled[count + i] = notMeasured != null && notMeasured[from + i];
                }
            }
            for (int p = 0; p < ports; p++) {
                System.arraycopy(signals[p], from, values[p], count, some);
            }
            count += some;
            from += some;
        }
    }

    /** Lets go of the older half. */
    private void drop() {
        int gone = count / 2;
        System.arraycopy(seconds, gone, seconds, 0, count - gone);
        if (filled != null) {
            System.arraycopy(filled, gone, filled, 0, count - gone);
        }
        for (double[] port : values) {
            System.arraycopy(port, gone, port, 0, count - gone);
        }
        count -= gone;
        dropped += gone;
        breaks.removeIf(at -> at <= gone);
        breaks.replaceAll(at -> at - gone);
    }

    @Override
    public final void gap() {
        broken = true;
    }

    @Override
    public final void finish() {
        // Nothing is under way: what is asked is worked out from what came.
    }

    @Override
    public final Reading reading(double fromSeconds, double toSeconds) {
        int from = lowerBound(fromSeconds);
        int to = lowerBound(Math.nextUp(toSeconds));
        double[][] part = new double[ports][];
        for (int p = 0; p < ports; p++) {
            part[p] = Arrays.copyOfRange(values[p], from, Math.max(from, to));
        }
        int[] within = breaks.stream()
                .mapToInt(at -> at - from)
                .filter(at -> at > 0 && at < to - from)
                .toArray();
        boolean[] made = filled == null ? null : Arrays.copyOfRange(filled, from, Math.max(from, to));
        Reading reading = read(new Segment(part, Arrays.copyOfRange(seconds, from, Math.max(from, to)), within, made));
        return dropped > 0 && fromSeconds < seconds[0] ? withoutTheOldest(reading) : reading;
    }

    /** What was let go is not in the answer, and that is said with it. */
    private Reading withoutTheOldest(Reading reading) {
        return reading.doubted(PARTLY, Messages.of("read.only-the-newest-samples-are-in-it", count, dropped));
    }

    private int lowerBound(double at) {
        int low = 0;
        int high = count;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (seconds[middle] < at) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** @return how many samples had to be let go, the oldest first */
    protected final long dropped() {
        return dropped;
    }
}
