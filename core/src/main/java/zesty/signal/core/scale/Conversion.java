package zesty.signal.core.scale;

import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * From what a sensor gives to the quantity it stands for: exact to the rounding of doubles, in full precision. Values
 * out of a conversion's range give NaN. Immutable.
 */
public sealed interface Conversion
        permits Line,
                Polynomial,
                ValueTable,
                Thermistor,
                Divider,
                Shunt,
                MagneticCurrent,
                AnalogTemperature,
                Thermocouple,
                Echo,
                Height,
                Decibels,
                Chained,
                Formula {

    /** @return the quantity for one value; NaN where there is none */
    double apply(double x);

    /** @return the value that gives that quantity; NaN where there is none, or more than one */
    double invert(double y);

    /** @return the unit of the quantity; empty where the maker says it */
    String unit();

    /** @return the unit of what goes in; empty where that is up to the maker */
    default String takes() {
        return "V";
    }

    /** @return the conversion in a few words, with its numbers */
    String words();

    /** @return the sum for one value, with its numbers in it */
    String sum(double x);

    /** Converts {@code length} values in place, from index 0. */
    default void apply(double[] values, int length) {
        Objects.checkFromIndexSize(0, length, values.length);
        for (int i = 0; i < length; i++) {
            values[i] = apply(values[i]);
        }
    }

    /** @return the other columns of the same row that it takes in, in the order in which it wants their values */
    default List<String> columns() {
        return List.of();
    }

    /** @return the same with the values of its columns as they are now, for arithmetic on one moment's numbers */
    default Conversion at(double[] others) {
        return this;
    }

    /**
     * Converts {@code length} values in place, from index 0.
     *
     * @param others the values of its columns, row by row; may be longer
     */
    default void apply(double[] values, double[][] others, int length) {
        apply(values, length);
    }

    /** @throws IllegalArgumentException when the value is no finite number above 0 */
    static void needPositive(String what, double value) {
        if (!(value > 0) || Double.isInfinite(value)) {
            throw new IllegalArgumentException(Messages.of("scale.must-be-above-0-was", what, Digits.of(value)));
        }
    }

    /** @throws IllegalArgumentException when the value is no finite number */
    static void needFinite(String what, double value) {
        if (!Double.isFinite(value)) {
            throw new IllegalArgumentException(Messages.of("scale.must-be-a-number-was", what, value));
        }
    }
}
