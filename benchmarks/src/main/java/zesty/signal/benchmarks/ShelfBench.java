package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Shelf;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** How long a shelf of thousands of takes takes to list, without and with its index, and to search. */
public final class ShelfBench {
    private ShelfBench() {}

    /** @param arguments how many takes */
    public static void main(String[] arguments) throws Exception {
        int takes = Integer.parseInt(arguments[0]);
        Path folder = Files.createTempDirectory("shelf");
        try {
            Path first = folder.resolve("take 0.zest");
            make(first);
            for (int i = 1; i < takes; i++) {
                Files.copy(first, folder.resolve("take " + i + ".zest"));
            }
            System.out.printf("%d takes read anew: %.2f s%n", takes, seconds(() -> new Shelf(folder).list(null)));
            double[] listed = new double[7];
            for (int run = 0; run < listed.length; run++) {
                listed[run] = seconds(() -> new Shelf(folder).list(null));
            }
            System.out.printf("listed from the index: %s%n", median(listed, 1, "s"));
            List<Shelf.Entry> all = new Shelf(folder).list(null);
            double[] searched = new double[21];
            for (int run = 0; run < searched.length; run++) {
                searched[run] = seconds(() -> {
                    if (all.stream().filter(one -> one.has("cleat gust")).count() != takes) {
                        throw new IllegalStateException("not all of them are found");
                    }
                });
            }
            System.out.printf("searched for two words: %s%n", median(searched, 1e3, "ms"));
        } finally {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(file);
                }
            }
        }
    }

    private interface Work {
        void run() throws Exception;
    }

    private static double seconds(Work work) throws Exception {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) * 1e-9;
    }

    private static String median(double[] times, double scale, String unit) {
        Arrays.sort(times);
        return String.format(
                "median %.2f %s, worst %.2f %s",
                times[times.length / 2] * scale, unit, times[times.length - 1] * scale, unit);
    }

    private static void make(Path file) throws Exception {
        Rig rig = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(
                        ',', false, false, "", List.of(new Column("pull", "N"), new Column("heel", "")), null));
        double[][] columns = new double[2][6000];
        for (int i = 0; i < 6000; i++) {
            columns[0][i] = Math.rint(500 + 200 * Math.sin(i / 50.0));
            columns[1][i] = Math.rint(90 * Math.cos(i / 70.0));
        }
        try (TakeWriter writer = TakeWriter.create(file, "A reach", rig, Instant.parse("2026-09-01T10:00:00Z"))) {
            writer.append(new Block(new TimeBase.Steady(0, 0.01), columns, 6000, List.of()));
            writer.mark(5, "gust");
            writer.finish();
        }
        try (Take take = Take.open(file)) {
            take.write(
                    new LogEntry(null, "The new cleat held all the way home.", List.of("reach"), List.of(), List.of()));
        }
    }
}
