package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.examined;
import static zesty.signal.core.doctor.Paper.made;
import static zesty.signal.core.doctor.Paper.said;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Nature;

/** Sums of sines whose powers, a²/2 each, are added by hand; each side of a bound. */
class TonesOnPaperTest {
    /** @param tones "10:100 50:15": Hz and amplitude of each */
    private static double[] sum(int count, double rate, String tones) {
        return made(count, i -> {
            double sum = 0;
            for (String one : tones.split(" ")) {
                String[] parts = one.split(":");
                sum += Double.parseDouble(parts[1])
                        * Math.sin(2 * Math.PI * Double.parseDouble(parts[0]) * i / rate + 0.3);
            }
            return sum;
        });
    }

    private static List<Finding> find(double[] x, double rate, Nature nature) {
        Examined examined = examined(x, rate, nature);
        return Tones.find(examined, new Measures(examined));
    }

    /** A tone of 100 has a power of 5000; hum is told from 2 % of all power on. */
    @ParameterizedTest
    @CsvSource({
        "256,10:100 50:14,,",
        "256,10:100 50:15,mains of 50 Hz makes 2 % of its power,notch:50@15",
        "256,10:100 60:15,mains of 60 Hz makes 2 % of its power,notch:60@15",
        "256,10:100 50:40 60:50,mains of 60 Hz makes 18 % of its power,notch:60@15",
        // Mains is off its frequency by no more than a quarter of a hertz and what two seconds tell apart.
        "256,10:100 50.5:40,mains of 50 Hz makes 14 % of its power,notch:50@15",
        "256,10:100 51:40,,",
        "256,10:100 49:40,,",
        "128,10:100 50.5:40,mains of 50 Hz makes 14 % of its power,notch:50@15",
        "128,10:100 51:40,,",
        // A harmonic is off by as many times as much.
        "512,10:100 101:40,mains of 50 Hz makes 14 % of its power,notch:50@15",
        "512,10:100 102:40,,",
        "1024,10:100 60:10 300:12,mains of 60 Hz makes 2 % of its power,notch:60@15",
        "1024,10:100 60:10 360:12,,",
        "1024,10:100 50:10 250:12,mains of 50 Hz makes 2 % of its power,notch:50@15",
        // A lamp flickers at twice the mains; what has only higher harmonics is none.
        "1024,10:100 120:40,mains of 60 Hz makes 14 % of its power,notch:60@15",
        "1024,10:100 150:40,,",
        "1024,10:100 180:40,,",
        // Where it is folded down: 64 less 50, 64 less 60, twice 64 less 100.
        "64,10:100 14:40,mains of 50 Hz aliased to 14.0 Hz makes 14 % of its power,notch:14@10",
        "64,10:100 4:40,mains of 60 Hz aliased to 4.0 Hz makes 14 % of its power,notch:4@10",
        "64,10:100 28:40,mains of 50 Hz aliased to 28.0 Hz makes 14 % of its power,notch:28@10",
        "64,10:100 22:40,,",
        // Too close to half the rate for a notch.
        "96,10:100 46:40,mains of 50 Hz aliased to 46.0 Hz makes 14 % of its power,''",
        "16,5:100 2:40,,"
    })
    void mainsIsToldByItsShare(double rate, String tones, String evidence, String recipe) {
        List<Finding> found = find(sum((int) (20 * rate), rate, tones), rate, Nature.LEVEL);
        assertThat(said(found)).isEqualTo(evidence == null ? "nothing" : "HUM: " + evidence);
        assertThat(found).allMatch(one -> one.recipe().equals(recipe));
    }

    /** Above 0.36 of the rate a tone may be aliased, if it has a twentieth of the power. */
    @ParameterizedTest
    @CsvSource({"92,40,", "93,22,", "93,24,163.0 or 349.0", "110,24,146.0 or 366.0"})
    void aToneCloseToHalfTheRateMayBeAliased(int hz, int high, String others) {
        List<Finding> found = find(sum(5120, 256, "10:100 " + hz + ":" + high), 256, Nature.LEVEL);
        assertThat(said(found))
                .isEqualTo(others == null ? "nothing" : "FOLDED: a tone at " + hz + ".0 Hz, close to half the rate");
        assertThat(found).allMatch(one -> one.cause().equals("it may be one at " + others + " Hz, aliased"));
    }

    @Test
    void hoursOfLoudWorkDoNotHideTheHumOfItsPauses() {
        // Quiet for the last three seconds of twenty.
        double[] loud = sum(5120, 256, "10:2000 50:40");
        double[] quiet = sum(5120, 256, "10:100 50:40");
        double[] x = made(5120, i -> i < 17 * 256 ? loud[i] : quiet[i]);
        assertThat(said(find(x, 256, Nature.LEVEL))).isEqualTo("HUM: mains of 50 Hz makes 14 % of its power");
        assertThat(find(x, 256, Nature.TONES)).isEmpty();
        assertThat(find(loud, 256, Nature.LEVEL)).isEmpty();
    }

    @Test
    void sixtyFourSamplesAreTheLeast() {
        assertThat(said(find(sum(64, 64, "14:100"), 64, Nature.LEVEL)))
                .startsWith("HUM")
                .contains("100 %");
        assertThat(find(sum(63, 64, "14:100"), 64, Nature.LEVEL)).isEmpty();
    }

    /** Sampled a quarter and three quarters of a turn from its crests, mains of 50 Hz takes two values, 1.41 of its amplitude apart. */
    @Test
    void whatIsLessThanAStepOfTheConverterIsNoHum() {
        double[] two = made(4000, i -> i % 4 < 2 ? 1 : -1);
        assertThat(said(find(two, 200, Nature.LEVEL))).isEqualTo("HUM: mains of 50 Hz makes 100 % of its power");
        double[] rarely = made(4000, i -> i % 1000 < 250 ? i % 4 < 2 ? 1 : 0 : 0);
        assertThat(find(rarely, 200, Nature.LEVEL)).isEmpty();
    }
}
