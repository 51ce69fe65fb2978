package zesty.signal.core.doctor;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Noise that comes and goes with another column: a motor or heater on the same supply. What is compared is the size of the
 * signal's quick changes, block by block, with a column that stands still but for some changes, as what is switched does.
 */
final class InStep {
    private static final double BLOCK_SECONDS = 0.1;
    private static final int LEAST_BLOCKS = 30;
    private static final int LEAST_CHANGES = 2;
    /** A column that is switched changes in fewer than this share of its samples. */
    private static final double MOST_CHANGES = 0.02;

    /** Noise grows at least so many times while it is on: in every stretch with it on, against the quietest without. */
    private static final double LOUDER = 1.4;

    private static final int SHORTEST_BLOCKS = 4;

    private InStep() {}

    static Finding find(Examined examined, Measures m) {
        int block = (int) Math.round(BLOCK_SECONDS * m.rateHz);
        int blocks = block < 4 ? 0 : examined.values().length / block;
        if (blocks < LEAST_BLOCKS) {
            return null;
        }
        double[] loud = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            double sum = 0;
            for (int i = b * block + 1; i < (b + 1) * block; i++) {
                double d = examined.values()[i] - examined.values()[i - 1];
                sum += d == d ? d * d : 0;
            }
            loud[b] = Math.log(Math.sqrt(sum / block) + 1e-9 + 0.1 * m.step);
        }
        Finding best = null;
        double most = LOUDER;
        for (Map.Entry<String, double[]> other : examined.others().entrySet()) {
            double[] y = other.getValue();
            if (!switched(y)) {
                continue;
            }
            double[] level = new double[blocks];
            for (int b = 0; b < blocks; b++) {
                for (int i = b * block; i < (b + 1) * block; i++) {
                    level[b] += y[i] / block;
                }
            }
            double[][] floors = floors(loud, level);
            double ratio = growth(floors[0], floors[1]);
            if (ratio > most) {
                most = ratio;
                best = new Finding(
                        Diagnosis.IN_STEP,
                        Messages.of("doctor.its-noise-grows-times-whenever", Digits.fixed(ratio, 1), other.getKey()),
                        Messages.of("doctor.runs-on-the-same-supply-or-beside", other.getKey()),
                        Messages.of("doctor.give-it-a-supply-of-its-own-and-a"),
                        "");
            }
        }
        return best;
    }

    /**
     * A signal has a loudness of its own, but what a switch adds is there all the time that it is on: of each stretch in
     * which the switch stands the quietest part counts.
     *
     * @return of each stretch the loudness of its quietest tenth, and the switch's level
     */
    private static double[][] floors(double[] loud, double[] level) {
        List<double[]> stretches = new ArrayList<>();
        int from = 0;
        for (int b = 1; b <= loud.length; b++) {
            if (b == loud.length || level[b] != level[from]) {
                if (b - from >= SHORTEST_BLOCKS) {
                    double[] part = Arrays.copyOfRange(loud, from, b);
                    stretches.add(new double[] {Order.quantile(part, 0.1), level[from]});
                }
                from = b;
            }
        }
        double[][] floors = new double[2][stretches.size()];
        for (int i = 0; i < stretches.size(); i++) {
            floors[0][i] = stretches.get(i)[0];
            floors[1][i] = stretches.get(i)[1];
        }
        return floors;
    }

    /** Whether a column stands still but for some changes. */
    static boolean switched(double[] y) {
        int changes = 0;
        for (int i = 1; i < y.length; i++) {
            changes += y[i] != y[i - 1] ? 1 : 0;
        }
        return changes >= LEAST_CHANGES && changes < MOST_CHANGES * y.length;
    }

    /**
     * @return how many times louder the quietest stretch with it on is than the quietest with it off; 0 where there are fewer
     *     than {@link #LEAST_CHANGES} of either
     */
    private static double growth(double[] loud, double[] level) {
        double middle = middle(level);
        double quietestOff = Double.POSITIVE_INFINITY;
        double quietestOn = Double.POSITIVE_INFINITY;
        int on = 0;
        for (int i = 0; i < loud.length; i++) {
            if (level[i] > middle) {
                quietestOn = Math.min(quietestOn, loud[i]);
                on++;
            } else {
                quietestOff = Math.min(quietestOff, loud[i]);
            }
        }
        return on < LEAST_CHANGES || loud.length - on < LEAST_CHANGES ? 0 : Math.exp(quietestOn - quietestOff);
    }

    private static double middle(double[] level) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (double one : level) {
            low = Math.min(low, one);
            high = Math.max(high, one);
        }
        // Whatever is above nothing is on: a duty has several steps.
        return low + 0.2 * (high - low);
    }
}
