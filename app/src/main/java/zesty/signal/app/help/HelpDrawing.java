package zesty.signal.app.help;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/**
 * A small drawing beside a topic: what it looks like in a signal, as paths of SVG in a field of {@link #WIDTH} by
 * {@link #HEIGHT}. The window and the guide draw the same.
 *
 * @param pale what was there before, or lies behind
 * @param strong what it is about
 */
public record HelpDrawing(String pale, String strong) {
    public static final double WIDTH = 240;
    public static final double HEIGHT = 60;

    private static final double MIDDLE = 30;
    private static final double STEP = 1.5;

    private static final Map<String, HelpDrawing> ALL = Map.ofEntries(
            Map.entry("aliasing", of(x -> 24 * Math.sin(x * 0.62), x -> 24 * Math.sin(x * 0.045))),
            Map.entry("sample-rate", new HelpDrawing(line(HelpDrawing::swing), dots(HelpDrawing::swing, 10))),
            Map.entry("quantisation", of(HelpDrawing::swing, x -> 8 * Math.rint(swing(x) / 8))),
            Map.entry("adc", of(HelpDrawing::swing, x -> 8 * Math.rint(swing(x) / 8))),
            Map.entry("clipping", of(x -> 40 * Math.sin(x / 18), x -> within(40 * Math.sin(x / 18), 22))),
            Map.entry("hum", of(HelpDrawing::swing, x -> 0.7 * swing(x) + 7 * Math.sin(x * 1.4))),
            Map.entry("wander", of(x -> 20 * Math.sin(x / 70), x -> 20 * Math.sin(x / 70) + 9 * beat(x))),
            Map.entry("noise", of(HelpDrawing::swing, x -> swing(x) + 8 * grain(x))),
            Map.entry("low-pass", of(x -> swing(x) + 10 * grain(x), x -> swing(x - 5))),
            Map.entry("high-pass", of(x -> x / 6 - 20 + 9 * beat(x), x -> 9 * beat(x))),
            Map.entry("notch", of(x -> swing(x) + 7 * Math.sin(x * 1.4), HelpDrawing::swing)),
            Map.entry("delay", of(x -> 22 * step(x, 80), x -> 22 * step(x, 110))),
            Map.entry("envelope", of(HelpDrawing::burst, x -> Math.abs(size(x)))),
            Map.entry("rms", of(x -> 24 * Math.sin(x / 9), x -> 17)),
            Map.entry("threshold", of(x -> 10, x -> 22 * knock(x))),
            Map.entry("hysteresis", of(x -> x % 4 < 2 ? 6 : -6, x -> 18 * Math.sin(x / 24) + 4 * grain(x))),
            Map.entry("dead-time", of(x -> 10, x -> 24 * knock(x))),
            Map.entry("drift", of(x -> 0, x -> x / 8 - 15 + 3 * grain(x))),
            Map.entry("settling", of(x -> 18 * step(x, 60), HelpDrawing::ring)),
            Map.entry(
                    "time-constant", of(x -> 18 * step(x, 60), x -> x < 60 ? -18 : 18 - 36 * Math.exp(-(x - 60) / 35))),
            Map.entry("spectrum", new HelpDrawing(line(x -> -24), bars())),
            Map.entry("histogram", new HelpDrawing(line(x -> -24), heap())),
            Map.entry("gap", new HelpDrawing(line(HelpDrawing::swing), part(0, 90) + part(140, WIDTH))),
            Map.entry("response", of(x -> -24, x -> x < 110 ? 20 : 20 - (x - 110) * 0.5)),
            Map.entry("transfer", of(x -> -24, x -> x / 5 - 24)),
            Map.entry("reader-pulse", of(x -> 20 * Math.sin(x / 70), x -> 24 * beat(x) - 10)),
            Map.entry("reader-muscle", of(x -> 0, HelpDrawing::burst)),
            Map.entry("reader-hits", of(x -> 8, x -> 24 * knock(x))),
            Map.entry("reader-tone", of(x -> 0, x -> 18 * Math.sin(x / 6) + 6 * Math.sin(x / 3))),
            Map.entry("reader-step", of(x -> 18 * step(x, 60), HelpDrawing::ring)),
            Map.entry("reader-level", of(x -> x % 4 < 2 ? 10 : -10, HelpDrawing::swing)));

    /** @return the drawing of a topic, where there is something to draw */
    public static Optional<HelpDrawing> of(String topic) {
        return Optional.ofNullable(ALL.get(topic));
    }

    private static HelpDrawing of(DoubleUnaryOperator pale, DoubleUnaryOperator strong) {
        return new HelpDrawing(line(pale), line(strong));
    }

    private static String line(DoubleUnaryOperator of) {
        return line(of, 0, WIDTH);
    }

    private static String part(double from, double to) {
        return line(HelpDrawing::swing, from, to);
    }

    private static String line(DoubleUnaryOperator of, double from, double to) {
        StringBuilder path = new StringBuilder();
        for (double x = from; x <= to; x += STEP) {
            path.append(x == from ? 'M' : 'L').append(at(x, of.applyAsDouble(x)));
        }
        return path.toString();
    }

    private static String at(double x, double value) {
        return String.format(Locale.ROOT, "%.1f %.1f", x, within(MIDDLE - value, HEIGHT));
    }

    private static String dots(DoubleUnaryOperator of, double each) {
        StringBuilder path = new StringBuilder();
        for (double x = each / 2; x <= WIDTH; x += each) {
            path.append('M')
                    .append(at(x - 1.5, of.applyAsDouble(x)))
                    .append('L')
                    .append(at(x + 1.5, of.applyAsDouble(x)));
        }
        return path.toString();
    }

    private static String bars() {
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < 40; i++) {
            double height = i == 6 ? 48 : i == 12 ? 30 : i == 18 ? 18 : 4 + 3 * grain(7 * i);
            path.append('M').append(at(3 + 6 * i, -24)).append('L').append(at(3 + 6 * i, height - 24));
        }
        return path.toString();
    }

    private static String heap() {
        StringBuilder path = new StringBuilder();
        for (int i = 0; i < 40; i++) {
            double height = i == 23 ? 0 : 46 * Math.exp(-(i - 20.0) * (i - 20) / 60);
            path.append('M').append(at(3 + 6 * i, -24)).append('L').append(at(3 + 6 * i, height - 24));
        }
        return path.toString();
    }

    private static double swing(double x) {
        return 18 * Math.sin(x / 20) + 5 * Math.sin(x / 9);
    }

    private static double beat(double x) {
        double in = x % 48;
        return Math.exp(-(in - 14) * (in - 14) / 18) + 0.4 * Math.exp(-(in - 27) * (in - 27) / 30);
    }

    private static double knock(double x) {
        double in = x % 80;
        return in < 20 ? 0 : Math.exp(-(in - 20) / 11) * Math.cos((in - 20) * 0.9);
    }

    private static double size(double x) {
        return 3 + 20 * (within(x - 60, 1) > 0 && x < 130 || x > 180 && x < 225 ? 1 : 0);
    }

    private static double burst(double x) {
        return size(x) * Math.sin(x * 1.9) * Math.cos(x * 0.31);
    }

    private static double ring(double x) {
        return x < 60 ? -18 : 18 - 36 * Math.exp(-(x - 60) / 30) * Math.cos((x - 60) / 14);
    }

    private static double step(double x, double at) {
        return x < at ? -1 : 1;
    }

    /** Repeatable, and like nothing else: a drawing is the same on every machine. */
    private static double grain(double x) {
        double mixed = Math.sin(x * 12.9898) * 43758.5453;
        return 2 * (mixed - Math.floor(mixed)) - 1;
    }

    private static double within(double value, double most) {
        return Math.max(most == HEIGHT ? 0 : -most, Math.min(most, value));
    }
}
