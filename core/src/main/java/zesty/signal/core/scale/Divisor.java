package zesty.signal.core.scale;

/** What a converter's counts are divided by: makers disagree, so both are offered. */
public enum Divisor {
    /** The number of steps, 2^bits: the top code is one step below the reference. */
    STEPS {
        @Override
        public double of(int bits) {
            return Math.scalb(1.0, bits);
        }
    },
    /** The highest code, 2^bits − 1: the top code is the reference itself. */
    HIGHEST_CODE {
        @Override
        public double of(int bits) {
            return Math.scalb(1.0, bits) - 1;
        }
    };

    /** @return the divisor for a converter of so many bits */
    public abstract double of(int bits);
}
