package zesty.signal.core.decode;

import zesty.signal.core.text.Messages;

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

    /** A tick in three hours; a thousand a nanosecond; and what a double counts exactly. */
    private static final double LEAST_TICKS = 1e-4;

    private static final double MOST_TICKS = 1e12;
    private static final double MOST_WRAP = 0x1p64;

    public BoardClock {
        boolean sane = ticksPerSecond >= LEAST_TICKS && ticksPerSecond <= MOST_TICKS && wrapTicks < MOST_WRAP;
        if (column < 0 || !sane || !(wrapTicks >= 0)) {
            throw new IllegalArgumentException(
                    Messages.of("decode.column-and-wrapticks-must-be-0", column, wrapTicks, ticksPerSecond));
        }
    }
}
