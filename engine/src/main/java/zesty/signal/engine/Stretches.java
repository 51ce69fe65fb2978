package zesty.signal.engine;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.sample.Gap;

/**
 * Parts rows into stretches without a gap, and says which of them are kept but not read because the board is warming up:
 * the one place where a live trail, its rework and stored takes take both from. One thread; rows come in order.
 */
final class Stretches {
    /** After a silence as long as this the board has probably been started anew, and warms up again. */
    private static final double NEW_START_SECONDS = 1;

    /** Rows {@code from … to - 1}. @param afterGap whether a gap is before them. @param cold whether they are not read */
    record Stretch(int from, int to, boolean afterGap, boolean cold) {}

    private final double longestStep;
    private final double warmUpSeconds;
    private double before = Double.NaN;
    private double coldUntil = Double.NEGATIVE_INFINITY;

    Stretches(double rateHz, double warmUpSeconds) {
        longestStep = Gap.PERIODS / rateHz;
        this.warmUpSeconds = warmUpSeconds;
    }

    /** @return as if all rows until then had been looked at, and the board had long been warm */
    static Stretches after(double seconds, double rateHz, double warmUpSeconds) {
        Stretches later = new Stretches(rateHz, warmUpSeconds);
        later.before = seconds;
        return later;
    }

    /** @param seconds the rows' times, {@code from … to - 1} count */
    List<Stretch> part(double[] seconds, int from, int to) {
        List<Stretch> found = new ArrayList<>();
        int start = from;
        boolean gap = false;
        for (int i = from; i < to; i++) {
            double step = seconds[i] - before;
            boolean first = Double.isNaN(step);
            boolean apart = step > longestStep + 1e-9;
            boolean wasCold = before < coldUntil;
            if (first || step >= NEW_START_SECONDS && apart) {
                coldUntil = warmUpSeconds > 0 ? seconds[i] + warmUpSeconds : coldUntil;
            }
            boolean cold = seconds[i] < coldUntil;
            if (!first && (apart || cold != wasCold)) {
                if (i > start) {
                    found.add(new Stretch(start, i, gap, wasCold));
                }
                start = i;
                gap = true;
            }
            before = seconds[i];
        }
        if (to > start) {
            found.add(new Stretch(start, to, gap, before < coldUntil));
        }
        return found;
    }
}
