package zesty.signal.core.scale;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * Straight lines between known points; nothing is known outside them.
 *
 * @param x rising, two at least
 * @param y as many
 */
public record ValueTable(List<Double> x, List<Double> y) implements Conversion {
    public ValueTable {
        x = List.copyOf(x);
        y = List.copyOf(y);
        if (x.size() != y.size() || x.size() < 2) {
            throw new IllegalArgumentException(
                    Messages.of("scale.a-table-needs-two-points-at-least", x.size(), y.size()));
        }
        for (int i = 1; i < x.size(); i++) {
            if (!(x.get(i) > x.get(i - 1))) {
                throw new IllegalArgumentException(Messages.of(
                        "scale.a-table-s-points-rise-follows", Digits.of(x.get(i)), Digits.of(x.get(i - 1))));
            }
        }
    }

    @Override
    public double apply(double value) {
        return between(x, y, value);
    }

    @Override
    public double invert(double value) {
        boolean rising = true;
        boolean falling = true;
        for (int i = 1; i < y.size(); i++) {
            rising &= y.get(i) > y.get(i - 1);
            falling &= y.get(i) < y.get(i - 1);
        }
        if (rising) {
            return between(y, x, value);
        }
        return falling ? between(reversed(y), reversed(x), value) : Double.NaN;
    }

    private static List<Double> reversed(List<Double> values) {
        Double[] turned = new Double[values.size()];
        Arrays.setAll(turned, i -> values.get(values.size() - 1 - i));
        return List.of(turned);
    }

    private static double between(List<Double> from, List<Double> to, double value) {
        int last = from.size() - 1;
        if (!(value >= from.get(0) && value <= from.get(last))) {
            return Double.NaN;
        }
        int i = 1;
        while (i < last && value > from.get(i)) {
            i++;
        }
        double share = (value - from.get(i - 1)) / (from.get(i) - from.get(i - 1));
        return to.get(i - 1) + share * (to.get(i) - to.get(i - 1));
    }

    @Override
    public String unit() {
        return "";
    }

    @Override
    public String takes() {
        return "";
    }

    @Override
    public String words() {
        return Messages.of("scale.a-table-of-points", x.size());
    }

    @Override
    public String sum(double value) {
        return Messages.of("scale.between-the-points-around", Digits.of(value));
    }
}
