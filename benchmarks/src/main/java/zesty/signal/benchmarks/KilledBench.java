package zesty.signal.benchmarks;

import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/**
 * Recordings of the command line killed at random moments, plain, armed and repeated ones: every take opens, its rows are those
 * that were sent, and nothing is lost beyond the last second.
 */
public final class KilledBench {
    private static final int RATE = 500;
    /** The load goes up and down once in so many rows. */
    private static final int TURN = 400;

    private static final double LONGEST_SECONDS = 3;

    private KilledBench() {}

    /** @param arguments how many, and the class path of the application */
    public static void main(String[] arguments) throws Exception {
        int runs = Integer.parseInt(arguments[0]);
        Random random = new Random(arguments.length > 2 ? Long.parseLong(arguments[2]) : 1);
        double worst = 0;
        int takes = 0;
        int[] kinds = new int[3];
        for (int run = 0; run < runs; run++) {
            Path folder = Files.createTempDirectory("killed");
            try {
                int kind = random.nextInt(3);
                kinds[kind]++;
                double[] found = one(folder, kind, random.nextDouble() * LONGEST_SECONDS, arguments[1]);
                takes += (int) found[0];
                worst = Math.max(worst, found[1]);
            } finally {
                try (Stream<Path> files = Files.walk(folder)) {
                    for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                        Files.delete(file);
                    }
                }
            }
        }
        System.out.printf(
                "%d recordings killed (%d plain, %d armed, %d repeated): %d takes opened, every row as it was sent; "
                        + "lost at most %.2f s before the end%n",
                runs, kinds[0], kinds[1], kinds[2], takes, worst);
    }

    private static double load(long row) {
        return Math.abs(row % TURN - TURN / 2.0);
    }

    /** @return how many takes there were, and how many seconds before the kill the last row of a running one was sent */
    private static double[] one(Path folder, int kind, double afterSeconds, String classes) throws Exception {
        AtomicLong sent = new AtomicLong();
        try (ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread board = new Thread(() -> serve(server, sent), "board");
            board.setDaemon(true);
            board.start();
            List<String> line = new ArrayList<>(List.of(
                    System.getProperty("java.home") + File.separator + "bin" + File.separator + "java",
                    "-XX:TieredStopAtLevel=1",
                    "-XX:+UseSerialGC",
                    "-Xmx128m",
                    "-cp",
                    classes,
                    "zesty.signal.app.Zesty",
                    "record",
                    "tcp:127.0.0.1:" + server.getLocalPort(),
                    "--out",
                    folder.resolve("take.zest").toString()));
            if (kind > 0) {
                line.addAll(List.of("--start-when", "load > 150", "--before", "0.2"));
            }
            if (kind == 2) {
                line.addAll(List.of("--stop-when", "load < 50", "--repeat"));
            }
            Process recording = new ProcessBuilder(line)
                    .redirectErrorStream(true)
                    .redirectOutput(folder.resolve("said.txt").toFile())
                    .start();
            long begun = System.nanoTime();
            while (!Files.exists(folder.resolve("take.zest"))) {
                if (!recording.isAlive() || System.nanoTime() - begun > 60e9) {
                    throw new IllegalStateException("it never began: " + Files.readString(folder.resolve("said.txt")));
                }
                TimeUnit.MILLISECONDS.sleep(5);
            }
            TimeUnit.NANOSECONDS.sleep((long) (afterSeconds * 1e9));
            long last = sent.get();
            recording.destroyForcibly().waitFor();
            return checked(folder, kind, last);
        }
    }

    private static void serve(ServerSocket server, AtomicLong sent) {
        try (Socket caller = server.accept()) {
            OutputStream out = caller.getOutputStream();
            out.write("t_us,row_no,load\n".getBytes(StandardCharsets.US_ASCII));
            long begin = System.nanoTime();
            for (long row = 0; ; ) {
                long due = (System.nanoTime() - begin) / (1_000_000_000 / RATE);
                StringBuilder text = new StringBuilder();
                for (; row < due; row++) {
                    text.append(row * 1_000_000 / RATE)
                            .append(',')
                            .append(0.5 * row)
                            .append(',')
                            .append(load(row))
                            .append('\n');
                }
                out.write(text.toString().getBytes(StandardCharsets.US_ASCII));
                sent.set(row);
                TimeUnit.MILLISECONDS.sleep(10);
            }
        } catch (IOException | InterruptedException e) {
            // The recording is gone.
        }
    }

    private static double[] checked(Path folder, int kind, long last) throws Exception {
        List<Path> files;
        try (Stream<Path> all = Files.list(folder)) {
            files = all.filter(one -> one.toString().endsWith(".zest")).sorted().toList();
        }
        long newest = -1;
        int opened = 0;
        for (Path file : files) {
            try (Take take = Take.open(file)) {
                take.verify();
                if (!take.damage().isEmpty()) {
                    throw new IllegalStateException(file + " is damaged: " + take.damage());
                }
                opened++;
                double[] halves = take.column(1);
                double[] loads = take.column(2);
                for (int i = 0; i < halves.length; i++) {
                    long row = Math.round(2 * halves[0]) + i;
                    if (halves[i] != 0.5 * row || loads[i] != load(row)) {
                        throw new IllegalStateException(file + ": row " + i + " is not what was sent");
                    }
                    newest = Math.max(newest, row);
                }
            } catch (TakeException e) {
                // A take whose first rows were not committed yet holds nothing, and says so.
                if (!e.getMessage().contains("holds nothing")) {
                    throw e;
                }
            }
        }
        // Between takes of a repeated recording nothing is due; a plain one and an armed one run until the end.
        double lost = kind == 2 ? lostWithin(last, newest) : (last - newest) / (double) RATE;
        if (newest >= 0 && lost > 1) {
            throw new IllegalStateException("lost " + lost + " s before the end, kind " + kind);
        }
        return new double[] {opened, newest < 0 ? 0 : lost};
    }

    /** @return how long before the end the newest row is that should have been recorded and is not, in s */
    private static double lostWithin(long last, long newest) {
        boolean within = false;
        long first = -1;
        for (long row = 0; row < last; row++) {
            boolean starts = !within && load(row) > 150;
            boolean ends = within && load(row) < 50;
            within = starts || within && !ends;
            if ((within || ends) && row > newest && first < 0) {
                first = row;
            }
        }
        return first < 0 ? 0 : (last - first) / (double) RATE;
    }
}
