package zesty.signal.exchange.report;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;

/** Round numbers along an axis. */
final class Ticks {
    private Ticks() {}

    /** A place on the axis and its number as text. */
    record Tick(double value, String text) {}

    /** @return about so many, at steps of 1, 2 or 5 */
    static List<Tick> of(double from, double to, int about) {
        double rough = (to - from) / Math.max(1, about);
        double ten = Math.pow(10, Math.floor(Math.log10(rough)));
        double step = rough / ten < 1.5 ? ten : rough / ten < 3.5 ? 2 * ten : rough / ten < 7.5 ? 5 * ten : 10 * ten;
        int decimals = (int) Math.max(0, -Math.floor(Math.log10(step * 1.0000001)));
        List<Tick> ticks = new ArrayList<>();
        for (double at = Math.ceil(from / step) * step; at <= to + step * 1e-9; at += step) {
            String text = new BigDecimal(at)
                    .setScale(decimals, RoundingMode.HALF_EVEN)
                    .toPlainString();
            boolean zero = text.matches("-0(\\.0*)?");
            ticks.add(new Tick(at, (zero ? text.substring(1) : text).replace('-', '\u2212')));
        }
        return ticks;
    }
}
