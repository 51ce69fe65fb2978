package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A window that is told in seconds: as many samples as the rate gives. */
public record Timed(boolean median, double seconds) implements Step {
    @Override
    public String text() {
        return (median ? "median:" : "mean:") + Digits.exact(seconds) + "s";
    }

    @Override
    public String words() {
        return (median ? Messages.of("clean.median-of-2") : Messages.of("clean.mean-of-2")) + Digits.of(seconds) + " s";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.window"));
    }

    @Override
    public String about() {
        return median
                ? Messages.of("clean.single-jumps-go-steps-stay-steep")
                : Messages.of("clean.noise-evens-out-and-what-is-quick");
    }

    private Step counted(double rate) {
        double samples = median ? 2 * Math.floor(seconds * rate / 2) + 1 : Math.rint(seconds * rate);
        int most = median ? StepParser.LONGEST_CENTRED : StepParser.LONGEST_WINDOW;
        int window = Words.window(text(), samples, rate, 1, most);
        return median ? new Median(window) : new Mean(window);
    }

    @Override
    public Stage stage(double rate, Start start) {
        return counted(rate).stage(rate, start);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        counted(rate).bothWays(data, rate);
    }

    @Override
    public long context(double rate) {
        return counted(rate).context(rate);
    }

    @Override
    public double delaySamples(double rate) {
        return counted(rate).delaySamples(rate);
    }
}
