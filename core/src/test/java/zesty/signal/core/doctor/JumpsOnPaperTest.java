package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.course;
import static zesty.signal.core.doctor.Paper.examined;
import static zesty.signal.core.doctor.Paper.made;
import static zesty.signal.core.doctor.Paper.said;

import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Nature;

/** Leaps, steps and times on a grid of 1/64 s, each side of their bounds, counted by hand. */
class JumpsOnPaperTest {
    private static final double RATE = 64;

    /** @param periods from one sample to the next, in periods of the grid */
    private static Examined timed(double[] values, double[] periods) {
        double[] seconds = new double[values.length];
        for (int i = 1; i < seconds.length; i++) {
            seconds[i] = seconds[i - 1] + periods[i] / RATE;
        }
        return new Examined(values, seconds, Double.NaN, Double.NaN, Nature.LEVEL, Map.of());
    }

    /** What is missing, and what came so much later than its neighbours that rows lie between. */
    @ParameterizedTest
    @CsvSource({
        "749,3,'',3 of 749",
        "750,3,'',nothing",
        "100,2,'',nothing",
        "100,0,50:4,3 of 103",
        "100,2,50:1.75,3 of 101",
        "100,2,50:1.5,nothing",
        "100,2,50:1.6875 51:1.25,nothing",
        "100,2,50:1.75 51:0.25,nothing",
        "100,2,50:1.75 51:0.84375,nothing",
        "100,2,50:1.75 51:0.875,3 of 101",
        "100,2,49:0.84375 50:1.75,nothing",
        "100,2,1:1.75 2:0.84375,nothing",
        "100,2,1:1.75 2:0.875,3 of 101",
        "100,2,98:0.84375 99:1.75,nothing",
        "100,2,98:0.875 99:1.75,3 of 101"
    })
    void rowsThatAreLostAreCounted(int count, int missing, String late, String evidence) {
        double[] values = made(count, i -> i % 10 == 5 && i < 10 * missing ? Double.NaN : 0);
        double[] periods = made(count, i -> 1);
        for (String one : late.isEmpty() ? new String[0] : late.split(" ")) {
            periods[Integer.parseInt(one.split(":")[0])] = Double.parseDouble(one.split(":")[1]);
        }
        Examined examined = timed(values, periods);
        assertThat(said(Jumps.dropouts(examined, new Measures(examined))))
                .isEqualTo(evidence.equals("nothing") ? evidence : "DROPOUTS: " + evidence + " samples are missing");
    }

    /** The smallest change is 1: a spike goes farther than 6, and comes back for all but a third. */
    @ParameterizedTest
    @CsvSource({
        "20:7 21:0 40:7 41:0 60:7 61:0,3 spikes: single samples jump to 7 and back",
        "20:-7 21:0 40:-7 41:0 60:-7 61:0,3 spikes: single samples jump to \u22127 and back",
        "20:6 21:0 40:6 41:0 60:6 61:0,nothing",
        "20:7 21:0 40:7 41:0,nothing",
        "20:7 21:0 40:7 41:0 60:8 61:0,3 spikes: single samples jump and back",
        "20:7 22:0 40:7 42:0 60:7 62:0,nothing",
        "20:9 21:2 22:0 40:9 41:0 60:9 61:0,3 spikes: single samples jump to 9 and back",
        "20:9 21:3 22:0 40:9 41:0 60:9 61:0,nothing",
        "10:4 11:0 20:9 21:0 40:9 41:0 60:9 61:0,3 spikes: single samples jump to 9 and back",
        "11:4 12:0 20:9 21:0 40:9 41:0 60:9 61:0,nothing",
        "20:9 21:0 27:4 28:0 40:9 41:0 60:9 61:0,nothing",
        "20:9 21:0 28:4 29:0 40:9 41:0 60:9 61:0,3 spikes: single samples jump to 9 and back",
        "1:8 2:0 50:8 51:0 98:8 99:0,3 spikes: single samples jump to 8 and back",
        "1:8 2:0 50:8 51:0 99:8,nothing"
    })
    void singleSamplesThatLeapAndComeBackAreSpikes(String levels, String evidence) {
        double[] x = course(100, levels);
        x[0] = 1;
        Examined examined = examined(x, RATE, Nature.LEVEL);
        Finding finding = Jumps.dropouts(examined, new Measures(examined));
        assertThat(said(finding)).isEqualTo(evidence.equals("nothing") ? evidence : "DROPOUTS: " + evidence);
        if (finding != null) {
            assertThat(finding.cause()).startsWith(evidence.contains(" to ") ? "readings that failed" : "sparks");
        }
    }

    @ParameterizedTest
    @CsvSource({"109,nothing", "110,DROPOUTS: 11 spikes: single samples jump to 7 and back"})
    void spikesInMoreThanATenthAreTheSignal(int count, String evidence) {
        double[] x = made(count, i -> i % 10 == 5 ? 7 : 0);
        x[0] = 1;
        Examined examined = examined(x, RATE, Nature.LEVEL);
        assertThat(said(Jumps.dropouts(examined, new Measures(examined)))).isEqualTo(evidence);
    }

    /** Of four times each, over and over, in periods: their standard deviation, by hand. */
    @ParameterizedTest
    @CsvSource({"1,1.21875,1,0.78125,15", "1,1.203125,1,0.796875,", "1,1,1,1.6875,25", "1,1,1,1.75,", "1,1,1.5,1.5,20"})
    void timesThatComeUnevenlyAreTold(double a, double b, double c, double d, String percent) {
        double[] four = {a, b, c, d};
        Examined examined = timed(new double[4001], made(4001, i -> four[i % 4]));
        assertThat(said(Jumps.uneven(examined, new Measures(examined))))
                .isEqualTo(
                        percent == null
                                ? "nothing"
                                : "UNEVEN: the time from sample to sample differs by " + percent + " %");
    }

    /** So many levels that a switch has fewer; the smallest change of them is 1, so that a leap goes farther than 9. */
    private static double[] stepped(int count, String levels) {
        double[] x = course(count, levels);
        for (int i = 0; i < 5; i++) {
            x[330 + i] += i;
        }
        return x;
    }

    private static String shifts(double[] x, double rateHz, Nature nature) {
        Examined examined = examined(x, rateHz, nature);
        return said(Jumps.shifts(examined, new Measures(examined)));
    }

    @ParameterizedTest
    @CsvSource({
        // Three times ten up or down.
        "100:10 250:0 500:10,3",
        "100:9 250:0 500:9,",
        "100:10 250:0,",
        // What is up for less than a sixth of the time lies far outside what the signal moves by: twice is enough.
        "240:30 280:0,2",
        // It must stay: fall back by three of ten it may, by four not.
        "100:10 110:7 200:17 210:14 400:24 410:21,3",
        "100:10 110:6 200:16 210:12 400:22 410:18,",
        // And at once: ten of the sixteen that it goes in all, not ten of seventeen.
        "100:10 108:16 200:26 208:32 400:42 408:48,3",
        "100:10 108:17 200:27 208:34 400:44 408:51,",
        // Four times what it moves by before and after.
        "100:10 250:0 473:7 483:0 500:10,3",
        "100:10 250:0 473:8 483:0 500:10,",
        "100:10 250:0 500:10 515:3 525:10,3",
        "100:10 250:0 500:10 515:2 525:10,",
        // With 13 samples to see on either side.
        "14:10 200:0 626:10,3",
        "13:10 200:0 626:10,",
        "14:10 200:0 627:10,",
        // Five like a clock's are made so; four may be chance.
        "100:10 200:0 300:10 400:0,4",
        "100:10 200:0 300:10 400:0 500:10,",
        "100:10 188:0 288:10 388:0 500:10,",
        "100:10 188:0 288:10 388:0 501:10,5"
    })
    void levelsThatLeapAndStayAreALooseContact(String levels, Integer leaps) {
        assertThat(shifts(stepped(640, levels), RATE, Nature.LEVEL))
                .isEqualTo(leaps == null ? "nothing" : "LOOSE: the level leaps " + leaps + " times in 10 s");
    }

    @ParameterizedTest
    @CsvSource({
        "64,100:10 250:0 500:10,nothing",
        "64,240:30 280:0,LOOSE: the level leaps 2 times in 10 s",
        "32,240:30 280:0,LOOSE: the level leaps 2 times in 20 s",
        "16,240:30 280:0,nothing"
    })
    void whatLeapsByItselfIsLooseOnlyIfItGoesFar(double rate, String levels, String said) {
        assertThat(shifts(stepped(640, levels), rate, Nature.NOISE_THAT_LEAPS)).isEqualTo(said);
    }

    /** Eight leaps that come back to one that stays, counted with it. */
    @ParameterizedTest
    @CsvSource({"14,LOOSE: the level leaps 2 times in 10 s", "15,nothing"})
    void whatMostlyComesBackIsTheSignal(int back, String said) {
        double[] x = stepped(640, "500:30 540:0");
        for (int k = 0; k < back; k++) {
            x[10 + 18 * k] = 10;
        }
        assertThat(shifts(x, RATE, Nature.LEVEL)).isEqualTo(said);
    }

    /** A step of ten with a swing past either level by more than a quarter of it, within a quarter of a second. */
    @ParameterizedTest
    @CsvSource({
        "400:10,false",
        "400:10 405:12 407:10,false",
        "400:10 405:13 407:10,true",
        "400:10 415:13 416:10,true",
        "400:10 416:13 417:10,false",
        "395:-2 397:0 400:10,false",
        "395:-3 397:0 400:10,true",
        "385:-3 386:0 400:10,true",
        "384:-3 385:0 400:10,false",
        "400:10 405:13 407:10 425:13 426:10,true",
        "400:10 405:13 407:10 426:13 427:10,false",
        "382:-3 383:0 395:-3 397:0 400:10,true",
        "383:-3 384:0 395:-3 397:0 400:10,false"
    })
    void aStepIsAFaultOnlyWithAKnock(String levels, boolean told) {
        double[] x = stepped(640, levels);
        assertThat(shifts(x, RATE, Nature.LEVEL))
                .isEqualTo(told ? "STEPPED: the level leaps by 10 3.7 s before the end" : "nothing");
        assertThat(shifts(x, RATE, Nature.NOISE_THAT_LEAPS)).isEqualTo("nothing");
    }

    @ParameterizedTest
    @CsvSource({"78,2,true", "77,2,false", "78,1,false"})
    void aStepNeedsTimeAndMoreThanASwitchsValues(int count, int kinds, boolean told) {
        // Beside 0, 10 and 13.
        double[] x = course(count, "40:10 45:13 47:10");
        for (int i = 0; i < kinds; i++) {
            x[5 + i] = i + 1;
        }
        assertThat(shifts(x, RATE, Nature.LEVEL))
                .isEqualTo(told ? "STEPPED: the level leaps by 10 0.6 s before the end" : "nothing");
    }
}
