package zesty.signal.benchmarks;

import com.sun.management.OperatingSystemMXBean;
import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import zesty.signal.boards.link.Link;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.picture.Film;
import zesty.signal.core.picture.FramePainter;
import zesty.signal.core.picture.Turned;
import zesty.signal.core.rig.Rig;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.StoredTake;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Take;

/** Pictures of 120 × 160 degrees, sixteen a second, as text: the share of a core that recording takes, and how fast they are shown of a take. */
public final class FramesBench {
    private static final int WIDTH = 160;
    private static final int HEIGHT = 120;
    private static final int A_SECOND = 16;
    private static final int DIFFERENT = 32;

    private FramesBench() {}

    /** Gives pictures made beforehand, at their time. */
    private static final class Camera implements Link {
        private final byte[][] pictures = new byte[DIFFERENT][];
        private long startNanos;
        private long given;
        private byte[] rest = {};
        private int at;

        Camera() {
            for (int f = 0; f < DIFFERENT; f++) {
                StringBuilder text = new StringBuilder("picture\n");
                for (int y = 0; y < HEIGHT; y++) {
                    for (int x = 0; x < WIDTH; x++) {
                        double spot = 40 * Math.exp(-(Math.pow(x - 60 - f, 2) + Math.pow(y - 50, 2)) / 200);
                        long tenths = Math.round(10 * (20 + spot + (x * 7 + y * 13 + f) % 5 * 0.1));
                        text.append(x == 0 ? "" : " ")
                                .append(tenths / 10)
                                .append('.')
                                .append(tenths % 10);
                    }
                    text.append('\n');
                }
                pictures[f] = text.toString().getBytes(StandardCharsets.US_ASCII);
            }
        }

        @Override
        public void open() {
            startNanos = System.nanoTime();
        }

        @Override
        public int read(byte[] buffer) {
            if (at == rest.length) {
                long due = (System.nanoTime() - startNanos) * A_SECOND / 1_000_000_000L;
                if (given >= due) {
                    LockSupport.parkNanos(2_000_000);
                    return NOTHING;
                }
                rest = pictures[(int) (given++ % DIFFERENT)];
                at = 0;
            }
            int count = Math.min(buffer.length, rest.length - at);
            System.arraycopy(rest, at, buffer, 0, count);
            at += count;
            return count;
        }

        @Override
        public void write(byte[] bytes) {
            // It takes no orders.
        }

        @Override
        public void close() {
            // Nothing to free.
        }

        @Override
        public boolean joinsMidStream() {
            return false;
        }
    }

    public static void main(String[] arguments) throws Exception {
        double seconds = Double.parseDouble(arguments[0]);
        Path file = Files.createTempDirectory("zesty-frames").resolve("it.zest");
        OperatingSystemMXBean machine = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        try (Trail trail =
                Trail.start(Rig.blank("Wren", "sim:cowling"), LinkAddress.parse("sim:cowling"), new Camera())) {
            await(trail, 16, 60);
            trail.record(file, "it", RecordingLimit.ofSeconds(seconds), Instant.now());
            TimeUnit.SECONDS.sleep(3);
            long begin = machine.getProcessCpuTime();
            long from = System.nanoTime();
            while (trail.snapshot(System.nanoTime()).recording().running()) {
                TimeUnit.MILLISECONDS.sleep(50);
            }
            double share = (double) (machine.getProcessCpuTime() - begin) / (System.nanoTime() - from);
            Snapshot end = trail.snapshot(System.nanoTime());
            System.out.printf(
                    Locale.ROOT,
                    "recorded: %d pictures, %d lost, %.1f %% of a core, %.1f MB a minute%n",
                    end.recording().rows(),
                    end.recording().lostRows(),
                    100 * share,
                    Files.size(file) / 1e6 * 60 / seconds);
        }
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            Film film = stored.snapshot().streams().get(0).film();
            Turned how = Turned.of(film.width(), film.height(), film.setup());
            int[] pixels = new int[640 * 480];
            double[] each = new double[(int) Math.min(640, film.end())];
            for (int row = 0; row < each.length; row++) {
                long from = System.nanoTime();
                double[] frame = film.frame(row);
                FramePainter.paint(
                        pixels, 640, new FramePainter.Place(0, 0, 640, 480), frame, how, 20, 60, row % 2 == 0);
                each[row] = (System.nanoTime() - from) * 1e-6;
            }
            Arrays.sort(each);
            System.out.printf(
                    Locale.ROOT,
                    "shown: read and painted at 640 × 480 in %.1f ms at the median, %.1f at the 99th percentile%n",
                    each[each.length / 2],
                    each[each.length * 99 / 100]);
        }
        Files.delete(file);
        Files.delete(file.getParent());
    }

    private static void await(Trail trail, long frames, int seconds) throws InterruptedException {
        for (int i = 0; i < 20 * seconds; i++) {
            Snapshot now = trail.snapshot(System.nanoTime());
            if (!now.streams().isEmpty()
                    && now.streams().get(0).film() != null
                    && now.streams().get(0).film().end() >= frames) {
                return;
            }
            TimeUnit.MILLISECONDS.sleep(50);
        }
        throw new IllegalStateException("no picture was recognised: "
                + trail.snapshot(System.nanoTime()).links());
    }
}
