package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Details that do not stand out of the noise at their own scale are taken off. */
public record Wavelet(int levels, double k) implements Step {
    static final int MOST_LEVELS = 8;

    @Override
    public String text() {
        return "wavelet:" + levels + "@" + Digits.exact(k);
    }

    @Override
    public String words() {
        return Messages.of("clean.details-above-noise", Digits.of(k));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.levels"), Messages.of("clean.threshold-noise"));
    }

    @Override
    public String about() {
        return Messages.of("clean.details-that-do-not-stand-out-of");
    }

    @Override
    public long context(double rate) {
        // The noise is told from what came before.
        return WaveletThreshold.looksBack(levels);
    }

    @Override
    public Stage stage(double rate, Start start) {
        return new WaveletThreshold(levels, k);
    }
}
