package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The root of the mean square over so many seconds, looking back. */
public record Rms(double seconds) implements Step {
    @Override
    public String text() {
        return "rms:" + Digits.exact(seconds);
    }

    @Override
    public String words() {
        return Messages.of("clean.rms-of-s", Digits.of(seconds));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window-s"));
    }

    @Override
    public String about() {
        return Messages.of("clean.how-strong-it-is-whichever-way-it");
    }

    private int samples(double rate) {
        double samples = Math.rint(seconds * rate);
        if (!(samples >= 1 && samples <= 1e7)) {
            throw new RecipeException(Messages.of(
                    "clean.s-at-samples-s-is-no-window-at",
                    text(),
                    seconds,
                    Digits.exact(rate),
                    Digits.exact(1 / rate)));
        }
        return (int) samples;
    }

    private List<Stage> parts(double rate, Start start) {
        return List.of(
                new Pointwise(x -> x * x),
                new MovingMean(samples(rate), start),
                new Pointwise(x -> Math.sqrt(Math.max(0, x))));
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Chain(parts(rate, start));
    }

    @Override
    public void bothWays(double[] data, double rate) {
        List<Stage> parts = parts(rate, Start.SETTLED);
        parts.get(0).apply(data, 0, data.length);
        BothWays.run(data, parts.get(1), 3 * samples(rate));
        parts.get(2).apply(data, 0, data.length);
    }

    @Override
    public long context(double rate) {
        return 2L * samples(rate);
    }

    @Override
    public double delaySamples(double rate) {
        return (samples(rate) - 1) / 2.0;
    }
}
