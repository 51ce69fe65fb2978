package zesty.signal.core.sample;

/**
 * How many samples the holes of a record have room for, one after the other. Of a pause that is no whole number of periods, what is left
 * over counts at the next one, so that samples keep up with time: of a board that stops for two periods and a half now and then,
 * two are missing and three in turn. One thread.
 */
public final class Holes {
    private double left;

    /** @return how many samples are missing in a hole by itself, of so many s from the sample before it to the one after it */
    public static int alone(double stepSeconds, double rateHz) {
        return (int) Math.max(0, Math.min(Integer.MAX_VALUE / 2, Math.round(stepSeconds * rateHz) - 1));
    }

    /** @return how many are missing in the next hole, with what is left over of those before it */
    public int missing(double stepSeconds, double rateHz) {
        int missing = alone(stepSeconds + left / rateHz, rateHz);
        left = Math.max(-1, Math.min(1, stepSeconds * rateHz - 1 + left - missing));
        return missing;
    }

    /** What comes next has nothing to do with what came before. */
    public void restart() {
        left = 0;
    }
}
