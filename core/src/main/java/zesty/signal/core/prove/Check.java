package zesty.signal.core.prove;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Readings against references, with nothing changed: how far each is off, and whether that is within what the maker
 * allows.
 *
 * @param points with what the channel reads as raw
 * @param tolerance how far off a reading may be, above 0
 */
public record Check(List<ReferencePoint> points, double tolerance) {
    public Check {
        points = List.copyOf(points);
        if (!(tolerance > 0) || Double.isInfinite(tolerance)) {
            throw new IllegalArgumentException(
                    Messages.of("prove.a-tolerance-is-a-number-above-0", Digits.of(tolerance)));
        }
    }

    /** @return the reading less the reference */
    public double error(int point) {
        return points.get(point).raw() - points.get(point).reference();
    }

    /** @return whether the reading is near enough; what the reference itself leaves open counts against it */
    public boolean passes(int point) {
        return Math.abs(error(point)) + points.get(point).uncertainty() <= tolerance;
    }

    /** @return how many pass */
    public int passed() {
        int passed = 0;
        for (int i = 0; i < points.size(); i++) {
            passed += passes(i) ? 1 : 0;
        }
        return passed;
    }

    /** @return the outcome in words */
    public String words(String unit) {
        if (points.isEmpty()) {
            return Messages.of("prove.hold-a-point-first");
        }
        int worst = 0;
        for (int i = 1; i < points.size(); i++) {
            worst = Math.abs(error(i)) > Math.abs(error(worst)) ? i : worst;
        }
        String behind = unit.isEmpty() ? "" : " " + unit;
        return Messages.of(
                "prove.within-the-worst-is-off-by-at",
                (passed() == points.size() ? Messages.of("prove.pass-all") : Messages.of("prove.fail-of", passed()))
                        + points.size()
                        + (points.size() == 1 ? Messages.of("prove.reading") : Messages.of("prove.readings")),
                Digits.of(tolerance),
                behind,
                Digits.about(error(worst), 2),
                behind,
                Digits.of(points.get(worst).reference()),
                behind);
    }
}
