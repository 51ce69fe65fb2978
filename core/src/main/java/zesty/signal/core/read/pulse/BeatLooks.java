package zesty.signal.core.read.pulse;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleConsumer;

/** What beats look like: their shape, their usual height, how much they are alike. It learns from each. One thread. */
final class BeatLooks {
    private static final int MEMORY = 8;
    /** Of a new beat this share goes into the shape and into how much they are alike. */
    private static final double LEARNS = 0.1;

    private final PulseSource source;
    private final DoubleConsumer usualHeight;
    private final double[] heights = new double[MEMORY];
    private int heightCount;
    private double[] template;
    private double usual;
    private double usualLikeness;

    /** @param usualHeight told how high a beat usually is whenever that changes */
    BeatLooks(PulseSource source, DoubleConsumer usualHeight) {
        this.source = source;
        this.usualHeight = usualHeight;
    }

    /** @return the mean shape; null before there is one */
    double[] template() {
        return template;
    }

    /** @return the usual height; 0 before there is one */
    double usual() {
        return usual;
    }

    double likeness(Candidate candidate) {
        return candidate.likeness(template);
    }

    /** @return how much beats are like their mean shape on average */
    double usualLikeness() {
        return usualLikeness;
    }

    /** Begins anew with the beats of a run. */
    void learnAnew(List<Candidate> run) {
        template = Run.mean(run);
        usualLikeness = run.stream().mapToDouble(this::likeness).average().orElse(1);
        heightCount = 0;
        run.forEach(this::remember);
    }

    /** A beat is so much like the others. */
    void alike(double likeness) {
        usualLikeness += LEARNS * (likeness - usualLikeness);
    }

    void remember(Candidate candidate) {
        heights[heightCount++ % MEMORY] = candidate.height();
        double[] sorted = Arrays.copyOf(heights, Math.min(heightCount, MEMORY));
        Arrays.sort(sorted);
        usual = sorted[sorted.length / 2];
        usualHeight.accept(usual);
        double[] shape = candidate.fitted(template);
        for (int i = 0; i < template.length; i++) {
            template[i] += LEARNS * (shape[i] - template[i]);
        }
        Candidate.normalise(template);
    }

    /** @return by which of several bumps the best is chosen */
    double merit(Candidate candidate) {
        return Math.min(candidate.height() / usual, 1.2)
                * (source == PulseSource.OPTICAL ? Math.max(0, likeness(candidate)) : 1);
    }

    /** @return whether a bump may be a beat where one is missing */
    boolean plausible(Candidate candidate) {
        double h = candidate.height() / usual;
        return source == PulseSource.OPTICAL
                ? h > 0.35 && h < 2.5 && likeness(candidate) > 0.6
                : h > 0.3 && h < 3 && candidate.floor() < 0.5;
    }

    /**
     * @param locked whether a pulse is followed, so that shape and height tell
     * @param scale the height of a beat as long as none is
     * @return what a candidate is worth on a path of beats
     */
    double worth(Candidate candidate, boolean locked, double scale) {
        double h = candidate.height() / (locked ? usual : scale);
        if (source == PulseSource.ELECTRICAL) {
            double alike = locked ? 0.75 + 0.25 * Math.max(0, likeness(candidate)) : 1;
            return Math.min(h, 1) * alike - 0.35 - 0.3 * Math.max(0, h - 2.5);
        }
        double alike = locked ? 0.4 + 0.6 * Math.max(0, likeness(candidate)) : 1;
        return Math.min(h, 1) * alike - 0.45 - 0.3 * Math.max(0, h - 1.8);
    }
}
