package zesty.signal.core.scale;

import java.util.List;
import java.util.stream.Collectors;
import zesty.signal.core.text.Messages;

/**
 * y = c0 + c1·x + c2·x² + …
 *
 * @param coefficients c0, c1, …; two at least, the last not 0
 */
public record Polynomial(List<Double> coefficients) implements Conversion {
    public Polynomial {
        coefficients = List.copyOf(coefficients);
        int n = coefficients.size();
        if (n < 2 || n > 16 || coefficients.get(n - 1) == 0) {
            throw new IllegalArgumentException(Messages.of("scale.a-polynomial-has-2-to-16", coefficients));
        }
        coefficients.forEach(c -> Conversion.needFinite(Messages.of("scale.a-coefficient"), c));
    }

    @Override
    public double apply(double x) {
        double y = 0;
        for (int i = coefficients.size() - 1; i >= 0; i--) {
            y = y * x + coefficients.get(i);
        }
        return y;
    }

    @Override
    public void apply(double[] values, int length) {
        double[] c = coefficients.stream().mapToDouble(d -> d).toArray();
        for (int i = 0; i < length; i++) {
            double x = values[i];
            double y = 0;
            for (int k = c.length - 1; k >= 0; k--) {
                y = y * x + c[k];
            }
            values[i] = y;
        }
    }

    /** Only of the first degree is there always one answer; beyond that it is left open. */
    @Override
    public double invert(double y) {
        return coefficients.size() == 2 ? (y - coefficients.get(0)) / coefficients.get(1) : Double.NaN;
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
        return Messages.of("scale.a-polynomial-of-degree", (coefficients.size() - 1));
    }

    @Override
    public String sum(double x) {
        return Messages.of(
                "scale.in-powers-of",
                coefficients.stream().map(Digits::of).collect(Collectors.joining(", ")),
                Digits.of(x));
    }
}
