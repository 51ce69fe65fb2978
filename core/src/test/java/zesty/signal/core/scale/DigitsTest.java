package zesty.signal.core.scale;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Numbers as text, the tests' own computer counting with decimal commas: what is for files must not. */
class DigitsTest {
    private static double any(Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> Double.longBitsToDouble(random.nextLong());
            case 1 -> random.nextInt(2_000_000) - 1_000_000;
            case 2 -> random.nextGaussian() * Math.pow(10, random.nextInt(20) - 10);
            default -> Math.rint(1000 * random.nextGaussian()) / 1000;
        };
    }

    private static double back(String text) {
        return Double.parseDouble(text.replace('\u2212', '-'));
    }

    @Test
    void whatIsForFilesReadsBackToTheSameBits() {
        Random random = new Random(1);
        for (int i = 0; i < 200_000; i++) {
            double value = any(random);
            if (Double.isFinite(value)) {
                String text = Digits.exact(value);
                assertThat(Double.doubleToLongBits(Double.parseDouble(text)))
                        .as(text)
                        .isEqualTo(Double.doubleToLongBits(value));
                assertThat(text).doesNotContain(",");
            }
        }
        assertThat(Digits.exact(-0.0)).isEqualTo("-0.0");
        assertThat(Digits.exact(512)).isEqualTo("512");
    }

    @Test
    void whatIsForPeopleIsRoundedAsOnPaper() {
        Random random = new Random(2);
        for (int i = 0; i < 50_000; i++) {
            double value = random.nextGaussian() * Math.pow(10, random.nextInt(9) - 3);
            int decimals = random.nextInt(5);
            BigDecimal paper = new BigDecimal(value).setScale(decimals, RoundingMode.HALF_UP);
            String fixed = Digits.fixed(value, decimals);
            // A tie in binary is no tie on paper: either neighbour of the last place will do there.
            assertThat(Math.abs(back(fixed) - paper.doubleValue()))
                    .as("%s with %d decimals: %s", value, decimals, fixed)
                    .isLessThan(1.0001 * Math.pow(10, -decimals) * (isTie(value, decimals) ? 1 : 0)
                            + 1e-9 * Math.abs(value));
            int point = fixed.indexOf('.');
            assertThat(point < 0 ? 0 : fixed.length() - point - 1).isEqualTo(decimals);
            BigDecimal six = new BigDecimal(value).round(new MathContext(6, RoundingMode.HALF_UP));
            assertThat(back(Digits.of(value)))
                    .isCloseTo(six.doubleValue(), org.assertj.core.api.Assertions.within(2e-6 * Math.abs(value)));
        }
    }

    private static boolean isTie(double value, int decimals) {
        double scaled = Math.abs(value) * Math.pow(10, decimals);
        return Math.abs(scaled - Math.floor(scaled) - 0.5) < 1e-6;
    }

    @ParameterizedTest
    @CsvSource({"0.0048828125,3", "1,0", "5,0", "10,0", "0.1,1", "0.01,2", "0.25,1", "0.00122,3", "2e-6,6"})
    void asManyDecimalsAreShownAsTheStepIsWorth(double step, int decimals) {
        assertThat(Digits.decimalsFor(step)).isEqualTo(decimals);
        // One step more is seen to differ.
        assertThat(Digits.fixed(100 * step, decimals)).isNotEqualTo(Digits.fixed(102 * step, decimals));
    }

    @Test
    void whatIsNoNumberIsADashAndMinusIsARealOne() {
        for (double none : new double[] {Double.NaN, Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY}) {
            assertThat(Digits.of(none)).isEqualTo("\u2014");
            assertThat(Digits.fixed(none, 2)).isEqualTo("\u2014");
            assertThat(Digits.about(none, 3)).isEqualTo("\u2014");
        }
        assertThat(Digits.fixed(-3.14159, 2)).isEqualTo("\u22123.14");
        assertThat(Digits.of(-0.5)).isEqualTo("\u22120.5");
        assertThat(Digits.of(1e9)).isEqualTo("1e9");
        assertThat(Digits.of(999_999_000)).isEqualTo("999999000");
        assertThat(Digits.of(1e-5)).isEqualTo("0.00001");
        assertThat(Digits.of(2.5e-7)).isEqualTo("2.5e\u22127");
        assertThat(Digits.exact(1e15)).isEqualTo("1.0E15");
        assertThat(Digits.typed(" \u22123,5")).isEqualTo(-3.5);
        assertThat(Digits.box(-0.25)).isEqualTo("-0.25");
        // What is rounded to nothing has no sign.
        assertThat(Digits.fixed(-0.0004, 2)).isEqualTo("0.00");
        assertThat(Digits.of(1234567)).doesNotContain(",").doesNotContain(" ");
    }
}
