package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** A notch at a frequency and at each of its multiples below half the rate, all equally wide. */
public record Comb(double hz, double q) implements Step.Filter {
    private static final int MOST = 10;

    @Override
    public String text() {
        return "comb:" + Digits.exact(hz) + "@" + Digits.exact(q);
    }

    @Override
    public String words() {
        return Messages.of("clean.comb-of-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.frequency-hz"), "Q");
    }

    @Override
    public String about() {
        return Messages.of("clean.a-frequency-and-its-multiples-go");
    }

    @Override
    public double typicalHz() {
        return hz / 4;
    }

    @Override
    public Sections sections(double rate) {
        Words.corner(text(), hz, rate);
        Sections all = FilterDesign.notch(rate, hz, q);
        for (int k = 2; k <= MOST && k * hz < 0.49 * rate; k++) {
            all = all.then(FilterDesign.notch(rate, k * hz, k * q));
        }
        return all;
    }
}
