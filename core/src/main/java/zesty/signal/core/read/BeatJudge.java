package zesty.signal.core.read;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleConsumer;

/**
 * Decides which candidates are beats. At first, and again after it lost them, it waits for a run of candidates that
 * look alike and come at believable intervals; noise makes no such run. From then on a candidate must look like the
 * beats before it and be about as high. A lower bump soon after a beat is that beat's second hump.
 */
final class BeatJudge {
    /** How many alike in a row before anything is believed. */
    private static final int RUN = 5;

    private static final double RUN_LIKENESS = 0.8;
    private static final double LIKENESS = 0.5;
    /** An interval counts only between two beats at least as alike as this. */
    private static final double INTERVAL_LIKENESS = 0.75;

    /** And between these shares of the usual height. */
    private static final double SURE_LOW = 0.6;

    private static final double SURE_HIGH = 1.6;

    /** An interval this much longer than usual has lost a beat. */
    private static final double MISSED_BEAT = 1.6;

    /** Within these of the usual interval nothing more is asked. */
    private static final double EARLY = 0.8;

    private static final double LATE = 1.22;

    /** An early or late beat this much alike is a beat, not movement. */
    private static final double CLEAN = 0.93;

    private static final double LOWEST = 0.4;
    private static final double HIGHEST = 2.6;
    private static final double HUMP_HEIGHT = 0.6;
    private static final double HUMP_INTERVAL = 0.7;
    private static final double SLOWEST_BEAT_SECONDS = 60.0 / 36;
    private static final double LOST_SECONDS = 4;
    private static final int MEMORY = 8;
    /** So many candidates are kept while a run is looked for. */
    private static final int MOST_WAITING = 10;

    private final DoubleConsumer usualHeight;
    private final ArrayDeque<BeatCandidate> waiting = new ArrayDeque<>();
    private final double[] heights = new double[MEMORY];
    private final double[] gaps = new double[MEMORY];
    private int heightCount;
    private int gapCount;
    private double[] template;
    private double lastBeat = Double.NaN;
    private double lastLikeness;
    private boolean disturbed = true;

    private final BeatList beats = new BeatList();

    /** @param usualHeight told how high a beat usually is, whenever that changes */
    BeatJudge(DoubleConsumer usualHeight) {
        this.usualHeight = usualHeight;
    }

    BeatList beats() {
        return beats;
    }

    /** The signal stops here and goes on later: no interval runs across, and the run begins anew. */
    void gap() {
        waiting.forEach(candidate -> beats.reject(candidate.seconds()));
        forget();
    }

    private void forget() {
        waiting.clear();
        template = null;
        heightCount = 0;
        gapCount = 0;
        lastBeat = Double.NaN;
        disturbed = true;
    }

    /** @param believable whether the signal stands clear of noise at all */
    void accept(BeatCandidate candidate, boolean believable) {
        if (template != null && candidate.seconds() - lastBeat > LOST_SECONDS) {
            forget();
        }
        if (template == null) {
            gather(candidate, believable);
            return;
        }
        double apart = candidate.seconds() - lastBeat;
        double usual = median(heights, heightCount);
        boolean low = candidate.height() < LOWEST * usual;
        if (low || candidate.height() < HUMP_HEIGHT * usual && apart < HUMP_INTERVAL * usualGap()) {
            return;
        }
        double likeness = candidate.likeness(template);
        boolean alike = likeness >= LIKENESS
                && candidate.height() < HIGHEST * usual
                && apart > BeatFinder.SHORTEST_BEAT_SECONDS;
        if (alike) {
            believe(candidate, likeness);
        } else {
            beats.reject(candidate.seconds());
            disturbed = true;
        }
    }

    private void gather(BeatCandidate candidate, boolean believable) {
        waiting.addLast(candidate);
        List<BeatCandidate> run = tall();
        if (run.size() >= RUN) {
            run = run.subList(run.size() - RUN, run.size());
            double[] mean = new double[BeatFinder.SHAPE_POINTS];
            for (BeatCandidate one : run) {
                for (int i = 0; i < mean.length; i++) {
                    mean[i] += one.shape()[i];
                }
            }
            if (believable && alike(run, mean)) {
                template = BeatCandidate.normalise(mean);
                List<BeatCandidate> kept = List.copyOf(run);
                begin(kept);
                for (BeatCandidate one : kept) {
                    believe(one, one.likeness(template));
                }
                return;
            }
        }
        if (waiting.size() > MOST_WAITING) {
            beats.reject(waiting.removeFirst().seconds());
        }
        disturbed = true;
    }

    /** What waits from before the run is looked at again with what the run has taught. */
    private void begin(List<BeatCandidate> run) {
        double starts = run.get(0).seconds();
        List<BeatCandidate> early =
                waiting.stream().filter(one -> one.seconds() < starts).toList();
        waiting.clear();
        double usual = median(run.stream().mapToDouble(BeatCandidate::height).toArray(), run.size());
        for (BeatCandidate one : early) {
            if (one.likeness(template) >= RUN_LIKENESS && one.height() > LOWEST * usual) {
                believe(one, one.likeness(template));
            } else if (one.height() > HUMP_HEIGHT * usual) {
                beats.reject(one.seconds());
                disturbed = true;
            }
        }
    }

    /** The candidates that wait without the low ones among them: second humps and noise between slow beats. */
    private List<BeatCandidate> tall() {
        double[] sorted =
                waiting.stream().mapToDouble(BeatCandidate::height).sorted().toArray();
        double usual = sorted[sorted.length * 3 / 4];
        return waiting.stream()
                .filter(one -> one.height() > HUMP_HEIGHT * usual)
                .toList();
    }

    private static boolean alike(List<BeatCandidate> run, double[] sum) {
        double shortest = Double.MAX_VALUE;
        double longest = 0;
        double lowest = Double.MAX_VALUE;
        double highest = 0;
        BeatCandidate before = null;
        for (BeatCandidate one : run) {
            double[] others = sum.clone();
            for (int i = 0; i < others.length; i++) {
                others[i] -= one.shape()[i];
            }
            if (one.likeness(BeatCandidate.normalise(others)) < RUN_LIKENESS) {
                return false;
            }
            lowest = Math.min(lowest, one.height());
            highest = Math.max(highest, one.height());
            if (before != null) {
                shortest = Math.min(shortest, one.seconds() - before.seconds());
                longest = Math.max(longest, one.seconds() - before.seconds());
            }
            before = one;
        }
        return longest < SLOWEST_BEAT_SECONDS
                && longest < 1.8 * shortest
                && highest < 3 * lowest
                && shortest > BeatFinder.SHORTEST_BEAT_SECONDS;
    }

    private void believe(BeatCandidate candidate, double likeness) {
        double apart = candidate.seconds() - lastBeat;
        double height = heightCount == 0 ? 1 : candidate.height() / median(heights, heightCount);
        boolean sure = likeness >= INTERVAL_LIKENESS && height > SURE_LOW && height < SURE_HIGH;
        double ratio = apart / usualGap();
        boolean usual = ratio > EARLY && ratio < LATE || likeness > CLEAN && lastLikeness > CLEAN;
        boolean interval = !disturbed && sure && usual && ratio < MISSED_BEAT;
        lastLikeness = likeness;
        beats.add(candidate.seconds(), likeness, interval);
        if (!Double.isNaN(apart) && apart < SLOWEST_BEAT_SECONDS) {
            gaps[gapCount++ % MEMORY] = apart;
        }
        heights[heightCount++ % MEMORY] = candidate.height();
        usualHeight.accept(median(heights, heightCount));
        for (int i = 0; candidate.whole() && i < template.length; i++) {
            template[i] += 0.1 * (candidate.shape()[i] - template[i]);
        }
        BeatCandidate.normalise(template);
        lastBeat = candidate.seconds();
        disturbed = !sure;
    }

    private double usualGap() {
        return gapCount == 0 ? SLOWEST_BEAT_SECONDS : median(gaps, gapCount);
    }

    private static double median(double[] ring, int count) {
        double[] sorted = Arrays.copyOf(ring, Math.min(count, ring.length));
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}
