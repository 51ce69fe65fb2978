package zesty.signal.core.prove;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Looks at how a converter's range is used, and says in words what is wrong with it and what would be right. */
public final class RangeWatch {
    private static final double AT_END = 0.5;
    private static final double LITTLE = 0.03;

    private RangeWatch() {}

    /** @param counts the newest raw values; missing ones are left out */
    public static List<String> of(double[] counts, Converter converter) {
        List<String> remarks = new ArrayList<>();
        double top = converter.highestCode();
        double bottom = converter.lowestCode();
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        int n = 0;
        int atZero = 0;
        int atTop = 0;
        int beyond = 0;
        for (double count : counts) {
            if (Double.isNaN(count)) {
                continue;
            }
            n++;
            low = Math.min(low, count);
            high = Math.max(high, count);
            atZero += count == bottom ? 1 : 0;
            atTop += count == top ? 1 : 0;
            beyond += count > top || count < bottom ? 1 : 0;
        }
        if (n == 0) {
            return remarks;
        }
        if (beyond > 0) {
            remarks.add(Messages.of(
                    "prove.counts-go-beyond-a-bit-converter", converter.bits(), Digits.of(low), Digits.of(high)));
        }
        if (atZero > AT_END * n) {
            remarks.add(Messages.of(
                    "prove.check-the-sensor-s-power-and",
                    (converter.signed()
                            ? Messages.of("prove.it-sits-at-its-lowest-code")
                            : Messages.of("prove.it-sits-at-0-the-pin-is-at-ground"))));
        }
        if (atTop > AT_END * n) {
            remarks.add(Messages.of("prove.it-sits-at-full-scale-the-pin-is"));
        } else if (atTop > 0 && n > 20) {
            remarks.add(
                    Messages.of("prove.some-samples-are-at-full-scale", Digits.of(Math.rint(1000.0 * atTop / n) / 10)));
        }
        double share = (high - low) / (top - bottom);
        if (n >= 20 && beyond == 0 && share < LITTLE && atZero + atTop < n / 2) {
            remarks.add(Messages.of(
                    "prove.it-uses-of-the-converter-s-range", Digits.of(Math.max(0.1, Math.rint(1000 * share) / 10))));
        }
        return remarks;
    }
}
