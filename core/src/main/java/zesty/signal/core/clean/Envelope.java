package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Rectified, then a low-pass of order 2. */
public record Envelope(double hz) implements Step {
    @Override
    public String text() {
        return "envelope:" + Digits.exact(hz);
    }

    @Override
    public String words() {
        return Messages.of("clean.envelope-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.smoothed-below-hz"));
    }

    @Override
    public String about() {
        return Messages.of("clean.how-strong-it-is-as-a-line");
    }

    private LowPass smoother(double rate) {
        Words.corner(text(), hz, rate);
        return new LowPass(hz, 2);
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Chain(List.of(new Pointwise(Math::abs), smoother(rate).stage(rate, start)));
    }

    @Override
    public long context(double rate) {
        return smoother(rate).context(rate);
    }

    @Override
    public double delaySamples(double rate) {
        return smoother(rate).delaySamples(rate);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        new Rectify().onceThrough(data, rate);
        smoother(rate).bothWays(data, rate);
    }
}
