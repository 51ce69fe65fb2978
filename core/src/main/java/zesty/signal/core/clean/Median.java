package zesty.signal.core.clean;

import java.util.List;

/** The median of so many samples, an odd number, about each. */
public record Median(int samples) implements Step {
    @Override
    public String text() {
        return "median:" + samples;
    }

    @Override
    public String words() {
        return "median of " + samples;
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("window, samples");
    }

    @Override
    public String about() {
        return "single jumps go, steps stay steep";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new MovingMedian(samples);
    }
}
