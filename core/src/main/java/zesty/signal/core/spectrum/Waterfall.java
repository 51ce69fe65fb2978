package zesty.signal.core.spectrum;

import java.util.List;

/**
 * Spectra one after the other.
 *
 * @param density of each stretch in turn, at k · binHz; NaN where samples are missing
 * @param binHz from one to the next
 * @param stepSeconds from one spectrum to the next
 */
public record Waterfall(double[][] density, double binHz, double stepSeconds) {
    /**
     * @param values evenly spaced; NaN ones are missing
     * @param most so many spectra at the most, each over as many samples as that allows, a half in common with the next
     */
    public static Waterfall of(double[] values, double rateHz, int most) {
        int step = Math.max(8, values.length / (most + 1));
        int segment = 2 * step;
        int count = values.length < segment ? 0 : (values.length - segment) / step + 1;
        double[][] density = new double[count][];
        for (int i = 0; i < count; i++) {
            density[i] = Welch.of(
                            values,
                            List.of(new int[] {i * step, i * step + segment}),
                            rateHz,
                            Window.HANN,
                            Math.min(segment, LONGEST),
                            0.5)
                    .density();
        }
        return new Waterfall(density, rateHz / Math.min(segment, LONGEST), step / rateHz);
    }

    /** A row has at most half so many bins: more than anyone sees. */
    private static final int LONGEST = 512;
}
