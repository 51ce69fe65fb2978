package zesty.signal.core.read.supply;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.sample.Order;

/** The states of a load that is switched: currents between which hardly any sample lies. */
final class States {
    /** Between two states no sample lies for this share of the range. Found by trying: half and twice of it find the same on switched loads. */
    private static final double APART = 0.02;

    /** And for so many times the noise of one sample. */
    private static final double NOISES = 6;

    /** What holds fewer samples than this share is an edge between states, not one. */
    private static final double LEAST_SHARE = 0.003;

    private static final int LEAST_SAMPLES = 3;
    private static final int MOST = 12;
    private static final int HOURS_A_DAY = 24;

    private States() {}

    /**
     * @param amps at a steady rate
     * @return of each state its mean current, its share of the time and what a day of it costs in Ah, lowest current first; one where
     *     the current goes over all values, none of fewer than two samples
     */
    static List<double[]> of(double[] amps) {
        if (amps.length < 2) {
            return List.of();
        }
        double[] steps = new double[amps.length - 1];
        for (int i = 1; i < amps.length; i++) {
            steps[i - 1] = Math.abs(amps[i] - amps[i - 1]);
        }
        double noise = 1.4826 * Order.median(steps) / Math.sqrt(2);
        double[] sorted = amps.clone();
        Arrays.sort(sorted);
        double apart = Math.max(NOISES * noise, APART * (sorted[sorted.length - 1] - sorted[0]));
        int least = (int) Math.max(LEAST_SAMPLES, LEAST_SHARE * amps.length);
        List<double[]> groups = new ArrayList<>();
        int from = 0;
        for (int i = 1; i <= sorted.length; i++) {
            if (i == sorted.length || sorted[i] - sorted[i - 1] > apart) {
                if (i - from >= least) {
                    groups.add(Arrays.copyOfRange(sorted, from, i));
                }
                from = i;
            }
        }
        if (groups.isEmpty() || groups.size() > MOST) {
            groups = List.of(sorted);
        }
        int told = groups.stream().mapToInt(group -> group.length).sum();
        List<double[]> states = new ArrayList<>();
        for (double[] group : groups) {
            double mean = Arrays.stream(group).average().orElse(Double.NaN);
            double share = (double) group.length / told;
            states.add(new double[] {mean, share, mean * share * HOURS_A_DAY});
        }
        return states;
    }
}
