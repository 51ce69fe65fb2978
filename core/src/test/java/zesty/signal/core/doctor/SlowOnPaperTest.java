package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.examined;
import static zesty.signal.core.doctor.Paper.made;
import static zesty.signal.core.doctor.Paper.said;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Nature;

/** Slow courses with one quick move on them, ten seconds at 64 a second; each side of a bound. */
class SlowOnPaperTest {
    private static final int COUNT = 641;
    /** On a level, and noise by itself, so that only what is slow is told. */
    private static final Nature SLOW = new Nature(true, true, false, false);

    private static List<Finding> find(double[] x, double rate, Nature nature) {
        Examined examined = examined(x, rate, nature);
        return Slow.find(examined, new Measures(examined));
    }

    /** To and fro by one from sample to sample, on a slope: a drift goes farther than three and a half times that. */
    @ParameterizedTest
    @CsvSource({
        "64,3.4,nothing",
        "64,3.6,'DRIFT: the level moves by 22 a minute, 4 times what the signal moves by'",
        "64,-3.6,'DRIFT: the level moves by \u221222 a minute, 4 times what the signal moves by'",
        "16,36,nothing"
    })
    void aLevelDriftsByItsSlope(double rate, double rise, String said) {
        double[] x = made(COUNT, i -> rise * i / (COUNT - 1) + (i % 2 == 0 ? 1 : -1));
        assertThat(said(find(x, rate, SLOW))).isEqualTo(said);
        assertThat(find(x, rate, Nature.NOISE)).isEmpty();
    }

    /** A stair of so many steps of one: its line rises by about as much. */
    @ParameterizedTest
    @CsvSource({"11,nothing", "13,highpass:0.3@2"})
    void aDriftGoesFartherThanTwelveSteps(int steps, String recipe) {
        List<Finding> found = find(made(COUNT, i -> i * (steps + 1) / COUNT), 64, SLOW);
        assertThat(found.isEmpty() ? "nothing" : found.get(0).recipe()).isEqualTo(recipe);
    }

    /** Two turns of 0.2 Hz: the mean over 1.1 s leaves 92 % of it, seven tenths of which is its deviation. */
    @ParameterizedTest
    @CsvSource({
        "1,1.4,nothing",
        "1,1.7,WANDER: the level wanders 1.1 times as far as the beats move it",
        "1,6,'WANDER: the level wanders 3.8 times as far as the beats move it'"
    })
    void aLevelWandersByWhatIsLeftOfIts(double quick, double slow, String said) {
        double[] x =
                made(COUNT, i -> slow * Math.cos(2 * Math.PI * 2 * i / (COUNT - 1)) + (i % 2 == 0 ? quick : -quick));
        assertThat(said(find(x, 64, SLOW)).replaceAll("3\\.[5-9] times", "3.8 times"))
                .isEqualTo(said);
    }

    @ParameterizedTest
    @CsvSource({"8,nothing", "11,highpass:0.5@2"})
    void aWanderGoesFartherThanSixSteps(int high, String recipe) {
        List<Finding> found =
                find(made(COUNT, i -> Math.rint(high * Math.cos(2 * Math.PI * 2 * i / (COUNT - 1)))), 64, SLOW);
        assertThat(found.isEmpty() ? "nothing" : found.get(0).recipe()).isEqualTo(recipe);
    }

    /**
     * To and fro by one has second differences of four, which is noise of 2.42; of what moves by one and a half of eight levels
     * apart that is less than 0.3. Its own steps are two; a value between makes them smaller.
     */
    @ParameterizedTest
    @CsvSource({
        "7,1.2,'NOISE: of one sample it is 2.4, 30 % of what the signal moves by'",
        "8,1.2,nothing",
        "7,0,nothing"
    })
    void noiseIsToldByWhatTheSignalMovesBy(int far, double between, String said) {
        double[] x = made(COUNT, i -> (i < 320 ? far : -far) + (i % 2 == 0 ? 1 : -1));
        x[1] += between;
        List<Finding> found = find(x, 64, Nature.LEVEL);
        assertThat(said(found)).isEqualTo(said);
        assertThat(found).allMatch(one -> one.recipe().equals("lowpass:3@2"));
        assertThat(find(x, 64, Nature.NOISE)).isEmpty();
    }
}
