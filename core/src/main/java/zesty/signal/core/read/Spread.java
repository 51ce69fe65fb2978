package zesty.signal.core.read;

/**
 * Mean and spread of some values.
 *
 * @param deviation standard deviation with n − 1; NaN below two values. Mean, lowest and highest are NaN without any
 */
record Spread(double mean, double deviation, double lowest, double highest) {
    static Spread of(double[] values) {
        double sum = 0;
        double lowest = Double.NaN;
        double highest = Double.NaN;
        for (double value : values) {
            sum += value;
            lowest = value >= lowest ? lowest : value;
            highest = value <= highest ? highest : value;
        }
        double mean = values.length == 0 ? Double.NaN : sum / values.length;
        double squares = 0;
        for (double value : values) {
            squares += (value - mean) * (value - mean);
        }
        double deviation = values.length < 2 ? Double.NaN : Math.sqrt(squares / (values.length - 1));
        return new Spread(mean, deviation, lowest, highest);
    }
}
