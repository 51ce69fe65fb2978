package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Multiplies by a number. */
public record Scale(double x) implements Step {
    @Override
    public String text() {
        return "scale:" + Digits.exact(x);
    }

    @Override
    public String words() {
        return Messages.of("clean.times", Digits.of(x));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.factor"));
    }

    @Override
    public String about() {
        return Messages.of("clean.every-sample-is-so-many-times-as");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Pointwise(value -> value * x);
    }
}
