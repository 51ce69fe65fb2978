package zesty.signal.core.read.tone;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/**
 * How loud a waveform is, in dB against an RMS of one unit: weighted as the ear does, and how it is spread over time.
 *
 * @param weighted A-weighted level of the whole (IEC 61672-1: 2.00 dB and four poles at 20.6, 107.7, 737.9 and 12194 Hz)
 * @param loudest level of the loudest eighth of a second
 * @param exceeded levels that the eighths of a second exceed for 10, 50 and 90 % of the time
 * @param starts first sample of each eighth of a second
 * @param levels of each
 */
record Loudness(double weighted, double loudest, double[] exceeded, int[] starts, double[] levels) {
    static final double PIECE_SECONDS = 0.125;
    private static final double SEGMENT_SECONDS = 1;
    private static final double[] SHARES = {0.1, 0.5, 0.9};

    static Loudness of(double[] x, List<int[]> runs, double rateHz) {
        int longest = runs.stream().mapToInt(run -> run[1] - run[0]).max().orElse(0);
        int segment = (int) Math.min(longest, Math.round(SEGMENT_SECONDS * rateHz));
        int piece = (int) Math.max(2, Math.round(PIECE_SECONDS * rateHz));
        if (segment < 16 || longest < piece) {
            return new Loudness(
                    Double.NaN,
                    Double.NaN,
                    new double[] {Double.NaN, Double.NaN, Double.NaN},
                    new int[0],
                    new double[0]);
        }
        double[] density = Welch.of(x, runs, rateHz, Window.HANN, segment, 0.5).density();
        double power = 0;
        for (int k = 1; k < density.length; k++) {
            double gain = weight(k * rateHz / segment);
            power += density[k] * gain * gain * rateHz / segment;
        }
        List<Double> levels = new ArrayList<>();
        List<Integer> starts = new ArrayList<>();
        for (int[] run : runs) {
            for (int at = run[0]; at + piece <= run[1]; at += piece) {
                double mean = 0;
                double squares = 0;
                for (int i = at; i < at + piece; i++) {
                    mean += x[i] / piece;
                }
                for (int i = at; i < at + piece; i++) {
                    squares += (x[i] - mean) * (x[i] - mean) / piece;
                }
                levels.add(decibels(squares));
                starts.add(at);
            }
        }
        double[] rising =
                levels.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        double[] exceeded = Arrays.stream(SHARES)
                .map(share -> rising[(int) Math.max(0, Math.ceil((1 - share) * rising.length) - 1)])
                .toArray();
        return new Loudness(
                decibels(power),
                rising[rising.length - 1],
                exceeded,
                starts.stream().mapToInt(Integer::intValue).toArray(),
                levels.stream().mapToDouble(Double::doubleValue).toArray());
    }

    private static double decibels(double square) {
        return square > 0 ? 10 * Math.log10(square) : Double.NaN;
    }

    /** @return the gain of the A curve at a frequency */
    static double weight(double hz) {
        double f = hz * hz;
        double pole = 12194.217 * 12194.217;
        double gain = pole
                * f
                * f
                / ((f + 20.598997 * 20.598997)
                        * Math.sqrt((f + 107.65265 * 107.65265) * (f + 737.86223 * 737.86223))
                        * (f + pole));
        return gain * Math.pow(10, 2.0 / 20);
    }
}
