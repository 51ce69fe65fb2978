package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** Takes one frequency out, −3 dB wide by hz / q. */
public record Notch(double hz, double q) implements Step.Filter {
    @Override
    public String text() {
        return "notch:" + Digits.exact(hz) + "@" + Digits.exact(q);
    }

    @Override
    public String words() {
        return "notch " + Digits.of(hz) + " Hz";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("frequency, Hz", "Q");
    }

    @Override
    public String about() {
        return "one frequency goes, " + Digits.about(hz / q, 2) + " Hz wide";
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
