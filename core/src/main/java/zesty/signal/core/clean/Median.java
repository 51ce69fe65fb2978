package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.text.Messages;

/** The median of so many samples, an odd number, about each. */
public record Median(int samples) implements Step {
    @Override
    public String text() {
        return "median:" + samples;
    }

    @Override
    public String words() {
        return Messages.of("clean.median-of", samples);
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window-samples"));
    }

    @Override
    public String about() {
        return Messages.of("clean.single-jumps-go-steps-stay-steep");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new MovingMedian(samples);
    }
}
