package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Stream;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.exchange.JsonExport;
import zesty.signal.exchange.RawView;
import zesty.signal.exchange.TakeExport;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.exchange.foreign.TableFile;
import zesty.signal.exchange.foreign.TakeImport;
import zesty.signal.takes.CsvExport;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** How fast a take of six columns of counts goes out into each open format and comes back from it. */
public final class ExchangeBench {
    private static final int COLUMNS = 6;
    private static final int BLOCK = 1 << 14;
    private static final double PERIOD = 0.001;
    private static final Instant STARTED = Instant.parse("2026-09-01T10:00:00Z");

    private ExchangeBench() {}

    /** @param arguments how many million rows */
    public static void main(String[] arguments) throws Exception {
        long rows = Long.parseLong(arguments[0]) * 1_000_000;
        Path folder = Files.createTempDirectory("exchange");
        try {
            Path small = folder.resolve("small.zest");
            make(small, 20 * BLOCK);
            for (TakeExport.Format format : TakeExport.Format.values()) {
                thereAndBack(small, folder, format, 20 * BLOCK, false);
            }
            Path whole = folder.resolve("whole.zest");
            make(whole, rows);
            for (TakeExport.Format format : TakeExport.Format.values()) {
                thereAndBack(whole, folder, format, rows, true);
            }
        } finally {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(file);
                }
            }
        }
    }

    /** @param told false while the machine is warming up */
    private static void thereAndBack(Path take, Path folder, TakeExport.Format format, long rows, boolean told)
            throws Exception {
        Path file = folder.resolve("out." + format.name().toLowerCase(Locale.ROOT));
        String words = format.name();
        try {
            words += ": out " + speed(rows, () -> export(take, format, file));
            words += String.format(", %.0f MB", Files.size(file) / 1e6);
            if (format != TakeExport.Format.JSON) {
                Path back = folder.resolve("back.zest");
                words += "; back " + speed(rows, () -> read(file, back, rows));
                Files.delete(back);
            }
        } catch (OutOfMemoryError e) {
            words += ": not in this memory";
        } finally {
            Files.deleteIfExists(file);
        }
        if (told) {
            System.out.println(words);
        }
    }

    private static void export(Path from, TakeExport.Format format, Path to) throws Exception {
        try (Take take = Take.open(from)) {
            if (format == TakeExport.Format.CSV) {
                CsvExport.write(take, to, false, share -> true);
            } else {
                TakeExport.write(
                        take, new RawView(take, column -> true), to, false, JsonExport.NO_READINGS, share -> true);
            }
        }
    }

    private static void read(Path from, Path to, long rows) throws Exception {
        try (ForeignFile file = ForeignFile.knows(from) ? ForeignFile.open(from) : new TableFile(from, "", false)) {
            long came = TakeImport.write(file, to, "back", "bench", STARTED, Double.NaN);
            if (came != rows) {
                throw new IllegalStateException(from + ": " + came + " of " + rows + " rows came back");
            }
        }
    }

    private interface Work {
        void run() throws Exception;
    }

    private static String speed(long rows, Work work) throws Exception {
        long start = System.nanoTime();
        work.run();
        double seconds = (System.nanoTime() - start) * 1e-9;
        return String.format("%.1f million values/s (%.1f s)", rows * COLUMNS / seconds / 1e6, seconds);
    }

    private static void make(Path file, long rows) throws Exception {
        List<Column> columns = new ArrayList<>();
        for (int c = 0; c < COLUMNS; c++) {
            columns.add(new Column("channel" + c, ""));
        }
        Rig rig = Rig.blank("Wren", "stdin").fittedTo(new DelimitedFormat(',', false, false, "", columns, null));
        Random random = new Random(5);
        try (TakeWriter writer = TakeWriter.create(file, "A day at the mooring", rig, STARTED)) {
            for (long from = 0; from < rows; from += BLOCK) {
                int count = (int) Math.min(BLOCK, rows - from);
                double[][] values = new double[COLUMNS][count];
                for (double[] column : values) {
                    for (int i = 0; i < count; i++) {
                        column[i] = Math.rint(512 + 300 * Math.sin((from + i) / 90.0) + 20 * random.nextGaussian());
                    }
                }
                writer.append(new Block(new TimeBase.Steady(from * PERIOD, PERIOD), values, count, List.of()));
                writer.commit();
            }
            writer.finish();
        }
    }
}
