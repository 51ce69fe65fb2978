package zesty.signal.core.scale;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** Numbers as text for people: a real minus sign, the decimal sign of their language, no more digits than mean something. */
public final class Digits {
    private Digits() {}

    /** @return the shortest text that reads back to the same double, for files and recipes: 512, 0.1, 1.0E-7 */
    public static String exact(double value) {
        boolean whole = value == Math.rint(value) && Math.abs(value) < 1e15 && !(value == 0 && 1 / value < 0);
        return whole ? Long.toString((long) value) : Double.toString(value);
    }

    /** @return the shortest text that {@link #typed} reads back to the same double, for boxes that people type numbers into */
    public static String box(double value) {
        return exact(value).replace('.', Messages.decimal());
    }

    /** @return the value with up to six significant digits and no trailing zeros */
    public static String of(double value) {
        if (!Double.isFinite(value)) {
            return "—";
        }
        if (value == 0) {
            return "0";
        }
        BigDecimal rounded = new BigDecimal(value).round(new MathContext(6)).stripTrailingZeros();
        double size = Math.abs(value);
        String text = size >= 1e9 || size < 1e-5
                ? rounded.toString().replace("E+", "e").replace("E-", "e\u2212")
                : rounded.toPlainString();
        return spoken(text);
    }

    /** @return the value with so many significant digits at most, as text: for what is itself only an estimate */
    public static String about(double value, int significant) {
        return of(rounded(value, significant));
    }

    /** @return the value with so many significant digits at most */
    public static double rounded(double value, int significant) {
        return Double.isFinite(value)
                ? new BigDecimal(value).round(new MathContext(significant)).doubleValue()
                : value;
    }

    /**
     * @param text as a person types a number: with a point or a comma, and with any minus sign
     * @throws NumberFormatException when it is none
     */
    public static double typed(String text) {
        return Double.parseDouble(text.strip().replace(',', '.').replace('\u2212', '-'));
    }

    private static String spoken(String text) {
        return text.replace('-', '\u2212').replace('.', Messages.decimal());
    }

    /** @return the value with so many decimals, always all of them, so that a running number does not change width */
    public static String fixed(double value, int decimals) {
        if (!Double.isFinite(value)) {
            return "—";
        }
        String text = String.format(
                Locale.ROOT, "%." + decimals + "f", new BigDecimal(value).setScale(decimals, RoundingMode.HALF_EVEN));
        boolean zero = text.chars().allMatch(c -> c == '0' || c == '.' || c == '-');
        return spoken(zero ? text.replace("-", "") : text);
    }

    /** @return how many decimals show the given step and no less: 0.0049 needs three */
    public static int decimalsFor(double step) {
        if (!(step > 0) || Double.isInfinite(step)) {
            return 0;
        }
        return (int) Math.max(0, Math.min(6, Math.ceil(-Math.log10(step) - 1e-9)));
    }
}
