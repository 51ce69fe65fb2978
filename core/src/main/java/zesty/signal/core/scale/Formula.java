package zesty.signal.core.scale;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import net.objecthunter.exp4j.Expression;
import net.objecthunter.exp4j.ExpressionBuilder;
import net.objecthunter.exp4j.function.Functions;
import zesty.signal.core.text.Messages;

/**
 * A formula of the maker's own over {@code x}, what comes in, other columns of the same row, and named constants, such as
 * those that a chip brings from its factory. Safe for any thread.
 */
public final class Formula implements Conversion {
    /** What the formula calls the value that comes in. */
    public static final String X = "x";

    /** A number with its exponent, or a name. */
    private static final Pattern WORDS = Pattern.compile("\\d+\\.?\\d*(?:[eE][+-]?\\d+)?|([A-Za-z_][A-Za-z0-9_]*)");

    /** The longest published conversions have a few hundred; reading one takes the square of its length. */
    private static final int MOST_SIGNS = 2000;

    private static final Set<String> OWN_CONSTANTS = Set.of("pi", "e");

    private final String text;
    private final Map<String, Double> constants;
    private final String unit;
    private final List<String> columns;
    private final Expression expression;

    /**
     * @param text such as {@code c0 + c1*x + sqrt(x)}
     * @throws IllegalArgumentException when it is no formula or has a name that is none of the constants, saying where
     */
    public Formula(String text, Map<String, Double> constants, String unit) {
        this(text, constants, unit, List.of());
    }

    /**
     * @param text such as {@code x * amps}
     * @param offered the columns it may take in, by names of letters, digits and _; those that it names are its columns
     * @throws FormulaException when it is no formula or has a name that is none of these, saying where
     */
    public Formula(String text, Map<String, Double> constants, String unit, List<String> offered) {
        this.text = text.strip();
        this.constants = Map.copyOf(constants);
        this.unit = Objects.requireNonNull(unit, "unit");
        if (this.text.isEmpty()) {
            throw new IllegalArgumentException(Messages.of("scale.a-formula-says-how-x-becomes-the"));
        }
        if (this.text.length() > MOST_SIGNS) {
            throw new IllegalArgumentException(
                    Messages.of("scale.a-formula-has-at-most-signs-this", MOST_SIGNS, this.text.length()));
        }
        constants.forEach((name, value) -> {
            if (!name.matches("[A-Za-z_][A-Za-z0-9_]*") || name.equals(X)) {
                throw new IllegalArgumentException(Messages.of("scale.cannot-be-a-constant-s-name", name));
            }
            Conversion.needFinite(Messages.of("scale.the-constant", name), value);
        });
        Set<String> names = new HashSet<>(this.constants.keySet());
        names.add(X);
        names.addAll(offered);
        expression = built(this.text, names);
        columns = offered.stream()
                .filter(name -> !name.equals(X) && !this.constants.containsKey(name))
                .filter(expression.getVariableNames()::contains)
                .distinct()
                .toList();
        expression.setVariables(this.constants);
        columns.forEach(name -> expression.setVariable(name, 1));
        try {
            expression.setVariable(X, 1).evaluate();
        } catch (ArithmeticException e) {
            // A division by zero at x = 1 is none everywhere.
        } catch (RuntimeException e) {
            throw broken(this.text, e);
        }
    }

    /** The library says what is wrong but not always where: a bracket without its other is found here. */
    private static FormulaException broken(String text, RuntimeException e) {
        Deque<Integer> open = new ArrayDeque<>();
        int place = text.length();
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) == '(') {
                open.push(i);
            } else if (text.charAt(i) == ')' && open.poll() == null) {
                place = i;
                break;
            }
        }
        place = open.isEmpty() ? place : open.peek();
        return new FormulaException(Messages.of("scale.is-no-formula", text, e.getMessage()), text, place, e);
    }

    private static Expression built(String text, Set<String> names) {
        checkNames(text, names);
        try {
            return new ExpressionBuilder(text)
                    .variables(names)
                    .implicitMultiplication(false)
                    .build();
        } catch (RuntimeException e) {
            throw broken(text, e);
        }
    }

    /** The library takes a name that begins like a known one for two: whole names are looked at first. */
    private static void checkNames(String text, Set<String> names) {
        Matcher word = WORDS.matcher(text);
        while (word.find()) {
            String name = word.group(1);
            boolean called = text.substring(word.end()).stripLeading().startsWith("(");
            if (name == null || names.contains(name) || !called && OWN_CONSTANTS.contains(name)) {
                continue;
            }
            if (!called || Functions.getBuiltinFunction(name) == null) {
                throw new FormulaException(
                        Messages.of(
                                "scale.at-place-of-the-formula-is-no",
                                name,
                                (word.start() + 1),
                                (called
                                        ? Messages.of("scale.function-there-are-sqrt-exp-log")
                                        : Messages.of(
                                                "scale.name-there-are", String.join(", ", new TreeSet<>(names))))),
                        text,
                        word.start(),
                        null);
            }
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
        return columns.isEmpty() ? worked(x) : Double.NaN;
    }

    private double worked(double x) {
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
    public List<String> columns() {
        return columns;
    }

    @Override
    public Conversion at(double[] others) {
        Map<String, Double> known = new HashMap<>(constants);
        for (int c = 0; c < columns.size(); c++) {
            if (!Double.isFinite(others[c])) {
                return this;
            }
            known.put(columns.get(c), others[c]);
        }
        return new Formula(text, known, unit);
    }

    @Override
    public void apply(double[] values, int length) {
        Objects.checkFromIndexSize(0, length, values.length);
        Remembered.apply(values, length, this::apply);
    }

    @Override
    public synchronized void apply(double[] values, double[][] others, int length) {
        for (int i = 0; i < length; i++) {
            boolean there = true;
            for (int c = 0; c < columns.size(); c++) {
                there &= !Double.isNaN(others[c][i]);
                expression.setVariable(columns.get(c), others[c][i]);
            }
            values[i] = there ? worked(values[i]) : Double.NaN;
        }
    }

    /** @return its value with x and its columns as given, for trying */
    synchronized double value(List<String> names, double[] values) {
        double x = Double.NaN;
        for (int i = 0; i < values.length; i++) {
            if (names.get(i).equals(X)) {
                x = values[i];
            } else {
                expression.setVariable(names.get(i), values[i]);
            }
        }
        return worked(x);
    }

    /**
     * @param units of x and then of each column
     * @return what is wrong with the units, in words; empty when nothing is, or when it cannot be told
     */
    public String unitRemark(List<String> units) {
        List<String> names = new ArrayList<>(List.of(X));
        names.addAll(columns);
        return FormulaUnits.remark(this, names, units);
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
        return Messages.of("scale.formula", text);
    }

    @Override
    public String sum(double x) {
        return Messages.of("scale.with-x", text, Digits.of(x));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Formula formula
                && text.equals(formula.text)
                && constants.equals(formula.constants)
                && columns.equals(formula.columns)
                && unit.equals(formula.unit);
    }

    @Override
    public int hashCode() {
        return Objects.hash(text, constants, unit, columns);
    }

    @Override
    public String toString() {
        return "Formula[" + text + ", " + constants + ", " + unit + "]";
    }
}
