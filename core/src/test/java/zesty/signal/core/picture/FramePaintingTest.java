package zesty.signal.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Pictures of numbers as they are painted: the scale, turned, smoothed, with lines of one value. */
class FramePaintingTest {
    private static double lightness(int argb) {
        return HeatScale.lightness((argb >> 16 & 255) / 255.0, (argb >> 8 & 255) / 255.0, (argb & 255) / 255.0);
    }

    /** Without colour vision, and on a grey print, only lightness tells: it rises, and by as much at every step. */
    @Test
    void theScaleGetsLighterEvenlyFromColdToHot() {
        double first = lightness((HeatScale.argb(0)));
        double last = lightness((HeatScale.argb(1)));
        assertThat(last - first).isGreaterThan(70);
        for (int i = 0; i <= 50; i++) {
            double light = lightness((HeatScale.argb(i / 50.0)));
            assertThat(light).isCloseTo(first + (last - first) * i / 50, within(0.8));
        }
        assertThat(HeatScale.argb(-3)).isEqualTo(HeatScale.argb(0));
        assertThat(HeatScale.argb(7)).isEqualTo(HeatScale.argb(1));
        for (int i = 0; i < 256; i++) {
            assertThat(HeatScale.argb(i / 255.0)).isNotEqualTo(HeatScale.argb(Double.NaN));
        }
        // Black is 0 and white 100 by definition, and middle grey 53.4 (119 of 255 in each part is 50.0).
        assertThat(lightness(0xffffff)).isCloseTo(100, within(0.01));
        assertThat(lightness(0x777777)).isCloseTo(50.0, within(0.1));
        assertThat(lightness(0)).isCloseTo(0, within(0.01));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 4, 5, 6, 7})
    void whatIsTurnedAndMirroredIsFoundAgain(int how) {
        Turned turned = new Turned(5, 3, how % 4, how >= 4);
        assertThat(turned.seenWidth()).isEqualTo(how % 2 == 0 ? 5 : 3);
        int[] pixels = new int[turned.seenWidth() * turned.seenHeight()];
        double[] frame = new double[15];
        Arrays.setAll(frame, p -> p);
        FramePainter.paint(
                pixels,
                turned.seenWidth(),
                new FramePainter.Place(0, 0, turned.seenWidth(), turned.seenHeight()),
                frame,
                turned,
                0,
                14,
                false);
        for (int y = 0; y < 3; y++) {
            for (int x = 0; x < 5; x++) {
                double[] seen = turned.seen(x + 0.5, y + 0.5);
                double[] back = turned.sensor(seen[0], seen[1]);
                assertThat(back[0]).isCloseTo(x + 0.5, within(1e-12));
                assertThat(back[1]).isCloseTo(y + 0.5, within(1e-12));
                int at = (int) seen[1] * turned.seenWidth() + (int) seen[0];
                assertThat(pixels[at]).isEqualTo(HeatScale.argb((y * 5 + x) / 14.0));
            }
        }
        // A quarter to the right: what was at the top left is at the top right.
        double[] corner = turned.seen(0.5, 0.5);
        double[][] due = {{0.5, 0.5}, {2.5, 0.5}, {4.5, 2.5}, {0.5, 4.5}, {4.5, 0.5}, {2.5, 4.5}, {0.5, 2.5}, {0.5, 0.5}
        };
        assertThat(corner).containsExactly(due[how]);
    }

    @Test
    void smoothedPixelsLieBetweenTheirNeighboursAndWholeOnesDoNot() {
        double[] ramp = new double[8 * 4];
        Arrays.setAll(ramp, p -> p % 8 + 10.0 * (p / 8));
        Turned straight = new Turned(8, 4, 0, false);
        int[] smooth = new int[80 * 40];
        int[] whole = new int[80 * 40];
        FramePainter.Place place = new FramePainter.Place(0, 0, 80, 40);
        FramePainter.paint(smooth, 80, place, ramp, straight, 0, 37, true);
        FramePainter.paint(whole, 80, place, ramp, straight, 0, 37, false);
        for (int y = 5; y < 35; y++) {
            for (int x = 5; x < 75; x++) {
                double value = (x + 0.5) / 10 - 0.5 + 10 * ((y + 0.5) / 10 - 0.5);
                assertThat(smooth[y * 80 + x]).isEqualTo(HeatScale.argb(value / 37));
                assertThat(whole[y * 80 + x]).isEqualTo(HeatScale.argb((x / 10 + 10.0 * (y / 10)) / 37));
            }
        }
        // What lies beside the pixels is not painted, and does no harm.
        int[] small = new int[20 * 10];
        FramePainter.paint(small, 20, new FramePainter.Place(-30, -10, 80, 40), ramp, straight, 0, 37, false);
        assertThat(small[0]).isEqualTo(whole[10 * 80 + 30]);
        assertThat(small[199]).isEqualTo(whole[19 * 80 + 49]);
    }

    /** A cone's line of one value is a circle: every piece lies on it, and each end is the begin of another. */
    @Test
    void aLineOfOneValueOnAConeIsAClosedCircle() {
        int width = 40;
        double[] cone = new double[width * 36];
        Arrays.setAll(cone, p -> 100 - 3 * Math.hypot(p % width + 0.5 - 19.3, p / width + 0.5 - 17.8));
        List<FramePainter.Piece> pieces = FramePainter.contour(cone, width, 64);
        Map<String, Integer> ends = new HashMap<>();
        for (FramePainter.Piece piece : pieces) {
            assertThat(Math.hypot(piece.x1() - 19.3, piece.y1() - 17.8)).isCloseTo(12, within(0.02));
            ends.merge(String.format("%.6f %.6f", piece.x1(), piece.y1()), 1, Integer::sum);
            ends.merge(String.format("%.6f %.6f", piece.x2(), piece.y2()), 1, Integer::sum);
        }
        assertThat(pieces.size()).isBetween(70, 110);
        assertThat(ends.values()).containsOnly(2);
        assertThat(FramePainter.contour(cone, width, 101)).isEmpty();
        cone[17 * width + 31] = Double.NaN;
        assertThat(FramePainter.contour(cone, width, 64).size()).isLessThan(pieces.size());
    }

    @Test
    void theRangeFitsEachPictureMostOfItOrIsHeld() {
        double[] frame = new double[1000];
        Arrays.setAll(frame, p -> p);
        frame[3] = Double.NaN;
        FrameRange range = new FrameRange();
        range.fit(frame);
        assertThat(new double[] {range.low(), range.high()}).containsExactly(0, 999);
        range.mode(FrameRange.Mode.MOST);
        range.fit(frame);
        assertThat(range.low()).isCloseTo(20, within(1.0));
        assertThat(range.high()).isCloseTo(980, within(1.0));
        range.mode(FrameRange.Mode.HELD);
        range.fit(new double[] {5000, 6000});
        assertThat(range.high()).isCloseTo(980, within(1.0));
        range.hold(60, 20);
        range.fit(frame);
        assertThat(new double[] {range.low(), range.high()}).containsExactly(20, 60);
    }
}
