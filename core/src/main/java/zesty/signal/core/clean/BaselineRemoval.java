package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What wanders below is taken off without bending what is quicker. */
public record BaselineRemoval(double seconds) implements Step {
    @Override
    public String text() {
        return "baseline:" + Digits.exact(seconds);
    }

    @Override
    public String words() {
        return Messages.of("clean.baseline-wander-removed");
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window-s"));
    }

    @Override
    public String about() {
        return Messages.of("clean.removes-a-baseline-that-wanders");
    }

    private int samples(double rate) {
        return Words.window(text(), 2 * Math.floor(seconds * rate / 2) + 1, rate, 3, StepParser.LONGEST_CENTRED);
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Baseline(samples(rate));
    }

    @Override
    public void onceThrough(double[] data, double rate) {
        Baseline.remove(data, samples(rate));
    }
}
