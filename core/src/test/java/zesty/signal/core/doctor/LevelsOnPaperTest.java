package zesty.signal.core.doctor;

import static org.assertj.core.api.Assertions.assertThat;
import static zesty.signal.core.doctor.Paper.made;
import static zesty.signal.core.doctor.Paper.said;

import java.util.Arrays;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What values themselves say, each side of its bounds, counted by hand. */
class LevelsOnPaperTest {
    private static Examined of(double[] values, double low, double high) {
        return new Examined(values, made(values.length, i -> i * 0.01), low, high, null, Map.of());
    }

    /** Ten triangles from 0 to a top, by ones, that stay so many samples at either end. */
    private static double[] triangles(int top, int atFoot, int atTop) {
        double[] one = Stream.of(
                        new double[atFoot],
                        made(top - 1, i -> i + 1),
                        made(atTop, i -> top),
                        made(top - 1, i -> top - 1 - i))
                .flatMapToDouble(Arrays::stream)
                .toArray();
        return made(10 * one.length, i -> one[i % one.length]);
    }

    @Test
    void whatStandsStillIsOffOrAtAnEnd() {
        double[] still = made(101, i -> 5);
        for (double[] ends : new double[][] {{0, 9}, {5, 9}, {0, 5}}) {
            Examined examined = of(still, ends[0], ends[1]);
            assertThat(said(Levels.flat(examined, new Measures(examined))))
                    .isEqualTo(
                            (ends[0] == 5 || ends[1] == 5 ? Diagnosis.AT_END : Diagnosis.FLAT) + ": always 5 for 1 s");
        }
        Examined moves = of(made(101, i -> i % 2), 0, 9);
        assertThat(Levels.flat(moves, new Measures(moves))).isNull();
    }

    @ParameterizedTest
    @CsvSource({
        "90,1023,nothing",
        "91,1023,'91 % of it is 1023, the converter''s end'",
        "91,0,'91 % of it is 0, the converter''s end'"
    })
    void mostOfItAtAnEnd(int many, double end, String evidence) {
        Examined examined = of(made(100, i -> i < many ? end : 500), 0, 1023);
        assertThat(said(Levels.atEnd(examined, new Measures(examined)))).endsWith(evidence);
    }

    /** Beside an end each value comes 20 times: what is no end of the converter is cut off where more than six times as many stay there. */
    @ParameterizedTest
    @CsvSource({
        "50,1,12,,nothing",
        "50,1,13,,11.6 % is cut off at 50",
        "50,13,1,,11.6 % is cut off at 0",
        "50,13,13,,21.0 % is cut off at 0 and 50",
        "50,1,2,50,nothing",
        "50,1,3,50,2.9 % is cut off at 50",
        "75,1,3,75,nothing"
    })
    void whatStaysAtItsCrestsIsCutOff(int top, int atFoot, int atTop, Double high, String evidence) {
        Examined examined = of(triangles(top, atFoot, atTop), Double.NaN, high == null ? Double.NaN : high);
        assertThat(said(Levels.clipped(examined, new Measures(examined)))).endsWith(evidence);
    }

    @ParameterizedTest
    @CsvSource({"5,nothing", "6,nothing", "7,3.5 % is cut off at 194"})
    void aRampThatEndsIsCutOffWhereItStays(int atTop, String evidence) {
        Examined examined = of(made(194 + atTop, i -> Math.min(i, 194)), Double.NaN, Double.NaN);
        assertThat(said(Levels.clipped(examined, new Measures(examined)))).endsWith(evidence);
    }

    @ParameterizedTest
    @CsvSource({
        "40,5,4,false",
        "41,5,4,true",
        "200,4,3,false",
        "200,14,13,true",
        "200,15,14,false",
        "200,5,16,true",
        "200,5,17,false"
    })
    void fewStepsOfTheConverterAreFewBits(int count, int kinds, int last, boolean few) {
        Examined examined = of(made(count, i -> i % kinds == kinds - 1 ? last : i % kinds), Double.NaN, Double.NaN);
        assertThat(said(Levels.fewBits(examined, new Measures(examined))))
                .isEqualTo(
                        few
                                ? Diagnosis.FEW_BITS + ": it moves over " + kinds + " of the converter's steps"
                                : "nothing");
    }
}
