package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A mean in which the newest sample has the weight alpha, 0 … 1, and older ones fade. */
public record Exponential(double alpha) implements Step {
    @Override
    public String text() {
        return "exp:" + Digits.exact(alpha);
    }

    @Override
    public String words() {
        return Messages.of("clean.weight-for-the-newest", Digits.of(alpha));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.weight-of-the-newest"));
    }

    @Override
    public String about() {
        return Messages.of("clean.noise-evens-out-older-samples-fade");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new ExponentialMean(alpha, start);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        BothWays.run(data, new ExponentialMean(alpha, Start.SETTLED), 6);
    }

    @Override
    public long context(double rate) {
        return alpha < 1 ? (long) Math.ceil(Math.log(Sections.NOTHING) / Math.log1p(-alpha)) : 1;
    }

    @Override
    public double delaySamples(double rate) {
        return (1 - alpha) / alpha;
    }
}
