package zesty.signal.core.decode;

import zesty.signal.core.text.Messages;

/**
 * A column that goes up by one with each line or packet.
 *
 * @param column its index among the columns
 * @param wrap the number it starts again from zero at; 0 when that is not known
 * @param rowsEach rows that share one number
 */
public record BoardSequence(int column, double wrap, int rowsEach) {
    public BoardSequence {
        if (column < 0 || !(wrap >= 0) || rowsEach < 1) {
            throw new IllegalArgumentException(
                    Messages.of("decode.column-and-wrap-must-be-0-and", column, wrap, rowsEach));
        }
    }

    /** A step back further than this is a restart of the board, not a wrap, where the wrap is not known. */
    private static final double[] USUAL_WRAPS = {256, 65536, 4294967296.0, 100, 1000, 10000};

    /**
     * @return rows lost between two neighbours: 0 when none was, or when the number fell in a way that no wrap explains,
     *     as it does when the board restarts
     */
    public long missingBetween(double before, double after) {
        double step = after - before;
        if (step < 0) {
            double wrapped = wrap > 0 ? step + wrap : step + usualWrap(before);
            step = wrapped > 0 && (wrap == 0 || wrapped < wrap / 2) ? wrapped : 1;
        }
        return step > 1 ? Math.round(step - 1) * rowsEach : 0;
    }

    /** @return rows lost between two while nobody watched, but for whole turns of the number; −1 where it fell and no wrap is known */
    long acrossLink(double before, double after) {
        double step = after - before;
        if (wrap > 0) {
            return Math.round(((step - 1) % wrap + wrap) % wrap) * rowsEach;
        }
        return step >= 1 ? Math.round(step - 1) * rowsEach : -1;
    }

    private static double usualWrap(double before) {
        for (double usual : USUAL_WRAPS) {
            if (before < usual && before >= 0.9 * usual) {
                return usual;
            }
        }
        return 0;
    }
}
