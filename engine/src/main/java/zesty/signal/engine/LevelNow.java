package zesty.signal.engine;

import zesty.signal.core.read.Reading;

/**
 * What every channel's level says: of the last seconds of a live trail, or of all of a take.
 *
 * @param mean NaN when there is no sample
 * @param noise standard deviation of one sample, slopes not counted
 */
public record LevelNow(double mean, double noise, double lowest, double highest, int samples) {
    static LevelNow of(Reading reading) {
        return reading == null
                ? new LevelNow(Double.NaN, Double.NaN, Double.NaN, Double.NaN, 0)
                : new LevelNow(
                        reading.scalar("mean"),
                        reading.scalar("noise"),
                        reading.scalar("min"),
                        reading.scalar("max"),
                        (int) reading.scalar("samples"));
    }
}
