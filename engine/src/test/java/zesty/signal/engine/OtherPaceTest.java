package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.ArrivalClockFit;
import zesty.signal.core.decode.Timestamper;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.SampleRate;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.scale.Scaling;

/** A shaft that turns at 40 Hz is one that turns at 40 Hz, however the board's clock ticks and whatever rate it goes on at. */
class OtherPaceTest {
    private static final double HZ = 40;

    @TempDir
    Path folder;

    @ParameterizedTest
    @CsvSource({
        "1000000, 500, 1000, false",
        "1000000, 1000, 500, false",
        "1000000, 1000, 230, false",
        "1000, 500, 400, false",
        "1000, 860, 860, false",
        "1000, 930, 930, false",
        "1000000, 200, 400, true",
        "1000000, 300, 130, true",
        "1000, 270, 270, true"
    })
    void whatIsReadLiveIsReadAtTheRateThereIs(double ticksPerSecond, double rateHz, double laterHz, boolean stations)
            throws Exception {
        Random random = new Random(3);
        StringBuilder text =
                new StringBuilder((ticksPerSecond == 1000 ? "t_ms" : "t_us") + (stations ? ",station,x\n" : ",x\n"));
        String column = stations ? "x 7" : "x";
        double now = 0.1;
        double change = 25;
        while (now < 60) {
            long stamp = (long) Math.floor(now * ticksPerSecond);
            if (stations && random.nextInt(20) == 0) {
                text.append(stamp).append(",9,12\n");
            }
            text.append(stamp)
                    .append(stations ? ",7," : ",")
                    .append(Math.round(2000 + 300 * Math.sin(2 * Math.PI * HZ * now) + 5 * random.nextGaussian()))
                    .append('\n');
            now += 1 / (now < change ? rateHz : laterHz);
        }
        Path capture = Files.writeString(folder.resolve("bytes.txt"), text);
        Rig rig = Rig.blank("test", "file:" + capture)
                .withChannels(List.of(
                        new Channel(column, "x", Scaling.asItCame("counts"), Recipe.parse("highpass:5@2"), true)))
                .withReader(ReaderSetup.on(column, "vibration", Map.of()));
        try (Trail trail = Trail.start(rig)) {
            Snapshot over = Await.until(
                    trail,
                    s -> s.health().state() == LinkState.OVER
                            && s.lastSeconds() > 59.8
                            && s.channel(column).isPresent());
            ChannelSnapshot channel = over.channel(column).orElseThrow();
            assertThat(channel.rateHz()).isCloseTo(laterHz, within(0.004 * laterHz));
            Reading reading = channel.reader().orElseThrow().reading();
            assertThat(reading.records("peaks").get(0)[0]).isCloseTo(HZ, within(0.15));
            assertThat(reading.quality().share()).isGreaterThan(0.9);
            // Lanes hold what came at this rate, to the end.
            assertThat(channel.clean().value(channel.clean().end() - 1)).isNotNaN();
        }
    }

    /** Rows that come as something happens come at no pace: lanes go on, however often it happens. */
    @ParameterizedTest
    @CsvSource({"t_us", "edge_us"})
    void whatComesAsItHappensGoesOn(String clock) throws Exception {
        Random random = new Random(6);
        StringBuilder text = new StringBuilder(clock).append(",x\n");
        double now = 1;
        int rows = 9000;
        for (int i = 0; i < rows; i++) {
            now += (i < 4000 ? 0.01 : 0.004) * (clock.equals("edge_us") ? 1 : -Math.log(1 - random.nextDouble()));
            text.append(Math.round(now * 1e6)).append(',').append(i % 100).append('\n');
        }
        Path capture = Files.writeString(folder.resolve("bytes.txt"), text);
        Rig rig = Rig.blank("test", "file:" + capture)
                .withChannels(List.of(new Channel("x", "x", Scaling.asItCame("counts"), Recipe.NONE, true)));
        try (Trail trail = Trail.start(rig)) {
            Snapshot over = Await.until(
                    trail,
                    s -> s.health().state() == LinkState.OVER
                            && s.health().rows() == rows
                            && s.channel("x").isPresent());
            assertThat(over.channel("x").orElseThrow().raw().end()).isEqualTo(rows);
        }
    }

    /** Of a board that tells no time the first second tells its rate to a percent; what is read must not keep that. */
    @Test
    void withoutAClockTheRateIsTakenUpAgainAsItIsKnownBetter() {
        StreamPace pace = new StreamPace();
        pace.begin(94, new TimeRing(1024));
        List<Integer> taken = new ArrayList<>();
        for (int second = 1; second <= 200; second++) {
            pace.came(94);
            pace.measured(second < 20 ? 93.5 : second < 40 ? 93.59 : second < 100 ? 93.69 : 93.1, 0.01);
            if (pace.refinedByArrival()) {
                taken.add(second);
            }
        }
        // At 4 s and 8 s it is off by less than it is uncertain by, at 32 s by less than a thousandth; from 128 s on it
        // is known.
        assertThat(taken).containsExactly(16, 64, 128);
        assertThat(pace.hz()).isEqualTo(93.1);
        assertThat(pace.rateIsOther(93.1 * 1.021)).isTrue();
        assertThat(pace.rateIsOther(93.1 * 1.019)).isFalse();
    }

    /** A computer that reads nothing for up to a second now and then: what that did to a rate is mended as soon as it is known to be wrong. */
    @ParameterizedTest
    @ValueSource(doubles = {50, 93.73, 251.9})
    void whatStallsDidToARateIsMendedInFourSeconds(double hz) {
        int begunWrong = 0;
        int untold = 0;
        for (int seed = 0; seed < 100; seed++) {
            Random random = new Random(seed);
            ArrivalClockFit arrivals = new ArrivalClockFit();
            StreamPace pace = new StreamPace();
            long came = 0;
            for (double now = 0; now < 18; now += 0.01 + 0.003 * random.nextDouble()) {
                now += random.nextInt(140) == 0 ? random.nextDouble() : 0;
                long due = (long) (now * hz);
                if (due > came) {
                    arrivals.saw(due, now + 0.002 * random.nextDouble());
                }
                pace.came((int) (due - came));
                came = due;
                double is = Timestamper.nominal(1 / arrivals.periodSeconds(), arrivals.uncertainty());
                if (!pace.known() && arrivals.enough()) {
                    begunWrong += Math.abs(is / hz - 1) > 0.003 ? 1 : 0;
                    pace.begin(is, new TimeRing(1024));
                } else if (pace.known()) {
                    pace.measured(is, arrivals.uncertainty());
                    pace.refinedByArrival();
                }
                assertThat(now < 6 ? hz : pace.hz()).isCloseTo(hz, within(0.003 * hz));
                untold += pace.known() && Math.abs(pace.hz() / hz - 1) > Math.max(0.005, pace.offBy()) ? 1 : 0;
            }
            assertThat(pace.hz()).isCloseTo(hz, within(0.001 * hz));
        }
        assertThat(begunWrong).isPositive();
        // Of 150 000 looks.
        assertThat(untold)
                .as("looks at a rate that is off by more than was said")
                .isLessThan(100);
    }

    @Test
    void anAnswerInHertzIsNoSurerThanItsRate() {
        Reading sure = new Reading(new Quality(1, List.of()), List.of(), List.of(), "");
        RateDoubt doubt = new RateDoubt(ReaderKinds.of("vibration"));
        assertThat(doubt.said(sure)).isSameAs(sure);
        doubt.offBy(0.005);
        assertThat(doubt.said(sure)).isSameAs(sure);
        doubt.offBy(0.02);
        assertThat(doubt.said(sure).quality().share()).isCloseTo(0.8, within(1e-12));
        assertThat(doubt.said(sure).quality().reasons())
                .singleElement()
                .asString()
                .contains("known to 2 %");
        doubt.offBy(0.2);
        assertThat(doubt.said(sure).quality().share()).isCloseTo(0.3, within(1e-12));
        RateDoubt step = new RateDoubt(ReaderKinds.of("step"));
        step.offBy(0.2);
        assertThat(step.said(sure)).isSameAs(sure);
    }

    /** Sends lines of milliseconds and a sine, four of five, as a loop that pauses now and then. */
    private static void send(ServerSocket server) {
        Random random = new Random(8);
        long begin = System.nanoTime();
        try (Socket socket = server.accept();
                OutputStream out = socket.getOutputStream()) {
            while (true) {
                long stamp = 3000 + (System.nanoTime() - begin) / 1_000_000;
                String row = stamp + "," + Math.round(2000 + 300 * Math.sin(2e-3 * Math.PI * HZ * stamp)) + "\n";
                out.write(random.nextInt(5) == 0 ? new byte[0] : row.getBytes(StandardCharsets.US_ASCII));
                TimeUnit.MILLISECONDS.sleep(random.nextInt(30) == 0 ? 25 : 5);
            }
        } catch (IOException | InterruptedException e) {
            // The other end has what it wanted.
        }
    }

    /** By arrival a loop with rows lost would have its mean rate, and the shaft turn as much slower. */
    @Test
    void aClockThatNobodyNamedIsKnownByArrival() throws Exception {
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread board = new Thread(() -> send(server), "board");
            board.setDaemon(true);
            board.start();
            Rig rig = Rig.blank("test", "tcp:127.0.0.1:" + server.getLocalPort())
                    .withReader(ReaderSetup.on("column2", "vibration", Map.of()));
            try (Trail trail = Trail.start(rig)) {
                Snapshot now = Await.until(
                        trail,
                        s -> s.lastSeconds() > 11
                                && s.channel("column2")
                                        .flatMap(ChannelSnapshot::reader)
                                        .isPresent());
                assertThat(now.rig().format().clock().ticksPerSecond()).isEqualTo(1000);
                assertThat(now.channels()).hasSize(1);
                Reading reading = now.channels().get(0).reader().orElseThrow().reading();
                assertThat(reading.records("peaks").get(0)[0]).isCloseTo(HZ, within(0.1));
            }
        }
    }

    /** A record has one rate, that of most of it: that it is another for some of it is told, and no answer is without doubt. */
    @ParameterizedTest
    @CsvSource({"500, 1000, 0.6, '1000/s, not at 500/s'", "1000, 480, 0.75, missing", "500, 505, 1, ''"})
    void aRecordOfTwoRatesIsNotReadWithoutDoubt(double rateHz, double laterHz, double most, String said) {
        double[] seconds = new double[20_000];
        double[] values = new double[seconds.length];
        for (int i = 0; i < seconds.length; i++) {
            seconds[i] = i == 0 ? 0 : seconds[i - 1] + 1 / (i < 12_000 ? rateHz : laterHz);
            values[i] = Math.sin(2 * Math.PI * HZ * seconds[i]);
        }
        Reading reading =
                TableReading.of("vibration", Map.of(), new double[][] {values}, seconds, SampleRate.of(seconds));
        assertThat(reading.quality().share()).isLessThanOrEqualTo(most);
        if (most == 1) {
            assertThat(reading.quality().reasons()).isEmpty();
        } else {
            assertThat(reading.quality().reasons()).first().asString().contains(said);
        }
    }
}
