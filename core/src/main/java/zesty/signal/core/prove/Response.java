package zesty.signal.core.prove;

import java.util.Arrays;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * Whether a channel answers at all: quiet first, then touched, warmed, pressed or switched on, then let go.
 *
 * @param moved whether it did, by more than five times its noise and more than two steps of the converter
 * @param change from the quiet mean to the far end of the touched stretch, in the channel's unit
 * @param overNoise the change in multiples of the noise
 * @param goSeconds from the touch until 63 % of the change; NaN when it did not move
 * @param backSeconds from letting go until 63 % of the way back; NaN when it did not come back yet
 */
public record Response(
        boolean moved, double change, double overNoise, double goSeconds, double backSeconds, double noise) {
    private static final String WARM = Messages.of("prove.warm-it");
    private static final String LOAD = Messages.of("prove.load-it");

    /** What a maker does to a sensor, the first of them meaning up for a temperature. */
    public static final List<String> ACTIONS = List.of(
            WARM,
            Messages.of("prove.switch-it-on"),
            Messages.of("prove.touch-it"),
            Messages.of("prove.press-it"),
            LOAD);

    private static final double LEAST_OVER_NOISE = 5;
    private static final double SHARE = 1 - 1 / Math.E;

    /**
     * @param seconds time of each value, rising
     * @param touch when it was touched, and {@code letGo} when it was let go, in the same time
     * @param step what one step of the converter is worth
     */
    public static Response of(double[] seconds, double[] values, double touch, double letGo, double step) {
        int t = at(seconds, touch);
        int g = at(seconds, letGo);
        double quiet = median(values, 0, t);
        SteadyMean.Held held = SteadyMean.of(Arrays.copyOf(values, t), t, step);
        double noise = Double.isNaN(held.noise()) ? 0 : held.noise();
        double far = median(values, Math.max(t, g - Math.max(1, (g - t) / 4)), g);
        double change = far - quiet;
        double over = noise > 0 ? Math.abs(change) / noise : Math.abs(change) > 0 ? Double.POSITIVE_INFINITY : 0;
        boolean moved = over > LEAST_OVER_NOISE && Math.abs(change) > 2 * step;
        return new Response(
                moved,
                change,
                over,
                moved ? reach(seconds, values, t, g, quiet, change, touch) : Double.NaN,
                moved ? reach(seconds, values, g, values.length, far, -change, letGo) : Double.NaN,
                noise);
    }

    private static int at(double[] seconds, double moment) {
        int i = Arrays.binarySearch(seconds, moment);
        return i < 0 ? -i - 1 : i;
    }

    private static double median(double[] values, int from, int to) {
        double[] part = Arrays.stream(values, Math.min(from, to), to)
                .filter(v -> !Double.isNaN(v))
                .sorted()
                .toArray();
        return part.length == 0 ? Double.NaN : part[part.length / 2];
    }

    private static double reach(
            double[] seconds, double[] values, int from, int to, double start, double change, double zero) {
        for (int i = from; i < to; i++) {
            if ((values[i] - start) / change >= SHARE) {
                return seconds[i] - zero;
            }
        }
        return Double.NaN;
    }

    /** @return the answer in words */
    public String words(String unit) {
        String behind = unit.isEmpty() ? "" : " " + unit;
        if (!moved) {
            return Messages.of("prove.nothing-moved-by-more-than-the", Digits.of(rounded(noise)), behind);
        }
        StringBuilder words = new StringBuilder(Messages.of(
                "prove.it-answers-by",
                (change > 0 ? Messages.of("prove.up") : Messages.of("prove.down")),
                Digits.of(rounded(Math.abs(change))),
                behind,
                (Double.isInfinite(overNoise)
                        ? Messages.of("prove.with-no-noise-to-speak-of")
                        : Messages.of("prove.times-the-noise", Digits.of(rounded(overNoise))))));
        if (!Double.isNaN(goSeconds)) {
            words.append(Messages.of("prove.there-in"))
                    .append(Digits.of(rounded(goSeconds)))
                    .append(" s");
        }
        words.append(
                Double.isNaN(backSeconds)
                        ? Messages.of("prove.not-back-yet")
                        : Messages.of("prove.back-in-s", Digits.of(rounded(backSeconds))));
        return words.append(".").toString();
    }

    /** @return what to make of the direction, where the action says which it should be; empty where there is nothing */
    public String direction(String action) {
        boolean shouldRise = action.equals(WARM) || action.equals(LOAD);
        if (!moved || !shouldRise || change > 0) {
            return "";
        }
        return action.equals(WARM)
                ? Messages.of("prove.it-reads-colder-when-warmed-a")
                : Messages.of("prove.it-reads-less-when-loaded-the");
    }

    private static double rounded(double value) {
        return Double.isFinite(value)
                ? new java.math.BigDecimal(value)
                        .round(new java.math.MathContext(3))
                        .doubleValue()
                : value;
    }
}
