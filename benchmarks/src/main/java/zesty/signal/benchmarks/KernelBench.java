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
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.Settings;
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
    private double[] work;
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
                new DelimitedFormat(',', false, false, "", columns, null), new SetAside(SetAside.KEPT));
        signal = random.doubles(SAMPLES).toArray();
        work = new double[SAMPLES];
        band = Recipe.parse("bandpass:0.5..8@4").stage(200, Start.FROM_REST);
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

    /** The pulse reader, optical at 200 samples/s: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Reader pulse() {
        return read("optical", 200);
    }

    /** The pulse reader, electrical at 1000 samples/s: ns a sample. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Reader heart() {
        return read("electrical", 1000);
    }

    private Reader read(String kind, double rate) {
        Pulse pulse = new Pulse();
        Reader reader = pulse.reader(Settings.of(pulse, Map.of(Pulse.SOURCE, kind)), rate);
        reader.accept(new double[][] {signal}, SAMPLES, new TimeBase.Steady(0, 1 / rate));
        return reader;
    }
}
