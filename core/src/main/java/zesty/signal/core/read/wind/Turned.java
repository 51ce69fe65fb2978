package zesty.signal.core.read.wind;

/**
 * What a record says of the cups.
 *
 * @param counts what its counts are, where it has counts
 * @param bounces edges left out, because cups do not turn so fast
 * @param stalls rows that hold what was counted while none came
 */
record Turned(Speeds speeds, Counts counts, int bounces, int stalls) {
    enum Counts {
        /** Pulses since the row before: none of them, or none that could be taken for a total. */
        SINCE_THE_ROW_BEFORE,
        /** They go as a total would, and as pulses a row they give a wind that there is. */
        MAYBE_A_TOTAL,
        /** Pulses since the board's start: as pulses a row they would be a wind that there is not. */
        TOTAL
    }

    static Turned of(Speeds speeds, int bounces) {
        return new Turned(speeds, Counts.SINCE_THE_ROW_BEFORE, bounces, 0);
    }
}
