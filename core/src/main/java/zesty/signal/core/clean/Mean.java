package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.text.Messages;

/** The mean of so many samples, looking back. */
public record Mean(int samples) implements Step {
    @Override
    public String text() {
        return "mean:" + samples;
    }

    @Override
    public String words() {
        return Messages.of("clean.mean-of", samples);
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window-samples"));
    }

    @Override
    public String about() {
        return Messages.of("clean.noise-evens-out-and-what-is-quick");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new MovingMean(samples, start);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        BothWays.run(data, new MovingMean(samples, Start.SETTLED), 3 * samples);
    }

    @Override
    public long context(double rate) {
        return 2L * samples;
    }

    @Override
    public double delaySamples(double rate) {
        return (samples - 1) / 2.0;
    }
}
