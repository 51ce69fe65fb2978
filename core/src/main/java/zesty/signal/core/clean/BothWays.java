package zesty.signal.core.clean;

/**
 * Runs a stage forward and back over a record, so that nothing is late: F. Gustafsson 1996, "Determining the initial
 * states in forward-backward filtering". The ends are carried on by point reflection of the signal (odd extension),
 * and each pass starts settled on its first sample.
 */
final class BothWays {
    private BothWays() {}

    /** @param reach how many samples to carry each end on by; fewer where the record is shorter */
    static void run(double[] data, Stage settled, int reach) {
        int n = data.length;
        if (n == 0) {
            return;
        }
        int pad = Math.min(reach, n - 1);
        double[] extended = new double[n + 2 * pad];
        System.arraycopy(data, 0, extended, pad, n);
        for (int i = 1; i <= pad; i++) {
            extended[pad - i] = 2 * data[0] - data[i];
            extended[pad + n - 1 + i] = 2 * data[n - 1] - data[n - 1 - i];
        }
        for (int pass = 0; pass < 2; pass++) {
            settled.reset();
            settled.apply(extended, 0, extended.length);
            for (int i = 0, k = extended.length - 1; i < k; i++, k--) {
                double swap = extended[i];
                extended[i] = extended[k];
                extended[k] = swap;
            }
        }
        System.arraycopy(extended, pad, data, 0, n);
    }
}
