package zesty.signal.core.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The shift at which two records agree, on records whose shift is known. */
class AgreementTest {
    private static double[] noise(int n, long seed) {
        return new Random(seed).doubles(n, -1, 1).toArray();
    }

    @ParameterizedTest
    @CsvSource({"0, 400, 0", "37, 300, -37", "-21, 300, 21", "250, 150, -250"})
    void aPartOfARecordIsFoundWhereItWasTaken(int begin, int length, int shift) {
        double[] whole = noise(400, 3);
        double[] part = new double[length];
        for (int i = 0; i < length; i++) {
            int at = begin + i;
            // Before the record's begin there is something of its own.
            part[i] = at < 0 ? 0.1 * i : 5 - 2.5 * whole[at] * -1;
        }
        Agreement found = Agreement.best(whole, part, -390, 390).orElseThrow();
        assertThat(found.shift()).isEqualTo(shift);
        assertThat(found.correlation()).isCloseTo(1, within(1e-9));
    }

    /** By hand: of 1 2 4 and 2 3 7 the deviations are −4/3 −1/3 5/3 and −2 −1 3; r = 8 / √(42/9 · 14). */
    @Test
    void theCorrelationIsThatOfPaper() {
        double[] a = {1, 2, 4, 1, 2, 4, 1, 2, 4};
        double[] b = {2, 3, 7, 2, 3, 7, 2, 3, 7};
        assertThat(Agreement.best(a, b, 0, 0).orElseThrow().correlation())
                .isCloseTo(8 / Math.sqrt(42 / 9.0 * 14), within(1e-12));
    }

    @Test
    void holesAreLeftOutAndNothingIsMadeOfAConstantOrOfTooLittle() {
        double[] whole = noise(200, 4);
        double[] holed = whole.clone();
        Arrays.fill(holed, 60, 110, Double.NaN);
        assertThat(Agreement.best(whole, holed, -20, 20)).hasValueSatisfying(found -> {
            assertThat(found.shift()).isZero();
            assertThat(found.correlation()).isCloseTo(1, within(1e-9));
        });
        double[] still = new double[200];
        Arrays.fill(still, 1e6 + 0.1);
        assertThat(Agreement.best(whole, still, -50, 50)).isEmpty();
        assertThat(Agreement.best(new double[] {1, 2, 3}, new double[] {1, 2, 3}, -1, 1))
                .isEmpty();
        // At the ends less than half would lie over each other: chance agrees there.
        assertThat(Agreement.best(whole, whole, 150, 199)).isEmpty();
    }

    @Test
    void noiseAgreesWithNothing() {
        Agreement chance =
                Agreement.best(noise(500, 5), noise(500, 6), -200, 200).orElseThrow();
        assertThat(chance.correlation()).isLessThan(0.3);
    }
}
