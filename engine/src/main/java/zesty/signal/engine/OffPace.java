package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Whether samples come faster or slower than at the rate they are read at, as of a board that was told to while it was recorded: what is
 * read of frequencies is wrong there. Of much slower ones some are missing, and that is told instead. One thread.
 */
final class OffPace {
    /** A stretch of so many samples, and so long, tells its rate, also where the times are coarse. */
    private static final int FEW = 64;

    private static final double FEW_SECONDS = 0.5;
    /** So much faster or slower is another rate … */
    private static final double OTHER = 0.05;
    /** … where it is more than so many times what the mean of uneven steps is uncertain by. */
    private static final double SURE = 5;
    /** Less of the time than this is not worth a word. */
    private static final double WORTH_SAYING = 0.01;
    /** What that share takes off the quality, times the share. */
    private static final double COST = 2;

    private static final double LEAST = 0.3;
    private static final int MOST_STRETCHES = 4096;

    private record Stretch(double from, double to, double rateHz) {}

    private final double rateHz;
    private final int each;
    private final List<Stretch> others = new ArrayList<>();
    private double first = Double.NaN;
    private double last = Double.NaN;
    private double begin = Double.NaN;
    private int steps;
    private double squares;
    private Stretch before;

    OffPace(double rateHz) {
        this.rateHz = rateHz;
        each = (int) Math.max(FEW, Math.min(1 << 20, FEW_SECONDS * rateHz));
    }

    /** Samples came at these times, the first so many of them. */
    void came(double[] seconds, int count) {
        for (int i = 0; i < count; i++) {
            double step = seconds[i] - last;
            first = first == first ? first : seconds[i];
            last = seconds[i];
            if (!(step * rateHz <= Gap.PERIODS)) {
                begin(seconds[i]);
                before = null;
                continue;
            }
            steps++;
            squares += step * step;
            if (steps == each) {
                look();
                begin(seconds[i]);
            }
        }
    }

    private void begin(double at) {
        begin = at;
        steps = 0;
        squares = 0;
    }

    private void look() {
        double mean = (last - begin) / steps;
        double uncertain = Math.sqrt(Math.max(0, squares / steps - mean * mean) / steps);
        double off = Math.abs(1 / rateHz - mean);
        if (!(mean > 0 && off > OTHER / rateHz && off > SURE * uncertain)) {
            before = null;
            return;
        }
        Stretch now = new Stretch(begin, last, 1 / mean);
        // One alone may be a burst.
        if (before != null && others.size() < MOST_STRETCHES) {
            int newest = others.size() - 1;
            Stretch joined = new Stretch(before.from(), now.to(), now.rateHz());
            if (newest >= 0 && others.get(newest).to() >= before.from()) {
                others.set(newest, new Stretch(others.get(newest).from(), now.to(), now.rateHz()));
            } else {
                others.add(joined);
            }
        }
        before = now;
    }

    /** @return the reading, with what came at another rate within the span told and taken off its quality */
    Reading said(Reading reading, double from, double to) {
        if (others.isEmpty() || reading == null || !reading.refusal().isEmpty()) {
            return reading;
        }
        double begins = Math.max(from, first);
        double ends = Math.min(to, last);
        double off = 0;
        Stretch shown = null;
        for (Stretch one : others) {
            double within = Math.min(ends, one.to()) - Math.max(begins, one.from());
            off += Math.max(0, within);
            shown = shown == null && within > 0 ? one : shown;
        }
        double share = off / (ends - begins);
        if (shown == null || !(share >= WORTH_SAYING)) {
            return reading;
        }
        return reading.doubted(
                Math.max(LEAST, 1 - COST * share),
                Messages.of(
                        "engine.from-s-on-samples-come-at-not",
                        Digits.fixed(Math.max(begins, shown.from()), 1),
                        Digits.about(shown.rateHz(), 3),
                        Digits.about(rateHz, 3)));
    }
}
