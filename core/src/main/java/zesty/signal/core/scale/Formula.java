package zesty.signal.core.scale;

import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import net.objecthunter.exp4j.Expression;
import net.objecthunter.exp4j.ExpressionBuilder;
import net.objecthunter.exp4j.tokenizer.UnknownFunctionOrVariableException;

/**
 * A formula of the maker's own over {@code x}, what comes in, and named constants, such as those that a chip brings from
 * its factory. Safe for any thread.
 */
public final class Formula implements Conversion {
    /** What the formula calls the value that comes in. */
    public static final String X = "x";

    private final String text;
    private final Map<String, Double> constants;
    private final String unit;
    private final Expression expression;

    /**
     * @param text such as {@code c0 + c1*x + sqrt(x)}
     * @throws IllegalArgumentException when it is no formula or has a name that is none of the constants, saying where
     */
    public Formula(String text, Map<String, Double> constants, String unit) {
        this.text = text.strip();
        this.constants = Map.copyOf(constants);
        this.unit = Objects.requireNonNull(unit, "unit");
        if (this.text.isEmpty()) {
            throw new IllegalArgumentException("a formula says how x becomes the quantity, such as 2*x + 1");
        }
        constants.forEach((name, value) -> {
            if (!name.matches("[A-Za-z_][A-Za-z0-9_]*") || name.equals(X)) {
                throw new IllegalArgumentException(
                        "'" + name + "' cannot be a constant's name; letters, digits and _ make one");
            }
            Conversion.needFinite("the constant " + name, value);
        });
        Set<String> names = new HashSet<>(this.constants.keySet());
        names.add(X);
        expression = built(this.text, names);
        expression.setVariables(this.constants);
        try {
            expression.setVariable(X, 1).evaluate();
        } catch (ArithmeticException e) {
            // A division by zero at x = 1 is none everywhere.
        } catch (RuntimeException e) {
            throw new IllegalArgumentException("'" + this.text + "' is no formula: " + e.getMessage(), e);
        }
    }

    private static Expression built(String text, Set<String> names) {
        try {
            return new ExpressionBuilder(text).variables(names).build();
        } catch (UnknownFunctionOrVariableException e) {
            throw new IllegalArgumentException(
                    "'" + e.getToken() + "' at place " + (e.getPosition() + 1)
                            + " of the formula is no known name; there are " + String.join(", ", new TreeSet<>(names)),
                    e);
        } catch (RuntimeException e) {
            throw new IllegalArgumentException("'" + text + "' is no formula: " + e.getMessage(), e);
        }
    }

    public String text() {
        return text;
    }

    public Map<String, Double> constants() {
        return constants;
    }

    @Override
    public synchronized double apply(double x) {
        if (Double.isNaN(x)) {
            return x;
        }
        try {
            double y = expression.setVariable(X, x).evaluate();
            return Double.isFinite(y) ? y : Double.NaN;
        } catch (ArithmeticException e) {
            return Double.NaN;
        }
    }

    @Override
    public double invert(double y) {
        return Double.NaN;
    }

    @Override
    public String unit() {
        return unit;
    }

    @Override
    public String takes() {
        return "";
    }

    @Override
    public String words() {
        return "formula " + text;
    }

    @Override
    public String sum(double x) {
        return text + " with x = " + Digits.of(x);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Formula formula
                && text.equals(formula.text)
                && constants.equals(formula.constants)
                && unit.equals(formula.unit);
    }

    @Override
    public int hashCode() {
        return Objects.hash(text, constants, unit);
    }

    @Override
    public String toString() {
        return "Formula[" + text + ", " + constants + ", " + unit + "]";
    }
}
