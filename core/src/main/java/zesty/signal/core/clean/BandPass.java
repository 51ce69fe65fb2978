package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;

/** A Butterworth band-pass; the order is that of the low-pass it is made from, so that it has twice as many poles. */
public record BandPass(double lowHz, double highHz, int order) implements Step.Filter {
    @Override
    public String text() {
        return "bandpass:" + Digits.exact(lowHz) + ".." + Digits.exact(highHz) + "@" + order;
    }

    @Override
    public String words() {
        return "band " + Digits.of(lowHz) + "–" + Digits.of(highHz) + " Hz";
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named("from, Hz", "to, Hz", "order");
    }

    @Override
    public String about() {
        return "what is slower or quicker than the band goes, the level too";
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
