package zesty.signal.core.prove;

import java.util.List;
import zesty.signal.core.scale.Digits;

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
            throw new IllegalArgumentException("a tolerance is a number above 0, was " + Digits.of(tolerance));
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
            return "Hold a point first.";
        }
        int worst = 0;
        for (int i = 1; i < points.size(); i++) {
            worst = Math.abs(error(i)) > Math.abs(error(worst)) ? i : worst;
        }
        String behind = unit.isEmpty() ? "" : " " + unit;
        return (passed() == points.size() ? "Pass: all " : "Fail: " + passed() + " of ")
                + points.size() + (points.size() == 1 ? " reading" : " readings") + " within ± " + Digits.of(tolerance)
                + behind + "; the worst is off by " + Digits.about(error(worst), 2) + behind + " at "
                + Digits.of(points.get(worst).reference()) + behind + ".";
    }
}
