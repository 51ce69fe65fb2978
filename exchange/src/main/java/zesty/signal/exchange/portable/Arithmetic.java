package zesty.signal.exchange.portable;

/** The numbers in which code for a board compares a cleaned value. */
sealed interface Arithmetic {
    /** @return the type of C */
    String type();

    /** @return a value in the channel's unit, as C writes it */
    String value(double value);

    /** @return a slope in units a second, as what {@link #slopeHelper()} gives is compared with it */
    String slope(double perSecond, double rateHz);

    /** @return the template that computes a slope */
    String slopeHelper();

    /** @return its fourth argument for a window of so many samples */
    String slopeArgument(int samples, double rateHz);

    /** @return whether a value may be no number */
    boolean mayBeMissing();

    /** Doubles. */
    record Floating() implements Arithmetic {
        @Override
        public String type() {
            return "double";
        }

        @Override
        public String value(double value) {
            return Template.number(value);
        }

        @Override
        public String slope(double perSecond, double rateHz) {
            return Template.number(perSecond);
        }

        @Override
        public String slopeHelper() {
            return "slope.c";
        }

        @Override
        public String slopeArgument(int samples, double rateHz) {
            return Template.number(rateHz);
        }

        @Override
        public boolean mayBeMissing() {
            return true;
        }
    }

    /** Whole numbers in 1/2^fraction of the unit. */
    record Whole(int fraction) implements Arithmetic {
        /** No value between steps is as large: what lies beyond is never reached. */
        private static final double MOST = 0x1p61;

        /** Values have 46 bits, and a sum of n of them, each times up to n, should stay below 2^61. */
        private static final int SPARE_BITS = 15;

        @Override
        public String type() {
            return "int64_t";
        }

        @Override
        public String value(double value) {
            long whole = Math.round(Math.max(-MOST, Math.min(MOST, Math.scalb(value, fraction))));
            return "INT64_C(" + whole + ")";
        }

        @Override
        public String slope(double perSecond, double rateHz) {
            return value(perSecond / rateHz);
        }

        @Override
        public String slopeHelper() {
            return "fixed_slope.c";
        }

        @Override
        public String slopeArgument(int samples, double rateHz) {
            return String.valueOf(Math.max(0, 2 * Math.getExponent((double) samples) + 2 - SPARE_BITS));
        }

        @Override
        public boolean mayBeMissing() {
            return false;
        }
    }
}
