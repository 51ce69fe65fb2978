package zesty.signal.core.read.tone;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.spectrum.Lines;

/**
 * Which fundamental a set of lines has: the one whose harmonics the lines are, with as few harmonics missing and as few
 * lines left over as can be (after R. C. Maher and J. W. Beauchamp 1994, "Fundamental frequency estimation of musical
 * signals using a two-way mismatch procedure"). So a missing fundamental is named, as the ear does, and an octave below is not.
 */
final class Partials {
    /** Lines nearer than this are one line that wavers, as a share. */
    private static final double ONE = 0.045;
    /** A line is a harmonic when it lies so near to one, as a share … */
    private static final double NEAR = 0.012;

    /** The lowest harmonic that is there is at most this one. */
    private static final int LOWEST = 4;

    private static final int MOST_HARMONICS = 24;
    private static final double LEAST_FILLED = 0.45;

    private Partials() {}

    /** @return lines that waver put together, lowest first */
    static List<Lines.Line> together(List<Lines.Line> lines) {
        List<Lines.Line> byHz = new ArrayList<>(lines);
        byHz.sort(Comparator.comparingDouble(Lines.Line::hz));
        List<Lines.Line> merged = new ArrayList<>();
        for (Lines.Line line : byHz) {
            Lines.Line last = merged.isEmpty() ? null : merged.get(merged.size() - 1);
            if (last != null && line.hz() < last.hz() * (1 + ONE)) {
                double own = line.amplitude() * line.amplitude();
                double before = last.amplitude() * last.amplitude();
                merged.set(
                        merged.size() - 1,
                        new Lines.Line(
                                (line.hz() * own + last.hz() * before) / (own + before),
                                Math.sqrt(own + before),
                                Math.max(line.clear(), last.clear())));
            } else {
                merged.add(line);
            }
        }
        return merged;
    }

    /** @param slackHz how far a line's place may be off @return the fundamental in Hz; NaN without a line */
    static double fundamental(List<Lines.Line> lines, double fromHz, double toHz, double slackHz) {
        double best = Double.NaN;
        double most = 0;
        for (Lines.Line line : lines) {
            for (int k = 1; k <= LOWEST + 2; k++) {
                double f = line.hz() / k;
                if (f < fromHz || f > toHz) {
                    continue;
                }
                double score = score(lines, f, slackHz);
                // Of two that explain as much the higher one is meant: each octave below explains it, too.
                if (score > most * 1.02 || score > most * 0.98 && f > best) {
                    most = Math.max(most, score);
                    best = f;
                }
            }
        }
        return best;
    }

    private static double score(List<Lines.Line> lines, double f, double slackHz) {
        boolean[] filled = new boolean[MOST_HARMONICS + 1];
        double matched = 0;
        double all = 0;
        int lowest = Integer.MAX_VALUE;
        int highest = 0;
        int count = 0;
        for (Lines.Line line : lines) {
            double weight = Math.sqrt(line.amplitude());
            all += weight;
            int k = (int) Math.rint(line.hz() / f);
            boolean near = k >= 1 && Math.abs(line.hz() - k * f) < Math.max(NEAR * line.hz(), slackHz);
            if (near && k <= MOST_HARMONICS) {
                matched += weight;
                lowest = Math.min(lowest, k);
                if (line.amplitude() > 0) {
                    count += filled[k] ? 0 : 1;
                    filled[k] = true;
                    highest = Math.max(highest, k);
                }
            }
        }
        if (count == 0 || lowest > LOWEST || lowest > 1 && count < 2 || count < LEAST_FILLED * highest) {
            return 0;
        }
        return matched / all * (0.5 + 0.5 * count / highest);
    }
}
