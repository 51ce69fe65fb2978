package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.text.Messages;

/** The polynomial of that degree fitted to so many samples about each, an odd number. */
public record Smooth(int samples, int degree) implements Step {
    @Override
    public String text() {
        return "smooth:" + samples + "@" + degree;
    }

    @Override
    public String words() {
        return Messages.of("clean.smooth-over", samples);
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window-samples"), Messages.of("clean.degree"));
    }

    @Override
    public String about() {
        return Messages.of("clean.noise-evens-out-the-height-of");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new PolynomialSmoother(samples, degree);
    }
}
