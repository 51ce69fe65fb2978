package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Multiplies by a number. */
public record Scale(double x) implements Step {
    @Override
    public String text() {
        return "scale:" + Digits.exact(x);
    }

    @Override
    public String words() {
        return "times " + Digits.of(x);
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("factor");
    }

    @Override
    public String about() {
        return "every sample is so many times as large";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Pointwise(value -> value * x);
    }
}
