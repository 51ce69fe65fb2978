package zesty.signal.core.sample;

/**
 * A stretch in which samples are missing.
 *
 * @param startSeconds time of the last sample before it
 * @param endSeconds time of the first sample after it
 * @param missing how many samples should have been there, as far as the rate tells
 */
public record Gap(double startSeconds, double endSeconds, long missing) {
    /** A step longer than this many usual ones is a gap: a missed sample makes a step of two. */
    public static final double PERIODS = 1.6;

    public Gap {
        if (!(endSeconds >= startSeconds) || missing < 0) {
            throw new IllegalArgumentException("a gap runs forward and misses at least 0 samples, was " + startSeconds
                    + " to " + endSeconds + " s, " + missing + " missing");
        }
    }

    /** @return its length, in seconds */
    public double seconds() {
        return endSeconds - startSeconds;
    }
}
