package zesty.signal.engine;

/**
 * When a recording ends by itself.
 *
 * @param seconds from its first sample; infinity for no such limit
 * @param samples rows; {@link Long#MAX_VALUE} for no such limit
 */
public record RecordingLimit(double seconds, long samples) {
    public static final RecordingLimit NONE = new RecordingLimit(Double.POSITIVE_INFINITY, Long.MAX_VALUE);

    public RecordingLimit {
        if (!(seconds > 0) || samples < 1) {
            throw new IllegalArgumentException(
                    "a recording lasts more than 0 s and at least 1 sample, were " + seconds + " s, " + samples);
        }
    }

    public static RecordingLimit ofSeconds(double seconds) {
        return new RecordingLimit(seconds, Long.MAX_VALUE);
    }

    public static RecordingLimit ofSamples(long samples) {
        return new RecordingLimit(Double.POSITIVE_INFINITY, samples);
    }

    double share(double secondsSoFar, long rowsSoFar) {
        if (this.equals(NONE)) {
            return Double.NaN;
        }
        return Math.min(1, Math.max(secondsSoFar / seconds, (double) rowsSoFar / samples));
    }
}
