package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A Butterworth low-pass of that order; its corner is −3 dB. */
public record LowPass(double hz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "lowpass:" + Digits.exact(hz) + "@" + order;
    }

    @Override
    public String words() {
        return Messages.of("clean.below-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.corner-hz"), Messages.of("clean.order"));
    }

    @Override
    public String about() {
        return Messages.of("clean.what-is-quicker-than-hz-goes", Digits.of(hz));
    }

    @Override
    public double typicalHz() {
        return hz / 4;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), hz, rate);
        return FilterDesign.lowPass(rate, hz, order);
    }
}
