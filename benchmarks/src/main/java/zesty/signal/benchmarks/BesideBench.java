package zesty.signal.benchmarks;

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
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.clean.Stage;
import zesty.signal.core.clean.Start;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.spectrum.Welch;
import zesty.signal.core.spectrum.Window;

/**
 * What a compiled array library has the same function for, and the readers of things; one thread, in nanoseconds a sample or row.
 * {@code benchmarks/run beside} times the library in the same run and says how many times as fast this is.
 */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
public class BesideBench {
    static final int SAMPLES = 1 << 18;
    private static final double RATE = 1000;

    /** A step of cleaning over a whole array, once through. */
    @State(Scope.Benchmark)
    public static class Cleaning {
        @Param({
            "lowpass:40@4",
            "bandpass:0.5..40@4",
            "notch:50@30",
            "smooth:31@3",
            "mean:51",
            "median:51",
            "despike:25@3",
            "rms:0.1"
        })
        public String step;

        private double[] signal;
        private double[] work;

        @Setup
        public void setUp() {
            signal = new Random(1).doubles(SAMPLES, -1, 1).toArray();
            work = new double[SAMPLES];
        }
    }

    /** Runs it: the copy of the input included. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public double[] clean(Cleaning state) {
        System.arraycopy(state.signal, 0, state.work, 0, SAMPLES);
        Stage stage = Recipe.parse(state.step).stage(RATE, Start.FROM_REST);
        stage.apply(state.work, 0, SAMPLES);
        return state.work;
    }

    /** Signals for the readers. */
    @State(Scope.Benchmark)
    public static class Things {
        private final double[] noise = new double[SAMPLES];
        private final double[] knocks = new double[SAMPLES];
        private final double[] sound = new double[44_100];
        private final double[][] axes = new double[9][1 << 16];

        @Setup
        public void setUp() {
            Random random = new Random(2);
            for (int i = 0; i < SAMPLES; i++) {
                noise[i] = random.nextGaussian();
                double since = i % 5000 / 10_000.0;
                knocks[i] = 300 * Math.exp(-since / 0.02) * Math.sin(4000 * since) + 2 * random.nextGaussian();
            }
            for (int i = 0; i < sound.length; i++) {
                sound[i] = Math.sin(2 * Math.PI * 440.0 * i / 44_100) + 0.1 * random.nextGaussian();
            }
            for (int i = 0; i < axes[0].length; i++) {
                double roll = 0.3 * Math.sin(i / 100.0);
                double[] row = {0, Math.sin(roll), Math.cos(roll), 17 * Math.cos(i / 100.0), 0, 0, 20, 0, -42};
                for (int a = 0; a < 9; a++) {
                    axes[a][i] = row[a] + 0.01 * random.nextGaussian();
                }
            }
        }
    }

    /** Power spectral density, segments of 4096 with half overlap. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object welch(Things things) {
        return Welch.of(things.noise, List.of(new int[] {0, SAMPLES}), RATE, Window.HANN, 4096, 0.5);
    }

    /** Knocks at 10 000/s, found by themselves. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object hits(Things things) {
        return read("hits", 10_000, Map.of(), things.knocks);
    }

    /** The same with a threshold that was set. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object hitsGiven(Things things) {
        return read("hits", 10_000, Map.of("threshold", "40", "dead", "0.1"), things.knocks);
    }

    /** Nine axes at 100/s: lean, heading, steps and all that happened; a row. */
    @Benchmark
    @OperationsPerInvocation(1 << 16)
    public Object motion(Things things) {
        return read("motion", 100, Map.of(), things.axes);
    }

    /** A second of sound at 44 100/s: its tone, its levels. */
    @Benchmark
    @OperationsPerInvocation(44_100)
    public Object tone(Things things) {
        return read("tone", 44_100, Map.of(), things.sound);
    }

    /** A channel of vibration: sums, lines, orders, bands, trend. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES)
    public Object vibration(Things things) {
        return read("vibration", 1600, Map.of(), things.noise);
    }

    private static Object read(String name, double rate, Map<String, String> set, double[]... ports) {
        ReaderKind kind = ReaderKinds.of(name);
        Reader reader = kind.reader(Settings.of(kind, set), rate);
        reader.accept(ports, ports[0].length, new TimeBase.Steady(0, 1 / rate));
        return reader.reading();
    }
}
