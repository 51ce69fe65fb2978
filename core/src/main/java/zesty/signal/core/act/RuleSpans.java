package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** When a rule would have been on over a stretch of what it watches. */
public final class RuleSpans {
    private RuleSpans() {}

    /** @param from when it turned on, and {@code to} off, or the stretch ended, in s */
    public record On(double from, double to) {}

    /**
     * @param rule that watches samples
     * @param x what it watches, NaN where nothing is
     * @return in order; the rule is off where the stretch begins
     */
    public static List<On> of(Rule.OnSamples rule, double[] seconds, double[] x) {
        List<On> spans = new ArrayList<>();
        double[] since = {Double.NaN};
        Controller controller = new Controller(new RuleBook(List.of(rule), List.of()), new Controller.Listener() {
            @Override
            public void decided(double at, int index, int state, double value) {
                if (state == 1) {
                    since[0] = at;
                } else {
                    spans.add(new On(since[0], at));
                    since[0] = Double.NaN;
                }
            }

            @Override
            public void sent(double at, int output, String line, Controller.Why why) {
                // There is no output.
            }
        });
        double[] row = new double[1];
        for (int i = 0; i < x.length; i++) {
            row[0] = x[i];
            controller.samples(seconds[i], row);
        }
        if (x.length > 0) {
            controller.finish(seconds[x.length - 1]);
            if (since[0] == since[0]) {
                spans.add(new On(since[0], seconds[x.length - 1]));
            }
        }
        return spans;
    }

    /** @return how long the shorter half of them lasted at most, in s; NaN for none */
    public static double usualSeconds(List<On> spans) {
        double[] lengths =
                spans.stream().mapToDouble(on -> on.to() - on.from()).sorted().toArray();
        return lengths.length == 0 ? Double.NaN : Arrays.stream(lengths).toArray()[(lengths.length - 1) / 2];
    }
}
