package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A Butterworth band-pass; the order is that of the low-pass it is made from, so that it has twice as many poles. */
public record BandPass(double lowHz, double highHz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "bandpass:" + Digits.exact(lowHz) + ".." + Digits.exact(highHz) + "@" + order;
    }

    @Override
    public String words() {
        return Messages.of("clean.band-hz", Digits.of(lowHz), Digits.of(highHz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.from-hz"), Messages.of("clean.to-hz"), Messages.of("clean.order"));
    }

    @Override
    public String about() {
        return Messages.of("clean.what-is-slower-or-quicker-than-the");
    }

    @Override
    public double typicalHz() {
        return Math.sqrt(lowHz * highHz);
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), highHz, rate);
        return FilterDesign.bandPass(rate, lowHz, highHz, order);
    }
}
