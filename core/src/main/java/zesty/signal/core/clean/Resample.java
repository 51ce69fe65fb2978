package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Another, steady rate: rows come and go, so that a record can be brought to it but no channel of a stream. */
public record Resample(double hz) implements Step {
    @Override
    public String text() {
        return "resample:" + Digits.exact(hz);
    }

    @Override
    public String words() {
        return Digits.of(hz) + " a second";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("rate, Hz");
    }

    @Override
    public String about() {
        return "samples come at a steady rate";
    }

    @Override
    public Stage stage(double rate, Start start) {
        throw new RecipeException(text() + ": a channel keeps the rows received; a file is brought to another rate by"
                + " ./zesty clean with this step in its recipe");
    }
}
