package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static zesty.signal.engine.Await.until;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.ClockOffset;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.RigJson;
import zesty.signal.takes.Table;
import zesty.signal.takes.Take;

/** Several boards in one rig, each with a clock of its own, on one time line and in one take. */
@Timeout(240)
class ManySourcesTest {
    @TempDir
    Path folder;

    private final List<ServerSocket> servers = new ArrayList<>();

    @AfterEach
    void unplug() throws Exception {
        for (ServerSocket server : servers) {
            server.close();
        }
    }

    /** A board that sends its own clock, which starts anywhere, and what the time really is when it does. */
    private ServerSocket board(String column, int perSecond, long clockMs) throws Exception {
        ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        servers.add(server);
        Thread thread = new Thread(() -> talk(server, column, perSecond, clockMs), "board " + column);
        thread.setDaemon(true);
        thread.start();
        return server;
    }

    private static void talk(ServerSocket server, String column, int perSecond, long clockMs) {
        try (Socket socket = server.accept();
                OutputStream out = socket.getOutputStream()) {
            out.write(("t_ms," + column + "\n").getBytes(StandardCharsets.US_ASCII));
            long began = System.nanoTime();
            for (long i = 0; !server.isClosed(); i++) {
                long due = began + i * 1_000_000_000L / perSecond;
                Thread.sleep(Math.max(0, (due - System.nanoTime()) / 1_000_000));
                long now = System.nanoTime();
                String line = String.format(
                        Locale.ROOT, "%d,%.4f%n", clockMs + Math.round((now - began) / 1e6), now * 1e-9 % 1000);
                out.write(line.replace("\r", "").getBytes(StandardCharsets.US_ASCII));
                out.flush();
            }
        } catch (Exception e) {
            // The other end has what it wanted.
        }
    }

    private static String at(ServerSocket server) {
        return "tcp:127.0.0.1:" + server.getLocalPort();
    }

    /** @return by how much the value, which is the real time, is ahead of the row's time: the least of all rows */
    private static double ahead(double[] values, double[] seconds, int from) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = from; i < values.length; i++) {
            least = Math.min(least, values[i] - seconds[i]);
        }
        return least;
    }

    /** @return rows that have come from the mast and from the hull */
    private static long[] arrived(Trail trail) {
        Snapshot now = trail.snapshot(System.nanoTime());
        return new long[] {
            now.channel("wind").orElseThrow().raw().end(),
            now.channel("hull/hum").orElseThrow().raw().end()
        };
    }

    @Test
    void whatHappensAtOneMomentStandsAtOneTimeAndOneLinkMayBreakAlone() throws Exception {
        ServerSocket mast = board("wind", 100, 5_000);
        ServerSocket hull = board("hum", 50, 777_000);
        Path file = folder.resolve("both.zest");
        long[] least;
        long[] most;
        try (Trail trail = Trail.start(Rig.blank("r", at(mast)))) {
            until(trail, s -> s.channel("wind").isPresent());
            trail.join("hull", SourceSetup.at(at(hull)));
            Snapshot both = until(
                    trail,
                    s -> s.channel("hull/hum").filter(c -> c.raw().end() > 20).isPresent());
            assertThat(both.links()).hasSize(2);
            assertThat(both.channel("hull/hum").orElseThrow().channel().name()).isEqualTo("hum");
            long[] before = arrived(trail);
            trail.record(file, "both", RecordingLimit.NONE, Instant.EPOCH);
            Snapshot begun = until(trail, s -> s.recording().seconds() > 0);
            // What was read before the recording began, and stood in line, is in the lanes only.
            until(
                    trail,
                    s -> arrived(trail)[0] >= begun.health(0).rows()
                            && arrived(trail)[1] >= begun.health(1).rows());
            long[] first = arrived(trail);
            until(trail, s -> arrived(trail)[0] >= first[0] + 200 && arrived(trail)[1] >= first[1] + 100);
            long[] last = arrived(trail);
            trail.stopRecording();
            least = new long[] {last[0] - first[0], last[1] - first[1]};

            hull.close();
            Snapshot alone = until(trail, s -> s.health(1).state() == LinkState.LOST);
            assertThat(alone.health(0).state()).isEqualTo(LinkState.LIVE);
            long[] after = arrived(trail);
            most = new long[] {after[0] - before[0], after[1] - before[1]};
            trail.leave(1);
            until(trail, s -> s.channels().size() == 1 && s.links().size() == 1);
        }
        try (Take take = Take.open(file)) {
            assertThat(take.sources()).isEqualTo(2);
            assertThat(take.columns())
                    .extracting(c -> c.name())
                    .containsExactly("t_ms", "wind", "hull/t_ms", "hull/hum");
            double wind = ahead(take.column(1), take.times(0), 0);
            double hum = ahead(take.column(3), take.times(1), 0);
            // Arrival tells the offset as well as the least delay of a second is alike: some ms on a busy machine.
            assertThat(hum).isCloseTo(wind, within(0.025));
            assertThat(take.rows(0)).isBetween(least[0], most[0]);
            assertThat(take.rows(1)).isBetween(least[1], most[1]);
            StoredTake stored = StoredTake.load(take);
            assertThat(stored.snapshot().channels()).hasSize(2);
            assertThat(stored.snapshot().channel("hull/hum").orElseThrow().raw().end())
                    .isEqualTo(take.rows(1));
            CsvExport.write(take, folder.resolve("both.csv"), false, share -> true);
        }
        assertThat(Table.open(folder.resolve("both.csv")).headers()).containsExactly("t", "t_ms", "wind");
        assertThat(Table.open(folder.resolve("both-2.csv")).headers()).containsExactly("t", "hull/t_ms", "hull/hum");
        assertThat(Table.open(file, "hull/hum").headers()).containsExactly("hull/t_ms", "hull/hum");
    }

    @Test
    void eightBoardsAtOnceLoseNothingAndComeBackFromTheRigAsTheyWere() throws Exception {
        List<String> names = List.of("deck", "hull", "forearm", "motion", "masthead", "battery", "hoist", "locker");
        Rig rig = Rig.blank("all", "sim:" + names.get(0));
        for (String name : names.subList(1, names.size())) {
            rig = rig.joined(name, SourceSetup.at("sim:" + name));
        }
        Rig again = RigJson.read(RigJson.write(rig), "rig");
        assertThat(again).isEqualTo(rig);
        Path file = folder.resolve("all.zest");
        FromStart order = new FromStart(file, "all", RecordingLimit.ofSeconds(4), Instant.EPOCH);
        var address = zesty.signal.boards.link.LinkAddress.parse(rig.source());
        try (Trail trail = Trail.startRecording(again, address, address.link(), order)) {
            Snapshot done = until(
                    trail, s -> s.recording().file() != null && !s.recording().running());
            assertThat(done.recording().problem()).isEmpty();
            assertThat(done.recording().lostRows()).isZero();
            assertThat(done.links()).allSatisfy(link -> assertThat(link.state()).isIn(LinkState.LIVE, LinkState.HELD));
            assertThat(done.links())
                    .allSatisfy(link -> assertThat(link.lostRows()).isZero());
        }
        try (Take take = Take.open(file)) {
            // Rates the boards state, over 4 s; what a link still held at the end of a busy machine is not in it.
            double[] rates = {200, 1600, 1000, 100};
            for (int s = 0; s < rates.length; s++) {
                assertThat(take.rows(s) / rates[s]).as(names.get(s)).isBetween(2.5, 4.4);
            }
            assertThat(take.gaps(1)).isEmpty();
        }
        assertThat(Files.size(file)).isPositive();
    }

    @Test
    void offsetAndDriftAreFoundFromDelayedArrivals() {
        Random random = new Random(7);
        ClockOffset clock = new ClockOffset();
        double drift = 250e-6;
        // The source's clock began at 40 s of the computer's and is 250 ppm slow; delays are 3 ms and an exponential
        // tail.
        for (int i = 1; i <= 12_000; i++) {
            double own = i * 0.01;
            double real = 40 + own * (1 + drift);
            clock.saw(own, real + 0.003 - 0.02 * Math.log(1 - random.nextDouble()));
        }
        double offset = 40 + 120 * drift + 0.003;
        // A hundred delays a second: the least of them is 0.2 ms above 3 ms on average.
        assertThat(clock.offsetSeconds()).isCloseTo(offset, within(0.001));
        assertThat(clock.drift()).isCloseTo(drift, within(20e-6));
    }

    @Test
    void anotherSourcesRowsNeverFallInTimeWhateverTheirDelays() {
        Random random = new Random(11);
        CommonTime time = new CommonTime();
        Feed first = new Feed("", null, (stream, seconds, nanos) -> {});
        Feed other = new Feed("other", null, (stream, seconds, nanos) -> {});
        double last = Double.NEGATIVE_INFINITY;
        double worst = 0;
        double[][] none = {};
        for (int i = 0; i < 3000; i++) {
            double real = 100 + i * 0.02;
            time.place(first, new Block(new TimeBase.Steady(i * 0.02, 0.01), none, 2, List.of()), real + 0.01);
            // Its clock runs 300 ppm fast and began at 55 s; it arrives up to 0.2 s late.
            double own = 55 + i * 0.02 * (1 + 300e-6);
            Gap gap = new Gap(Math.max(55, own - 0.01), own, 0);
            Block block = new Block(new TimeBase.Explicit(new double[] {own, own + 0.01}), none, 2, List.of(gap));
            Block placed = time.place(other, block, real + 0.01 + 0.2 * random.nextDouble() * random.nextDouble());
            assertThat(placed.time().secondsAt(0)).isGreaterThan(last);
            assertThat(placed.gaps().get(0).endSeconds())
                    .isCloseTo(placed.time().secondsAt(0), within(1e-9));
            last = placed.lastSeconds();
            worst = i > 1500 ? Math.max(worst, Math.abs(placed.time().secondsAt(0) - i * 0.02)) : 0;
        }
        // The least delay of fifty rows a second is 0.2 s / 50² or less on average: far below a row's 10 ms.
        assertThat(worst).isLessThan(0.005);
        assertThat(time.shiftSeconds(other)).isCloseTo(-55 - 60 * 300e-6, within(0.005));
    }
}
