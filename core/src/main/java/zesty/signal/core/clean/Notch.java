package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** Takes one frequency out, −3 dB wide by hz / q. */
public record Notch(double hz, double q) implements Step.Filter {
    @Override
    public String text() {
        return "notch:" + Digits.exact(hz) + "@" + Digits.exact(q);
    }

    @Override
    public String words() {
        return Messages.of("clean.notch-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.frequency-hz"), "Q");
    }

    @Override
    public String about() {
        return Messages.of("clean.one-frequency-goes-hz-wide", Digits.about(hz / q, 2));
    }

    @Override
    public double typicalHz() {
        return hz / 4;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), hz, rate);
        return FilterDesign.notch(rate, hz, q);
    }
}
