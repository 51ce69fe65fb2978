package zesty.signal.core.read;

/**
 * What a pulse signal says.
 *
 * @param beats times of the beats, in s
 * @param rejected times of bumps that are no believable beats, in s
 * @param intervalsMs intervals between neighbouring beats with nothing wrong between them, in ms
 * @param meanBpm 60000 / mean interval, in beats/min; NaN without an interval
 * @param lowestBpm from the longest interval; NaN without one
 * @param highestBpm from the shortest interval; NaN without one
 * @param sdnnMs standard deviation of the intervals (n − 1), in ms; NaN below two
 * @param rmssdMs root mean square of the differences of intervals that follow on each other, in ms; NaN without one.
 *     Both as in the Task Force of the European Society of Cardiology 1996, "Heart rate variability: standards of
 *     measurement, physiological interpretation, and clinical use"
 * @param upright whether beats point up in the signal
 * @param quality how far to trust it
 */
public record PulseReading(
        double[] beats,
        double[] rejected,
        double[] intervalsMs,
        double meanBpm,
        double lowestBpm,
        double highestBpm,
        double sdnnMs,
        double rmssdMs,
        boolean upright,
        Quality quality) {

    /** @return the mean interval, in ms; NaN without one */
    public double meanIntervalMs() {
        return 60000 / meanBpm;
    }

    /** @return whether there is a pulse at all */
    public boolean present() {
        return intervalsMs.length > 0;
    }

    /** @return the same reading with other beats to show, as of a longer stretch */
    public PulseReading withBeats(double[] others) {
        return new PulseReading(
                others, rejected, intervalsMs, meanBpm, lowestBpm, highestBpm, sdnnMs, rmssdMs, upright, quality);
    }
}
