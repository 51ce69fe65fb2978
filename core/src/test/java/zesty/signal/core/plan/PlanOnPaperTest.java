package zesty.signal.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.kinds.ReaderKinds;

/** Plans and parts with round numbers, worked on paper: what each bar says, offers and becomes when it is pulled. */
class PlanOnPaperTest {
    private static final Plan.Converter TEN_BITS = new Plan.Converter(10, 5, 0, 1);

    private static Draft draft(Draft.Stream stream, Plan.Converter converter, Draft.Signal signal, Draft.Board board) {
        return new Draft("pulse", ReaderKinds.of("pulse").needs().get(0), stream, converter, signal, board);
    }

    /** 100 packets a second of 9 + 2 · 2 bytes over 960 bytes/s; 21 readings averaged; 1000 mAh at 200 mA. */
    private static final Draft FULL = draft(
            new Draft.Stream(100, 2, 9600, true),
            new Plan.Converter(10, 5, 0.8, 1),
            new Draft.Signal(0.15, "mean:21", List.of(100.0)),
            new Draft.Board(2048, 1000, 200, 10));

    /** 250 rows a second of 18 + 5 bytes of text over 11 520 bytes/s; 201 readings averaged; 2000 mAh at 20 mA. */
    private static final Draft EASY = draft(
            new Draft.Stream(250, 1, 115_200, false),
            new Plan.Converter(12, 4.096, 0, 1),
            new Draft.Signal(2, "mean:201", List.of(180.0)),
            new Draft.Board(50_000, 2000, 20, 8));

    private static Bar bar(Draft draft, String name) {
        return Bars.of(draft).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static String said(Draft draft, String name) {
        Bar bar = bar(draft, name);
        List<String> mends = bar.mends().stream().map(Bar.Mend::words).toList();
        return bar.value() + "; " + bar.says() + (bar.over() ? "; over; " + mends : "");
    }

    @Test
    void barsSayWhatPaperSays() {
        // 0.8 · 960 ÷ 13 = 59.08 rows/s; at 19 200 baud 1300 of 1920 bytes/s are 68 %.
        assertThat(said(FULL, "Line"))
                .isEqualTo("1300 of 960 bytes/s; too much; up to 59.1 rows/s would fit; over; [19200 baud, 59 rows/s]");
        assertThat(said(EASY, "Line")).isEqualTo("5750 of 11520 bytes/s; fits; up to 401 rows/s would fit");
        assertThat(said(FULL, "Highest true frequency"))
                .isEqualTo("40 Hz; 20 Hz are needed; a tone of 100 Hz is aliased to 0 Hz; over; [121 rows/s]");
        assertThat(said(EASY, "Highest true frequency"))
                .isEqualTo("100 Hz; 20 Hz are needed; enough; a tone of 180 Hz shows at 70 Hz, outside of the signal");
        // 5 V ÷ 1024; √(0.64 + 1/12) counts of noise, √12 times: 30.72 ÷ 2.946. Sixteen averaged: √(0.04 + 1/12).
        assertThat(said(FULL, "Resolution"))
                .isEqualTo("4.9 mV a count, 8.4 effective bits; 30.7 counts high, 10.4 clear of noise; 25 are needed; "
                        + "over; [average 16 readings, 16 bits]");
        assertThat(said(EASY, "Resolution"))
                .isEqualTo("1 mV a count, 12.0 effective bits; 2000 counts high, 2000 clear of noise; 25 are needed");
        // (21 − 1) ÷ 2 samples of 10 ms, and 130 bits at 9600; 100 samples of 4 ms, and 230 bits at 115 200.
        assertThat(said(FULL, "Delay to the screen")).isEqualTo("100 ms recipe + 14 ms line; quick enough to act on");
        assertThat(said(EASY, "Delay to the screen"))
                .isEqualTo("400 ms recipe + 2 ms line; fine to look at; too late to act on quick things");
        // 157 rows of 13 bytes; 2173 rows of 23.
        assertThat(said(FULL, "Board memory"))
                .isEqualTo("1.6 s of rows; a pause of the computer over 1.6 s loses rows");
        assertThat(said(EASY, "Board memory"))
                .isEqualTo("8.7 s of rows; a pause of the computer over 8.7 s loses rows");
        // 1300 · 86 400; 8 · 3 · 100 · 86 400.
        assertThat(said(FULL, "Disk"))
                .isEqualTo("112 MB a day as sent; at most 207 MB a day in a take, before it is packed");
        assertThat(said(FULL, "Battery")).isEqualTo("5 h; too short for 10 h; over; [2000 mAh]");
        assertThat(said(EASY, "Battery")).isEqualTo("4.17 days; lasts the 8 h that are wanted");
        assertThat(said(FULL.withBattery(9400, 200, 10), "Battery")).startsWith("47 h; lasts");
    }

    @ParameterizedTest
    @CsvSource({
        "Line, 1.3542, 0.4991",
        "Highest true frequency, 1, 2.5",
        "Delay to the screen, 0.1135, 0.4020",
        "Disk, 0.0562, 0.2484",
        "Battery, 0.25, 1"
    })
    void barsAreAsLongAsPaperSays(String name, double full, double easy) {
        assertThat(bar(FULL, name).share()).isCloseTo(full, within(5e-5));
        assertThat(bar(EASY, name).share()).isCloseTo(easy, within(5e-5));
    }

    /** A bar that is pulled to a place gives the plan that stands there. */
    @Test
    void aPulledBarStandsWhereItWasPulled() {
        assertThat(bar(FULL, "Line").pulled().apply(0.25).rateHz()).isEqualTo(18.5);
        assertThat(bar(FULL, "Line").pulled().apply(0).rateHz()).isEqualTo(0.1);
        assertThat(bar(EASY, "Line").pulled().apply(0.25).rateHz()).isEqualTo(125);
        assertThat(bar(FULL, "Highest true frequency").pulled().apply(0.25).rateHz())
                .isEqualTo(25);
        assertThat(bar(FULL, "Disk").pulled().apply(0.25).rateHz()).isEqualTo(445);
        assertThat(bar(FULL, "Disk").pulled().apply(0).rateHz()).isEqualTo(8.9);
        // 0.8 · 0.5 s ÷ 0.25 of 1300 bytes/s.
        assertThat(bar(FULL, "Board memory").pulled().apply(0.25).memoryBytes()).isEqualTo(2080);
        assertThat(bar(FULL, "Board memory").pulled().apply(0).memoryBytes()).isEqualTo(26_000);
        assertThat(bar(FULL, "Board memory").share()).isCloseTo(0.4 / 1.57, within(1e-9));
        assertThat(bar(FULL, "Battery").pulled().apply(0.25).milliampHours()).isEqualTo(1000);
        assertThat(bar(FULL, "Battery").pulled().apply(0).milliampHours()).isEqualTo(20);
        // 16 · 25 counts are the whole bar: 2000 counts are more than that, 10 bits' 500 counts, too, 8 bits' 125 are
        // not.
        assertThat(bar(EASY, "Resolution").share()).isEqualTo(1);
        assertThat(bar(EASY, "Resolution").pulled().apply(1).converter().bits()).isEqualTo(10);
        assertThat(bar(EASY, "Resolution").pulled().apply(0.8).converter().bits())
                .isEqualTo(8);
        // Noise does not get smaller with finer steps: as many volts as before, up to sixteen times the counts.
        assertThat(bar(FULL, "Resolution").pulled().apply(0.25).converter())
                .isEqualTo(new Plan.Converter(8, 5, 0.2, 1));
        assertThat(bar(FULL, "Resolution").limit()).isCloseTo(Math.log(25) / Math.log(400), within(1e-12));
        assertThat(bar(FULL, "Resolution").share()).isCloseTo(Math.log(10.4276) / Math.log(400), within(1e-5));
    }

    /** Mends stand at what is just enough. */
    @Test
    void whatIsOfferedIsEnoughAndNoMore() {
        assertThat(bar(FULL, "Line").mends().get(0).after().baud()).isEqualTo(19_200);
        assertThat(bar(FULL, "Line").mends().get(1).after().rateHz()).isEqualTo(59);
        assertThat(bar(FULL, "Battery").mends().get(0).after().milliampHours()).isEqualTo(2000);
        Draft text = FULL.withLine(19_200, false);
        // 2 · 5 + 18 bytes of text are too much, 13 of a packet are not; at 9600 a packet needs another speed, too.
        assertThat(said(text, "Line")).endsWith("over; [38400 baud, send packets, 54.8 rows/s]");
        Draft fast = FULL.withLine(4_000_000, false).withRate(20_000);
        assertThat(said(fast, "Line")).endsWith("over; [send packets, 11428.5 rows/s]");
        assertThat(said(FULL.withMemory(300), "Board memory")).endsWith("over; [0.635 kB of memory]");
        assertThat(said(text.withMemory(700), "Board memory")).endsWith("over; [send packets, 1.37 kB of memory]");
        // At 300 rows/s a lamp of 295 Hz shows at 5 Hz; up to 315 it lies within 20 Hz.
        Draft lamp = EASY.withSignal(2, "", List.of(295.0)).withRate(300);
        assertThat(said(lamp, "Highest true frequency"))
                .isEqualTo("120 Hz; 20 Hz are needed; a tone of 295 Hz is aliased to 5 Hz; over; [316 rows/s]");
        assertThat(said(EASY.withRate(40), "Highest true frequency"))
                .startsWith("16 Hz; 20 Hz are needed; too slow for the signal");
    }

    @Test
    void partsAreThoseOfPaper() {
        // 3.3 kΩ ÷ 10.1 kΩ of 15 V; the next better pair would pass 5 V with both a hundredth off.
        DividerChoice divider = DividerChoice.of(15, TEN_BITS);
        assertThat(List.of(divider.top(), divider.bottom())).containsExactly(6800.0, 3300.0);
        assertThat(divider.budget().atMaxVolts()).isCloseTo(4.90099, within(1e-5));
        assertThat(divider.budget().worstError()).isCloseTo(3.333 / (3.333 + 6.732) / (33 / 101.0) - 1, within(1e-9));
        assertThat(divider.watts()).isCloseTo(Math.pow(15 / 10_100.0, 2) * 6800, within(1e-12));
        // √(33 621 Ω · 3588 Ω) = 10 983 Ω; half the supply on it and as much on the thermistor.
        ThermistorChoice warm = ThermistorChoice.of(1e4, 3950, 0, 50, TEN_BITS);
        assertThat(warm.ohms()).isEqualTo(11_000);
        assertThat(warm.selfWatts()).isCloseTo(2.5 * 2.5 / 11_000, within(1e-12));
        assertThat(warm.stepDegrees())
                .isCloseTo(5 / 1024.0 / (5 * 11_000 / 21_000.0 / 21_000 * 3950 * 1e4 / 298.15 / 298.15), within(1e-9));
        // 0.2 V at 2 A; 0.4 W, twice that in the next rating; a count of 4.88 mV ÷ (0.1 Ω · 20).
        ShuntChoice shunt = ShuntChoice.of(2, 20, 0.2, TEN_BITS);
        assertThat(List.of(shunt.ohms(), shunt.ratedWatts())).containsExactly(0.1, 1.0);
        assertThat(shunt.budget().stepAmps()).isCloseTo(5 / 1024.0 / 2, within(1e-12));
        assertThat(shunt.budget().watts()).isCloseTo(0.4, within(1e-12));
        // A corner of √(20 · 80) = 40 Hz is 39.8 kΩ with 100 nF: too much, so 3.98 kΩ with 1 µF.
        FilterChoice slow = FilterChoice.of(20, 100);
        assertThat(slow.ohms()).isEqualTo(3900);
        assertThat(slow.farads()).isCloseTo(1e-6, within(1e-15));
        assertThat(slow.cornerHz()).isCloseTo(1 / (2 * Math.PI * 3.9e-3), within(1e-9));
        assertThat(slow.passes()).isCloseTo(1 / Math.hypot(1, 20 / slow.cornerHz()), within(1e-12));
        assertThat(slow.aliased()).isCloseTo(1 / Math.hypot(1, 80 / slow.cornerHz()), within(1e-12));
        // A corner of √(50 000 · 350 000) = 132 kHz is 12 Ω with 100 nF: too little, so 120 Ω, then 1.2 kΩ with 1 nF.
        assertThat(FilterChoice.of(50_000, 400_000).farads()).isCloseTo(1e-9, within(1e-18));
        assertThat(FilterChoice.of(50_000, 400_000).ohms()).isEqualTo(1200);
        // 2.9 V ÷ 3 mA; 1 µs ÷ (0.8473 · 100 pF); between them by ratio √(966.7 · 11 802) = 3378 Ω.
        PullUpChoice pull = PullUpChoice.of(3.3, 100e-12, 1e-6);
        assertThat(pull.least()).isCloseTo(2.9 / 0.003, within(1e-9));
        assertThat(pull.most()).isCloseTo(1e-6 / (Math.log(7 / 3.0) * 100e-12), within(1e-6));
        assertThat(pull.ohms()).isEqualTo(3300);
        // 300 ns ÷ (0.8473 · 1533 Ω) = 231 pF.
        assertThatThrownBy(() -> PullUpChoice.of(5, 2e-9, 300e-9)).hasMessageContaining("231 pF");
    }

    @Test
    void whatIsNotAboveNothingIsRefused() {
        Map<String, ThrowingCallable> all = Map.ofEntries(
                Map.entry("the highest voltage", () -> DividerChoice.of(-1, TEN_BITS)),
                Map.entry("the thermistor's resistance", () -> ThermistorChoice.of(0, 3950, 0, 50, TEN_BITS)),
                Map.entry("its beta", () -> ThermistorChoice.of(1e4, -1, 0, 50, TEN_BITS)),
                Map.entry("the highest current", () -> ShuntChoice.of(0, 20, 0.2, TEN_BITS)),
                Map.entry("the gain", () -> ShuntChoice.of(1, 0, 0.2, TEN_BITS)),
                Map.entry("the drop allowed", () -> ShuntChoice.of(1, 20, 0, TEN_BITS)),
                Map.entry("the highest frequency", () -> FilterChoice.of(0, 100)),
                Map.entry("the supply", () -> PullUpChoice.of(0.3, 1e-12, 1e-6)),
                Map.entry("the line's capacitance", () -> PullUpChoice.of(5, 0, 1e-6)),
                Map.entry("the rise time", () -> PullUpChoice.of(5, 1e-12, 0)),
                Map.entry("pixels", () -> SpotSize.of(0, 50, 1)),
                Map.entry("distance", () -> SpotSize.of(32, 50, 0)),
                Map.entry("a tone", () -> EASY.withSignal(1, "", List.of(-1.0))),
                Map.entry("a part's value", () -> StandardSeries.E24.nearest(0)));
        all.forEach(
                (words, call) -> assertThatThrownBy(call).as(words).hasMessageContaining(words + " must be above 0"));
        assertThat(StandardSeries.E24.tolerance()).isEqualTo(0.05);
        assertThat(StandardSeries.E12.between(10, 22)).containsExactly(10, 12, 15, 18, 22);
        assertThat(StandardSeries.E12.nearest(1.09)).isEqualTo(1);
        assertThat(StandardSeries.E12.nearest(1.1)).isEqualTo(1.2);
    }
}
