package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Series;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** A take read in pages is the same as one held in memory: what is drawn, the times, and what is read. */
class LongTakeTest {
    private static final int ROWS = 300_000;

    private static Path file;

    private static Rig rig() {
        List<Column> columns = List.of(new Column("pulse", ""), new Column("warm", "°C"), new Column("seldom", "V"));
        return new Rig(
                        "long",
                        SourceSetup.at("").withWarmUp(3),
                        new DelimitedFormat(',', false, false, "", columns, null),
                        List.of(
                                channel("pulse", "bandpass:0.5..8@2 | notch:50@30"),
                                channel("warm", "median:9 | highpass:0.2@1 | rms:0.5"),
                                channel("seldom", "lowpass:2@2")))
                .withReader(ReaderSetup.on("pulse", Pulse.NAME, Map.of()));
    }

    private static Channel channel(String column, String recipe) {
        return new Channel(column, column, Scaling.asItCame(""), Recipe.parse(recipe), true);
    }

    /** Twenty minutes at 250/s: two gaps, one of them within a piece; missing values; a column that comes with each tenth row. */
    @BeforeAll
    static void written(@TempDir Path folder) throws Exception {
        file = folder.resolve("long.zest");
        Random random = new Random(8);
        try (TakeWriter writer = TakeWriter.create(file, "long", rig(), Instant.EPOCH)) {
            int at = 0;
            while (at < ROWS) {
                int n = Math.min(ROWS - at, 50 + random.nextInt(3000));
                double[][] values = new double[3][n];
                double[] seconds = new double[n];
                List<Gap> gaps = new ArrayList<>();
                for (int i = 0; i < n; i++) {
                    int row = at + i;
                    seconds[i] = row / 250.0 + (row >= 100_000 ? 4 : 0) + (row >= 220_003 ? 0.5 : 0);
                    double in = row / 200.0 % 1;
                    values[0][i] = Math.rint(500
                            + 200 * Math.exp(-Math.pow((in - 0.3) / 0.1, 2))
                            + 20 * Math.sin(0.4 * Math.PI * row)
                            + 2 * random.nextGaussian());
                    values[1][i] = row % 777 == 5 ? Double.NaN : 20 + row * 1e-5 + 0.1 * random.nextGaussian();
                    values[2][i] = row % 10 == 0 ? Math.rint(100 * Math.sin(row * 1e-3)) : Double.NaN;
                    if (row == 100_000 || row == 220_003) {
                        gaps.add(new Gap(
                                (row - 1) / 250.0 + (row > 100_000 ? 4 : 0), seconds[i], row == 100_000 ? 1000 : 125));
                    }
                }
                boolean steady = gaps.isEmpty() && random.nextBoolean();
                TimeBase time = steady ? new TimeBase.Steady(seconds[0], 1 / 250.0) : new TimeBase.Explicit(seconds);
                writer.append(new Block(time, values, n, gaps));
                at += n;
            }
            writer.finish();
        }
    }

    private Snapshot paged(Take take) throws TakeException {
        return StoredTake.load(take, share -> true, 1000).snapshot();
    }

    @Test
    void whatIsDrawnFromPagesIsWhatIsDrawnFromMemory() throws Exception {
        try (Take take = Take.open(file);
                Take other = Take.open(file)) {
            Snapshot held = StoredTake.load(take).snapshot();
            Snapshot paged = paged(other);
            float[] one = new float[2];
            float[] two = new float[2];
            for (int c = 0; c < 3; c++) {
                Series whole = held.channels().get(c).clean();
                Series pages = paged.channels().get(c).clean();
                whole.range(0, ROWS, one);
                double room = 1e-6 * (one[1] - one[0]);
                int missing = 0;
                for (int i = 0; i < ROWS; i++) {
                    double a = whole.value(i);
                    double b = pages.value(i);
                    missing += Double.isNaN(a) ? 1 : 0;
                    if (!(Math.abs(a - b) <= room || Double.isNaN(a) && Double.isNaN(b))) {
                        assertThat(b).as("channel %d, row %d", c, i).isEqualTo(a);
                    }
                }
                assertThat(missing).as("channel %d", c).isBetween(0, c == 2 ? 280_000 : 20_000);
                for (int from = 0; from < ROWS - 4096; from += 9999) {
                    whole.range(from / 64 * 64, from / 64 * 64 + 4096, one);
                    pages.range(from / 64 * 64, from / 64 * 64 + 4096, two);
                    assertThat(two[0]).isCloseTo(one[0], within((float) room + 1e-9f));
                    assertThat(two[1]).isCloseTo(one[1], within((float) room + 1e-9f));
                }
                assertThat(paged.channels().get(c).rateHz())
                        .isCloseTo(held.channels().get(c).rateHz(), within(0.01));
            }
        }
    }

    @Test
    void timesAndRowsAreFoundAsInMemory() throws Exception {
        try (Take take = Take.open(file);
                Take other = Take.open(file)) {
            Times held = StoredTake.load(take).snapshot().times();
            Times paged = paged(other).times();
            assertThat(paged.end()).isEqualTo(ROWS);
            Random random = new Random(3);
            for (int k = 0; k < 20_000; k++) {
                int row = random.nextInt(ROWS);
                assertThat(paged.secondsAt(row)).isEqualTo(held.secondsAt(row));
                double time = random.nextDouble() * 1220 - 10;
                long exact = held.firstAtOrAfter(time);
                assertThat(paged.firstAtOrAfter(time)).as("at %s", time).isEqualTo(exact);
                // A row that is told for another one stands no further beside it than was allowed.
                long near = paged.near(time, 2.0);
                double there = held.secondsAt(Math.min(near, ROWS - 1));
                assertThat(Math.abs(there - Math.max(0, Math.min(held.secondsAt(ROWS - 1), time))))
                        .as("at %s", time)
                        .isLessThanOrEqualTo(near == exact ? Double.MAX_VALUE : 2.0);
            }
        }
    }

    @Test
    void whatIsReadIsTheSame() throws Exception {
        try (Take take = Take.open(file);
                Take other = Take.open(file)) {
            Snapshot held = StoredTake.load(take).snapshot();
            Snapshot paged = paged(other);
            assertThat(paged.channels().get(0).reader().orElseThrow().reading().times("beats"))
                    .hasSizeGreaterThan(1000)
                    .containsExactly(held.channels()
                            .get(0)
                            .reader()
                            .orElseThrow()
                            .reading()
                            .times("beats"));
            for (int c = 0; c < 3; c++) {
                assertThat(paged.channels().get(c).level())
                        .isEqualTo(held.channels().get(c).level());
            }
        }
    }

    @Test
    void itIsSeenBeforeItIsReadAndAStepThatNeedsAllOfItIsRefusedInWords() throws Exception {
        try (Take take = Take.open(file)) {
            StoredTake whole = StoredTake.load(take, share -> true, 1000);
            StoredTake changed = whole.with(
                    whole.snapshot().rig().withChannel("pulse", c -> c.withRecipe(Recipe.parse("lowpass:20@2"))));
            assertThat(changed.finished()).isFalse();
            ChannelSnapshot pulse = changed.snapshot().channels().get(0);
            assertThat(pulse.reader().orElseThrow().reading()).isNull();
            assertThat(pulse.reader().orElseThrow().trouble()).contains("not read yet");
            assertThat(pulse.clean().value(150_000)).isBetween(400.0, 800.0);
            // What was not changed is as it was.
            assertThat(changed.snapshot().channels().get(1).clean())
                    .isSameAs(whole.snapshot().channels().get(1).clean());
            List<Double> shares = new ArrayList<>();
            assertThatThrownBy(() -> changed.finish(share -> {
                        shares.add(share);
                        return share < 0.8;
                    }))
                    .isInstanceOf(CancellationException.class);
            assertThat(shares).isSorted();
            assertThat(changed.finish(share -> true)
                            .snapshot()
                            .channels()
                            .get(0)
                            .reader()
                            .orElseThrow()
                            .reading()
                            .times("beats"))
                    .hasSizeGreaterThan(1000);

            ChannelSnapshot flat = changed.with(
                            changed.snapshot().rig().withChannel("warm", c -> c.withRecipe(Recipe.parse("detrend"))))
                    .snapshot()
                    .channels()
                    .get(1);
            assertThat(flat.trouble()).contains("drawn without its recipe").contains("300000 rows");
            assertThat(flat.clean().value(150_001)).isBetween(19.0, 24.0);
        }
    }

    @Test
    void pagesThatAreLookedAtComeByThemselvesAndAreSeenAsCellsUntilThen() throws Exception {
        try (StoredTake take = StoredTake.open(file, share -> true)) {
            assertThat(take.isLong()).isFalse();
        }
        try (Take take = Take.open(file)) {
            StoredTake whole = StoredTake.load(take, share -> true, 1000);
            StoredTake changed = whole.with(
                    whole.snapshot().rig().withChannel("pulse", c -> c.withRecipe(Recipe.parse("lowpass:20@2"))));
            Series clean = changed.snapshot().channels().get(0).clean();
            float[] range = new float[2];
            clean.range(150_000, 150_100, range);
            assertThat(range).containsOnly(Float.NaN);
            for (int i = 0; i < 2000 && !clean.atHand(150_000, 150_100); i++) {
                Thread.sleep(10);
            }
            clean.range(150_000, 150_100, range);
            double[] some = new double[100];
            Arrays.setAll(some, i -> clean.value(150_000 + i));
            assertThat(range[0]).isEqualTo((float) Arrays.stream(some).min().orElseThrow());
            assertThat(range[1]).isEqualTo((float) Arrays.stream(some).max().orElseThrow());
            changed.close();
        }
    }
}
