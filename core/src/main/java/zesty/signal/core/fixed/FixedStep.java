package zesty.signal.core.fixed;

import java.util.function.LongUnaryOperator;

/** One step on whole numbers. Its {@link #begin()} is what the C code does, to the last bit. */
public sealed interface FixedStep {
    /** @return the step at rest, with memory of its own */
    LongUnaryOperator begin();

    record Times(Factor factor) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            return factor::times;
        }
    }

    /** The point moved so many bits. */
    record Up(int bits) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            return x -> x * (1L << bits);
        }
    }

    record Plus(long number) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            return x -> x + number;
        }
    }

    record Absolute() implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            return Math::abs;
        }
    }

    /**
     * A second-order section in direct form I. Each coefficient is a whole number and a rest: of a low corner a1 is nearly −2, and what
     * matters is by how much it is not.
     *
     * @param whole five: b0, b1, b2, −a1, −a2. @param rest likewise
     */
    record Section(long[] whole, Factor[] rest) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            long[] z = new long[4];
            return x -> {
                long[] v = {x, z[0], z[1], z[2], z[3]};
                long y = 0;
                for (int k = 0; k < v.length; k++) {
                    y += whole[k] * v[k] + rest[k].times(v[k]);
                }
                z[1] = z[0];
                z[0] = x;
                z[3] = z[2];
                z[2] = y;
                return y;
            };
        }
    }

    /** A mean over the last {@code samples}; it adds up without rounding, so that nothing piles up. */
    record Average(int samples) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            long[] window = new long[samples];
            long[] sum = new long[1];
            int[] at = new int[1];
            return x -> {
                sum[0] += x - window[at[0]];
                window[at[0]] = x;
                at[0] = (at[0] + 1) % samples;
                return sum[0] / samples;
            };
        }
    }

    /** A root of the mean square over the last {@code samples}. @param shift bits that are dropped so that the squares' sum fits */
    record RootMeanSquare(int samples, int shift) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            LongUnaryOperator mean = new Average(samples).begin();
            return x -> {
                long small = Math.abs(x) >> shift;
                return root(mean.applyAsLong(small * small)) << shift;
            };
        }

        private static long root(long square) {
            long left = square;
            long root = 0;
            for (long bit = 1L << 62; bit != 0; bit >>= 2) {
                if (left >= root + bit) {
                    left -= root + bit;
                    root = (root >> 1) + bit;
                } else {
                    root >>= 1;
                }
            }
            return root;
        }
    }

    /** The newest value with the weight {@code alpha}. */
    record Smooth(Factor alpha) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            long[] e = new long[1];
            return x -> e[0] += alpha.times(x - e[0]);
        }
    }

    /**
     * A curve as a table of points, straight between.
     *
     * @param first raw value of the first point. @param apartBits the points lie 2^apartBits raw values apart
     * @param y values of the points. @param shift what a value is multiplied by, 2^shift
     */
    record Curve(long first, int apartBits, int[] y, int shift) implements FixedStep {
        @Override
        public LongUnaryOperator begin() {
            return x -> {
                long from = Math.max(0, x - first);
                int at = (int) Math.min(from >> apartBits, y.length - 2);
                long beyond = Math.min(from - ((long) at << apartBits), 1L << apartBits);
                long rise = ((long) y[at + 1] - y[at]) * beyond;
                return y[at] * (1L << shift) + rise * (1L << shift) / (1L << apartBits);
            };
        }
    }
}
