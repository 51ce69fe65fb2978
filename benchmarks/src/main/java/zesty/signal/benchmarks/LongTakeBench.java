package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
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
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.StoredTake;
import zesty.signal.takes.TakeWriter;

/**
 * A take of so many million samples, four columns at 1000/s written as a recording writes them, with times of their own
 * and a gap an hour: how long it takes to open, to see all of it, to pan, to work out again in sight, and how much memory.
 */
public final class LongTakeBench {
    private static final int COLUMNS = 4;
    private static final int BLOCK = 250;
    private static final int PIXELS = 1280;
    private static final int PANS = 300;

    private LongTakeBench() {}

    public static void main(String[] arguments) throws Exception {
        int millions = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 100;
        int rows = millions * 1_000_000 / COLUMNS;
        Path folder = Files.createTempDirectory("zesty-long");
        Path file = folder.resolve("long.zest");
        try {
            long begun = System.nanoTime();
            write(file, rows);
            say(
                    "written: %d rows of %d columns, %.0f MB, %.1f s%n",
                    rows, COLUMNS, Files.size(file) / 1e6, since(begun) / 1e3);
            try (StoredTake warm = StoredTake.open(file, share -> true)) {
                look(warm, 0, rows * 0.001);
            }
            look(file, rows * 0.001);
        } finally {
            Files.deleteIfExists(file);
            Files.deleteIfExists(folder);
        }
    }

    private static void look(Path file, double seconds) throws Exception {
        long begun = System.nanoTime();
        StoredTake take = StoredTake.open(file, share -> true);
        double opened = since(begun);
        double seen = look(take, 0, seconds);
        say("opened in %.0f ms, all of it seen %.0f ms later%n", opened, seen);

        Random random = new Random(5);
        double[] frames = new double[PANS];
        double[] ready = new double[PANS / 10];
        double span = 60;
        double at = 0;
        for (int k = 0; k < PANS; k++) {
            if (k % 10 == 0) {
                at = random.nextDouble() * (seconds - span);
                ready[k / 10] = untilAtHand(take, at, at + span);
            } else {
                at = Math.min(seconds - span, at + span / 20);
            }
            frames[k] = look(take, at, at + span);
        }
        say(
                "a minute in sight, panned and leapt: %.1f ms a frame at the median, %.1f at the 99th percentile;"
                        + " at hand after a leap in %.0f ms at the median, %.0f at most%n",
                part(frames, 0.5), part(frames, 0.99), part(ready, 0.5), part(ready, 1));

        long finishing = System.nanoTime();
        StoredTake all = take.finish(share -> true);
        say("drawn and read to its end, one pulse reader and four levels: %.1f s%n", since(finishing) / 1e3);
        for (double wide : new double[] {seconds, seconds / 10, seconds / 100, 600}) {
            Arrays.setAll(frames, k -> look(all, k * (seconds - wide) / PANS, k * (seconds - wide) / PANS + wide));
            say(
                    "%.0f s in sight: %.1f ms a frame at the median, %.1f at the 99th percentile%n",
                    wide, part(frames, 0.5), part(frames, 0.99));
        }
        double[] changed = new double[9];
        Rig rig = all.snapshot().rig();
        for (int k = 0; k < changed.length; k++) {
            Recipe recipe = Recipe.parse("bandpass:0.5.." + (8 + k) + "@2 | notch:50@30");
            Rig other = rig.withChannel("c1", c -> c.withRecipe(recipe));
            long before = System.nanoTime();
            StoredTake made = all.with(other);
            untilAtHand(made, seconds / 2, seconds / 2 + 20);
            look(made, seconds / 2, seconds / 2 + 20);
            changed[k] = since(before);
        }
        say(
                "a changed recipe, 20 s in sight, painted in %.0f ms at the median, %.0f at most%n",
                part(changed, 0.5), part(changed, 1));
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        String most = Files.readAllLines(Path.of("/proc/self/status")).stream()
                .filter(line -> line.startsWith("VmHWM"))
                .findFirst()
                .orElse("");
        say(
                "heap in use %.0f MB of %.0f; %s%n",
                (runtime.totalMemory() - runtime.freeMemory()) / 1e6, runtime.maxMemory() / 1e6, most);
        all.close();
    }

    /** What a frame asks of a take: the rows of each pixel, and the extremes of all lanes there. @return ms */
    private static double look(StoredTake take, double from, double to) {
        long begun = System.nanoTime();
        float[] range = new float[2];
        Times times = take.snapshot().channels().get(0).stream().times();
        long[] edges = new long[PIXELS + 1];
        double pixel = (to - from) / PIXELS;
        for (int x = 0; x <= PIXELS; x++) {
            edges[x] = times.near(from + x * pixel, pixel / 4);
        }
        for (ChannelSnapshot channel : take.snapshot().channels()) {
            for (Series series : List.of(channel.raw(), channel.clean())) {
                series.atHand(edges[0], edges[PIXELS]);
                for (int x = 0; x < PIXELS; x++) {
                    series.range(edges[x], edges[x + 1], range);
                }
            }
        }
        return since(begun);
    }

    /** @return ms until all in sight is at hand to the sample */
    private static double untilAtHand(StoredTake take, double from, double to) throws InterruptedException {
        long begun = System.nanoTime();
        Times times = take.snapshot().channels().get(0).stream().times();
        long first = times.firstAtOrAfter(from);
        long last = times.firstAtOrAfter(to);
        boolean all = false;
        while (!all) {
            all = true;
            for (ChannelSnapshot channel : take.snapshot().channels()) {
                all &= channel.raw().atHand(first, last) & channel.clean().atHand(first, last);
            }
            if (!all) {
                Thread.sleep(1);
            }
        }
        return since(begun);
    }

    private static double part(double[] values, double share) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[(int) Math.min(sorted.length - 1, share * sorted.length)];
    }

    private static double since(long begun) {
        return (System.nanoTime() - begun) * 1e-6;
    }

    private static void say(String words, Object... numbers) {
        System.out.printf(Locale.ROOT, words, numbers);
    }

    private static void write(Path file, int rows) throws Exception {
        List<Column> columns = new ArrayList<>();
        List<Channel> channels = new ArrayList<>();
        for (int c = 1; c <= COLUMNS; c++) {
            columns.add(new Column("c" + c, ""));
            channels.add(new Channel("c" + c, "c" + c, Scaling.asItCame(""), Recipe.parse("bandpass:0.5..8@2"), true));
        }
        Rig rig = new Rig(
                        "long", SourceSetup.at(""), new DelimitedFormat(',', false, false, "", columns, null), channels)
                .withReader(ReaderSetup.on("c1", Pulse.NAME, Map.of()));
        Random random = new Random(1);
        // A second of noise, gone through in steps of a prime, is enough to be told from a tone.
        double[] noise = new double[1009];
        Arrays.setAll(noise, i -> 3 * random.nextGaussian());
        try (TakeWriter writer = TakeWriter.create(file, "long", rig, Instant.now())) {
            double before = 0;
            for (int at = 0; at < rows; at += BLOCK) {
                double gap = at / 3_600_000 * 5.0;
                double[][] values = new double[COLUMNS][BLOCK];
                double[] seconds = new double[BLOCK];
                for (int i = 0; i < BLOCK; i++) {
                    seconds[i] = Math.rint((at + i) * 1000.0 + random.nextInt(40)) / 1e6 + gap;
                    double in = (at + i) * 0.00125 % 1;
                    double pulse = 300 + 300 * Math.exp(-Math.pow((in - 0.3) / 0.1, 2));
                    for (int c = 0; c < COLUMNS; c++) {
                        values[c][i] = Math.rint(pulse + noise[(at + i) % noise.length * (c + 1) % noise.length]);
                    }
                }
                List<Gap> gaps = seconds[0] - before > 1 ? List.of(new Gap(before, seconds[0], 4999)) : List.of();
                before = seconds[BLOCK - 1];
                writer.append(new Block(new TimeBase.Explicit(seconds), values, BLOCK, gaps));
                if (at % 1_000_000 == 0) {
                    writer.commit();
                }
            }
            writer.finish();
        }
    }
}
