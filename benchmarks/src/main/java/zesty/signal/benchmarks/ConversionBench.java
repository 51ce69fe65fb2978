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
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Decibels;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Echo;
import zesty.signal.core.scale.Formula;
import zesty.signal.core.scale.Height;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Polynomial;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.Thermocouple;
import zesty.signal.core.scale.ThermocoupleType;
import zesty.signal.core.scale.ValueTable;

/** The whole chain from counts, converter included, on one thread: nanoseconds a value. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
public class ConversionBench {
    private static final int VALUES = 1 << 14;

    @Param({
        "line",
        "polynomial",
        "divider",
        "table",
        "beta",
        "three",
        "thermocouple",
        "echo",
        "height",
        "decibels",
        "formula"
    })
    private String kind;

    private Scaling scaling;
    private double[] raw;
    private double[] scaled;

    @Setup
    public void setUp() {
        raw = new Random(1).doubles(VALUES, 100, 900).map(Math::rint).toArray();
        scaled = new double[VALUES];
        Conversion conversion =
                switch (kind) {
                    case "line" -> new Line(100, -50);
                    case "polynomial" -> new Polynomial(List.of(1.0, 2.0, 0.5, -0.1));
                    case "divider" -> new Divider(30_000, 7_500);
                    case "table" -> new ValueTable(List.of(0.0, 1.0, 2.0, 4.0, 5.0), List.of(0.0, 3.0, 4.0, 9.0, 12.0));
                    case "beta" ->
                        new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5);
                    case "three" ->
                        new Thermistor(
                                new Thermistor.ThreeCoefficients(1.009249522e-3, 2.378405444e-4, 2.019202697e-7),
                                10_000,
                                Thermistor.Side.LOW,
                                5);
                    case "thermocouple" -> new Thermocouple(ThermocoupleType.K, 20);
                    case "echo" -> new Echo(20, 0);
                    case "height" -> new Height(1013.25);
                    case "decibels" -> new Decibels(0.005);
                    default -> new Formula("c0 + c1*x", Map.of("c0", -41.5, "c1", 0.000122), "°C");
                };
        boolean pressure = kind.equals("height");
        scaling = new Scaling(pressure ? null : new Converter(10, 5, Divisor.STEPS), conversion, List.of(), "");
    }

    @Benchmark
    @OperationsPerInvocation(VALUES)
    public double[] scale() {
        scaling.apply(raw, scaled, VALUES);
        return scaled;
    }
}
