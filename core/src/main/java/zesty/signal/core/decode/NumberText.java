package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Set;

/**
 * Reads a number out of bytes: an optional sign, digits, an optional decimal sign and digits, an optional exponent; or
 * 0x and up to 13 hexadecimal digits.
 * Exact: a value equals the nearest double to what is written.
 */
final class NumberText {
    static final double[] POWERS_OF_TEN = {
        1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19,
        1e20, 1e21, 1e22
    };
    private static final long EXACT_LIMIT = 1L << 53;

    /** What boards print for "no reading yet" in the place of a number. */
    private static final Set<String> MISSING =
            Set.of("", "nan", "-nan", "null", "none", "inf", "-inf", "+inf", "ovf", "-", "--", "---", "n/a", "na");

    private final byte decimalSign;

    /** One past the last byte of the number that {@link #parse} read; −1 when there was none. */
    int stop;

    NumberText(boolean decimalComma) {
        decimalSign = (byte) (decimalComma ? ',' : '.');
    }

    /**
     * Reads the number that starts at {@code from}.
     *
     * @return the value; {@link #stop} says whether there was one
     */
    double parse(byte[] bytes, int from, int to) {
        int at = from;
        boolean negative = false;
        if (at < to && (bytes[at] == '-' || bytes[at] == '+')) {
            negative = bytes[at] == '-';
            at++;
        }
        if (at + 2 < to && bytes[at] == '0' && (bytes[at + 1] | 0x20) == 'x') {
            return hexadecimal(bytes, at + 2, to, negative);
        }
        long mantissa = 0;
        int digits = 0;
        int start = at;
        while (at < to) {
            int digit = bytes[at] - '0';
            if (digit < 0 || digit > 9) {
                break;
            }
            mantissa = mantissa * 10 + digit;
            at++;
        }
        digits = at - start;
        int decimals = 0;
        if (at < to && bytes[at] == decimalSign) {
            int point = ++at;
            while (at < to) {
                int digit = bytes[at] - '0';
                if (digit < 0 || digit > 9) {
                    break;
                }
                mantissa = mantissa * 10 + digit;
                at++;
            }
            decimals = at - point;
            digits += decimals;
        }
        if (digits == 0) {
            stop = -1;
            return Double.NaN;
        }
        boolean exponent = at < to && (bytes[at] == 'e' || bytes[at] == 'E');
        if (exponent || digits > 18 || mantissa > EXACT_LIMIT || decimals > 22) {
            return slow(bytes, from, to, at, exponent);
        }
        stop = at;
        // Both operands are exact, so the one rounding of the division gives the nearest double (Clinger 1990).
        double value = decimals == 0 ? mantissa : mantissa / POWERS_OF_TEN[decimals];
        return negative ? -value : value;
    }

    private double hexadecimal(byte[] bytes, int from, int to, boolean negative) {
        long value = 0;
        int at = from;
        while (at < to && at - from < 13 && Character.digit(bytes[at], 16) >= 0) {
            value = value * 16 + Character.digit(bytes[at++], 16);
        }
        stop = at == from ? -1 : at;
        return at == from ? Double.NaN : negative ? -value : value;
    }

    private double slow(byte[] bytes, int from, int to, int at, boolean exponent) {
        int end = at;
        if (exponent) {
            int digit = at + 1;
            if (digit < to && (bytes[digit] == '-' || bytes[digit] == '+')) {
                digit++;
            }
            int first = digit;
            while (digit < to && bytes[digit] >= '0' && bytes[digit] <= '9') {
                digit++;
            }
            if (digit == first) {
                stop = -1;
                return Double.NaN;
            }
            end = digit;
        }
        String text = new String(bytes, from, end - from, StandardCharsets.ISO_8859_1).replace(',', '.');
        double value = Double.parseDouble(text);
        stop = Double.isInfinite(value) ? -1 : end;
        return value;
    }

    /** @return whether the field is one of the words that stand for a missing reading, or empty */
    static boolean isMissing(String field) {
        return MISSING.contains(field.strip().toLowerCase(Locale.ROOT));
    }
}
