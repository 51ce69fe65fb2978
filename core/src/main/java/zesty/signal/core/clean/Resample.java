package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Another, steady rate: rows come and go, so that a record can be brought to it but no channel of a stream. */
public record Resample(double hz) implements Step {
    @Override
    public String text() {
        return "resample:" + Digits.exact(hz);
    }

    @Override
    public String words() {
        return Messages.of("clean.a-second", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.rate-hz"));
    }

    @Override
    public String about() {
        return Messages.of("clean.samples-come-at-a-steady-rate");
    }

    @Override
    public Stage stage(double rate, Start start) {
        throw new RecipeException(Messages.of("clean.a-channel-keeps-the-rows-received", text()));
    }
}
