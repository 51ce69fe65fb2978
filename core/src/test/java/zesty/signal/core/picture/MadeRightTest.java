package zesty.signal.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.picture.Region.Form;
import zesty.signal.core.picture.Region.Measure;

/** Pictures made right and parted, against what is worked out on paper. */
class MadeRightTest {
    private static final int WIDTH = 9;
    private static final int HEIGHT = 7;

    /** Pixel x, y is 10·y + x. */
    private static double[] counted() {
        double[] frame = new double[WIDTH * HEIGHT];
        Arrays.setAll(frame, p -> 10.0 * (p / WIDTH) + p % WIDTH);
        return frame;
    }

    private static int at(int x, int y) {
        return y * WIDTH + x;
    }

    /** Fourth powers of kelvins, worked out apart. */
    @ParameterizedTest
    @CsvSource({
        "80, 0.8, 20, 91.0612374726112",
        "36.5, 0.98, 22, 36.775406528266956",
        "150, 0.3, 25, 272.1711492403308",
        "10, 0.95, -40, 11.991852732308985",
        "60, 0.1, 20, 214.86388023770309",
        "60, 1, 20, 60"
    })
    void aSurfaceThatIsNotBlackIsWarmerThanItLooks(double shown, double share, double around, double truly) {
        PictureMend mend = PictureMend.NONE.withSurface(share, around);
        assertThat(mend.surface(shown)).isCloseTo(truly, within(1e-9));
        assertThat(mend.of(new double[] {shown, Double.NaN}, 2)[0]).isCloseTo(truly, within(1e-9));
        // What reflects more than it shows cannot be told.
        assertThat(PictureMend.NONE.withSurface(0.05, 200).surface(20)).isNaN();
    }

    @Test
    void wrongSurfacesAreRefusedInWords() {
        assertThatThrownBy(() -> PictureMend.NONE.withSurface(0, 20))
                .hasMessageContaining("above 0 and up to 1, was 0");
        assertThatThrownBy(() -> PictureMend.NONE.withSurface(1.2, 20)).hasMessageContaining("was 1.2");
        assertThatThrownBy(() -> PictureMend.NONE.withSurface(0.9, -300)).hasMessageContaining("was -300");
        assertThatThrownBy(() -> new Region("part", Form.BOX, 0, 0, 1, 1, Measure.ABOVE, Double.NaN))
                .hasMessageContaining("needs the limit");
        assertThatThrownBy(() -> new Region(" ", Form.BOX, 0, 0, 1, 1, Measure.MEAN, Double.NaN))
                .hasMessageContaining("name");
        assertThatThrownBy(() -> new Region("part", Form.BOX, 3, 0, 1, 1, Measure.MEAN, Double.NaN))
                .hasMessageContaining("low to high");
        Region part = Region.box("part", 0, 0, 1, 1, Measure.MEAN);
        assertThatThrownBy(() -> PictureSetup.NONE.withRegions(List.of(part, part)))
                .hasMessageContaining("one name");
        assertThatThrownBy(() -> PictureSetup.NONE.turned(4, false)).hasMessageContaining("0 to 3");
    }

    @Test
    void deadPixelsAreFilledFromTheLivingOnesAroundThem() {
        double[] frame = counted();
        frame[at(4, 3)] = 999;
        double[] right = PictureMend.NONE.withDead(List.of(at(4, 3))).of(frame, WIDTH);
        // Of 23 24 25 33 35 43 44 45 the two in the middle are 33 and 35.
        assertThat(right[at(4, 3)]).isEqualTo(34);
        assertThat(frame[at(4, 3)]).as("the picture as it came").isEqualTo(999);
        // In the corner three are left; of a patch of nine the one in the middle has neighbours only two further on.
        assertThat(PictureMend.NONE.withDead(List.of(at(0, 0))).of(counted(), WIDTH)[0])
                .isEqualTo(10);
        List<Integer> patch = new ArrayList<>();
        for (int y = 2; y <= 4; y++) {
            for (int x = 3; x <= 5; x++) {
                patch.add(at(x, y));
            }
        }
        double[] patched = PictureMend.NONE.withDead(patch).of(counted(), WIDTH);
        assertThat(patched[at(4, 3)]).isEqualTo(34);
        // What lies outside of a picture, as after another camera was plugged, does no harm, and is left out of the
        // setup.
        assertThat(PictureMend.NONE.withDead(List.of(5000)).of(counted(), WIDTH))
                .containsExactly(counted());
        PictureSetup other = PictureSetup.NONE
                .withMend(PictureMend.NONE.withDead(List.of(3, 5000)).withLid(new double[4]))
                .withRegion(Region.box("in", 0, 0, 8, 6, Measure.MEAN))
                .withRegion(Region.box("out", 0, 0, 9, 6, Measure.MEAN))
                .fitted(WIDTH, HEIGHT);
        assertThat(other.mend().dead()).containsExactly(3);
        assertThat(other.mend().lid()).isEmpty();
        assertThat(other.regions()).extracting(Region::name).containsExactly("in");
        double[] nothing = new double[WIDTH * HEIGHT];
        Arrays.fill(nothing, Double.NaN);
        assertThat(PictureMend.NONE.withDead(List.of(10)).of(nothing, WIDTH)[10])
                .isNaN();
        assertThat(PictureSetup.summaries(nothing)).containsOnly(Double.NaN);
        assertThat(PictureSetup.summaries(new double[] {Double.NaN, 7, 2, 3})).containsExactly(7, 2, 4);
    }

    /** Each pixel with an offset of its own, as cheap sensors have: a lid shows it, noise and all. */
    @Test
    void aLidTakesThePatternOff() {
        Random random = new Random(8);
        double[] pattern = random.doubles(WIDTH * HEIGHT, -2, 2).toArray();
        double mean = Arrays.stream(pattern).average().orElseThrow();
        List<double[]> lid = new ArrayList<>();
        for (int f = 0; f < 25; f++) {
            double[] frame = new double[pattern.length];
            Arrays.setAll(frame, p -> 24.6 + pattern[p] + 0.1 * random.nextGaussian());
            frame[12] = f % 2 == 0 ? Double.NaN : frame[12];
            lid.add(frame);
        }
        PictureMend mend = PictureMend.NONE.withLid(PictureMend.lidOf(lid));
        double[] scene = new double[pattern.length];
        Arrays.setAll(scene, p -> 30 + p / 10.0 + pattern[p]);
        double[] right = mend.of(scene, WIDTH);
        for (int p = 0; p < right.length; p++) {
            assertThat(right[p]).isCloseTo(30 + p / 10.0 + mean, within(0.12));
        }
        assertThat(mend.isNone()).isFalse();
        assertThat(mend)
                .isEqualTo(PictureMend.NONE.withLid(mend.lid().clone()))
                .hasSameHashCodeAs(PictureMend.NONE.withLid(mend.lid().clone()));
    }

    @Test
    void partsGiveTheirOwnNumbers() {
        double[] frame = counted();
        Region box = Region.box("box", 6, 5, 2, 4, Measure.HOTTEST);
        assertThat(List.of(box.x1(), box.y1(), box.x2(), box.y2())).containsExactly(2, 4, 6, 5);
        assertThat(box.of(frame, WIDTH)).isEqualTo(56);
        assertThat(box.withMeasure(Measure.COLDEST, Double.NaN).of(frame, WIDTH))
                .isEqualTo(42);
        assertThat(box.withMeasure(Measure.MEAN, Double.NaN).of(frame, WIDTH)).isEqualTo(49);
        Region share = box.withMeasure(Measure.ABOVE, 52.5);
        assertThat(share.of(frame, WIDTH)).isEqualTo(40);
        assertThat(share.unit("°C")).isEqualTo("%");
        assertThat(box.unit("°C")).isEqualTo("°C");
        Region point = Region.box("point", 3, 2, 3, 2, Measure.MEAN);
        assertThat(point.isPoint()).isTrue();
        assertThat(point.of(frame, WIDTH)).isEqualTo(23);
        // A line goes from its begin to its end, whichever way that is: 8 columns back and 4 rows down, half a row a
        // column.
        Region line = new Region("line", Form.LINE, 8, 1, 0, 5, Measure.MEAN, Double.NaN);
        assertThat(line.profile(frame, WIDTH)).containsExactly(18, 27, 26, 35, 34, 43, 42, 51, 50);
        Region upright = new Region("mast", Form.LINE, 4, 6, 4, 2, Measure.HOTTEST, Double.NaN);
        assertThat(upright.profile(frame, WIDTH)).containsExactly(64, 54, 44, 34, 24);
        assertThat(upright.of(frame, WIDTH)).isEqualTo(64);
        frame[at(6, 5)] = Double.NaN;
        assertThat(box.of(frame, WIDTH)).isEqualTo(55);
        assertThat(share.of(frame, WIDTH)).isCloseTo(100 * 3.0 / 9, within(1e-9));
        assertThat(upright.fits(5, 7)).isTrue();
        assertThat(upright.fits(4, 7)).isFalse();
        double[] none = new double[frame.length];
        Arrays.fill(none, Double.NaN);
        for (Measure measure : Measure.values()) {
            assertThat(box.withMeasure(measure, 1).of(none, WIDTH)).isNaN();
        }
    }

    @Test
    void columnsAreAsTheyCameUntilSomethingIsMadeRight() {
        double[][] frames = {counted(), null, counted()};
        double[][] came = {{68, 68, 68}, {0, 0, 0}, {34, 34, 34}};
        PictureSetup parts = PictureSetup.NONE.withRegion(Region.box("low", 0, 6, 8, 6, Measure.MEAN));
        double[][] columns = parts.columns(frames, 3, WIDTH, came);
        assertThat(columns).hasDimensions(4, 3);
        assertThat(columns[0]).containsExactly(68, 68, 68);
        assertThat(columns[3]).containsExactly(64, Double.NaN, 64);
        PictureSetup mended = parts.withMend(PictureMend.NONE.withLid(counted()))
                .withRegion(Region.box("low", 0, 0, 0, 0, Measure.MEAN));
        double[][] flat = mended.columns(frames, 3, WIDTH, came);
        assertThat(flat[0]).containsExactly(0, 68, 0);
        assertThat(flat[3]).containsExactly(0, Double.NaN, 0);
        assertThat(parts.withoutRegion("low").isNone()).isTrue();
    }

    /** The ring keeps pictures to the last bit, missing pixels too, and knows which are gone. */
    @Test
    void theNewestPicturesAreKeptToTheLastBit() {
        Random random = new Random(2);
        FrameRing ring = new FrameRing(30, 16);
        List<double[]> all = new ArrayList<>();
        for (int f = 0; f < 50; f++) {
            double[] frame = new double[30];
            int kind = f % 4;
            Arrays.setAll(frame, p -> switch (kind) {
                case 0 -> Math.rint(400 * random.nextDouble()) / 10;
                case 1 -> random.nextGaussian();
                case 2 -> Math.rint(1e5 * random.nextDouble()) / 100;
                default -> p == 7 ? Double.NaN : 21.5;
            });
            all.add(f % 11 == 5 ? null : frame);
            ring.append(all.get(f));
        }
        assertThat(ring.start()).isEqualTo(34);
        assertThat(ring.end()).isEqualTo(50);
        for (int f = 0; f < 50; f++) {
            assertThat(ring.frame(f)).isEqualTo(f < 34 ? null : all.get(f));
        }
        assertThat(ring.frame(50)).isNull();
        assertThat(ring.frame(-1)).isNull();
        // Sixty bytes a picture of tenths, twice that if it has to be: sixteen of them in a kilobyte and a half.
        FrameRing within = FrameRing.within(1920, all.get(0), 1000);
        for (int f = 0; f < 40; f++) {
            within.append(all.get(0));
        }
        assertThat(within.end() - within.start()).isEqualTo(16);
    }
}
