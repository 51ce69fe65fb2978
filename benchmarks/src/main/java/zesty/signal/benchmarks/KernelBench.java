package zesty.signal.benchmarks;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Stage;
import zesty.signal.core.clean.Start;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedDecoder;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.doctor.Doctor;
import zesty.signal.core.doctor.Examined;
import zesty.signal.core.read.Nature;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.read.pulse.Pulse;
import zesty.signal.core.sample.TimeBase;

/** The kernels on one thread, in nanoseconds a value or sample. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 6, time = 1)
public class KernelBench {
    private static final int LINES = 20_000;
    private static final int COLUMNS = 6;
    private static final int SAMPLES = 1 << 16;

    private byte[] text;
    private DelimitedDecoder decoder;
    private double[] signal;
    private double[] finger;
    private double[] chest;
    private double[] work;
    private double[] muscle;
    private Examined examined;
    private Stage band;

    @Setup
    public void setUp() {
        Random random = new Random(1);
        StringBuilder lines = new StringBuilder();
        for (int i = 0; i < LINES; i++) {
            for (int c = 0; c < COLUMNS; c++) {
                lines.append(random.nextInt(1024)).append(c < COLUMNS - 1 ? ',' : '\n');
            }
        }
        text = lines.toString().getBytes(StandardCharsets.US_ASCII);
        List<Column> columns = java.util.stream.IntStream.range(0, COLUMNS)
                .mapToObj(c -> new Column("c" + c, ""))
                .toList();
        decoder = new DelimitedDecoder(
                new DelimitedFormat(',', false, false, "", columns, null), new RejectedLines(RejectedLines.KEPT));
        signal = random.doubles(SAMPLES).toArray();
        finger = beating(200, 0.1, 0.12, random);
        chest = beating(500, 0.012, 0.06, random);
        work = new double[SAMPLES];
        muscle = new double[SAMPLES];
        for (int i = 0; i < SAMPLES; i++) {
            muscle[i] = Math.rint(1000 + (i / 2000 % 2 == 0 ? 20 : 400) * random.nextGaussian());
        }
        double[] seconds = new double[20_000];
        java.util.Arrays.setAll(seconds, i -> i * 1e-3);
        examined = new Examined(
                java.util.Arrays.copyOf(muscle, 20_000),
                seconds,
                Double.NaN,
                Double.NaN,
                Nature.NOISE_THAT_LEAPS,
                Map.of());
        band = Recipe.parse("bandpass:0.5..8@4").stage(200, Start.FROM_REST);
    }

    /** A muscle's signal of 65 s at 1000/s, pulling half of the time: whole, as a take is read; ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object muscle() {
        return read("muscle", 1000, muscle);
    }

    /** Its envelope made on the board, the same. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object muscleEnvelope() {
        ReaderKind kind = ReaderKinds.of("muscle");
        Reader reader = kind.reader(Settings.of(kind, Map.of("kind", "envelope")), 1000);
        reader.accept(new double[][] {muscle}, SAMPLES, new TimeBase.Steady(0, 1e-3));
        return reader.reading();
    }

    /** The signal doctor on twenty seconds of a channel of 1000/s: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(20_000)
    public Object doctor() {
        return Doctor.examine(examined);
    }

    private static Object read(String name, double rate, double[] x) {
        ReaderKind kind = ReaderKinds.of(name);
        Reader reader = kind.reader(Settings.of(kind, Map.of()), rate);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rate));
        return reader.reading();
    }

    /** Decoding {@code n,n,n,n,n,n} text: ns a value. */
    @Benchmark
    @OperationsPerInvocation(LINES * COLUMNS)
    public Rows decode() {
        decoder.feed(text, 0, text.length);
        return decoder.takeRows();
    }

    /** A causal order-4 band-pass, four sections, over a whole array: ns a sample, the copy of the input included. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public double[] bandPass() {
        System.arraycopy(signal, 0, work, 0, SAMPLES);
        band.apply(work, 0, SAMPLES);
        return work;
    }

    /** The pulse reader, optical at 200 samples/s, a finger on it: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Reader pulse() {
        return read("optical", finger, 200);
    }

    /** The same with nothing but white noise, where all there is to look for is bumps: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Reader pulseOfNoise() {
        return read("optical", signal, 200);
    }

    /** The pulse reader, electrical at 500 samples/s, electrodes on: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Reader heart() {
        return read("electrical", chest, 500);
    }

    /** Bumps at 1.2 a second, each with a smaller one after it, in whole counts and with noise. */
    private static double[] beating(double rate, double width, double after, Random random) {
        double[] values = new double[SAMPLES];
        double phase = 0;
        for (int i = 0; i < SAMPLES; i++) {
            phase += (1.2 + 0.05 * Math.sin(1.5 * i / rate)) / rate;
            double in = phase % 1;
            double first = Math.exp(-Math.pow((in - 0.3) / width, 2));
            double second = 0.3 * Math.exp(-Math.pow((in - 0.6) / after, 2));
            values[i] = Math.rint(500 + 200 * (first + second) + 3 * random.nextGaussian());
        }
        return values;
    }

    private static Reader read(String kind, double[] signal, double rate) {
        Pulse pulse = new Pulse();
        Reader reader = pulse.reader(Settings.of(pulse, Map.of(Pulse.SOURCE, kind)), rate);
        reader.accept(new double[][] {signal}, SAMPLES, new TimeBase.Steady(0, 1 / rate));
        return reader;
    }
}
