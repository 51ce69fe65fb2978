package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Replaces what stands out from half samples either way by k spreads or more. */
public record Despike(int half, double k) implements Step {
    @Override
    public String text() {
        return "despike:" + half + "@" + Digits.exact(k);
    }

    @Override
    public String words() {
        return "without spikes";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("to either side, samples", "threshold, SD");
    }

    @Override
    public String about() {
        return "a sample that stands out from its neighbours becomes their median; all others stay";
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Despiker(half, k);
    }
}
