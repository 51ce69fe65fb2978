package zesty.signal.core.scale;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/** One conversion after the other, as a fit after a sensor's own law. */
public record Chained(Conversion first, Conversion second) implements Conversion {
    public Chained {
        Objects.requireNonNull(first, "first");
        Objects.requireNonNull(second, "second");
    }

    /** @return the two in one: two lines are a line again, and what changes nothing is left out */
    public static Conversion of(Conversion first, Conversion second) {
        if (second.equals(Line.SAME)) {
            return first;
        }
        if (first.equals(Line.SAME)) {
            return second;
        }
        if (first instanceof Line a && second instanceof Line b) {
            return new Line(a.slope() * b.slope(), b.apply(a.offset()));
        }
        return new Chained(first, second);
    }

    @Override
    public double apply(double x) {
        return second.apply(first.apply(x));
    }

    @Override
    public double invert(double y) {
        return first.invert(second.invert(y));
    }

    @Override
    public void apply(double[] values, int length) {
        first.apply(values, length);
        second.apply(values, length);
    }

    @Override
    public List<String> columns() {
        List<String> columns = new ArrayList<>(first.columns());
        columns.addAll(second.columns());
        return columns;
    }

    @Override
    public Conversion at(double[] others) {
        int firsts = first.columns().size();
        return new Chained(
                first.at(Arrays.copyOf(others, firsts)), second.at(Arrays.copyOfRange(others, firsts, others.length)));
    }

    @Override
    public void apply(double[] values, double[][] others, int length) {
        int firsts = first.columns().size();
        first.apply(values, Arrays.copyOf(others, firsts), length);
        second.apply(values, Arrays.copyOfRange(others, firsts, others.length), length);
    }

    @Override
    public String unit() {
        return second.unit().isEmpty() ? first.unit() : second.unit();
    }

    @Override
    public String takes() {
        return first.takes();
    }

    @Override
    public String words() {
        return Messages.of("scale.then", first.words(), second.words());
    }

    @Override
    public String sum(double x) {
        double between = first.apply(x);
        return Messages.of("scale.then-2", first.sum(x), Digits.of(between), second.sum(between));
    }
}
