package zesty.signal.engine;

import java.util.ArrayDeque;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Where a reader had to begin anew because samples were missing for too long to be filled. Of an answer that is doubtful it is told how
 * often that was, and how long the longest stretch between was: that may be all there is wrong. One thread.
 */
final class CutShort {
    private static final int MOST = 4096;
    /** Fewer cuts leave stretches enough. */
    private static final int FEWEST = 3;
    /** Answers that are surer than this do not need the word. */
    private static final double SURE = 0.5;

    private record Cut(double from, double to) {}

    private final ArrayDeque<Cut> cuts = new ArrayDeque<>();
    private double first = Double.NaN;
    private double last = Double.NaN;
    private boolean cut;

    /** What comes next begins anew. */
    void cut() {
        cut = last == last;
    }

    /** Samples from there to there were taken in. */
    void came(double from, double to) {
        first = first == first ? first : from;
        if (cut && from > last) {
            if (cuts.size() == MOST) {
                cuts.removeFirst();
                first = cuts.getFirst().from();
            }
            cuts.addLast(new Cut(last, from));
        }
        cut = false;
        last = to;
    }

    /** @return the reading, with how often it was cut within the span where it is doubtful */
    Reading said(Reading reading, double from, double to) {
        if (reading == null
                || !reading.refusal().isEmpty()
                || !(reading.quality().share() < SURE)) {
            return reading;
        }
        double begin = Math.max(from, first);
        double longest = 0;
        double shortest = Double.POSITIVE_INFINITY;
        int count = 0;
        for (Cut one : cuts) {
            if (one.from() > begin && one.from() < to) {
                longest = Math.max(longest, one.from() - begin);
                shortest = Math.min(shortest, one.to() - one.from());
                begin = one.to();
                count++;
            }
        }
        longest = Math.max(longest, Math.min(to, last) - begin);
        if (count < FEWEST) {
            return reading;
        }
        return reading.doubted(
                SURE,
                Messages.of(
                        "engine.samples-are-missing-at-places",
                        count,
                        Digits.about(shortest, 2),
                        Digits.about(longest, 2)));
    }
}
