package zesty.signal.benchmarks;

import com.sun.management.OperatingSystemMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryUsage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import zesty.signal.boards.link.LinkAddress;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Scaling;
import zesty.signal.engine.FromStart;
import zesty.signal.engine.RecordingLimit;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;
import zesty.signal.takes.Take;

/**
 * One MB/s of text through link, trail and take: lines come over TCP from a process of their own, are decoded, cleaned
 * (two of six channels) and recorded. Says what was lost, the share of a core and the heap.
 */
public final class LoadBench {
    private static final int COLUMNS = 6;
    private static final double BYTES_PER_SECOND = 1e6;
    private static final String[] LINES = lines();

    private LoadBench() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments[0].equals("serve")) {
            serve(Double.parseDouble(arguments[1]));
            return;
        }
        double seconds = Double.parseDouble(arguments[0]);
        Process board = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElse("java"),
                        "-cp",
                        System.getProperty("java.class.path"),
                        LoadBench.class.getName(),
                        "serve",
                        arguments[0])
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        int port = Integer.parseInt(board.inputReader().readLine());
        measure(seconds, port);
        board.waitFor();
    }

    private static String[] lines() {
        Random random = new Random(1);
        String[] lines = new String[4096];
        for (int i = 0; i < lines.length; i++) {
            StringBuilder line = new StringBuilder();
            for (int c = 0; c < COLUMNS; c++) {
                line.append(100 + random.nextInt(900)).append(c < COLUMNS - 1 ? ',' : '\n');
            }
            lines[i] = line.toString();
        }
        return lines;
    }

    private static double linesPerSecond() {
        return BYTES_PER_SECOND / LINES[0].length();
    }

    private static void serve(double seconds) throws IOException, InterruptedException {
        long most = Math.round(seconds * linesPerSecond());
        try (TextBoard board = new TextBoard(linesPerSecond(), most, i -> LINES[(int) (i % LINES.length)])) {
            System.out.println(board.port());
            board.join();
        }
    }

    private static void measure(double seconds, int port) throws Exception {
        Path file = Files.createTempDirectory("zesty-load").resolve("load.zest");
        LinkAddress address = LinkAddress.parse("tcp:127.0.0.1:" + port);
        Rig rig = Rig.blank("load", address.text())
                .withChannels(List.of(
                        channel("column1", "bandpass:0.5..8@2"), channel("column2", "lowpass:100@2 | notch:50@30")));
        OperatingSystemMXBean system = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        long cpuBefore = system.getProcessCpuTime();
        long start = System.nanoTime();
        long heap = 0;
        long expected = Math.round(seconds * linesPerSecond());
        FromStart order = new FromStart(file, "load", RecordingLimit.NONE, Instant.now());
        long rows;
        long lost;
        long rejectedLines;
        try (Trail trail = Trail.startRecording(rig, address, address.link(), order)) {
            Snapshot snapshot;
            do {
                TimeUnit.MILLISECONDS.sleep(100);
                snapshot = trail.snapshot(System.nanoTime());
                MemoryUsage usage = ManagementFactory.getMemoryMXBean().getHeapMemoryUsage();
                heap = Math.max(heap, usage.getUsed());
            } while (snapshot.health().bytes() < expected * LINES[0].length()
                    && (System.nanoTime() - start) * 1e-9 < seconds * 1.5 + 10);
            TimeUnit.MILLISECONDS.sleep(500);
            snapshot = trail.snapshot(System.nanoTime());
            rows = snapshot.health().rows();
            lost = snapshot.health().lostRows() + snapshot.recording().lostRows();
            rejectedLines = snapshot.health().rejectedLines();
        }
        double elapsed = (System.nanoTime() - start) * 1e-9;
        double cpu = (system.getProcessCpuTime() - cpuBefore) * 1e-9;
        try (Take take = Take.open(file)) {
            System.out.printf(
                    Locale.ROOT,
                    "%.0f s, %d lines sent, %d decoded, %d set aside (the first, as after any opening), %d lost, %d in the take%n"
                            + "%.2f of a core, heap at most %.0f MB, take %.1f MB (%.2f bytes a value), one hour would be %.2f GB%n",
                    elapsed,
                    expected,
                    rows,
                    rejectedLines,
                    lost,
                    take.rows(),
                    cpu / elapsed,
                    heap / 1e6,
                    Files.size(file) / 1e6,
                    (double) Files.size(file) / take.rows() / COLUMNS,
                    Files.size(file) / elapsed * 3600 / 1e9);
        }
        Files.delete(file);
        Files.delete(file.getParent());
    }

    private static Channel channel(String column, String recipe) {
        return new Channel(column, column, Scaling.asItCame("counts"), Recipe.parse(recipe), true);
    }
}
