package zesty.signal.benchmarks;

import com.sun.management.OperatingSystemMXBean;
import java.io.BufferedReader;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.Snapshot;
import zesty.signal.engine.Trail;

/** Eight sources that send 1 MB/s together, against one that sends as much: what is lost, and the share of a core. */
public final class SourcesBench {
    private static final int SOURCES = 8;
    private static final double BYTES_PER_SECOND = 1e6;
    private static final String LINE = "123,456,789,321,654,987\n";

    private SourcesBench() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments[0].equals("serve")) {
            serve(Integer.parseInt(arguments[1]), Double.parseDouble(arguments[2]));
            return;
        }
        double seconds = Double.parseDouble(arguments[0]);
        double alone = measure(1, seconds);
        double together = measure(SOURCES, seconds);
        System.out.printf(Locale.ROOT, "eight need %.2f of a core beyond what one needs%n", together - alone);
    }

    private static void serve(int boards, double seconds) throws Exception {
        double linesPerSecond = BYTES_PER_SECOND / boards / LINE.length();
        List<TextBoard> all = new ArrayList<>();
        for (int b = 0; b < boards; b++) {
            TextBoard board = new TextBoard(linesPerSecond, Math.round(seconds * linesPerSecond), i -> LINE);
            all.add(board);
            System.out.println(board.port());
        }
        for (TextBoard board : all) {
            board.join();
        }
    }

    /** @return the share of a core */
    private static double measure(int sources, double seconds) throws Exception {
        Process boards = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElse("java"),
                        "-cp",
                        System.getProperty("java.class.path"),
                        SourcesBench.class.getName(),
                        "serve",
                        Integer.toString(sources),
                        Double.toString(seconds))
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        BufferedReader ports = boards.inputReader();
        Rig rig = Rig.blank("load", "tcp:127.0.0.1:" + ports.readLine());
        for (int s = 1; s < sources; s++) {
            rig = rig.joined("board " + s, SourceSetup.at("tcp:127.0.0.1:" + ports.readLine()));
        }
        OperatingSystemMXBean system = (OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean();
        long expected = Math.round(seconds * BYTES_PER_SECOND / sources / LINE.length()) * sources;
        long start = System.nanoTime();
        long cpuBefore = system.getProcessCpuTime();
        try (Trail trail = Trail.start(rig)) {
            Snapshot snapshot;
            do {
                TimeUnit.MILLISECONDS.sleep(100);
                snapshot = trail.snapshot(System.nanoTime());
            } while (bytes(snapshot) < expected * LINE.length()
                    && (System.nanoTime() - start) * 1e-9 < seconds * 1.5 + 10);
            double cpu = (system.getProcessCpuTime() - cpuBefore) * 1e-9 / ((System.nanoTime() - start) * 1e-9);
            TimeUnit.MILLISECONDS.sleep(500);
            snapshot = trail.snapshot(System.nanoTime());
            System.out.printf(
                    Locale.ROOT,
                    "%d source%s: %d lines sent, %d decoded, %d set aside (the first of each), %d lost, %.2f of a core%n",
                    sources,
                    sources == 1 ? "" : "s",
                    expected,
                    snapshot.links().stream().mapToLong(LinkHealth::rows).sum(),
                    snapshot.links().stream()
                            .mapToLong(LinkHealth::rejectedLines)
                            .sum(),
                    snapshot.links().stream().mapToLong(LinkHealth::lostRows).sum(),
                    cpu);
            return cpu;
        } finally {
            boards.destroy();
        }
    }

    private static long bytes(Snapshot snapshot) {
        return snapshot.links().stream().mapToLong(LinkHealth::bytes).sum();
    }
}
