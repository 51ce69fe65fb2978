package zesty.signal.core.act;

import java.util.ArrayList;
import java.util.List;

/** When a rule would have been on over a stretch of what it watches. */
public final class RuleSpans {
    private RuleSpans() {}

    /**
     * @param from when it turned on, or into the band, and {@code to} off, or out of it, or the stretch ended, in s
     * @param state 1 for on; of bands the band's number
     */
    public record On(double from, double to, int state) {}

    /**
     * @param rule that watches samples, on its own
     * @param x what it watches, NaN where nothing is
     * @return in order; the rule is off where the stretch begins, in a band where its first value lies
     */
    public static List<On> of(Rule rule, double[] seconds, double[] x) {
        List<On> spans = new ArrayList<>();
        boolean bands = rule instanceof Rule.InBands;
        double[] since = {Double.NaN};
        int[] state = {0};
        Controller controller = new Controller(new RuleBook(List.of(rule), List.of()), new Controller.Listener() {
            @Override
            public void decided(double at, int index, int now, double value) {
                if (since[0] == since[0]) {
                    spans.add(new On(since[0], at, state[0]));
                }
                state[0] = now;
                since[0] = bands || now == 1 ? at : Double.NaN;
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
            if (bands && since[0] != since[0] && controller.state(0) >= 0) {
                since[0] = seconds[i];
                state[0] = controller.state(0);
            }
        }
        if (x.length > 0) {
            controller.finish(seconds[x.length - 1]);
            if (since[0] == since[0]) {
                spans.add(new On(since[0], seconds[x.length - 1], state[0]));
            }
        }
        return spans;
    }
}
