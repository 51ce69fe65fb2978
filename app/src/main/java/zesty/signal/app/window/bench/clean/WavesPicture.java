package zesty.signal.app.window.bench.clean;

import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;

/** A signal raw and cleaned over each other, and below them what was removed. */
final class WavesPicture {
    private static final double STRETCH_SECONDS = 6;

    private static final int POINTS = 1200;

    private WavesPicture() {}

    static void draw(Plot waves, Workspace workspace, ChannelSnapshot channel, Color colour) {
        Times times = channel.stream().times();
        Series clean = channel.clean();
        double to = Math.min(workspace.shown().window().to(), channel.stream().lastSeconds());
        double from = to - Math.min(STRETCH_SECONDS, workspace.shown().window().span());
        long first = Math.max(times.firstAtOrAfter(from), clean.start());
        long last = Math.min(times.firstAtOrAfter(to), clean.end() - channel.lateSamples());
        int n = (int) Math.max(0, last - first);
        int step = Math.max(1, n / POINTS);
        int count = n / step;
        double[] x = new double[count];
        double[] raw = new double[count];
        double[] cleaned = new double[count];
        double[] removed = new double[count];
        double rawMean = 0;
        double cleanMean = 0;
        for (int i = 0; i < count; i++) {
            long row = first + (long) i * step;
            x[i] = times.secondsAt(row) - to;
            raw[i] = channel.scalingNow().apply(channel.raw().value(row));
            cleaned[i] = clean.value(row + channel.lateSamples());
            rawMean += raw[i] / count;
            cleanMean += cleaned[i] / count;
        }
        double span = 1e-9;
        double most = 1e-9;
        for (int i = 0; i < count; i++) {
            raw[i] += cleanMean - rawMean;
            removed[i] = raw[i] - cleaned[i];
            span = Math.max(span, Math.max(Math.abs(raw[i] - cleanMean), Math.abs(cleaned[i] - cleanMean)));
            most = Math.max(most, Math.abs(removed[i]));
        }
        double low = cleanMean - span - 2 * most - 0.2 * span;
        String unit = channel.channel().scaling().unit();
        waves.begin(workspace.view().night().get(), from - to, 0, "s", low, cleanMean + span * 1.05, unit);
        // How late the cleaned line comes is as wide as it is long.
        double delay = !workspace.shown().isLive() ? 0 : Math.min(channel.delaySeconds(), to - from);
        if (delay > 0) {
            waves.upright(from - to, from - to + delay, colour.deriveColor(0, 1, 1, 0.18));
        }
        waves.line(x, raw, count, colour.deriveColor(0, 1, 1, 0.35), 1);
        waves.line(x, cleaned, count, colour, 1.8);
        for (int i = 0; i < count; i++) {
            removed[i] += low + most;
        }
        waves.line(x, removed, count, Palette.rest(workspace.view().night().get()), 1);
        if (delay > 0) {
            waves.named(
                    from - to + delay,
                    Messages.of("bench.clean.ms-delay", Digits.fixed(1000 * channel.delaySeconds(), 0)),
                    0,
                    colour.deriveColor(0, 1, 1, 0.5));
        }
    }
}
