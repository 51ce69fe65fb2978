package zesty.signal.app.window.bench.clean;

import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.spectrum.Waterfall;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** The spectrum over time: what is stronger is darker on light paper, lighter at night, of one hue, so that no colour is needed to read it. */
final class WaterfallPicture {
    private static final int MOST_SAMPLES = 1 << 17;
    private static final int ROWS = 60;
    /** So much below the strongest is as nothing, in dB. */
    private static final double DEPTH_DB = 60;

    private static final int MOST_CELLS = 128;

    private final Workspace workspace;

    WaterfallPicture(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @return what it says in words */
    String draw(Plot plot, ChannelSnapshot channel, Color colour) {
        double rate = channel.rateHz();
        RawValues raw = RawValues.of(channel, workspace.shown().window(), MOST_SAMPLES, true);
        Waterfall fall = Waterfall.of(raw.values(), rate, ROWS);
        double length = fall.density().length * fall.stepSeconds();
        plot.begin(
                workspace.view().night().get(),
                0,
                Math.max(1, rate / 2),
                "Hz",
                -Math.max(1e-6, length),
                0,
                Messages.of("bench.clean.s-before-the-end"));
        double top = Double.NEGATIVE_INFINITY;
        for (double[] one : fall.density()) {
            for (int k = 2; k < one.length; k++) {
                top = one[k] > top ? one[k] : top;
            }
        }
        if (!(top > 0)) {
            return Messages.of("bench.clean.too-few-samples-yet");
        }
        for (int row = 0; row < fall.density().length; row++) {
            double from = (row - fall.density().length) * fall.stepSeconds();
            double[] one = fall.density()[row];
            int together = Math.max(1, one.length / MOST_CELLS);
            for (int k = 0; k + together <= one.length; k += together) {
                double most = 0;
                for (int i = Math.max(2, k); i < k + together; i++) {
                    most = Math.max(most, one[i]);
                }
                double share = most > 0 ? 1 + 10 * Math.log10(most / top) / DEPTH_DB : 0;
                if (share > 0.02) {
                    plot.cell(
                            (k - 0.5) * fall.binHz(),
                            (k + together - 0.5) * fall.binHz(),
                            from,
                            from + fall.stepSeconds(),
                            colour.deriveColor(0, 1, 1, Math.min(1, share)));
                }
            }
        }
        return Messages.of(
                "bench.clean.each-row-is-s-full-is-the", Digits.about(2 * fall.stepSeconds(), 2), Digits.of(DEPTH_DB));
    }
}
