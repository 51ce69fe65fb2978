package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.boards.sim.FingerSignal;
import zesty.signal.boards.sim.PulseMode;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Scaling;
import zesty.signal.takes.Take;

/** A board without a clock of which half a minute waits in a buffer when it is opened, over a real socket. */
@Isolated("its own timing is what it is about")
@Timeout(240)
class BufferedPortTest {
    private static final double RATE = 200;

    @TempDir
    Path folder;

    private ServerSocket server;
    private volatile boolean ending;
    private Thread board;

    @BeforeEach
    void listen() throws Exception {
        server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    }

    @AfterEach
    void hangUp() throws Exception {
        ending = true;
        server.close();
        board.join(5000);
    }

    /** @param squeeze how many times too fast the half minute that waited comes; 0 for all at once */
    private void serve(double squeeze, double fallsSilentAt) {
        board = new Thread(() -> {
            FingerSignal finger = new FingerSignal(3, RATE, EnumSet.noneOf(PulseMode.class));
            try (Socket socket = server.accept()) {
                OutputStream out = socket.getOutputStream();
                long began = System.nanoTime();
                for (int k = 0; !ending; k++) {
                    double due = squeeze == 0
                            ? Math.max(0, k / RATE - 30)
                            : k < 6000 ? k / RATE / squeeze : 30 / squeeze + (k - 6000) / RATE;
                    while (!ending && (System.nanoTime() - began) * 1e-9 < due) {
                        out.flush();
                        LockSupport.parkNanos(2_000_000);
                    }
                    if (due > fallsSilentAt) {
                        LockSupport.parkNanos(20_000_000);
                        k--;
                        continue;
                    }
                    out.write((Math.round(finger.next()) + "\n").getBytes(StandardCharsets.US_ASCII));
                }
            } catch (Exception e) {
                // The other side has gone: the test is over.
            }
        });
        board.setDaemon(true);
        board.start();
    }

    private Trail start(Path file, RecordingLimit limit) {
        LinkAddress address = LinkAddress.parse("tcp:127.0.0.1:" + server.getLocalPort());
        Rig rig = Rig.blank("test", address.text())
                .withChannels(List.of(new Channel("column1", "Pulse", Scaling.asItCame(""), Recipe.NONE, true)))
                .withReader(ReaderSetup.on("column1", "pulse", Map.of()))
                .acknowledging(Caution.BODY);
        return Trail.startRecording(rig, address, address.link(), new FromStart(file, "t", limit, Instant.EPOCH));
    }

    private static Snapshot until(Trail trail, Predicate<Snapshot> wanted, double seconds) throws InterruptedException {
        long end = System.nanoTime() + (long) (seconds * 1e9);
        while (true) {
            Snapshot snapshot = trail.snapshot(System.nanoTime());
            if (wanted.test(snapshot) || System.nanoTime() > end) {
                return snapshot;
            }
            TimeUnit.MILLISECONDS.sleep(20);
        }
    }

    private static double rate(Snapshot snapshot) {
        return snapshot.channels().isEmpty()
                ? Double.NaN
                : snapshot.channels()
                        .get(0)
                        .reader()
                        .map(ReaderSnapshot::headline)
                        .orElse(Double.NaN);
    }

    @Test
    void halfAMinuteInTheBufferIsDatedBackwardsAndThePulseIsRightWithinTenSeconds() throws Exception {
        serve(0, 1e9);
        try (Trail trail = start(folder.resolve("a.zest"), RecordingLimit.NONE)) {
            Snapshot seen = until(trail, s -> s.lastSeconds() > 34 && rate(s) > 0, 10);
            FingerSignal truth = new FingerSignal(3, RATE, EnumSet.noneOf(PulseMode.class));
            for (int i = 0; i < RATE * 40; i++) {
                truth.next();
            }
            double[] beats = truth.truth().stream()
                    .mapToDouble(t -> t)
                    .filter(t -> t > 14 && t < 34)
                    .toArray();
            double usual = 60 * (beats.length - 1) / (beats[beats.length - 1] - beats[0]);
            assertThat(rate(seen)).isCloseTo(usual, within(2.0));
            assertThat(seen.rateHz()).isCloseTo(RATE, within(1.0));
            assertThat(seen.health().gaps()).isZero();
            // What waited is drawn as the half minute that it is.
            assertThat(seen.lastSeconds() - seen.firstSeconds()).isBetween(33.0, 42.0);
        }
    }

    @Test
    void aBufferEmptiedTenTimesTooFastLeavesATakeAtTheRightRate() throws Exception {
        serve(10, 1e9);
        Path file = folder.resolve("b.zest");
        long rows;
        try (Trail trail = start(file, RecordingLimit.NONE)) {
            Snapshot seen = until(trail, s -> s.health().rows() > 6000 + 200 * 14 && rate(s) > 0, 25);
            assertThat(seen.rateHz())
                    .as("what is seen has begun anew at the right rate")
                    .isCloseTo(RATE, within(2.0));
            assertThat(rate(seen)).isBetween(50.0, 100.0);
            rows = trail.stopRecording().rows();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(rows);
            double[] t = take.times();
            // Set right at its end: the rows that were squeezed into three seconds are half a minute.
            assertThat(t[5999] - t[0]).isCloseTo(5999 / RATE, within(0.2));
            assertThat(t[t.length - 1] - t[6500]).isCloseTo((t.length - 1 - 6500) / RATE, within(0.1));
        }
    }

    @Test
    void aRecordingForATimeEndsOnTimeThoughTheBoardFallsSilent() throws Exception {
        // Nothing waited; two seconds of rows come, and four are asked for.
        serve(1, 2);
        Path file = folder.resolve("c.zest");
        try (Trail trail = start(file, RecordingLimit.ofSeconds(4))) {
            until(trail, s -> s.recording().running(), 10);
            Snapshot over = until(trail, s -> !s.recording().running(), 10);
            assertThat(over.recording().running()).isFalse();
            assertThat(over.recording().problem()).isEmpty();
            assertThat(over.recording().rows()).isBetween(300L, 420L);
        }
        try (Take take = Take.open(file)) {
            assertThat(take.mended()).isEmpty();
        }
    }
}
