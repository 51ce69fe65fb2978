package zesty.signal.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.clean.Recipe;

/** Budgets worked on paper; delays against a scientific library's group delays. */
class BudgetsTest {
    @ParameterizedTest
    @CsvSource({
        "9600, 10, 100, 8, 800, 0.833333333333333, false, 96",
        "9600, 10, 96, 8, 768, 0.8, true, 96",
        "115200, 10, 500, 18, 9000, 0.78125, true, 512",
        "115200, 11, 500, 18, 9000, 0.859375, false, 465.4545454545454",
        "1000000, 10, 1000, 20, 20000, 0.2, true, 4000"
    })
    void aLineCarriesEightTenthsOfItself(
            double baud,
            double bits,
            double rate,
            double bytes,
            double perSecond,
            double share,
            boolean fits,
            double most) {
        Plan.Line line = new Plan.Line(baud, bits);
        LineBudget budget = LineBudget.of(line, new Plan.Row(rate, null, bytes));
        assertThat(budget.bytesPerSecond()).isEqualTo(perSecond);
        assertThat(budget.share()).isCloseTo(share, within(1e-14));
        assertThat(budget.fits()).isEqualTo(fits);
        assertThat(budget.highestRateHz()).isCloseTo(most, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({
        "100, 100, 0",
        "100, 120, 20",
        "100, 50, 50",
        "125, 100, 25",
        "250, 1000, 0",
        "250, 930, 70",
        "400, 60, 60"
    })
    void aToneAppearsFoldedAboutHalfTheRate(double rate, double hz, double seen) {
        RateBudget budget = RateBudget.of(rate, new Plan.Signal(rate / 2.5, List.of(hz)));
        assertThat(budget.tones()).containsExactly(new RateBudget.Tone(hz, seen));
        assertThat(budget.enough()).isTrue();
        assertThat(RateBudget.of(rate, new Plan.Signal(rate / 2.49, List.of())).enough())
                .isFalse();
        assertThat(budget.faults(rate, new Plan.Signal(1, List.of(hz)))).hasSize(hz > rate / 2 ? 1 : 0);
    }

    @ParameterizedTest
    @CsvSource({
        // A perfect converter has its own bits; a count of noise RMS costs log2(sqrt(13)); four times as many halve the
        // noise.
        "10, 5, 0, 1, 0.0048828125, 0.0014095466, 10",
        "10, 5, 1, 1, 0.0048828125, 0.0050821924, 8.1497801409",
        "10, 5, 1, 4, 0.0048828125, 0.0025410962, 9.1497801409",
        "12, 3.3, 2, 16, 0.000805664, 0.00040698, 11.192645"
    })
    void noiseOfAConverterIsItsOwnAndRounding(
            int bits, double ref, double counts, double average, double step, double noise, double effective) {
        NoiseBudget budget = NoiseBudget.of(new Plan.Converter(bits, ref, counts, average));
        assertThat(budget.stepVolts()).isCloseTo(step, within(1e-6 * step));
        assertThat(budget.noiseVolts()).isCloseTo(noise, within(1e-4 * noise));
        assertThat(budget.effectiveBits()).isCloseTo(effective, within(1e-3));
    }

    /** Values of scipy.signal.group_delay on butter() and on the notch's own formula, at a rate of 200/s. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "mean:5 | 0.01",
                "mean:5 & rms:0.1 | 0.0575",
                "exp:0.25 | 0.015",
                "lowpass:10@2 | 0.02232248277883769",
                "lowpass:20@4 | 0.02010593666083972",
                "highpass:0.5@2 | 0.4494415266589011",
                "bandpass:1..20@2 | 0.023337988259682765",
                "bandstop:45..55@2 | 0.0447578061669857",
                "notch:50@30 | 0.0001309296079750677",
                "envelope:5 | 0.044923219461096536",
                "rectify & offset:3 & scale:2 | 0"
            })
    void aRecipeIsLateByTheGroupDelayOfItsFilters(String recipe, double seconds) {
        assertThat(DelayBudget.of(Recipe.parse(recipe.replace("&", "|")), 200).seconds())
                .isCloseTo(seconds, within(2e-3 * seconds + 1e-12));
    }

    @Test
    void memoryBatteryDividerShuntAndBridgeAreArithmetic() {
        assertThat(MemoryBudget.of(new Plan.Memory(30_000, 8), new Plan.Row(100, null, 8)))
                .isEqualTo(new MemoryBudget(3750, 37.5));
        assertThat(MemoryBudget.of(new Plan.Memory(31, 8), null).rows()).isEqualTo(3);
        BatteryBudget battery =
                BatteryBudget.of(new Plan.Battery(2000, List.of(new Plan.State(80, 1), new Plan.State(0.5, 59))));
        assertThat(battery.meanMilliamps()).isCloseTo(1.825, within(1e-12));
        assertThat(battery.hours()).isCloseTo(2000 / 1.825, within(1e-9));
        Plan.Converter converter = new Plan.Converter(10, 5, 0, 1);
        DividerBudget divider = DividerBudget.of(new Plan.Divider(30_000, 10_000, 0.05, 18), converter);
        assertThat(divider.atMaxVolts()).isEqualTo(4.5);
        assertThat(divider.over()).isFalse();
        assertThat(divider.amps()).isEqualTo(4.5e-4);
        // 10.5 of 28.5 + 10.5 k is 0.26923, 7.69 % above a quarter; the other way 0.23171, 7.32 % below.
        assertThat(divider.worstError()).isCloseTo(0.0769230769, within(1e-9));
        ShuntBudget shunt = ShuntBudget.of(new Plan.Shunt(0.1, 3, 10), converter);
        assertThat(shunt.dropVolts()).isCloseTo(0.3, within(1e-12));
        assertThat(shunt.watts()).isCloseTo(0.9, within(1e-12));
        assertThat(shunt.stepAmps()).isCloseTo(5.0 / 1024, within(1e-12));
        BridgeBudget bridge = BridgeBudget.of(new Plan.Bridge(2, 5, 128, 100), converter);
        assertThat(bridge.fullScaleVolts()).isCloseTo(1.28, within(1e-12));
        assertThat(bridge.step()).isCloseTo(5.0 / 1024 / 1.28 * 100, within(1e-12));
    }

    @Test
    void whatGoesOverIsNamedWithTheChangeThatMendsIt() {
        Plan plan = plan(9600, 100, 12, 12.6);
        Budgets over = Budgets.of(plan);
        assertThat(over.wrong()).extracting(Fault::part).containsExactly("line", "rate", "rate", "divider");
        assertThat(over.wrong().get(0).mend())
                .startsWith("a line of 19200 baud, rows of 7 bytes at most, or 64 rows/s");
        assertThat(over.wrong().get(3).mend()).isEqualTo("a top resistor of 15200 Ω or more");
        // Each mended by what it says.
        assertThat(Budgets.of(plan(19_200, 100, 12, 12.6)).wrong())
                .extracting(Fault::part)
                .doesNotContain("line");
        assertThat(Budgets.of(plan(9600, 100, 7, 10)).wrong())
                .extracting(Fault::part)
                .containsOnly("rate");
        assertThat(Budgets.of(plan(115_200, 250, 12, 9)).wrong()).isEmpty();
    }

    private static Plan plan(double baud, double rate, double bytes, double source) {
        return new Plan(
                new Plan.Line(baud, 10),
                new Plan.Row(rate, null, bytes),
                new Plan.Converter(10, 5, 0, 1),
                new Plan.Signal(100, List.of(120.0)),
                "",
                null,
                null,
                new Plan.Divider(10_000, 10_000, 0.01, source),
                null,
                null);
    }

    @Test
    void randomPlansNeverGiveNaNInfinityOrAnException() {
        Random random = new Random(20_261_129);
        for (int i = 0; i < 3000; i++) {
            double[] r = random.doubles(12, -6, 6).map(x -> Math.pow(10, x)).toArray();
            Plan plan = new Plan(
                    new Plan.Line(r[0], 10),
                    new Plan.Row(r[1], null, r[2]),
                    new Plan.Converter(1 + random.nextInt(32), r[3], r[4], 1 + r[5]),
                    new Plan.Signal(r[6], List.of(r[7], r[8])),
                    "mean:7",
                    new Plan.Memory(r[9], r[10]),
                    new Plan.Battery(r[11], List.of(new Plan.State(r[0], r[1]))),
                    new Plan.Divider(r[2], r[3], random.nextDouble() * 0.9, r[4]),
                    new Plan.Shunt(r[5], r[6], r[7]),
                    new Plan.Bridge(r[8], r[9], r[10], r[11]));
            String said = Budgets.of(plan).toString();
            assertThat(said).doesNotContain("NaN").doesNotContain("Infinity");
        }
        assertThatThrownBy(() -> new Plan.Row(0, null, 8)).hasMessage("row.rate_hz must be above 0, was 0.0");
        assertThatThrownBy(() -> new Plan.Converter(40, 5, 0, 1)).hasMessageStartingWith("converter.bits");
    }
}
