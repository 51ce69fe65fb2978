package zesty.signal.benchmarks;

import java.util.ArrayList;
import java.util.List;
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
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Controller;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleBook;
import zesty.signal.core.act.ThresholdMap;
import zesty.signal.core.act.Watch;

/** What a rule costs a sample, and a map of 2500 settings over ten minutes at 250 samples a second. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 6, time = 1)
public class DecideBench {
    private static final int SAMPLES = 1 << 16;
    private static final int RULES = 6;
    private static final int TEN_MINUTES = 150_000;

    private double[] signal;
    private double[] seconds;
    private double[] record;
    private double[] truth;
    private RuleBook book;
    private double later;
    private Controller controller;
    private final double[] row = new double[1];
    private long heard;

    @Setup
    public void setUp() {
        Random random = new Random(1);
        signal = new double[SAMPLES];
        for (int i = 1; i < SAMPLES; i++) {
            signal[i] = 0.98 * signal[i - 1] + random.nextGaussian();
        }
        Watch x = new Watch.Column("x");
        List<Rule> rules = new ArrayList<>();
        for (Condition when : List.of(
                new Condition.Above(3),
                new Condition.Below(-3),
                new Condition.Inside(-1, 1),
                new Condition.Outside(-4, 4),
                new Condition.Rising(5, 0.5),
                new Condition.Silent(2))) {
            rules.add(new Rule.OnSamples(
                    "r" + rules.size(),
                    x,
                    when,
                    1,
                    when instanceof Condition.Silent ? Rule.Holds.NONE : new Rule.Holds(0.05, 0.05, 0.1, false)));
        }
        book = new RuleBook(rules, List.of());
        controller = new Controller(book, new Controller.Listener() {
            @Override
            public void decided(double at, int rule, int state, double value) {
                heard++;
            }

            @Override
            public void sent(double at, int output, String line, Controller.Why why) {
                heard++;
            }
        });
        record = new double[TEN_MINUTES];
        seconds = new double[TEN_MINUTES];
        truth = new double[240];
        for (int i = 0; i < TEN_MINUTES; i++) {
            seconds[i] = i / 250.0;
            double since = seconds[i] % 2.5 - 1;
            record[i] = random.nextGaussian() + (since >= 0 && since < 0.2 ? 10 : 0);
        }
        for (int k = 0; k < truth.length; k++) {
            truth[k] = 2.5 * k + 1;
        }
    }

    /** A sample and rule. */
    @Benchmark
    @OperationsPerInvocation(SAMPLES * RULES)
    public long sampleAndRule() {
        for (int i = 0; i < SAMPLES; i++) {
            row[0] = signal[i];
            later += 0.004;
            controller.samples(later, row);
        }
        return heard;
    }

    /** The whole map. */
    @Benchmark
    @OutputTimeUnit(TimeUnit.MILLISECONDS)
    public int map() {
        double[] thresholds = new double[50];
        double[] hystereses = new double[50];
        for (int i = 0; i < 50; i++) {
            thresholds[i] = -3 + 16.0 * i / 49;
            hystereses[i] = 6.0 * i / 49;
        }
        ThresholdMap map =
                ThresholdMap.of(ThresholdMap.Ground.of(record, seconds, truth, 0.3), true, thresholds, hystereses, 0);
        return map.best().column();
    }
}
