package zesty.signal.benchmarks;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
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
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.engine.StoredTake;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeWriter;

/** A take of one hour at 1000 samples/s, one channel: how long a change of its chain, or a reader, takes to work out. */
public final class RescaleBench {
    private static final int ROWS = 3_600_000;
    private static final int BLOCK = 10_000;
    private static final int TIMES = 9;

    private RescaleBench() {}

    public static void main(String[] arguments) throws Exception {
        Path file = Files.createTempDirectory("zesty-rescale").resolve("hour.zest");
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("counts", "")), null);
        Rig rig = new Rig(
                "hour",
                SourceSetup.at(""),
                format,
                List.of(new Channel("counts", "counts", Scaling.asItCame(""), Recipe.NONE, true)));
        Random random = new Random(1);
        try (TakeWriter writer = TakeWriter.create(file, "hour", rig, Instant.now())) {
            for (int at = 0; at < ROWS; at += BLOCK) {
                double[] values = new double[BLOCK];
                for (int i = 0; i < BLOCK; i++) {
                    // A pulse of 1.25 beats/s, with noise, in whole counts.
                    double in = (at + i) * 0.00125 % 1;
                    values[i] =
                            Math.rint(300 + 300 * Math.exp(-Math.pow((in - 0.3) / 0.1, 2)) + 3 * random.nextGaussian());
                }
                writer.append(
                        new Block(new TimeBase.Steady(at * 0.001, 0.001), new double[][] {values}, BLOCK, List.of()));
            }
            writer.finish();
        }
        try (Take take = Take.open(file)) {
            StoredTake stored = StoredTake.load(take);
            Converter tenBits = new Converter(10, 5, Divisor.STEPS);
            report("a line", stored, new Scaling(tenBits, new Line(100, -50), List.of(), "°C"), "");
            report(
                    "a thermistor",
                    stored,
                    new Scaling(
                            tenBits,
                            new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5),
                            List.of(),
                            "°C"),
                    "");
            report(
                    "a line, with a band filter after it",
                    stored,
                    new Scaling(tenBits, new Line(1, 0), List.of(), "V"),
                    "bandpass:0.5..8@2");
            for (String kind : List.of("optical", "electrical")) {
                ReaderSetup pulse = ReaderSetup.on("counts", Pulse.NAME, Map.of(Pulse.SOURCE, kind));
                report("the " + kind + " pulse reader set on it", stored, rig.withReader(pulse));
            }
        }
        Files.delete(file);
        Files.delete(file.getParent());
    }

    private static void report(String words, StoredTake stored, Scaling scaling, String recipe) {
        report(words, stored, stored.snapshot().rig().withChannel("counts", c -> c.withScaling(scaling)
                .withRecipe(Recipe.parse(recipe))));
    }

    private static void report(String words, StoredTake stored, Rig changed) {
        double[] ms = new double[TIMES];
        for (int i = 0; i < TIMES; i++) {
            long before = System.nanoTime();
            stored.with(changed);
            ms[i] = (System.nanoTime() - before) * 1e-6;
        }
        Arrays.sort(ms);
        System.out.printf(
                Locale.ROOT, "%s: median %.0f ms, from %.0f to %.0f%n", words, ms[TIMES / 2], ms[0], ms[TIMES - 1]);
    }
}
