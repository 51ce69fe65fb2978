package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.course;
import static zesty.signal.core.doctor.Paper.made;
import static zesty.signal.core.doctor.Paper.said;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Nature;

/** A signal that goes to and fro by one, and by more while something is on; in blocks of six samples, a tenth of a second. */
class InStepOnPaperTest {
    private static final double RATE = 64;

    private static String find(double[] x, Map<String, double[]> others) {
        Examined examined =
                new Examined(x, made(x.length, i -> i / RATE), Double.NaN, Double.NaN, Nature.LEVEL, others);
        return said(InStep.find(examined, new Measures(examined)));
    }

    private static double[] toAndFro(double[] how) {
        return made(how.length, i -> i % 2 == 0 ? how[i] : -how[i]);
    }

    @ParameterizedTest
    @CsvSource({
        // Off and on twice each, ten blocks each time.
        "240,60:1 120:0 180:1,1.5,true",
        "240,60:1 120:0 180:1,1.4,false",
        "240,60:1 120:0,1.5,false",
        "240,0:1 60:0 120:1,1.5,false",
        // Thirty blocks are the least, of four each stretch.
        "180,48:1 90:0 132:1,1.5,true",
        "179,48:1 90:0 132:1,1.5,false",
        "240,60:1 84:0 144:1,1.5,true",
        "240,60:1 78:0 138:1,1.5,false",
        // What changes in a fiftieth of the samples is not switched.
        "204,48:1 90:0 132:1 174:0,1.5,true",
        "198,48:1 90:0 132:1 174:0,1.5,false",
        // A duty is on above a fifth of its greatest.
        "240,60:13 120:0 180:60,1.5,true",
        "240,60:11 120:0 180:60,1.5,false"
    })
    void noiseGrowsWhileItIsOn(int count, String on, double times, boolean told) {
        double[] duty = course(count, on);
        double[] x = toAndFro(made(count, i -> duty[i] > 0 ? times : 1));
        assertThat(find(x, Map.of("winch", duty)))
                .isEqualTo(told ? "IN_STEP: its noise grows 1.5 times whenever winch is on" : "nothing");
    }

    /** The quietest tenth of a stretch counts: what is loud by itself meanwhile says nothing. */
    @Test
    void aSignalMayBeLoudByItself() {
        double[] duty = course(480, "120:1 240:0 360:1");
        double[] loud = toAndFro(made(480, i -> i % 120 < 90 ? 9 : duty[i] > 0 ? 2 : 1));
        assertThat(find(loud, Map.of("winch", duty))).startsWith("IN_STEP: its noise grows 1.9 times");
        double[] once = toAndFro(made(480, i -> i >= 420 && i < 450 ? 1 : duty[i] > 0 ? 2 : 1));
        assertThat(find(once, Map.of("winch", duty))).isEqualTo("nothing");
    }

    @Test
    void ofTwoThatAreSwitchedTheOneThatMakesMoreNoiseIsNamed() {
        double[] duty = course(480, "60:1 120:0 300:1 360:0");
        double[] lamp = course(480, "60:1 120:0 240:1 360:0");
        double[] x = toAndFro(made(480, i -> duty[i] > 0 ? 3 : lamp[i] > 0 ? 2 : 1));
        assertThat(find(x, Map.of("winch", duty, "lamp", lamp)))
                .startsWith("IN_STEP")
                .contains("winch");
        assertThat(find(x, Map.of("lamp", lamp))).contains("lamp");
    }
}
