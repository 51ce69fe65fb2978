package zesty.signal.core.read.muscle;

import java.util.List;

/**
 * What one signal says of its muscle.
 *
 * @param envelope at each sample, in the signal's unit
 * @param activity the signal without mains and what is slower than muscle
 * @param rest null where there is too little to tell
 * @param humHz the mains frequencies that were taken out
 * @param humShare of the power, what of it was mains
 * @param risen whether after some burst the muscle did not come back to its rest, and later ones were told against the
 *     level it then had
 */
record Effort(
        double[] envelope,
        double[] activity,
        Rest rest,
        List<Burst> bursts,
        List<String> humHz,
        double humShare,
        boolean risen) {
    /** From {@code from} up to before {@code to}, samples; peak and mean of the envelope. */
    record Burst(int from, int to, double peak, double mean) {}

    /** Mean and spread of the envelope at rest, and which samples it rests in. */
    record Rest(double level, double spread, boolean[] quiet) {
        /** @return the same at another level, spread in proportion */
        Rest at(double captured) {
            return new Rest(captured, spread * captured / level, quiet);
        }
    }

    double highest() {
        return bursts.stream().mapToDouble(Burst::peak).max().orElse(Double.NaN);
    }

    /** @return of each sample, whether it lies in a burst */
    boolean[] active() {
        boolean[] in = new boolean[envelope.length];
        for (Burst burst : bursts) {
            java.util.Arrays.fill(in, burst.from(), burst.to(), true);
        }
        return in;
    }

    /** @return the envelope above rest, summed over the bursts */
    double area() {
        double sum = 0;
        for (Burst burst : bursts) {
            sum += (burst.mean() - rest.level()) * (burst.to() - burst.from());
        }
        return sum;
    }
}
