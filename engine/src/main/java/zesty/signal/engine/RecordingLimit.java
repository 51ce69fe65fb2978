package zesty.signal.engine;

import zesty.signal.core.text.Messages;

/**
 * When a recording ends by itself.
 *
 * @param seconds from its first sample; infinity for no such limit
 * @param samples rows; {@link Long#MAX_VALUE} for no such limit
 * @param source whose rows are counted, by its place in the rig; −1 for those of all
 */
public record RecordingLimit(double seconds, long samples, int source) {
    public static final RecordingLimit NONE = new RecordingLimit(Double.POSITIVE_INFINITY, Long.MAX_VALUE, -1);

    public RecordingLimit {
        if (!(seconds > 0) || samples < 1) {
            throw new IllegalArgumentException(Messages.of("engine.a-recording-lasts-more-than-0-s", seconds, samples));
        }
    }

    public static RecordingLimit ofSeconds(double seconds) {
        return new RecordingLimit(seconds, Long.MAX_VALUE, -1);
    }

    public static RecordingLimit ofSamples(long samples) {
        return ofSamples(samples, -1);
    }

    /** @param source whose rows are counted: those of a channel's board */
    public static RecordingLimit ofSamples(long samples, int source) {
        return new RecordingLimit(Double.POSITIVE_INFINITY, samples, source);
    }

    double share(double secondsSoFar, long rowsSoFar) {
        if (this.equals(NONE)) {
            return Double.NaN;
        }
        return Math.min(1, Math.max(secondsSoFar / seconds, (double) rowsSoFar / samples));
    }
}
