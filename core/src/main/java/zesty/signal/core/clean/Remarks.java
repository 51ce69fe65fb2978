package zesty.signal.core.clean;

import java.util.ArrayList;
import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** What can be run and yet makes little sense: said with numbers, not refused. */
public final class Remarks {
    /** A notch wider than this share of what is kept takes some of what is wanted. */
    private static final double WIDE = 0.2;

    private Remarks() {}

    /** @return a sentence for each, in the order of the steps */
    public static List<String> of(Recipe recipe, double rateHz) {
        List<String> remarks = new ArrayList<>();
        double low = 0;
        double high = rateHz / 2;
        for (Step step : recipe.steps()) {
            remark(step, low, high, remarks);
            if (step instanceof BandPass band) {
                low = Math.max(low, band.lowHz());
                high = Math.min(high, band.highHz());
            } else if (step instanceof LowPass pass) {
                high = Math.min(high, pass.hz());
            } else if (step instanceof HighPass pass) {
                low = Math.max(low, pass.hz());
            } else if (step instanceof Rectify || step instanceof Envelope || step instanceof Rms) {
                // What swings becomes what it is strong: from here on other frequencies mean other things.
                low = 0;
                high = step instanceof Envelope envelope ? envelope.hz() : rateHz / 2;
            }
            if (!(low < high)) {
                remarks.add(Messages.of(
                        "clean.leaves-nothing-above-and-below-hz", step.text(), Digits.of(low), Digits.of(high)));
                return remarks;
            }
        }
        return remarks;
    }

    private static void remark(Step step, double low, double high, List<String> remarks) {
        if (step instanceof Notch notch) {
            double width = notch.hz() / notch.q();
            if (notch.hz() > high || notch.hz() < low) {
                remarks.add(Messages.of(
                        "clean.does-nothing-hz-lies-outside-of",
                        step.text(),
                        Digits.of(notch.hz()),
                        Digits.of(low),
                        Digits.of(high)));
            } else if (width > WIDE * (high - low)) {
                remarks.add(Messages.of(
                        "clean.takes-hz-out-of-the-hz-that-are",
                        step.text(),
                        Digits.about(width, 2),
                        Digits.about(high - low, 2),
                        Digits.of(Math.ceil(10 * notch.hz() / (high - low)))));
            }
        } else if (step instanceof LowPass pass && pass.hz() >= high) {
            remarks.add(Messages.of("clean.does-nothing-above-hz-is-nothing", step.text(), Digits.of(high)));
        } else if (step instanceof HighPass pass && pass.hz() <= low && low > 0) {
            remarks.add(Messages.of("clean.does-nothing-below-hz-is-nothing", step.text(), Digits.of(low)));
        }
    }
}
