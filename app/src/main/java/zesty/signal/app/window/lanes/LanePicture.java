package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Paints one lane: grid, gaps, the raw ghost, the cleaned line, what its readers found above it, and the lane's own edges, so
 * that nothing need be drawn below it. Pure pixels.
 */
final class LanePicture {
    static final int SEED_STRIP = EventPainter.STRIP;

    private static final float LINE = 1.5f;
    private static final int DASH = 6;
    /** How high the mark of a filled hole stands. */
    private static final int FOOT = 5;

    private static final float GHOST_WEIGHT = 0.30f;

    private final SpanPainter spans = new SpanPainter();
    private final EventPainter events = new EventPainter();
    private final float[] extremes = new float[2];
    private RateLine rate;

    void paint(
            int[] pixels,
            int width,
            int height,
            Snapshot snapshot,
            ChannelSnapshot channel,
            ColumnEdges edges,
            TimeTicks ticks,
            ValueScale scale,
            LaneColours colours,
            boolean inFocus,
            Over over,
            boolean asItCame) {
        ground(pixels, width, width * height, colours.card());
        for (int i = 0; i < ticks.count(); i++) {
            vertical(
                    pixels,
                    width,
                    height,
                    (int) Math.round(ticks.pixel(i)),
                    ticks.labelled(i) ? colours.gridStrong() : colours.grid());
        }
        gaps(pixels, width, height, channel, edges, colours);
        double span = scale.high() - scale.low();
        double factor = -(height - SEED_STRIP - 6.0) / span;
        double offset = SEED_STRIP + 2 - factor * scale.high();
        double longest = channel.joinedSeconds();
        spans.target(pixels, width, height);
        List<RateLine> rates = new ArrayList<>();
        rate = null;
        for (ReaderSnapshot reader : channel.readers()) {
            RateLine own = RateLine.of(reader, edges, width);
            rates.add(own);
            rate = rate == null ? own : rate;
        }
        boolean cleaned = !channel.channel().recipe().steps().isEmpty();
        // What other columns were at each sample is not kept: a chain that takes some in has no ghost.
        if (asItCame) {
            raw(channel, edges, factor, offset, longest, colours, 0, LINE, 1);
        } else if (cleaned && channel.channel().scaling().columns().isEmpty() && rate == null) {
            ghost(channel, edges, factor, offset, longest, colours);
        }
        limit(
                pixels,
                width,
                height,
                offset + factor * channel.channel().limits().low(),
                colours.ink());
        limit(
                pixels,
                width,
                height,
                offset + factor * channel.channel().limits().high(),
                colours.ink());
        if (!asItCame) {
            spans.paint(
                    channel.clean(),
                    channel.stream().times(),
                    edges,
                    channel.lateSamples(),
                    factor,
                    offset,
                    longest,
                    LINE,
                    colours.line(),
                    rate == null ? 1 : GHOST_WEIGHT);
        }
        if (over != null) {
            over(over, height);
        }
        for (int i = 0; i < rates.size(); i++) {
            events.paint(pixels, width, height, channel.readers().get(i), rates.get(i), edges, colours);
        }
        int border = inFocus ? colours.ink() : colours.gridStrong();
        Arrays.fill(pixels, 0, width, border);
        Arrays.fill(pixels, (height - 1) * width, height * width, border);
    }

    /** One colour everywhere. The first row is copied on: the machine does that many times as fast as a loop over all pixels. */
    private static void ground(int[] pixels, int row, int count, int colour) {
        Arrays.fill(pixels, 0, row, colour);
        for (int done = row; done < count; done *= 2) {
            System.arraycopy(pixels, 0, pixels, done, Math.min(done, count - done));
        }
    }

    private void over(Over over, int height) {
        ValueScale scale = over.scale();
        double factor = -(height - SEED_STRIP - 6.0) / (scale.high() - scale.low());
        spans.dashed(DASH);
        spans.paint(
                over.channel().clean(),
                over.channel().stream().times(),
                over.edges(),
                over.channel().lateSamples(),
                factor,
                SEED_STRIP + 2 - factor * scale.high(),
                over.channel().joinedSeconds(),
                LINE,
                over.colours().line(),
                1);
        spans.dashed(0);
    }

    /** @return the rate that stands for moments without room, in words; empty where they have room */
    String rateWords() {
        return rate == null ? "" : rate.words();
    }

    /** The raw signal at the cleaned one's scale, moved to its level where the recipe takes the level off. */
    private void ghost(
            ChannelSnapshot channel,
            ColumnEdges edges,
            double factor,
            double offset,
            double longest,
            LaneColours colours) {
        long from = Math.max(
                edges.at(0),
                Math.max(channel.raw().start(), channel.stream().times().start()));
        long to = Math.min(edges.at(edges.width()), channel.raw().end());
        if (to <= from) {
            return;
        }
        Scaling scaling = channel.scalingNow();
        double move = 0;
        if (channel.channel().recipe().removesLevel()) {
            channel.raw().range(from, to, extremes);
            double rawMiddle = (scaling.apply(extremes[0]) + scaling.apply(extremes[1])) / 2;
            int late = channel.lateSamples();
            long cleanEnd = Math.min(to + late, channel.clean().end());
            channel.clean().range(Math.min(from + late, cleanEnd), cleanEnd, extremes);
            move = (extremes[0] + extremes[1]) / 2.0 - rawMiddle;
        }
        // Where nothing is cleaned yet it stays where it is.
        raw(channel, edges, factor, offset, longest, colours, Double.isNaN(move) ? 0 : move, 1, GHOST_WEIGHT);
    }

    /** What arrived, scaled. @param move added to it. @param thickness of its line */
    private void raw(
            ChannelSnapshot channel,
            ColumnEdges edges,
            double factor,
            double offset,
            double longest,
            LaneColours colours,
            double move,
            float thickness,
            float weight) {
        long from = Math.max(
                edges.at(0),
                Math.max(channel.raw().start(), channel.stream().times().start()));
        long to = Math.min(edges.at(edges.width()), channel.raw().end());
        if (to <= from) {
            return;
        }
        Scaling scaling = channel.scalingNow();
        // A line through both ends of what is in sight: for a curved conversion true there and near between.
        channel.raw().range(from, to, extremes);
        double low = extremes[0];
        double high = extremes[1] > low ? extremes[1] : low + 1;
        double slope = (scaling.apply(high) - scaling.apply(low)) / (high - low);
        double level = scaling.apply(low) - slope * low;
        spans.paint(
                channel.raw(),
                channel.stream().times(),
                edges,
                0,
                factor * slope,
                offset + factor * (level + move),
                longest,
                thickness,
                colours.line(),
                weight);
    }

    /** A limit is a dashed line across the lane, where it is in sight. */
    private static void limit(int[] pixels, int width, int height, double y, int colour) {
        if (y >= SEED_STRIP - 4 && y < height - 1) {
            int row = (int) Math.round(y) * width;
            for (int x = 0; x < width; x++) {
                if (x % 10 < 6) {
                    pixels[row + x] = colour;
                }
            }
        }
    }

    private static void vertical(int[] pixels, int width, int height, int x, int colour) {
        if (x >= 0 && x < width) {
            for (int y = 0; y < height; y++) {
                pixels[y * width + x] = colour;
            }
        }
    }

    /** Hatches where samples are missing; of a hole that was filled only the foot, so that the line across is seen. */
    private static void gaps(
            int[] pixels, int width, int height, ChannelSnapshot channel, ColumnEdges edges, LaneColours colours) {
        for (Gap gap : channel.stream().gaps()) {
            int from = (int) Math.max(0, Math.floor(edges.pixelOf(gap.startSeconds())));
            int to = (int) Math.min(width - 1, Math.ceil(edges.pixelOf(gap.endSeconds())));
            boolean filled = gap.seconds() <= channel.joinedSeconds();
            for (int x = from; x <= to; x++) {
                for (int y = filled ? height - FOOT : 0; y < height; y++) {
                    boolean stripe = Math.floorMod(x + y, 8) < 2;
                    pixels[y * width + x] = filled ? colours.ink() : stripe ? colours.gapLine() : colours.gap();
                }
            }
        }
    }
}
