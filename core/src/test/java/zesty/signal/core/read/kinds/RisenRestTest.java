package zesty.signal.core.read.kinds;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** A muscle that does not come back to its rest after a pull: those that follow are found, and the doubt is said. */
class RisenRestTest {
    private static final double RATE = 1000;
    private static final double[][] PULLS = {{8, 10}, {11.5, 13.5}, {20, 23}, {24.5, 27}, {35, 38}, {39.6, 42}, {50, 53}
    };

    @ParameterizedTest
    @CsvSource({"1,1,0.95", "2,2.4,0.6", "3,2,0.6", "4,3,0.6"})
    void pullsAreFoundThoughTheRestRises(long seed, double risen, double quality) {
        Random random = new Random(seed);
        double[] x = new double[(int) (60 * RATE)];
        for (int i = 0; i < x.length; i++) {
            double t = i / RATE;
            // Between the third pull and the fourth the muscle stays tense.
            double loud = t > 23.5 ? risen : 1;
            for (double[] pull : PULLS) {
                loud = t >= pull[0] && t < pull[1] ? 10 : loud;
            }
            x[i] = Math.rint(2048 + 10 * loud * random.nextGaussian());
        }
        ReaderKind kind = ReaderKinds.of("muscle");
        Reader reader = kind.reader(Settings.of(kind, Map.of("kind", "raw")), RATE);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / RATE));
        reader.finish();
        Reading reading = reader.reading();
        List<Event> pulls = reading.events("bursts");
        assertThat(pulls).hasSize(PULLS.length);
        for (int i = 0; i < PULLS.length; i++) {
            assertThat(pulls.get(i).startSeconds()).isCloseTo(PULLS[i][0], within(0.05));
            assertThat(pulls.get(i).endSeconds()).isCloseTo(PULLS[i][1], within(0.2));
        }
        assertThat(reading.quality().share()).isCloseTo(quality, within(0.06));
    }
}
