package zesty.signal.core.spectrum;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import org.hipparchus.distribution.continuous.GammaDistribution;
import zesty.signal.core.sample.Order;
import zesty.signal.core.spectrum.Lines.Line;

/**
 * Lines as closely as a record resolves them: those of its longest run as one segment, where they are steady for as long,
 * beside those of short segments, where they waver. A coarse line gives way to the fine ones within it that hold its energy.
 */
public final class FineLines {
    /** A longer run is looked at in segments of so many samples. */
    private static final int MOST_SAMPLES = 1 << 18;
    /** A line has so many periods in the record at least: fewer are drift. */
    private static final double LEAST_PERIODS = 6;
    /** The main lobe of a Hann window ends two bins from its top. */
    private static final int LOBE = 2;
    /** Lines nearer to each other than so many bins are not told apart. */
    private static final int APART = 4;
    /** The floor is the median of so many bins on either side, the higher of both: below a line of drift it is steep. */
    private static final int AROUND = 24;
    /** Of noise alone one record in a hundred shows a line. */
    private static final double FALSE_LINES = 0.01;
    /** Fine lines that hold this share of a coarse one's energy are what it consists of. */
    private static final double HOLDS = 0.7;
    /** A coarse line reaches so many of its bins to either side. */
    private static final double COARSE_REACH = 3;
    /** Side lines of a modulation are alike but for this share, and hold so much of the energy of all. */
    private static final double PAIRED = 0.3;

    private static final double MOSTLY = 0.9;
    /** Harmonics are looked for up to this order. */
    private static final int MOST_ORDERS = 8;
    /** So many of the highest are looked at. */
    private static final int MOST_LOOKED_AT = 48;
    /**
     * A steady line has in each half of the record the height that it has in the whole, but for this share. One that wavers
     * falls into pieces whose halves do not add up, but for few by chance, which hold too little of its energy.
     */
    private static final double UNSTEADY = 0.25;

    /** Side lobes of a stronger line may be so much higher than those of a steady one. */
    private static final double SIDE_LOBE_MARGIN = 4;

    private final List<Line> lines;
    private final double binHz;

    private FineLines(List<Line> lines, double binHz) {
        this.lines = lines;
        this.binHz = binHz;
    }

    /** @return the lines, the highest first */
    public List<Line> lines() {
        return lines;
    }

    /** @return how far apart two steady lines must be to be told apart, in Hz */
    public double resolutionHz() {
        return APART * binHz;
    }

    /**
     * @param axes whose densities are added up, one array each
     * @param runs begin and end of each run without a gap
     * @param coarse the same sum of densities in short segments, with a Hann window
     * @param lowestHz below it there is no coarse line
     */
    public static FineLines of(
            double[][] axes, List<int[]> runs, double rateHz, double[] coarse, double coarseBinHz, double lowestHz) {
        List<Line> wide = Lines.of(coarse, coarseBinHz, lowestHz, rateHz / 2, Integer.MAX_VALUE);
        int longest = runs.stream().mapToInt(run -> run[1] - run[0]).max().orElse(0);
        int segment = Math.min(longest, MOST_SAMPLES);
        double binHz = rateHz / Math.max(1, segment);
        if (segment < 2 * coarse.length || binHz > 0.7 * coarseBinHz) {
            return new FineLines(wide, coarseBinHz);
        }
        double[] density = new double[segment / 2 + 1];
        int segments = 0;
        for (double[] axis : axes) {
            Welch welch = Welch.of(axis, runs, rateHz, Window.HANN, segment, 0.5);
            double[] own = welch.density();
            segments = welch.segments();
            for (int k = 0; k < density.length; k++) {
                density[k] += own[k];
            }
        }
        int[] run = runs.stream()
                .filter(one -> one[1] - one[0] == longest)
                .findFirst()
                .orElseThrow();
        List<Line> narrow = narrow(density, binHz, segments * axes.length, (int) LEAST_PERIODS);
        Steadiness steadiness = new Steadiness(axes, run[0], segment, rateHz);
        narrow = narrow.stream()
                .limit(MOST_LOOKED_AT)
                .filter(line -> steadiness.change(line.hz()) < UNSTEADY)
                .toList();
        List<Line> merged = new ArrayList<>();
        List<Line> free = new ArrayList<>(narrow);
        List<Line> swinging = new ArrayList<>();
        for (Line line : wide) {
            double reach = COARSE_REACH * coarseBinHz;
            List<Line> within = free.stream()
                    .filter(fine -> Math.abs(fine.hz() - line.hz()) < reach)
                    .toList();
            double energy = within.stream()
                    .mapToDouble(fine -> fine.amplitude() * fine.amplitude())
                    .sum();
            free.removeAll(within);
            boolean pieces = energy >= HOLDS * line.amplitude() * line.amplitude() && !modulated(within, binHz);
            if (pieces && !(within.size() > 1 && isHarmonic(line, swinging, reach))) {
                merged.addAll(within);
            } else {
                merged.add(line);
                swinging.add(line);
            }
        }
        merged.addAll(free);
        merged.sort(Comparator.comparingDouble(Line::amplitude).reversed());
        return new FineLines(List.copyOf(merged), binHz);
    }

    /** Whether a line is a harmonic of a stronger one that swings: it swings as often as wide, and its pieces are no lines. */
    private static boolean isHarmonic(Line line, List<Line> swinging, double reach) {
        return swinging.stream().anyMatch(first -> {
            double order = Math.rint(line.hz() / first.hz());
            return order >= 2
                    && order <= MOST_ORDERS
                    && line.amplitude() < first.amplitude()
                    && Math.abs(line.hz() - order * first.hz()) < reach;
        });
    }

    /**
     * A line whose height or pace swings has side lines in pairs, as far below it as above and alike, or of a wide swing
     * one beside the other evenly: it is one line that wavers. Lines that have nothing to do with each other lie otherwise.
     */
    private static boolean modulated(List<Line> lines, double binHz) {
        if (lines.size() < 3) {
            return false;
        }
        double energy = 0;
        double moment = 0;
        for (Line line : lines) {
            energy += line.amplitude() * line.amplitude();
            moment += line.amplitude() * line.amplitude() * line.hz();
        }
        double middle = moment / energy;
        double paired = 0;
        for (Line line : lines) {
            boolean pair = lines.stream()
                    .anyMatch(other -> Math.abs(other.hz() + line.hz() - 2 * middle) < 2 * binHz
                            && Math.abs(other.amplitude() / line.amplitude() - 1) < PAIRED);
            paired += pair ? line.amplitude() * line.amplitude() : 0;
        }
        return paired > MOSTLY * energy || evenlySpaced(lines, binHz);
    }

    private static boolean evenlySpaced(List<Line> lines, double binHz) {
        double[] hz = lines.stream().mapToDouble(Line::hz).sorted().toArray();
        double step = (hz[hz.length - 1] - hz[0]) / (hz.length - 1);
        for (int i = 1; i < hz.length; i++) {
            if (Math.abs(hz[i] - hz[i - 1] - step) > 1.5 * binHz) {
                return false;
            }
        }
        return true;
    }

    private static List<Line> narrow(double[] density, double binHz, int averaged, int lowest) {
        GammaDistribution noise = new GammaDistribution(averaged, 1.0 / averaged);
        double clear = noise.inverseCumulativeProbability(1 - FALSE_LINES / density.length)
                / noise.inverseCumulativeProbability(0.5);
        List<Integer> tops = new ArrayList<>();
        for (int k = lowest; k < density.length - LOBE; k++) {
            if (density[k] >= density[k - 1]
                    && density[k] > density[k + 1]
                    && density[k] > density[k - 2]
                    && density[k] > density[k + 2]
                    && density[k] > clear * floor(density, k)) {
                tops.add(k);
            }
        }
        tops.sort(Comparator.comparingDouble(k -> -density[k]));
        List<Integer> kept = new ArrayList<>();
        List<Line> lines = new ArrayList<>();
        for (int k : tops) {
            if (kept.stream().noneMatch(strong -> lobe(density[strong], k - strong) > density[k])) {
                kept.add(k);
                lines.add(line(density, binHz, k, floor(density, k)));
            }
        }
        return lines;
    }

    /** @return what a side lobe so many bins from a line of that density may reach */
    private static double lobe(double density, int bins) {
        double d = Math.max(1.5, Math.abs(bins) - 0.5);
        double share = 1 / (Math.PI * d * (d * d - 1));
        return SIDE_LOBE_MARGIN * density * share * share;
    }

    private static double floor(double[] density, int k) {
        double below = side(density, Math.max(1, k - LOBE - AROUND), k - LOBE);
        double above = side(density, k + LOBE + 1, Math.min(density.length, k + LOBE + 1 + AROUND));
        return Math.max(below, above);
    }

    private static double side(double[] density, int from, int to) {
        return to - from < 3 ? 0 : Order.median(Arrays.copyOfRange(density, from, to));
    }

    /** Of a Hann window the two highest bins tell the place: δ = (2r − 1)/(r + 1), r the ratio of their heights. */
    private static Line line(double[] density, double binHz, int k, double floor) {
        double energy = 0;
        for (int i = Math.max(1, k - LOBE); i <= Math.min(density.length - 1, k + LOBE); i++) {
            energy += Math.max(0, density[i] - floor);
        }
        int side = density[k + 1] > density[k - 1] ? 1 : -1;
        double ratio = Math.sqrt(density[k + side] / density[k]);
        double off = side * Math.max(0, (2 * ratio - 1) / (ratio + 1));
        return new Line((k + off) * binHz, Math.sqrt(2 * energy * binHz), density[k] / Math.max(floor, 1e-300));
    }
}
