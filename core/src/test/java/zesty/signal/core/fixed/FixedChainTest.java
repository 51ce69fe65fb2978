package zesty.signal.core.fixed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.List;
import java.util.Random;
import java.util.function.LongUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.scale.Conversion;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divider;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;
import zesty.signal.core.scale.Thermistor;
import zesty.signal.core.scale.ValueTable;

/** Whole numbers against exact ones and against the same chain in floating point, on values of this test's own. */
class FixedChainTest {
    private static final double RATE = 250;

    private static Conversion conversion(String name) {
        return switch (name) {
            case "thermistor" -> new Thermistor(new Thermistor.Beta(3950, 10_000, 25), 10_000, Thermistor.Side.LOW, 5);
            case "divider" -> new Divider(30_000, 7500);
            case "falling" -> new Line(-0.02, 12);
            default -> Line.SAME;
        };
    }

    private static Channel channel(Converter converter, Conversion conversion, String recipe) {
        return new Channel("x", "x", new Scaling(converter, conversion, List.of(), ""), Recipe.parse(recipe), true);
    }

    /** The product of 46 bits and 31, exactly; what is dropped on the way is worth less than 2^(16 − shift). */
    @Test
    void aProductIsTheExactOneRounded() {
        Random random = new Random(3);
        for (int i = 0; i < 100_000; i++) {
            double number =
                    (random.nextBoolean() ? 1 : -1) * Math.pow(2, 13.9 * random.nextDouble() - random.nextInt(40));
            Factor factor = Factor.of(number);
            assertThat(factor.mantissa() * Math.pow(2, -factor.shift()))
                    .isCloseTo(number, within(Math.abs(number) * 0x1p-31));
            assertThat(Math.abs((long) factor.mantissa())).isBetween(1L << 30, (1L << 31) - 1);
            long value = random.nextLong() >> 17 + random.nextInt(30);
            BigDecimal exact = new BigDecimal(BigInteger.valueOf(value).multiply(BigInteger.valueOf(factor.mantissa())))
                    .divide(new BigDecimal(BigInteger.TWO.pow(factor.shift())));
            long got = factor.times(value);
            assertThat(exact.subtract(BigDecimal.valueOf(got)).abs().doubleValue())
                    .as("%d · %s", value, factor)
                    .isLessThanOrEqualTo(0.5 + Math.pow(2, 16 - factor.shift()));
            assertThat(factor.times(-value)).isEqualTo(-got);
        }
        assertThat(Factor.of(1).times(12_345)).isEqualTo(12_345);
        assertThat(Factor.of(0.5).times(3)).isEqualTo(2);
        assertThat(Factor.of(-0.5).times(3)).isEqualTo(-2);
        assertThat(Factor.of(0).times(99)).isZero();
        assertThat(Factor.of(1e-30)).isEqualTo(Factor.of(0));
        // All but one: the mantissa would not fit 31 bits, so it has one less.
        assertThat(Factor.of(Math.nextDown(2.0)).times(1 << 20)).isEqualTo(1 << 21);
        assertThat(Factor.of(16_383.9).shift()).isEqualTo(17);
        assertThatThrownBy(() -> Factor.of(16_384))
                .isInstanceOf(FixedException.class)
                .hasMessageContaining("16384");
        assertThatThrownBy(() -> Factor.of(Double.NaN)).isInstanceOf(FixedException.class);
        assertThatThrownBy(() -> Factor.of(Double.POSITIVE_INFINITY)).isInstanceOf(FixedException.class);
    }

    /** Wherever the input jumps, whole numbers are as near to floating point as they say, and that is near. */
    @ParameterizedTest(name = "{0} bits, {1}, {2}")
    @CsvSource({
        "10,divider,''",
        "12,falling,mean:7",
        "12,same,lowpass:8@4",
        "16,same,bandpass:0.5..30@2 | rectify | exp:0.05",
        "24,divider,notch:50@30",
        "10,thermistor,''",
        "12,thermistor,exp:0.1",
        "12,same,offset:-2.5 | rms:0.1",
        "10,falling,offset:-12 | scale:-3 | mean:4",
        "12,same,bandpass:20..90@2 | envelope:6",
        "12,same,scale:0 | offset:3",
        "10,same,highpass:0.05@1"
    })
    void wholeNumbersAreAsNearAsTheySay(int bits, String conversion, String recipe) {
        Converter converter = new Converter(bits, 5, Divisor.STEPS);
        Channel channel = channel(converter, conversion(conversion), recipe);
        FixedChain chain = new FixedChain(channel, RATE, Double.NaN);
        assertThat(chain.rawLow()).isZero();
        assertThat(chain.rawHigh()).isEqualTo((1L << bits) - 1);
        assertThat(chain.rawFraction()).isZero();
        Random random = new Random(bits);
        double[] wanted = new double[30_000];
        double[] got = new double[wanted.length];
        // A curve of 1024 points is steep at its ends, where a thermistor is hot or cold beyond all use.
        boolean curve = conversion.equals("thermistor");
        long margin = curve ? (chain.rawHigh() + 1) / 10 : 0;
        double full = 0;
        LongUnaryOperator run = chain.begin();
        long raw = chain.rawHigh() / 2;
        for (int i = 0; i < wanted.length; i++) {
            if (random.nextInt(1 + i % 5000) < 3) {
                raw = margin + (long) (random.nextDouble() * (chain.rawHigh() + 1 - 2 * margin));
            }
            wanted[i] = channel.scaling().apply(raw);
            full = Math.max(full, Math.abs(wanted[i]));
            got[i] = Math.scalb((double) run.applyAsLong(raw), -chain.fraction());
        }
        channel.recipe().onceThrough(wanted, RATE);
        for (int i = 0; i < wanted.length; i++) {
            assertThat(got[i]).as("%d", i).isCloseTo(wanted[i], within(curve ? 0.01 : chain.error()));
        }
        assertThat(chain.fullScale()).isGreaterThanOrEqualTo(full);
        assertThat(chain.error()).isLessThan((curve ? 0.2 : 1e-4) * chain.fullScale());
        assertThat(chain.outFraction()).isLessThanOrEqualTo(chain.fraction());
        // What comes from beyond the converter's range is taken for its end.
        LongUnaryOperator beyond = chain.begin();
        LongUnaryOperator end = chain.begin();
        for (int i = 0; i < 9; i++) {
            assertThat(beyond.applyAsLong(chain.rawHigh() + 77)).isEqualTo(end.applyAsLong(chain.rawHigh()));
            assertThat(beyond.applyAsLong(chain.rawLow() - 77)).isEqualTo(end.applyAsLong(chain.rawLow()));
        }
    }

    /** From end to end of the range, each time as the filter's own answer to a blow has it: no input drives it further. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "notch:50@30",
                "bandpass:20..90@4",
                "lowpass:8@4",
                "highpass:0.5@2 | notch:50@5",
                "lowpass:0.3@2 | exp:0.01"
            })
    void nothingOverflowsThoughTheInputIsTheWorstThereIs(String recipe) {
        Channel channel = channel(new Converter(24, 5, Divisor.STEPS), new Line(2, -5), recipe);
        FixedChain chain = new FixedChain(channel, RATE, Double.NaN);
        double[] blow = new double[20_000];
        blow[0] = 1;
        channel.recipe().onceThrough(blow, RATE);
        double[] wanted = new double[blow.length];
        double[] got = new double[blow.length];
        LongUnaryOperator run = chain.begin();
        double most = 0;
        for (int i = 0; i < blow.length; i++) {
            most += 5 * Math.abs(blow[i]);
            long raw = blow[blow.length - 1 - i] < 0 ? chain.rawLow() : chain.rawHigh();
            wanted[i] = channel.scaling().apply(raw);
            got[i] = Math.scalb((double) run.applyAsLong(raw), -chain.fraction());
        }
        channel.recipe().onceThrough(wanted, RATE);
        assertThat(wanted[blow.length - 1]).isCloseTo(most, within(1e-3 * most));
        for (int i = 0; i < blow.length; i++) {
            assertThat(got[i]).as("%d", i).isCloseTo(wanted[i], within(chain.error()));
        }
    }

    /** A curve that has values for a part of the converter's range only: beyond it those of its ends. */
    @Test
    void whereACurveHasNoValueThatOfItsEndStands() {
        Scaling scaling = new Scaling(
                new Converter(12, 4.096, Divisor.STEPS),
                new ValueTable(List.of(1.0, 1.5, 3.2), List.of(10.0, 0.0, -7.0)),
                List.of(),
                "");
        FixedChain chain = new FixedChain(new Channel("x", "x", scaling, Recipe.NONE, true), RATE, Double.NaN);
        LongUnaryOperator run = chain.begin();
        for (int raw = 0; raw < 4096; raw++) {
            double volts = Math.max(1, Math.min(3.2, raw / 1000.0));
            double paper = volts < 1.5 ? 10 - 20 * (volts - 1) : -7 * (volts - 1.5) / 1.7;
            assertThat(Math.scalb((double) run.applyAsLong(raw), -chain.fraction()))
                    .as("%d", raw)
                    .isCloseTo(paper, within(0.1));
        }
    }

    /** Without a converter a column's numbers are taken as finely as their size allows. */
    @Test
    void aColumnWithoutAConverterHasAsManyBitsBehindThePointAsItHasRoomFor() {
        FixedChain small = new FixedChain(channel(null, new Line(2, 1), ""), RATE, 100);
        assertThat(small.rawFraction()).isEqualTo(24);
        assertThat(small.rawHigh()).isEqualTo(Integer.MAX_VALUE);
        assertThat(small.rawLow()).isEqualTo(-Integer.MAX_VALUE);
        long out = small.begin().applyAsLong(Math.round(Math.scalb(33.25, 24)));
        assertThat(Math.scalb((double) out, -small.fraction())).isCloseTo(67.5, within(1e-6));
        assertThat(new FixedChain(channel(null, Line.SAME, ""), RATE, Double.NaN).rawFraction())
                .isEqualTo(7);
    }

    @Test
    void rootsMeansAndCurvesAreThoseOfPaper() {
        LongUnaryOperator rms = new FixedStep.RootMeanSquare(4, 2).begin();
        long last = 0;
        for (long x : new long[] {400, -400, 1200, -1200}) {
            last = rms.applyAsLong(x);
        }
        // √((100² + 100² + 300² + 300²) ÷ 4) = 223.6, four times.
        assertThat(last).isEqualTo(223 << 2);
        LongUnaryOperator mean = new FixedStep.Average(3).begin();
        assertThat(new long[] {mean.applyAsLong(9), mean.applyAsLong(3), mean.applyAsLong(6), mean.applyAsLong(-9)})
                .containsExactly(3, 4, 6, 0);
        LongUnaryOperator curve = new FixedStep.Curve(10, 2, new int[] {0, 8, 4}, 3).begin();
        assertThat(new long[] {
                    curve.applyAsLong(0),
                    curve.applyAsLong(10),
                    curve.applyAsLong(11),
                    curve.applyAsLong(14),
                    curve.applyAsLong(16),
                    curve.applyAsLong(18),
                    curve.applyAsLong(99)
                })
                .containsExactly(0, 0, 16, 64, 48, 32, 32);
        LongUnaryOperator smooth = new FixedStep.Smooth(Factor.of(0.5)).begin();
        assertThat(new long[] {smooth.applyAsLong(64), smooth.applyAsLong(64), smooth.applyAsLong(0)})
                .containsExactly(32, 48, 24);
    }

    @ParameterizedTest
    @CsvSource({
        "median:5,250,looks ahead",
        "detrend,250,detrend",
        "mean:70000,250,longer than",
        "lowpass:8@2,NaN,rate",
        "highpass:0.00001@1,250,rings for"
    })
    void whatCannotBeDoneInWholeNumbersIsNamed(String recipe, double rate, String said) {
        assertThatThrownBy(() -> new FixedChain(
                        channel(new Converter(10, 5, Divisor.STEPS), Line.SAME, recipe), rate, Double.NaN))
                .isInstanceOf(FixedException.class)
                .hasMessageContaining(said);
    }

    @Test
    void aCurveNeedsAConverterAndSomeValue() {
        assertThatThrownBy(() -> new FixedChain(channel(null, conversion("thermistor"), ""), RATE, 100))
                .isInstanceOf(FixedException.class)
                .hasMessageContaining("converter");
        Conversion nowhere = new ValueTable(List.of(7.0, 8.0), List.of(0.0, 1.0));
        assertThatThrownBy(() -> new FixedChain(channel(new Converter(10, 5, Divisor.STEPS), nowhere, ""), RATE, 1))
                .isInstanceOf(FixedException.class);
    }
}
