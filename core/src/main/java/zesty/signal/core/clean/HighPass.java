package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A Butterworth high-pass of that order; its corner is −3 dB. */
public record HighPass(double hz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "highpass:" + Digits.exact(hz) + "@" + order;
    }

    @Override
    public String words() {
        return Messages.of("clean.above-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.corner-hz"), Messages.of("clean.order"));
    }

    @Override
    public String about() {
        return Messages.of("clean.the-level-and-what-is-slower-than", Digits.of(hz));
    }

    @Override
    public double typicalHz() {
        return 4 * hz;
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), hz, rate);
        return FilterDesign.highPass(rate, hz, order);
    }
}
