package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.PictureMend;
import zesty.signal.core.picture.PictureSetup;
import zesty.signal.core.picture.Region;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.RigChange;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeJoin;
import zesty.signal.takes.TakeTrim;

/** Pictures from the board into a take and back, and the channels that are made of them, live and stored. */
@Timeout(240)
class FilmTest {
    @TempDir
    Path folder;

    private static Rig with(Rig rig, PictureSetup setup) {
        return rig.withSource(0, one -> one.withFormat(((PictureFormat) one.format()).withSetup(setup)));
    }

    private static double hottest(double[] frame, int width, int x1, int x2, int y1, int y2) {
        double most = Double.NEGATIVE_INFINITY;
        for (int y = y1; y <= y2; y++) {
            for (int x = x1; x <= x2; x++) {
                most = Math.max(most, frame[y * width + x]);
            }
        }
        return most;
    }

    /** A surface of emissivity 0.8 among 20 °C, from what a sensor for black ones shows; by the fourth powers. */
    private static double surface(double shown) {
        double mixed = Math.pow(shown + 273.15, 4);
        return Math.pow((mixed - 0.2 * Math.pow(293.15, 4)) / 0.8, 0.25) - 273.15;
    }

    @Test
    void aPartOfThePictureIsAChannelThatReachesBackAndIsTheSameInTheTake() throws Exception {
        Path file = folder.resolve("it.zest");
        PictureSetup setup = PictureSetup.NONE
                .withRegion(Region.box("exhaust", 24, 17, 16, 10, Region.Measure.HOTTEST))
                .withMend(PictureMend.NONE.withSurface(0.8, 20));
        double[] live;
        double[][] came;
        Rig rig = Rig.blank("Wren", "sim:cowling");
        // A rate measured on a busy machine may turn out another one, and what is shown begin anew.
        try (Trail trail = Trail.start(rig.withLink(rig.link().withStatedRate(4)))) {
            Await.until(
                    trail,
                    s -> !s.streams().isEmpty()
                            && s.streams().get(0).film() != null
                            && s.streams().get(0).film().end() >= 6);
            trail.record(file, "it", RecordingLimit.ofSamples(12), Instant.now());
            trail.change(RigChange.between(trail.rig(), with(trail.rig(), setup)));
            long recorded = Await.until(
                            trail,
                            s -> !s.recording().running() && s.recording().rows() == 12)
                    .health()
                    .rows();
            // What is recorded may be ahead of what is shown.
            Snapshot seen = Await.until(
                    trail,
                    s -> s.channel("exhaust").isPresent()
                            && s.channel("exhaust").orElseThrow().raw().end() >= recorded
                            && s.streams().get(0).film().end() >= recorded);
            ChannelSnapshot exhaust = seen.channel("exhaust").orElseThrow();
            Film film = exhaust.stream().film();
            int rows = (int) Math.min(film.end(), exhaust.raw().end());
            live = new double[rows];
            came = new double[rows][];
            for (int row = 0; row < rows; row++) {
                live[row] = exhaust.raw().value(row);
                came[row] = film.raw(row);
                // Rows from before there was such a channel have it, too.
                double due = surface(hottest(came[row], 32, 16, 24, 10, 17));
                assertThat(live[row]).isCloseTo(due, within(1e-4));
                assertThat(seen.channel("hottest").orElseThrow().raw().value(row))
                        .isCloseTo(surface(hottest(came[row], 32, 0, 31, 0, 23)), within(1e-4));
            }
            // The same channel of another part: the whole of the past with it.
            Region sky = Region.box("exhaust", 0, 0, 3, 3, Region.Measure.MEAN);
            trail.change(RigChange.between(trail.rig(), with(trail.rig(), setup.withRegion(sky))));
            Snapshot moved = Await.until(
                    trail, s -> s.channel("exhaust").orElseThrow().raw().value(0) < live[0] - 5);
            assertThat(moved.channels()).hasSize(4);
            trail.change(RigChange.between(trail.rig(), with(trail.rig(), PictureSetup.NONE)));
            Await.until(trail, s -> s.channels().size() == 3);
        }
        try (Take take = Take.open(file)) {
            assertThat(take.columns()).hasSize(3);
            int shift = 0;
            while (!Arrays.equals(take.frame(0, 0), came[shift])) {
                shift++;
            }
            for (long mostHeld : new long[] {TakeLines.MOST_HELD, 0}) {
                StoredTake own = StoredTake.load(take, share -> true, mostHeld);
                // Its rig is that of its begin, without the part: put in now, it is worked out of the pictures.
                StoredTake stored = own.with(with(own.snapshot().rig(), setup)).finish(share -> true);
                ChannelSnapshot exhaust = stored.snapshot().channel("exhaust").orElseThrow();
                for (int row = 0; row < 12; row++) {
                    assertThat(take.frame(0, row)).containsExactly(came[shift + row]);
                    assertThat(exhaust.stream().film().raw(row)).containsExactly(came[shift + row]);
                    assertThat(exhaust.clean().value(row)).isCloseTo(live[shift + row], within(1e-4));
                }
                assertThat(stored.with(with(stored.snapshot().rig(), PictureSetup.NONE))
                                .snapshot()
                                .channel("exhaust"))
                        .isEmpty();
            }
        }
    }

    @Test
    void olderTakesWithAColumnAPixelOpenAsPictures() throws Exception {
        Path old = Files.copy(Path.of("src", "test", "resources", "old", "picture.zest"), folder.resolve("old.zest"));
        try (Take take = Take.open(old)) {
            StoredTake stored = StoredTake.load(take);
            Film film = stored.snapshot().streams().get(0).film();
            assertThat(new int[] {film.width(), film.height(), (int) film.end()})
                    .containsExactly(5, 4, 8);
            // Row r, column c of picture k was 20 + r + c/10, and k more at row 2, column 3.
            assertThat(film.raw(7)[2 * 5 + 3]).isEqualTo(29.3);
            assertThat(film.raw(7)[3 * 5 + 4]).isEqualTo(23.4);
            assertThat(stored.snapshot().channels().stream()
                            .map(one -> one.channel().column()))
                    .containsExactly("hottest", "coldest", "mean");
            Region line = new Region("slope", Region.Form.LINE, 0, 0, 0, 3, Region.Measure.MEAN, Double.NaN);
            StoredTake more = stored.with(with(stored.snapshot().rig(), PictureSetup.NONE.withRegion(line)));
            assertThat(more.snapshot().channel("slope").orElseThrow().clean().value(3))
                    .isCloseTo(21.5, within(1e-6));
        }
    }

    /** A part of an older take is of the new kind, and joined with another part gives the whole again, picture by picture. */
    @Test
    void partsOfTakesKeepTheirPictures() throws Exception {
        Path old = Files.copy(Path.of("src", "test", "resources", "old", "picture.zest"), folder.resolve("old.zest"));
        Path first = folder.resolve("first.zest");
        Path second = folder.resolve("second.zest");
        Path whole = folder.resolve("whole.zest");
        try (Take take = Take.open(old)) {
            double middle = take.times()[4];
            assertThat(TakeTrim.write(take, 0, Math.nextDown(middle), first)).isEqualTo(4);
            assertThat(TakeTrim.write(take, middle, 1, second)).isEqualTo(4);
            try (Take one = Take.open(first);
                    Take two = Take.open(second)) {
                assertThat(one.columns()).hasSize(3);
                assertThat(one.pixelsAreColumns(0)).isFalse();
                assertThat(TakeJoin.write(List.of(one, two), whole)).isEqualTo(8);
            }
            try (Take again = Take.open(whole)) {
                for (int row = 0; row < 8; row++) {
                    assertThat(again.frame(0, row)).containsExactly(take.frame(0, row));
                }
                assertThat(again.frameSeries(0).count()).isEqualTo(8);
                again.verify();
                assertThat(again.damage()).isEmpty();
            }
        }
    }

    @Test
    void aPictureThatDoesNotCheckIsMissingAndTheOthersAreThere() throws Exception {
        Path file = folder.resolve("it.zest");
        try (Trail trail = Trail.start(Rig.blank("Wren", "sim:cowling"))) {
            Await.until(trail, s -> s.channels().size() == 3);
            trail.record(file, "it", RecordingLimit.ofSamples(6), Instant.now());
            Await.until(trail, s -> s.recording().rows() == 6 && !s.recording().running());
        }
        try (Connection base = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = base.createStatement()) {
            statement.execute("UPDATE frame SET divisor = 100 WHERE row = 2");
            statement.execute("DELETE FROM frame WHERE row = 4");
        }
        try (Take take = Take.open(file)) {
            take.verify();
            assertThat(take.damage())
                    .contains(
                            "of 6 pictures that were recorded 5 are there",
                            "the picture of row 2 does not check and is left out");
            assertThat(List.of(0, 1, 3, 5)).allMatch(row -> take.frame(0, row) != null);
            assertThat(take.frame(0, 2)).isNull();
            StoredTake stored = StoredTake.load(take);
            assertThat(stored.snapshot().channel("hottest").orElseThrow().raw().value(2))
                    .as("the hottest was recorded by itself")
                    .isGreaterThan(40);
        }
    }
}
