package zesty.signal.app.window.lanes;

import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.SvgPen;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Line;
import zesty.signal.engine.ChannelSnapshot;

/** The lanes as a drawing of lines and letters: what is in sight, each with its name, its range and its gaps, over one time axis. */
final class LanesDrawing {
    private static final double FOOT = 5;
    private static final double LETTERS = 12;
    private static final double TAG = 150;
    private static final double SIDE = 64;
    private static final double BETWEEN = 10;
    private static final double AXIS = 26;
    private static final double LINE = 1.3;

    /**
     * A lane.
     *
     * @param height of its picture, in pixels
     */
    record Drawn(ChannelSnapshot channel, ColumnEdges edges, ValueScale scale, Color colour, int height) {}

    private final boolean night;
    private final SvgPen pen;
    private final int width;

    private LanesDrawing(boolean night, int width, List<Drawn> lanes) {
        this.night = night;
        this.width = width;
        double height =
                lanes.stream().mapToDouble(lane -> lane.height() + BETWEEN).sum() + AXIS;
        pen = new SvgPen(TAG + width + SIDE, height, Palette.card(night), LETTERS);
    }

    /** @return the text of the file */
    static String of(boolean night, int width, TimeTicks ticks, List<Drawn> lanes) {
        LanesDrawing drawing = new LanesDrawing(night, width, lanes);
        double top = 0;
        for (Drawn lane : lanes) {
            drawing.lane(lane, ticks, top);
            top += lane.height() + BETWEEN;
        }
        for (int i = 0; i < ticks.count(); i++) {
            if (ticks.labelled(i)) {
                drawing.pen.words(
                        ticks.label(i),
                        TAG + ticks.pixel(i),
                        top,
                        TextAlignment.CENTER,
                        VPos.TOP,
                        Palette.muted(night));
            }
        }
        return drawing.pen.finished();
    }

    private void lane(Drawn lane, TimeTicks ticks, double top) {
        ChannelSnapshot channel = lane.channel();
        Color muted = Palette.muted(night);
        pen.words(channel.channel().name(), 8, top + 6, TextAlignment.LEFT, VPos.TOP, lane.colour());
        pen.words(
                Wording.value(channel) + " " + channel.channel().unit(),
                8,
                top + 24,
                TextAlignment.LEFT,
                VPos.TOP,
                Palette.ink(night));
        for (int i = 0; i < ticks.count(); i++) {
            double x = TAG + ticks.pixel(i);
            pen.line(x, top, x, top + lane.height(), Palette.grid(night), ticks.labelled(i) ? 1 : 0.5);
        }
        for (Gap gap : channel.stream().gaps()) {
            double from = Math.max(0, lane.edges().pixelOf(gap.startSeconds()));
            double to = Math.min(width, lane.edges().pixelOf(gap.endSeconds()));
            if (to > from) {
                // Of a hole that was filled only the foot is marked, so that the line across is seen.
                double height = gap.seconds() <= channel.joinedSeconds() ? FOOT : lane.height();
                pen.rectangle(TAG + from, top + lane.height() - height, to - from, height, Palette.grid(night));
            }
        }
        ValueScale scale = lane.scale();
        double room = lane.height() - LanePicture.SEED_STRIP - 6.0;
        double factor = -room / (scale.high() - scale.low());
        double offset = top + LanePicture.SEED_STRIP + 2 - factor * scale.high();
        pen.clip(TAG, top, width, lane.height());
        path(lane, factor, offset);
        pen.unclip();
        pen.line(TAG, top, TAG + width, top, muted, 0.7);
        pen.line(TAG, top + lane.height(), TAG + width, top + lane.height(), muted, 0.7);
        Line shown = channel.channel().display();
        String high = Digits.about(shown.apply(scale.high()), 4);
        pen.words(
                high + " " + channel.channel().unit(),
                TAG + width + 6,
                top + LanePicture.SEED_STRIP - 4,
                TextAlignment.LEFT,
                VPos.TOP,
                muted);
        pen.words(
                Digits.about(shown.apply(scale.low()), 4),
                TAG + width + 6,
                top + lane.height() - 3,
                TextAlignment.LEFT,
                VPos.BOTTOM,
                muted);
    }

    /** Sample by sample where they are few, else from the lowest to the highest of each pixel column. */
    private void path(Drawn lane, double factor, double offset) {
        ChannelSnapshot channel = lane.channel();
        Series series = channel.clean();
        ColumnEdges edges = lane.edges();
        int late = channel.lateSamples();
        long first = Math.max(series.start() - late, edges.at(0) - 1);
        long last =
                Math.min(Math.min(series.end() - late, channel.stream().times().end()), edges.at(width) + 1);
        if (last <= first) {
            return;
        }
        boolean single = last - first < 2L * width && series.atHand(first + late, last + late);
        int n = single ? (int) (last - first) * 2 : 2 * width;
        double[] x = new double[n];
        double[] y = new double[n];
        if (single) {
            double longest = channel.joinedSeconds();
            double before = Double.NaN;
            n = 0;
            for (long row = first; row < last; row++) {
                double seconds = channel.stream().times().secondsAt(row);
                double value = series.value(row + late);
                if (value != value) {
                    continue;
                }
                if (seconds - before > longest) {
                    x[n] = TAG;
                    y[n++] = Double.NaN;
                }
                x[n] = TAG + edges.pixelOf(seconds);
                y[n++] = factor * value + offset;
                before = seconds;
            }
        } else {
            float[] range = new float[2];
            for (int column = 0; column < width; column++) {
                series.range(
                        Math.max(first, edges.at(column)) + late, Math.min(last, edges.at(column + 1)) + late, range);
                for (int side = 0; side < 2; side++) {
                    x[2 * column + side] = TAG + column + 0.5;
                    y[2 * column + side] = factor * range[side] + offset;
                }
            }
        }
        pen.path(x, y, n, lane.colour(), LINE);
    }
}
