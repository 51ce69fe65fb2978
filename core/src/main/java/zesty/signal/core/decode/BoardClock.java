package zesty.signal.core.decode;

/**
 * A column that carries the board's own clock.
 *
 * @param column its index among the columns
 * @param ticksPerSecond 1e6 for microseconds, 1e3 for milliseconds, 1 for seconds
 * @param wrapTicks the value it starts again from zero at; 0 when it never does
 */
public record BoardClock(int column, double ticksPerSecond, double wrapTicks) {
    /** A 32-bit counter starts again here. */
    public static final double WRAP_32_BIT = 4294967296.0;

    public BoardClock {
        if (column < 0 || !(ticksPerSecond > 0) || !(wrapTicks >= 0)) {
            throw new IllegalArgumentException("column and wrapTicks must be >= 0 and ticksPerSecond > 0, were "
                    + column + ", " + wrapTicks + ", " + ticksPerSecond);
        }
    }
}
