package zesty.signal.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.read.Need;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;

/** Plans as bars: linked, mended by what they offer, and never out of their wits. */
class BarsTest {
    private static Draft pulse() {
        ReaderKind kind = ReaderKinds.of("pulse");
        return Draft.of(kind.name(), kind.needs().get(0), "bandpass:0.5..8@2");
    }

    private static Bar bar(Draft draft, String name) {
        return Bars.of(draft).stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    /** At 100 rows/s a lamp of 100 Hz stands still; 121 is the first rate at which it shows beyond 20 Hz. */
    @Test
    void aPulseUnderALampIsMendedByTwoPresses() {
        Draft draft = pulse();
        assertThat(draft.rateHz()).isEqualTo(100);
        Bar rate = bar(draft, "Highest true frequency");
        assertThat(rate.over()).isTrue();
        assertThat(rate.says()).isEqualTo("a tone of 100 Hz is aliased to 0 Hz");
        Draft faster = rate.mends().get(0).after();
        assertThat(faster.rateHz()).isEqualTo(121);
        assertThat(bar(faster, "Highest true frequency").over()).isFalse();
        Bar resolution = bar(faster, "Resolution");
        // 0.15 V of 5/1024 V a count are 30.72 counts; noise of √(0.64 + 1/12) counts counts √12 times.
        assertThat(resolution.says()).startsWith("30.7 counts high, 10.4 clear of noise");
        assertThat(resolution.over()).isTrue();
        Draft finer = resolution.mends().get(0).after();
        assertThat(Bars.of(finer)).noneMatch(Bar::over);
    }

    /** Pulling one end moves the others: more rows a second fill the line, the memory and the disk. */
    @Test
    void budgetsAreLinked() {
        Draft slow = pulse();
        Draft fast = bar(slow, "Line").pulled().apply(0.9);
        assertThat(fast.rateHz()).isEqualTo(Math.rint(0.9 * 11_520 / slow.rowBytes()));
        assertThat(bar(fast, "Line").over()).isTrue();
        assertThat(bar(fast, "Board memory").over()).isTrue();
        assertThat(bar(fast, "Disk").share()).isGreaterThan(bar(slow, "Disk").share());
        for (Bar.Mend mend : bar(fast, "Line").mends()) {
            assertThat(bar(mend.after(), "Line").over()).as(mend.words()).isFalse();
        }
        Draft wrong = slow.withSignal(1, "lowpass:80@2", List.of());
        assertThat(bar(wrong, "Delay to the screen").over()).isTrue();
        assertThat(bar(bar(wrong, "Delay to the screen").mends().get(0).after(), "Delay to the screen")
                        .over())
                .isFalse();
    }

    /** The row is as long as it says, and its numbers are ones that the converter has. */
    @Test
    void aRowIsAsLongAsItsLargestCounts() {
        for (int bits : new int[] {8, 10, 12, 16, 24}) {
            Draft draft = pulse().withChannels(5).withConverter(new Plan.Converter(bits, 5, 1, 1));
            String[] fields = draft.rowText().strip().split(";");
            assertThat(fields).hasSize(7);
            long full = (1L << bits) - 1;
            for (int c = 2; c < 7; c++) {
                assertThat(Long.parseLong(fields[c])).isLessThanOrEqualTo(full);
                assertThat(fields[c]).hasSameSizeAs(String.valueOf(full));
            }
            assertThat(draft.rowBytes()).isEqualTo(draft.rowText().length());
            assertThat(draft.withLine(9600, true).rowBytes()).isEqualTo(19);
        }
    }

    private static double any(Random random, double low, double high) {
        return low * Math.pow(high / low, random.nextDouble());
    }

    @Test
    void randomPlansGiveFiniteBarsWhoseMendsMend() {
        Random random = new Random(5);
        List<Need> needs = new ArrayList<>();
        List<String> kinds = new ArrayList<>();
        for (ReaderKind kind : ReaderKinds.all()) {
            assertThat(kind.needs()).as(kind.name()).isNotEmpty();
            for (Need need : kind.needs()) {
                assertThat(need.wiring()).isNotEmpty();
                needs.add(need);
                kinds.add(kind.name());
            }
        }
        for (int i = 0; i < 250; i++) {
            int which = random.nextInt(needs.size());
            Draft draft = new Draft(
                    kinds.get(which),
                    needs.get(which),
                    new Draft.Stream(
                            any(random, 0.1, 50_000),
                            1 + random.nextInt(64),
                            any(random, 300, 4e6),
                            random.nextBoolean()),
                    new Plan.Converter(
                            4 + random.nextInt(21), any(random, 0.5, 12), any(random, 0.01, 300), any(random, 1, 64)),
                    new Draft.Signal(
                            any(random, 1e-4, 5),
                            random.nextBoolean() ? "mean:9" : "",
                            random.nextBoolean() ? List.of(100.0, any(random, 0.5, 20_000)) : List.of()),
                    new Draft.Board(
                            any(random, 16, 1e7),
                            any(random, 10, 1e5),
                            any(random, 0.01, 5000),
                            any(random, 0.1, 5000)));
            for (Bar bar : Bars.of(draft)) {
                assertThat(Double.isFinite(bar.share()) && bar.share() >= 0)
                        .as("%s of %s", bar, draft)
                        .isTrue();
                assertThat(bar.value() + bar.says()).doesNotContain("NaN").doesNotContain("Infinity");
                for (Bar.Mend mend : bar.mends()) {
                    assertThat(bar(mend.after(), bar.name()).over())
                            .as("%s: %s of %s", bar.name(), mend.words(), draft)
                            .isFalse();
                }
                if (bar.pulled() != null) {
                    for (double share : new double[] {0, random.nextDouble(), 1}) {
                        assertThat(Bars.of(bar.pulled().apply(share))).hasSize(7);
                    }
                }
            }
        }
        assertThatThrownBy(() -> pulse().withChannels(65)).hasMessageContaining("1 to 64 channels");
        assertThatThrownBy(() -> pulse().withRate(-1)).hasMessageContaining("the rate must be above 0");
    }

    /** Whatever is asked, the plan that it begins with is quick enough, fits its line and keeps its rows over a pause. */
    @Test
    void everyQuestionBeginsWithAPlanThatNearlyHolds() {
        for (ReaderKind kind : ReaderKinds.all()) {
            for (Need need : kind.needs()) {
                String recipe = kind.suggestions().isEmpty()
                        ? ""
                        : kind.suggestions().get(0).recipe();
                Draft draft = Draft.of(kind.name(), need, recipe);
                assertThat(draft.rateHz()).as(kind.name()).isGreaterThanOrEqualTo(2.5 * need.highestHz());
                assertThat(draft.channels()).isGreaterThanOrEqualTo(kind.fewestPorts());
                // What is over can be mended, one press after the other, each by its first offer.
                Draft now = draft;
                for (int press = 0; press < 12; press++) {
                    for (Bar bar : Bars.of(now)) {
                        if (bar.over()) {
                            assertThat(bar.mends())
                                    .as("%s of %s", bar.name(), kind.name())
                                    .isNotEmpty();
                            now = bar.mends().get(0).after();
                            break;
                        }
                    }
                }
                assertThat(Bars.of(now)).as(kind.name() + ", " + need.sensor()).noneMatch(Bar::over);
            }
        }
    }
}
