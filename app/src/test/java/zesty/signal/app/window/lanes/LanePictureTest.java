package zesty.signal.app.window.lanes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zesty.signal.app.window.drawing.LaneColours;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.read.Event;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.SeriesRing;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.RecordingSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StreamSnapshot;

/** The lane's pixels, looked at one by one. */
class LanePictureTest {
    private static final int WIDTH = 400;
    private static final int HEIGHT = 121;
    private static final int LINE = 0xffc2334d;
    private static final LaneColours COLOURS =
            new LaneColours(0xfffffdf8, 0xfff3eee1, 0xffe4dcc9, 0xfff1ebdd, 0xffd3c9b2, 0xff5b665f, LINE);

    private final int[] pixels = new int[WIDTH * HEIGHT];
    private final SeriesRing series = new SeriesRing(0);
    private final TimeRing times = new TimeRing(series.capacity());
    private final ValueScale scale = new ValueScale();

    private final LanePicture picture = new LanePicture();
    private List<ReaderSnapshot> readers = List.of();

    private void paint(double rateHz, double from, double to, List<Gap> gaps) {
        Channel channel = new Channel("x", "x", Scaling.asItCame("V"), Recipe.NONE, true);
        StreamSnapshot stream = new StreamSnapshot(0, Double.NaN, rateHz, times, to, 0, gaps, 0);
        ChannelSnapshot snapshotOfChannel = new ChannelSnapshot(
                channel,
                stream,
                rateHz,
                series,
                series,
                0,
                0,
                0,
                0,
                0,
                null,
                readers,
                false,
                Double.NaN,
                channel.scaling(),
                "");
        Snapshot snapshot = new Snapshot(
                List.of(LinkHealth.IDLE),
                Rig.blank("r", ""),
                List.of(stream),
                List.of(snapshotOfChannel),
                RecordingSnapshot.NONE);
        ColumnEdges edges = new ColumnEdges();
        edges.compute(times, from, to, WIDTH);
        TimeTicks ticks = new TimeTicks();
        ticks.compute(from, to, WIDTH, 0, false);
        scale.fit(series, edges.at(0), edges.at(WIDTH), 0);
        picture.paint(
                pixels, WIDTH, HEIGHT, snapshot, snapshotOfChannel, edges, ticks, scale, COLOURS, false, null, false);
    }

    private void append(double[] values, TimeBase time) {
        series.append(values, 0, values.length);
        times.append(time, values.length);
    }

    /** @return rows of the column that are more than half the line's colour, highest and lowest; −1 for none */
    private int[] lineIn(int x) {
        int top = -1;
        int bottom = -1;
        for (int y = 1; y < HEIGHT - 1; y++) {
            if ((pixels[y * WIDTH + x] >> 8 & 0xff) < (0xfd + 0x33) / 2) {
                top = top < 0 ? y : top;
                bottom = y;
            }
        }
        return new int[] {top, bottom};
    }

    private int rowOf(double value) {
        return (int) Math.round(LanePicture.SEED_STRIP
                + 2
                + (scale.high() - value) / (scale.high() - scale.low()) * (HEIGHT - LanePicture.SEED_STRIP - 6.0));
    }

    @Test
    void aSpikeOfOneSampleAmongManyIsNeverMissed() {
        double[] values = new double[40_000];
        values[20_050] = 7;
        append(values, new TimeBase.Steady(0, 0.001));
        paint(1000, 0, 40, List.of());
        assertThat(scale.high()).isGreaterThanOrEqualTo(7);
        // 100 samples a pixel: sample 20 050 is in column 200, and nowhere else.
        assertThat(lineIn(200)[0]).isBetween(rowOf(7) - 1, rowOf(7) + 1);
        assertThat(lineIn(200)[1]).isBetween(rowOf(0) - 1, rowOf(0) + 1);
        assertThat(lineIn(197)[0]).isBetween(rowOf(0) - 1, rowOf(0) + 1);
    }

    @Test
    void betweenSparseSamplesTheLineRunsStraight() {
        append(new double[] {0, 4, 0, 4, 0}, new TimeBase.Steady(0, 1));
        paint(1, 0, 4, List.of());
        // Half way up at half the time: column 50 of 100 a second.
        int[] half = lineIn(50);
        assertThat((half[0] + half[1]) / 2).isBetween(rowOf(2) - 2, rowOf(2) + 2);
        assertThat(lineIn(150)[0]).isNotNegative();
    }

    @Test
    void acrossAGapThereIsHatchingAndNoLine() {
        double[] values = new double[1000];
        java.util.Arrays.setAll(values, i -> i % 2);
        append(values, new TimeBase.Steady(0, 0.005));
        append(values, new TimeBase.Steady(10, 0.005));
        paint(200, 0, 15, List.of(new Gap(4.995, 10, 1000)));
        int inGap = WIDTH / 2;
        assertThat(lineIn(inGap)).containsExactly(-1, -1);
        assertThat(lineIn(10)[0]).isNotNegative();
        assertThat(lineIn(WIDTH - 10)[0]).isNotNegative();
        assertThat(pixels[60 * WIDTH + inGap]).isIn(COLOURS.gap(), COLOURS.gapLine());
    }

    private static Event beat(double seconds, boolean believed) {
        return new Event("beat", seconds, seconds, 1, believed, believed ? "" : "too low");
    }

    private void beats(List<Event> events) {
        readers = List.of(new ReaderSnapshot(ReaderSetup.on("x", "pulse", Map.of()), null, events, List.of(), 0, ""));
    }

    /** @return how many pixels of the strip above the line are of the line's colour in some columns */
    private long seeds(int from, int to) {
        return java.util.stream.IntStream.range(from, to)
                .filter(x -> pixels[7 * WIDTH + x] == LINE)
                .count();
    }

    @Test
    void beatsWithRoomAreSeedsAndCrowdedOnesAreTheirRate() {
        append(new double[60_000], new TimeBase.Steady(0, 0.01));
        List<Event> events = new ArrayList<>();
        // A beat a second for five minutes, then two a second; between them half a minute of nothing that is believed.
        for (double t = 0.5; t < 600; t += t < 300 ? 1 : 0.5) {
            events.add(beat(t, t < 285 || t > 315));
        }
        beats(events);
        paint(100, 100, 110, List.of());
        assertThat(picture.rateWords()).isEmpty();
        assertThat(seeds(0, WIDTH)).isBetween(10L, 80L);

        paint(100, 0, 600, List.of());
        assertThat(picture.rateWords()).isEqualTo("beats a minute, 60 to 120");
        // One at the foot of the lane, the other at its head, and no line where none was believed.
        int[] slow = lineIn(WIDTH / 4);
        int[] fast = lineIn(WIDTH * 3 / 4);
        double room = HEIGHT - LanePicture.SEED_STRIP - 10.0;
        assertThat(slow[0]).isCloseTo((int) Math.round(LanePicture.SEED_STRIP + 5 + room), within(2));
        assertThat(fast[0]).isCloseTo(LanePicture.SEED_STRIP + 5, within(2));
        // Only the empty seeds of what was not believed.
        assertThat(lineIn(WIDTH / 2)[1]).isLessThan(LanePicture.SEED_STRIP);
        assertThat(seeds(0, WIDTH)).isZero();
    }
}
