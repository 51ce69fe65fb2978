package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.List;

/**
 * Tells an even run of beats from two or three humps of each beat of a slower one: humps of one beat differ from each
 * other in the same way in every beat. What is compared is the spread of the logarithm of the height between the places in
 * turn with that within them (analysis of variance, R. A. Fisher 1925, "Statistical methods for research workers").
 */
final class Humps {
    /** Fewer beats than these say nothing about three humps a beat. */
    static final int LEAST = 7;

    /** Nobody's heart beats more slowly, in s. */
    private static final double SLOWEST_SECONDS = 1.7;

    /** Chance gives as much once in some thousand runs. */
    private static final double SIGNIFICANT = 14;
    /** Humps that differ by less are no reason to doubt, however even they are: the logarithm of the ratio. */
    private static final double DIFFERENT = Math.log(1.12);

    private static final int MOST = 3;

    private Humps() {}

    /**
     * @param heights of the beats in turn, all above 0
     * @param meanSeconds from one to the next
     * @return how many of them are one beat: 1 where nothing speaks against it, 2 or 3
     */
    static int fold(double[] heights, double meanSeconds) {
        int found = 1;
        double most = SIGNIFICANT;
        for (int fold = 2; fold <= MOST && fold * meanSeconds <= SLOWEST_SECONDS; fold++) {
            double f = spreadRatio(heights, fold);
            if (heights.length >= 2 * fold + 1 && f > most) {
                most = f;
                found = fold;
            }
        }
        return found;
    }

    /** @return between the places over within them; 0 where the places hardly differ */
    private static double spreadRatio(double[] heights, int fold) {
        double[] mean = new double[fold];
        int[] count = new int[fold];
        double all = 0;
        for (int i = 0; i < heights.length; i++) {
            mean[i % fold] += Math.log(heights[i]);
            count[i % fold]++;
            all += Math.log(heights[i]) / heights.length;
        }
        double between = 0;
        double lowest = Double.MAX_VALUE;
        double highest = -Double.MAX_VALUE;
        for (int k = 0; k < fold; k++) {
            mean[k] /= count[k];
            between += count[k] * (mean[k] - all) * (mean[k] - all) / (fold - 1);
            lowest = Math.min(lowest, mean[k]);
            highest = Math.max(highest, mean[k]);
        }
        double within = 0;
        for (int i = 0; i < heights.length; i++) {
            double off = Math.log(heights[i]) - mean[i % fold];
            within += off * off / (heights.length - fold);
        }
        return highest - lowest < DIFFERENT ? 0 : between / within;
    }

    /** @return every so-many-th of the run: those that stand out most */
    static List<Candidate> highest(List<Candidate> run, int fold) {
        List<Candidate> best = List.of();
        double most = 0;
        for (int k = 0; k < fold; k++) {
            List<Candidate> one = new ArrayList<>();
            for (int i = k; i < run.size(); i += fold) {
                one.add(run.get(i));
            }
            double mean = one.stream().mapToDouble(Candidate::height).average().orElse(0);
            if (mean > most) {
                most = mean;
                best = one;
            }
        }
        return best;
    }
}
