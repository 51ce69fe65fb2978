package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A Butterworth band-stop; the order is that of the low-pass it is made from, so that it has twice as many poles. */
public record BandStop(double lowHz, double highHz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "bandstop:" + Digits.exact(lowHz) + ".." + Digits.exact(highHz) + "@" + order;
    }

    @Override
    public String words() {
        return Messages.of("clean.without-hz", Digits.of(lowHz), Digits.of(highHz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.from-hz"), Messages.of("clean.to-hz"), Messages.of("clean.order"));
    }

    @Override
    public String about() {
        return Messages.of("clean.what-lies-in-the-band-goes");
    }

    @Override
    public double typicalHz() {
        return lowHz / 4;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), highHz, rate);
        return FilterDesign.bandStop(rate, lowHz, highHz, order);
    }
}
