package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Adds a number, in the unit of the signal. */
public record Offset(double x) implements Step {
    @Override
    public String text() {
        return "offset:" + Digits.exact(x);
    }

    @Override
    public String words() {
        return Digits.of(Math.abs(x)) + (x < 0 ? Messages.of("clean.less") : Messages.of("clean.more"));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.added"));
    }

    @Override
    public String about() {
        return Messages.of("clean.the-same-is-added-to-every-sample");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Pointwise(value -> value + x);
    }
}
