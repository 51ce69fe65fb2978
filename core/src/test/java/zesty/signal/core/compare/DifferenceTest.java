package zesty.signal.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** Against a scientific library's t tests of the same numbers (ttest_ind with unequal variances, ttest_rel). */
class DifferenceTest {
    private static final double[] BEFORE = {71.2, 69.8, 73.1, 70.5, 72.2};
    private static final double[] OTHERS = {75.9, 74.1, 78.8, 73.6, 77.0, 76.1};
    private static final double[] AFTER = {72.4, 70.9, 74.8, 70.6, 74.0};

    @Test
    void welchIsTheLibrarys() {
        Difference found = Difference.welch(BEFORE, OTHERS).orElseThrow();
        assertThat(found.difference()).isCloseTo(4.556666666666672, within(1e-9));
        assertThat(found.low()).isCloseTo(2.339540378056507, within(1e-6));
        assertThat(found.high()).isCloseTo(6.7737929552768374, within(1e-6));
        assertThat(found.p()).isCloseTo(0.0012566889530583089, within(1e-9));
        assertThat(found.n()).isEqualTo(11);
        assertThat(found.words("The rate", "beats/min", "rest", "after"))
                .isEqualTo(
                        "The rate is higher in after than in rest by 4.56 beats/min, with 95 % confidence between 2.34"
                                + " and 6.77 beats/min: the difference is real.");
    }

    @Test
    void pairsAreTheLibrarysAndBelowThreeNothingIsTold() {
        Difference found = Difference.paired(BEFORE, AFTER).orElseThrow();
        assertThat(found.difference()).isCloseTo(1.1800000000000068, within(1e-9));
        assertThat(found.low()).isCloseTo(0.34061309613089596, within(1e-6));
        assertThat(found.high()).isCloseTo(2.019386903869106, within(1e-6));
        assertThat(found.p()).isCloseTo(0.01749564355639255, within(1e-9));
        double[] gone = AFTER.clone();
        gone[0] = Double.NaN;
        gone[1] = Double.NaN;
        assertThat(Difference.paired(BEFORE, gone).orElseThrow().n()).isEqualTo(6);
        gone[2] = Double.NaN;
        assertThat(Difference.paired(BEFORE, gone)).isEmpty();
        assertThat(Difference.welch(BEFORE, new double[] {1, 2})).isEmpty();
        assertThat(Difference.welch(new double[] {5, 5, 5}, new double[] {6, 6, 6}))
                .isEmpty();
        assertThatThrownBy(() -> Difference.paired(BEFORE, OTHERS)).hasMessageContaining("there are 5 and 6");
    }

    /** The other way round it is lower by as much; of groups that overlap nothing is claimed. */
    @Test
    void whatMayBeChanceIsNotCalledReal() {
        Difference lower = Difference.welch(OTHERS, BEFORE).orElseThrow();
        assertThat(lower.real()).isTrue();
        assertThat(lower.high()).isCloseTo(-2.339540378056507, within(1e-6));
        assertThat(lower.words("The rate", "", "after", "rest"))
                .isEqualTo("The rate is lower in rest than in after by 4.56, with 95 % confidence between \u22126.77"
                        + " and \u22122.34: the difference is real.");
        // Means 2 and 3, both of variance 1 and n 3: t = 1/√(2/3) at 4 degrees, where 2.776 leaves one in twenty.
        Difference chance =
                Difference.welch(new double[] {1, 2, 3}, new double[] {2, 3, 4}).orElseThrow();
        assertThat(chance.real()).isFalse();
        assertThat(chance.low()).isCloseTo(1 - 2.7764451 * Math.sqrt(2 / 3.0), within(1e-6));
        assertThat(chance.high()).isCloseTo(1 + 2.7764451 * Math.sqrt(2 / 3.0), within(1e-6));
        assertThat(chance.words("It", "V", "a", "b"))
                .startsWith("It differs by 1 V from a to b")
                .contains("chance");
        assertThat(Difference.paired(new double[] {1, 2, 3}, new double[] {2, 3, 4}))
                .isEmpty();
        assertThat(Spread.of(new double[] {2, 4, 4, Double.NaN, 4, 5, 5, 7, 9}))
                .isEqualTo(new Spread(5, Math.sqrt(32 / 7.0), 8, 2, 9));
    }
}
