package zesty.signal.core.scale;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import javax.measure.Dimension;
import javax.measure.Unit;
import zesty.signal.core.text.Messages;

/**
 * Checks a formula's units without taking it apart: where every base unit is made so many times smaller, an honest
 * quantity grows by a power of that, whatever the numbers. Only for formulas without numbers of their own, since a
 * number may stand for anything.
 */
final class FormulaUnits {
    private static final double TIMES = 2;
    private static final double NEAR = 1e-6;
    private static final int TRIALS = 4;

    private FormulaUnits() {}

    /**
     * @param names of x and the columns
     * @param units of these, in the same order
     * @return what is wrong, in words; empty when nothing is, or when it cannot be told
     */
    static String remark(Formula formula, List<String> names, List<String> units) {
        Optional<Unit<?>> result = UnitBook.unit(formula.unit());
        List<Unit<?>> known = new ArrayList<>();
        units.forEach(unit -> UnitBook.unit(unit).ifPresent(known::add));
        boolean pure = formula.constants().isEmpty() && !formula.text().matches(".*\\d.*");
        if (!pure || result.isEmpty() || known.size() < units.size()) {
            return "";
        }
        List<Dimension> bases = new ArrayList<>();
        known.forEach(unit -> basesOf(unit).keySet().stream()
                .filter(base -> !bases.contains(base))
                .forEach(bases::add));
        basesOf(result.get()).keySet().stream().filter(b -> !bases.contains(b)).forEach(bases::add);
        for (Dimension base : bases) {
            double power = power(formula, names, known, base);
            if (Double.isNaN(power)) {
                return Messages.of(
                        "scale.it-adds-or-compares-quantities-of",
                        String.join(", ", units.stream().distinct().toList()));
            }
            if (Math.abs(power - exponent(result.get(), base)) > NEAR) {
                return Messages.of(
                        "scale.the-result-is-not-in-by-the-units",
                        formula.unit(),
                        String.join(", ", units.stream().distinct().toList()));
            }
        }
        double factor = factor(formula, names, known, result.get());
        if (Math.abs(factor - 1) < NEAR) {
            return "";
        }
        return factor > 1
                ? Messages.of("scale.the-result-is-times-too-small-for", Digits.about(factor, 6), formula.unit())
                : Messages.of("scale.the-result-is-times-too-large-for", Digits.about(1 / factor, 6), formula.unit());
    }

    private static Map<? extends Dimension, Integer> basesOf(Unit<?> unit) {
        Map<? extends Dimension, Integer> bases = unit.getDimension().getBaseDimensions();
        return bases == null
                ? unit.getDimension().equals(tech.units.indriya.unit.UnitDimension.NONE)
                        ? Map.of()
                        : Map.of(unit.getDimension(), 1)
                : bases;
    }

    private static double exponent(Unit<?> unit, Dimension base) {
        for (Map.Entry<? extends Dimension, Integer> entry : basesOf(unit).entrySet()) {
            if (entry.getKey().equals(base)) {
                return entry.getValue();
            }
        }
        return 0;
    }

    /** @return the power with which the result goes by that base unit; NaN when there is none */
    private static double power(Formula formula, List<String> names, List<Unit<?>> units, Dimension base) {
        Random random = new Random(1);
        double power = Double.NaN;
        for (int t = 0; t < TRIALS; t++) {
            double[] values = random.doubles(names.size(), 1, 2).toArray();
            double[] grown = values.clone();
            for (int i = 0; i < grown.length; i++) {
                grown[i] *= Math.pow(TIMES, exponent(units.get(i), base));
            }
            double one = Math.log(formula.value(names, grown) / formula.value(names, values)) / Math.log(TIMES);
            if (t > 0 && !(Math.abs(one - power) < NEAR)) {
                return Double.NaN;
            }
            power = one;
        }
        return power;
    }

    /** @return by how much the result is too small in its unit, when all is reckoned in the base units */
    private static double factor(Formula formula, List<String> names, List<Unit<?>> units, Unit<?> result) {
        double[] values = new Random(2).doubles(names.size(), 1, 2).toArray();
        double[] base = values.clone();
        for (int i = 0; i < base.length; i++) {
            base[i] *= UnitBook.inBaseUnits(units.get(i));
        }
        return formula.value(names, base) / UnitBook.inBaseUnits(result) / formula.value(names, values);
    }
}
