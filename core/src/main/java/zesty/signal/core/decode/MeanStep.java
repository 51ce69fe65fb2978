package zesty.signal.core.decode;

/**
 * The mean of the steps of a clock that are no gaps, over thousands of them: what ticks round, and how unevenly a board is on time,
 * averages out. It begins anew where the board goes on at another pace. One thread.
 */
final class MeanStep {
    /** So many steps, and at least so many ticks, tell a pace to a few percent. */
    private static final int FEW = 64;

    private static final double FEW_TICKS = 20;
    /** Two such stretches that are this near to each other and that far from all before are of another pace. */
    private static final double ALIKE = 0.04;

    private static final double OTHER = 0.08;
    /** What is older than so many steps counts half, and half again. */
    private static final double MANY = 8192;

    private double sum;
    private double count;
    private double newSum;
    private double newCount;
    private double last = Double.NaN;

    void restart() {
        sum = 0;
        count = 0;
        newSum = 0;
        newCount = 0;
        last = Double.NaN;
    }

    /** @param tickSeconds what the clock can tell apart. @return whether the board has gone on at another pace for a while */
    boolean add(double step, double tickSeconds) {
        boolean other = false;
        sum += step;
        count++;
        newSum += step;
        newCount++;
        if (newCount >= FEW && newSum >= FEW_TICKS * tickSeconds) {
            double now = newSum / newCount;
            other = Math.abs(now / last - 1) < ALIKE && Math.abs(now * count / sum - 1) > OTHER;
            if (other) {
                sum = newSum;
                count = newCount;
            } else if (count > MANY) {
                sum /= 2;
                count /= 2;
            }
            last = now;
            newSum = 0;
            newCount = 0;
        }
        return other;
    }

    /** So much of the sum turned out to be of rows that are missing. */
    void takeOut(double seconds) {
        sum -= seconds;
    }

    double sum() {
        return sum;
    }

    double count() {
        return count;
    }

    /** @return NaN before the first */
    double seconds() {
        return sum / count;
    }
}
