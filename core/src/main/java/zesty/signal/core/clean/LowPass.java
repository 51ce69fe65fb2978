package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** A Butterworth low-pass of that order; its corner is −3 dB. */
public record LowPass(double hz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "lowpass:" + Digits.exact(hz) + "@" + order;
    }

    @Override
    public String words() {
        return "below " + Digits.of(hz) + " Hz";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("corner, Hz", "order");
    }

    @Override
    public String about() {
        return "what is quicker than " + Digits.of(hz) + " Hz goes";
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
