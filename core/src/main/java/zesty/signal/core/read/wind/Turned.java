package zesty.signal.core.read.wind;

/**
 * What a record says of the cups.
 *
 * @param counts what its counts are, where it has counts
 * @param bounces edges left out, because cups do not turn so fast
 * @param stalls rows that hold what was counted while none came
 * @param hurried whether pulses came nearly as fast as samples of them, so that faster ones would be read as slower
 */
record Turned(Speeds speeds, Counts counts, int bounces, int stalls, boolean hurried) {
    enum Counts {
        /** Pulses since the row before: none of them, or none that could be taken for a total. */
        SINCE_THE_ROW_BEFORE,
        /** They go as a total would, and as pulses a row they give a wind that there is. */
        MAYBE_A_TOTAL,
        /** Pulses since the board's start: as pulses a row they would be a wind that there is not. */
        TOTAL
    }

    static Turned of(Speeds speeds, int bounces) {
        return new Turned(speeds, Counts.SINCE_THE_ROW_BEFORE, bounces, 0, false);
    }

    Turned hurriedIf(boolean so) {
        return new Turned(speeds, counts, bounces, stalls, so);
    }
}
