package zesty.signal.core.clean;

import java.util.List;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The integral over time by trapezoids, of what is quicker than a corner: slower would run away. */
public record Integrate(double hz) implements Step {
    @Override
    public String text() {
        return "integrate:" + Digits.exact(hz);
    }

    @Override
    public String words() {
        return Messages.of("clean.integral-above-hz", Digits.of(hz));
    }

    @Override
    public List<StepArgument> arguments() {
        return StepArgument.named(Messages.of("clean.above-hz-2"));
    }

    @Override
    public String about() {
        return Messages.of("clean.what-it-adds-up-to-as-far-as-it-is");
    }

    @Override
    public boolean removesLevel() {
        return true;
    }

    @Override
    public Stage stage(double rate, Start start) {
        Words.corner(text(), hz, rate);
        double half = 1 / (2 * rate);
        double pole = Math.exp(-2 * Math.PI * hz / rate);
        Sections leaky = new Sections(new double[] {half, half, 0, -pole, 0}, 1);
        return new SectionFilter(leaky.then(FilterDesign.highPass(rate, hz, 1)), start);
    }

    @Override
    public void bothWays(double[] data, double rate) {
        HighPass high = new HighPass(hz, 1);
        high.bothWays(data, rate);
        double sum = 0;
        double before = data.length == 0 ? 0 : data[0];
        for (int i = 0; i < data.length; i++) {
            double here = data[i];
            sum += (before + here) / (2 * rate);
            data[i] = sum;
            before = here;
        }
        high.bothWays(data, rate);
    }

    @Override
    public long context(double rate) {
        return 2 * new HighPass(hz, 1).context(rate);
    }

    @Override
    public double delaySamples(double rate) {
        return 0;
    }
}
