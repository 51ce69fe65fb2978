package zesty.signal.app.window.bench.clean;

import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.sample.Histogram;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** How often each number came, with the noise and how many bits of the converter are worth something. */
final class HistogramPicture {
    private static final int MOST_SAMPLES = 1 << 17;

    private final Workspace workspace;

    HistogramPicture(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @return what it says in words */
    String draw(Plot plot, ChannelSnapshot channel, Color colour) {
        Histogram histogram =
                Histogram.of(RawValues.of(channel, workspace.shown().window(), MOST_SAMPLES, false)
                        .values());
        long most = 1;
        for (long count : histogram.counts()) {
            most = Math.max(most, count);
        }
        double half = histogram.width() / 2;
        double high = histogram.low() + Math.max(0, histogram.counts().length - 1) * histogram.width();
        plot.begin(
                workspace.view().night().get(),
                histogram.low() - half,
                high + half,
                Messages.of("bench.clean.raw-value"),
                0,
                1.08 * most,
                Messages.of("bench.clean.samples"));
        for (int i = 0; i < histogram.counts().length; i++) {
            double middle = histogram.low() + i * histogram.width();
            plot.bar(
                    middle - 0.45 * histogram.width(),
                    middle + 0.45 * histogram.width(),
                    0,
                    histogram.counts()[i],
                    colour);
        }
        if (histogram.step() == 0) {
            return Messages.of("bench.clean.every-sample-is-the-same");
        }
        Converter converter = channel.channel().scaling().converter();
        String bits = converter == null
                ? ""
                : Messages.of(
                        "bench.clean.of-its-bits-are-effective",
                        Digits.fixed(histogram.effectiveBits(converter.highestCode() - converter.lowestCode() + 1), 1),
                        converter.bits());
        return Messages.of(
                "bench.clean.one-step-is-the-noise-of-one",
                Digits.about(histogram.step(), 3),
                Digits.about(histogram.noise(), 3),
                bits);
    }
}
