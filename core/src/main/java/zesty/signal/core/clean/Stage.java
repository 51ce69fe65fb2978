package zesty.signal.core.clean;

/** One step of cleaning at work on a stream. */
public interface Stage {

    /**
     * Takes the next samples and puts the cleaned ones in their place. A stage that looks ahead gives its answer
     * {@link #delaySamples()} later: its first ones are NaN, "nothing yet".
     */
    void apply(double[] data, int offset, int length);

    /** Forgets all samples so far: the next one is the first. */
    void reset();

    /** @return by how many samples the output stands behind the input, 0 for a stage that only looks back */
    default int delaySamples() {
        return 0;
    }
}
