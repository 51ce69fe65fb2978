package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import javafx.scene.paint.Color;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.engine.ChannelSnapshot;

/**
 * Pieces of the cleaned signal laid over each other, each from the moment of its event.
 *
 * @param before and after that moment, in s
 * @param most so many of the newest
 */
record Laid(double before, double after, int most) {
    private static final int MOST_POINTS = 4000;

    /**
     * Draws them, the newest on top.
     *
     * @param late by how much the signal is drawn late, in s
     * @param colour of an event; told also whether it is the newest
     */
    void draw(
            Plot plot,
            Workspace workspace,
            ChannelSnapshot channel,
            List<Event> events,
            double late,
            BiFunction<Event, Boolean, Color> colour) {
        int all = (int) Math.ceil((before + after) * channel.rateHz());
        int step = Math.max(1, all / MOST_POINTS);
        int n = all / step;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        List<double[]> x = new ArrayList<>();
        List<double[]> y = new ArrayList<>();
        List<Event> drawn = new ArrayList<>();
        double end = Math.min(workspace.shown().window().to(), channel.stream().lastSeconds());
        for (int b = events.size() - 1; b >= 0 && drawn.size() < most; b--) {
            double at = events.get(b).startSeconds() + late;
            long first = channel.stream().times().firstAtOrAfter(at - before);
            boolean there = at + after <= end
                    && first + all < channel.clean().end()
                    && first >= channel.clean().start();
            if (!there) {
                continue;
            }
            double[] own = new double[n];
            double[] when = new double[n];
            for (int i = 0; i < n; i++) {
                long sample = first + (long) i * step;
                when[i] = channel.stream().times().secondsAt(sample) - at;
                own[i] = channel.channel().display().apply(channel.clean().value(sample));
                low = own[i] < low ? own[i] : low;
                high = own[i] > high ? own[i] : high;
            }
            drawn.add(events.get(b));
            x.add(when);
            y.add(own);
        }
        boolean some = high >= low;
        plot.begin(
                workspace.view().night().get(),
                -before,
                after,
                "s",
                some ? low : 0,
                some ? high : 1,
                channel.channel().unit());
        for (int i = drawn.size() - 1; i >= 0; i--) {
            boolean newest = i == 0;
            plot.line(x.get(i), y.get(i), n, colour.apply(drawn.get(i), newest), newest ? 2 : 1);
        }
    }
}
