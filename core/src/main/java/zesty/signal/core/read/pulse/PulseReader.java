package zesty.signal.core.read.pulse;

import java.util.List;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.TimeBase;

/**
 * Finds the beats in a pulse signal, optical or electrical, of either polarity. Both polarities of an optical one are
 * followed at once; which one the beats have is said at the end of the trail, in {@link Beats}, and can be thought over.
 */
final class PulseReader implements Reader {
    /** A missing value shorter than this is bridged by the value before it; a longer one is a gap. */
    private static final double BRIDGE_SECONDS = 0.3;

    /** A beat is overdue after so many usual intervals. */
    private static final double OVERDUE = 1.35;

    private final PulseSource source;
    private final double rateHz;
    private final int together;
    private final RunningMean mains;
    private final RunningMean otherMains;
    private final double lagSeconds;
    private final Finder finder;
    private final BeatJudge[] judges;
    private List<HandEdit> edits = List.of();

    private double firstSeconds = Double.NaN;
    private double lastSeconds = Double.NaN;
    private double last = Double.NaN;
    private int missing;
    /** The smallest change from sample to sample so far: the converter's step, if nothing was done to the signal. */
    private double step;

    private double sum;
    private double timeSum;
    private int summed;
    private boolean begun;
    private boolean finished;
    private int sinceAdvance;

    /** @param rateHz samples a second, at least what the source needs */
    PulseReader(PulseSource source, double rateHz) {
        this.source = source;
        this.rateHz = rateHz;
        together = (int) Math.max(1, Math.floor(rateHz / source.workingRateHz));
        // Means over a turn of the mains at 50 and at 60 Hz, taken before samples are put together, leave nothing of
        // it.
        mains = new RunningMean((int) Math.round(rateHz / 50));
        otherMains = new RunningMean((int) Math.round(rateHz / 60));
        lagSeconds = (mains.delay() + otherMains.delay()) / rateHz;
        judges = new BeatJudge[source == PulseSource.OPTICAL ? 2 : 1];
        finder = source.finder(rateHz / together, this::candidate);
        for (int side = 0; side < judges.length; side++) {
            boolean upward = side == 0;
            judges[side] = new BeatJudge(source, height -> finder.usualHeight(upward, height));
        }
    }

    private void candidate(Candidate candidate, boolean upward, double nowSeconds) {
        if (candidate.height() >= source.leastHeight * step) {
            judges[upward ? 0 : 1].accept(candidate, nowSeconds);
        }
    }

    @Override
    public void accept(double[][] ports, int length, TimeBase time) {
        double[] values = ports[0];
        for (int i = 0; i < length; i++) {
            accept(values[i], time.secondsAt(i));
        }
    }

    private void accept(double value, double seconds) {
        if (Double.isNaN(firstSeconds)) {
            firstSeconds = seconds;
        }
        lastSeconds = seconds;
        if (value == value) {
            missing = 0;
            double change = Math.abs(value - last);
            if (change > 0 && (change < step || step == 0)) {
                step = change;
            }
            last = value;
        } else if (last != last || ++missing > BRIDGE_SECONDS * rateHz + 1) {
            if (last == last) {
                gap();
            }
            return;
        }
        begun = true;
        sum += otherMains.next(mains.next(last));
        timeSum += seconds - lagSeconds;
        if (++summed == together) {
            finder.next(sum / together, timeSum / together);
            sum = 0;
            timeSum = 0;
            summed = 0;
            if (++sinceAdvance >= 8) {
                sinceAdvance = 0;
                double known = finder.knownSeconds();
                for (BeatJudge judge : judges) {
                    judge.advance(known);
                }
            }
        }
    }

    @Override
    public void gap() {
        finishFinder();
        for (BeatJudge judge : judges) {
            judge.gap();
        }
        finder.reset();
        mains.reset();
        otherMains.reset();
        last = Double.NaN;
        missing = 0;
        sum = 0;
        timeSum = 0;
        summed = 0;
        begun = false;
    }

    private void finishFinder() {
        if (begun) {
            finder.finish();
        }
    }

    @Override
    public void finish() {
        finished = true;
        finishFinder();
        for (BeatJudge judge : judges) {
            judge.finish();
        }
    }

    @Override
    public void edited(List<HandEdit> changes) {
        edits = List.copyOf(changes);
    }

    /** Whether the pulse has just gone: a beat is well overdue, or none is followed any more and the last one is old. */
    private boolean held() {
        double known = finder.knownSeconds();
        boolean followed = false;
        boolean overdue = true;
        for (BeatJudge judge : judges) {
            followed |= judge.locked();
            overdue &= !judge.locked() || judge.quietIntervals(known) > OVERDUE;
        }
        return overdue || !followed;
    }

    @Override
    public double scalar(String key, double fromSeconds, double toSeconds) {
        // The rate is what most bands watch, and the rest of a reading costs ten times as much.
        return key.equals(Pulse.RATE)
                ? answer(fromSeconds, toSeconds).rate()
                : reading(fromSeconds, toSeconds).scalar(key);
    }

    @Override
    public Reading reading(double fromSeconds, double toSeconds) {
        return answer(fromSeconds, toSeconds).reading();
    }

    private PulseAnswer answer(double fromSeconds, double toSeconds) {
        double from = Math.max(fromSeconds, Double.isNaN(firstSeconds) ? 0 : firstSeconds);
        double to = Math.min(toSeconds, Double.isNaN(lastSeconds) ? 0 : lastSeconds);
        // What is finished is not waited for: no beat is overdue then.
        boolean now = !finished && toSeconds < Double.POSITIVE_INFINITY && !(toSeconds < lastSeconds);
        Beats beats = Beats.of(source, judges, from, to).edited(edits, from, to);
        return new PulseAnswer(beats, from, to, now && held());
    }
}
