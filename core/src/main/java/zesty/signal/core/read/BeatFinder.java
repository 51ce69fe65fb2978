package zesty.signal.core.read;

import java.util.function.Consumer;

/**
 * Finds the bumps of one polarity: the filtered signal is clipped at zero and squared; where its mean over the length
 * of a peak exceeds its mean over the length of a beat by a little, there is a block of interest, and its highest point
 * is a candidate (two moving averages, see {@link PulseKind} for the sources). Streaming: a candidate comes out once
 * the samples its shape needs have come.
 */
final class BeatFinder {
    static final int SHAPE_POINTS = 32;

    /** Shortest time between two beats believed: 220 beats a minute. */
    static final double SHORTEST_BEAT_SECONDS = 60.0 / 220;

    /** A peak of noise is narrow: a block of interest must be this share of the peak's length. */
    private static final double SHORTEST_BLOCK = 0.4;

    private static final double LEVEL_SECONDS = 4;

    private final PulseKind kind;
    private final double sign;
    private final double rateHz;
    private final double delaySeconds;
    private final Consumer<BeatCandidate> found;

    private final int halfPeak;
    private final int halfBeat;
    private final double[] filtered;
    private final double[] squared;
    private final double[] seconds;
    private final int mask;
    private final int shapeAfter;

    private long count;
    /** Samples of the record itself; what comes to finish it does not count. */
    private long length;

    private boolean finishing;
    private double peakSum;
    private double beatSum;
    private double level;
    private double cap;

    private long blockStart = -1;
    private long best = -1;
    private long pending = -1;

    /** @param delaySeconds what the filter before this one delays a beat by, in s */
    BeatFinder(PulseKind kind, int sign, double rateHz, double delaySeconds, Consumer<BeatCandidate> found) {
        this.kind = kind;
        this.sign = sign;
        this.rateHz = rateHz;
        this.delaySeconds = delaySeconds;
        this.found = found;
        halfPeak = Math.max(1, (int) Math.round((kind.peakSeconds * rateHz - 1) / 2));
        halfBeat = Math.max(halfPeak + 1, (int) Math.round((kind.beatSeconds * rateHz - 1) / 2));
        shapeAfter = (int) Math.ceil(kind.shapeAfter * rateHz) + 1;
        int capacity = Integer.highestOneBit((int) (4 * rateHz)) * 2;
        filtered = new double[capacity];
        squared = new double[capacity];
        seconds = new double[capacity];
        mask = capacity - 1;
        restart();
    }

    /** Forgets the signal so far, as after a gap. */
    void restart() {
        count = 0;
        peakSum = 0;
        beatSum = 0;
        level = 0;
        cap = Double.POSITIVE_INFINITY;
        blockStart = -1;
        best = -1;
        pending = -1;
    }

    /** Tells how high a beat usually is: what is far above it no longer lifts the threshold. */
    void usualHeight(double height) {
        cap = 9 * height * height;
    }

    /** @param x the next filtered sample and its time */
    void accept(double x, double time) {
        double signed = sign * x;
        int cell = (int) count & mask;
        filtered[cell] = signed;
        double y = signed > 0 ? Math.min(signed * signed, cap) : 0;
        squared[cell] = y;
        seconds[cell] = time;
        count++;
        if (!finishing) {
            length = count;
        }
        beatSum += y;
        long centre = count - 1 - halfBeat;
        if (centre + halfPeak >= 0) {
            peakSum += squared[(int) (centre + halfPeak) & mask];
        }
        if (centre - halfPeak - 1 >= 0) {
            peakSum -= squared[(int) (centre - halfPeak - 1) & mask];
        }
        if (centre - halfBeat - 1 >= 0) {
            beatSum -= squared[(int) (centre - halfBeat - 1) & mask];
        }
        level += (y - level) / Math.min(count, LEVEL_SECONDS * rateHz);
        if (centre >= 0) {
            weigh(centre);
        }
        release();
    }

    private void weigh(long centre) {
        double peak = peakSum / (2 * halfPeak + 1);
        double beat = beatSum / (2 * halfBeat + 1);
        boolean inside = peak > beat + kind.beta * level;
        if (inside) {
            if (blockStart < 0) {
                blockStart = centre;
                best = centre;
            }
            if (filtered[(int) centre & mask] > filtered[(int) best & mask]) {
                best = centre;
            }
            boolean tooLong = centre - blockStart > rateHz;
            if (!tooLong) {
                return;
            }
        }
        if (blockStart >= 0) {
            if (centre - blockStart >= SHORTEST_BLOCK * 2 * halfPeak) {
                candidate(best);
            }
            blockStart = -1;
        }
    }

    private void candidate(long at) {
        if (pending >= 0) {
            // The peaks' places are rounded to whole samples: up to one sample more was between them.
            double apart = (at - pending + 1) / rateHz;
            if (apart < SHORTEST_BEAT_SECONDS) {
                if (filtered[(int) at & mask] > filtered[(int) pending & mask]) {
                    pending = at;
                }
                return;
            }
            emit();
        }
        pending = at;
    }

    private void release() {
        if (pending >= 0
                && count - pending > shapeAfter
                && (count - pending) / rateHz > SHORTEST_BEAT_SECONDS + kind.beatSeconds) {
            emit();
        }
    }

    private void emit() {
        long at = pending;
        pending = -1;
        if (count - at > mask - kind.shapeBefore * rateHz - 2 || at < 1) {
            return;
        }
        double y0 = filtered[(int) (at - 1) & mask];
        double y1 = filtered[(int) at & mask];
        double y2 = filtered[(int) (at + 1) & mask];
        double bend = y0 - 2 * y1 + y2;
        double shift = bend < 0 ? Math.max(-0.5, Math.min(0.5, (y0 - y2) / (2 * bend))) : 0;
        double time = seconds[(int) at & mask] + shift / rateHz - delaySeconds;
        found.accept(candidate(time, y1, at + shift));
    }

    private BeatCandidate candidate(double time, double height, double centre) {
        double[] shape = new double[SHAPE_POINTS];
        double step = (kind.shapeBefore + kind.shapeAfter) * rateHz / (SHAPE_POINTS - 1);
        int from = 0;
        int to = SHAPE_POINTS;
        for (int i = 0; i < SHAPE_POINTS; i++) {
            double position = centre - kind.shapeBefore * rateHz + i * step;
            if (position < 0) {
                from = i + 1;
            } else if (position > length - 1) {
                to = Math.min(to, i);
            } else {
                long whole = Math.min((long) Math.floor(position), length - 2);
                double part = position - whole;
                shape[i] = filtered[(int) whole & mask] * (1 - part) + filtered[(int) (whole + 1) & mask] * part;
            }
        }
        return new BeatCandidate(time, height, BeatCandidate.normalise(shape), from, to);
    }

    /** The record ends here: what is under way is finished with the samples there are. */
    void finish() {
        long real = count;
        finishing = true;
        for (int i = 0; i < halfBeat; i++) {
            accept(0, seconds[(int) (count - 1) & mask] + 1 / rateHz);
        }
        if (pending >= 0 && pending < real - 1) {
            emit();
        }
        finishing = false;
    }
}
