package zesty.signal.core.fixed;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.LongUnaryOperator;
import zesty.signal.core.clean.Envelope;
import zesty.signal.core.clean.Exponential;
import zesty.signal.core.clean.LowPass;
import zesty.signal.core.clean.Mean;
import zesty.signal.core.clean.Offset;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Rectify;
import zesty.signal.core.clean.Rms;
import zesty.signal.core.clean.Scale;
import zesty.signal.core.clean.SectionFilter;
import zesty.signal.core.clean.Sections;
import zesty.signal.core.clean.Start;
import zesty.signal.core.clean.Step;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.text.Messages;

/**
 * A channel's scaling and recipe on whole numbers of 64 bits, products of 32 by 32. How many of the bits lie behind the point is
 * settled step by step from the largest value that can come there: the sum of the sizes of an answer to one blow times the largest
 * input, so that nothing overflows whatever the sensor sends. Immutable.
 */
public final class FixedChain {
    /** Bits of a value between steps: sums of three of them and products with a factor fit 64. */
    private static final int VALUE_BITS = 45;

    private static final int OUT_BITS = 30;
    /** How large a column without a converter comes, where nobody says it: a converter's of 24 bits. */
    private static final double PLAIN_LARGEST = 1 << 23;

    private static final int CURVE_BITS = 10;
    /** As long as an answer to one blow is added up at most; what comes later is below its hundred-millionth part, or the filter is refused. */
    private static final int LONGEST_ANSWER = 4_000_000;

    private static final int TRIED = 20_000;

    private final Scaling scaling;
    private final Recipe recipe;
    private final double rateHz;
    private final long rawLow;
    private final long rawHigh;
    private final int rawFraction;
    private final List<FixedStep> steps = new ArrayList<>();
    private final int outFraction;
    private final double error;
    private double fullScale;
    private long finiteLow;
    private long finiteHigh;
    private double bound;
    private int fraction;

    /**
     * @param rateHz NaN where none is stated and the recipe needs none
     * @param largest raw value that may come, in size; used where there is no converter, and NaN where nobody knows
     * @throws FixedException when something of it cannot be done in whole numbers, naming it
     * @throws zesty.signal.core.clean.RecipeException when the recipe cannot run at that rate
     */
    public FixedChain(Channel channel, double rateHz, double largest) {
        this.scaling = channel.scaling();
        this.recipe = channel.recipe();
        this.rateHz = rateHz;
        if (scaling.converter() == null) {
            rawFraction = fitting(largest > 0 ? largest : PLAIN_LARGEST, Integer.SIZE - 1);
            rawHigh = Integer.MAX_VALUE;
            rawLow = -rawHigh;
        } else {
            rawFraction = 0;
            rawLow = (long) scaling.converter().lowestCode();
            rawHigh = (long) scaling.converter().highestCode();
        }
        scale();
        recipe.steps().forEach(this::step);
        outFraction = fitting(bound, OUT_BITS);
        error = measured();
    }

    private static int fitting(double bound, int bits) {
        return bits - 1 - Math.getExponent(Math.max(bound, 1e-9));
    }

    private double quantity(double raw) {
        return scaling.apply(Math.scalb(raw, -rawFraction));
    }

    private void scale() {
        double low = quantity(rawLow);
        double high = quantity(rawHigh);
        boolean straight = Double.isFinite(low) && Double.isFinite(high);
        for (int k = 1; k < 16 && straight; k++) {
            double at = rawLow + (rawHigh - rawLow) * k / 16.0;
            double line = low + (high - low) * k / 16.0;
            straight = Math.abs(quantity(at) - line) <= 1e-9 * Math.max(Math.abs(low), Math.abs(high));
        }
        if (!straight) {
            curve();
            return;
        }
        finiteLow = rawLow;
        finiteHigh = rawHigh;
        bound = Math.max(Math.abs(low), Math.abs(high));
        fraction = fitting(bound, VALUE_BITS);
        // First as far up as it goes, so that the factor is small and keeps its bits.
        int up = VALUE_BITS - 1 - Math.getExponent((double) Math.max(Math.abs(rawLow), rawHigh));
        double slope = (high - low) / (rawHigh - rawLow);
        steps.add(new FixedStep.Up(up));
        steps.add(new FixedStep.Times(Factor.of(Math.scalb(slope, fraction - up))));
        steps.add(new FixedStep.Plus(Math.round(Math.scalb(low - slope * rawLow, fraction))));
    }

    private void curve() {
        if (scaling.converter() == null) {
            throw new FixedException(Messages.of("fixed.a-curve-in-whole-numbers-needs-the"));
        }
        findRange();
        int apart = Math.max(0, Long.SIZE - Long.numberOfLeadingZeros(rawHigh - rawLow) - CURVE_BITS);
        int points = (int) (rawHigh - rawLow >> apart) + 2;
        double[] y = new double[points];
        for (int i = 0; i < points; i++) {
            y[i] = held(Math.min(rawHigh, rawLow + ((long) i << apart)));
            bound = Math.max(bound, Math.abs(y[i]));
        }
        fraction = fitting(bound, OUT_BITS);
        int[] whole = new int[points];
        for (int i = 0; i < points; i++) {
            whole[i] = (int) Math.round(Math.scalb(y[i], fraction));
        }
        steps.add(new FixedStep.Curve(rawLow, apart, whole, VALUE_BITS - OUT_BITS));
        fraction += VALUE_BITS - OUT_BITS;
    }

    /** The quantity, and beyond the scaling's range that of its end. */
    private double held(long raw) {
        return quantity(Math.max(finiteLow, Math.min(finiteHigh, raw)));
    }

    /** A curve has its values in one piece; the ends of it lie between a raw value that has one and one that has none. */
    private void findRange() {
        long some = -1;
        for (int k = 0; k <= 4096 && some < 0; k++) {
            long at = rawLow + (rawHigh - rawLow) * k / 4096;
            some = Double.isFinite(quantity(at)) ? at : some;
        }
        if (some < 0) {
            throw new FixedException(Messages.of("fixed.its-scaling-gives-no-number-for"));
        }
        finiteLow = lastWithValue(some, rawLow);
        finiteHigh = lastWithValue(some, rawHigh);
    }

    private long lastWithValue(long has, long end) {
        if (Double.isFinite(quantity(end))) {
            return end;
        }
        long in = has;
        long out = end;
        while (Math.abs(out - in) > 1) {
            long middle = in + (out - in) / 2;
            if (Double.isFinite(quantity(middle))) {
                in = middle;
            } else {
                out = middle;
            }
        }
        return in;
    }

    /** Moves the point so that values of that size fit, and factors of it in. */
    private void roomFor(double size, double factor) {
        int next = fitting(size, VALUE_BITS);
        double by = Math.scalb(factor, next - fraction);
        if (by != 1) {
            steps.add(new FixedStep.Times(Factor.of(by)));
        }
        fraction = next;
        bound = size;
    }

    private void step(Step step) {
        if (step instanceof Envelope envelope) {
            steps.add(new FixedStep.Absolute());
            sections(new LowPass(envelope.hz(), 2).sections(rateHz));
        } else if (step instanceof Mean mean) {
            steps.add(new FixedStep.Average(bounded(step, mean.samples())));
        } else if (step instanceof Rms rms) {
            int samples = bounded(step, (int) Math.round(2 * rms.delaySamples(rateHz) + 1));
            int shift = (2 * VALUE_BITS - 62 + Integer.SIZE - Integer.numberOfLeadingZeros(samples) + 1) / 2;
            steps.add(new FixedStep.RootMeanSquare(samples, shift));
        } else if (step instanceof Exponential exponential) {
            steps.add(new FixedStep.Smooth(Factor.of(exponential.alpha())));
        } else if (step instanceof Rectify) {
            steps.add(new FixedStep.Absolute());
        } else if (step instanceof Offset offset) {
            roomFor(bound + Math.abs(offset.x()), 1);
            steps.add(new FixedStep.Plus(Math.round(Math.scalb(offset.x(), fraction))));
        } else if (step instanceof Scale scale) {
            if (scale.x() != 0 && bound > 0) {
                roomFor(bound * Math.abs(scale.x()), scale.x());
            } else {
                steps.add(new FixedStep.Times(Factor.of(0)));
            }
        } else if (step.stage(rateHz > 0 ? rateHz : 1e6, Start.FROM_REST) instanceof SectionFilter filter) {
            sections(filter.sections());
        } else {
            throw new FixedException(Messages.of("fixed.the-step-looks-ahead-or-needs-all", step.text()));
        }
    }

    private static int bounded(Step step, int samples) {
        if (samples > 1 << 16) {
            throw new FixedException(Messages.of("fixed.is-longer-than-whole-numbers-can", step.text()));
        }
        return samples;
    }

    private void sections(Sections all) {
        if (!(rateHz > 0)) {
            throw new FixedException(Messages.of("fixed.its-recipe-needs-the-rate-state"));
        }
        roomFor(bound * largestAnswer(all), 1);
        for (int s = 0; s < all.count(); s++) {
            double[] c = all.section(s);
            long[] whole = new long[c.length];
            Factor[] rest = new Factor[c.length];
            for (int k = 0; k < c.length; k++) {
                double one = k < 3 ? c[k] : -c[k];
                whole[k] = Math.round(one);
                rest[k] = Factor.of(one - whole[k]);
            }
            steps.add(new FixedStep.Section(whole, rest));
        }
    }

    /** The largest of: a value that goes in, and what can come out of any section of the row, as a multiple of what goes in. */
    private static double largestAnswer(Sections all) {
        long settled = all.settlingSamples();
        if (settled > LONGEST_ANSWER) {
            throw new FixedException(Messages.of("fixed.a-filter-that-rings-for-samples-is", settled));
        }
        double[] sums = new double[all.count()];
        double[] z = new double[2 * all.count()];
        double[][] c = new double[all.count()][];
        Arrays.setAll(c, all::section);
        for (long i = 0; i < settled; i++) {
            double x = i == 0 ? 1 : 0;
            for (int s = 0; s < c.length; s++) {
                double y = c[s][0] * x + z[2 * s];
                z[2 * s] = c[s][1] * x - c[s][3] * y + z[2 * s + 1];
                z[2 * s + 1] = c[s][2] * x - c[s][4] * y;
                sums[s] += Math.abs(y);
                x = y;
            }
        }
        return Math.max(1, Arrays.stream(sums).max().orElse(1));
    }

    /**
     * Twice the largest difference from the same in floating point, over what a sensor may send at
     * worst: noise over all of the range, jumps from end to end of many lengths, and slopes.
     */
    private double measured() {
        Random random = new Random(1);
        double full = 0;
        double largest = 0;
        for (int kind = 0; kind < 3; kind++) {
            double[] wanted = new double[TRIED];
            double[] got = new double[TRIED];
            LongUnaryOperator run = begin();
            boolean high = false;
            for (int i = 0; i < TRIED; i++) {
                high ^= random.nextDouble() < 4.0 / (1 + i % 1000);
                double share = kind == 0 ? random.nextDouble() : kind == 1 ? (high ? 1 : 0) : i / (TRIED - 1.0);
                long raw = rawLow + Math.round(share * (rawHigh - rawLow));
                wanted[i] = held(raw);
                full = Math.max(full, Math.abs(wanted[i]));
                got[i] = Math.scalb((double) run.applyAsLong(raw), -fraction);
            }
            recipe.onceThrough(wanted, rateHz);
            for (int i = 0; i < TRIED; i++) {
                largest = Math.max(largest, Math.abs(got[i] - wanted[i]));
            }
        }
        // The number that is given away has fewer bits than those between steps.
        fullScale = full;
        return 2 * (largest + Math.scalb(1.0, -outFraction));
    }

    /** @return raw whole numbers, in 1/2^{@link #rawFraction()}, to values in 1/2^{@link #fraction()}; at rest, with memory of its own */
    public LongUnaryOperator begin() {
        List<LongUnaryOperator> all = steps.stream().map(FixedStep::begin).toList();
        return raw -> {
            long x = Math.max(rawLow, Math.min(rawHigh, raw));
            for (LongUnaryOperator one : all) {
                x = one.applyAsLong(x);
            }
            return x;
        };
    }

    /** @return its steps, in order */
    public List<FixedStep> steps() {
        return List.copyOf(steps);
    }

    /** @return the lowest raw number it takes, in its unit; lower ones are taken for it */
    public long rawLow() {
        return rawLow;
    }

    /** @return the highest */
    public long rawHigh() {
        return rawHigh;
    }

    /** @return a raw number's unit is 1/2^this of a count, or of the column's unit */
    public int rawFraction() {
        return rawFraction;
    }

    /** @return a cleaned value's unit between steps is 1/2^this of the channel's */
    public int fraction() {
        return fraction;
    }

    /** @return the same of the number that is given away, which has 32 bits */
    public int outFraction() {
        return outFraction;
    }

    /** @return by how much a cleaned value is off at most, in the channel's unit: twice what was measured */
    public double error() {
        return error;
    }

    /** @return the largest scaled value that can come, in size, in the channel's unit */
    public double fullScale() {
        return fullScale;
    }
}
