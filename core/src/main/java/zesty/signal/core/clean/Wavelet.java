package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Details that do not stand out of the noise at their own scale are taken off. */
public record Wavelet(int levels, double k) implements Step {
    static final int MOST_LEVELS = 8;

    @Override
    public String text() {
        return "wavelet:" + levels + "@" + Digits.exact(k);
    }

    @Override
    public String words() {
        return "details above " + Digits.of(k) + " × noise";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("levels", "threshold, noise");
    }

    @Override
    public String about() {
        return "details that do not stand out of the noise go, what is steep stays steep";
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
