package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Replaces what stands out from half samples either way by k spreads or more. */
public record Despike(int half, double k) implements Step {
    @Override
    public String text() {
        return "despike:" + half + "@" + Digits.exact(k);
    }

    @Override
    public String words() {
        return Messages.of("clean.without-spikes");
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.to-either-side-samples"), Messages.of("clean.threshold-sd"));
    }

    @Override
    public String about() {
        return Messages.of("clean.a-sample-that-stands-out-from-its");
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new Despiker(half, k);
    }
}
