package zesty.signal.core.read.orders;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.sample.TimeBase;

/** Turns between marks, and orders of signals that are known on paper. */
class TurnsTest {
    /** A mark that rises over two samples, its middle at each of the moments, in samples. */
    private static double[] marks(int n, double... moments) {
        double[] mark = new double[n];
        for (double moment : moments) {
            for (int i = (int) Math.floor(moment) - 1; i < moment + 6 && i < n; i++) {
                mark[i] = Math.max(mark[i], i > moment + 4 ? 0 : Math.max(0, Math.min(1, (i - moment) / 2 + 0.5)));
            }
        }
        return mark;
    }

    private static Turns turns(double[] mark, int perTurn) {
        double[] seconds = new double[mark.length];
        Arrays.setAll(seconds, i -> i * 1e-3);
        return Turns.of(mark, seconds, perTurn);
    }

    private static double[] begins(Turns turns) {
        return turns.whole().stream().mapToDouble(one -> one[0]).toArray();
    }

    @Test
    void edgesAreFoundBetweenSamplesAndTurnsGoFromMarkToMark() {
        double[] moments = {20.25, 60.5, 101.75, 141.0, 182.25};
        Turns turns = turns(marks(220, moments), 1);
        assertThat(turns.bounced() + turns.skipped()).isZero();
        assertThat(turns.whole()).hasSize(4);
        for (int k = 0; k < 4; k++) {
            assertThat(turns.whole().get(k)[0]).isCloseTo(moments[k], within(1e-9));
            assertThat(turns.whole().get(k)[1]).isCloseTo(moments[k + 1], within(1e-9));
        }
        // Two marks a turn: every second one begins one.
        assertThat(begins(turns(marks(220, moments), 2))).hasSize(2);
    }

    @Test
    void aBounceIsLeftOutAndATurnWithoutItsMarkIsNoTurn() {
        List<Double> moments = new ArrayList<>();
        for (int k = 0; k < 20; k++) {
            moments.add(20.0 + 40 * k);
        }
        moments.add(20 + 40 * 7 + 12.0);
        moments.remove(Double.valueOf(20.0 + 40 * 13));
        moments.sort(null);
        Turns turns = turns(marks(900, moments.stream().mapToDouble(one -> one).toArray()), 1);
        assertThat(turns.bounced()).isEqualTo(1);
        assertThat(turns.skipped()).isEqualTo(1);
        assertThat(turns.whole()).hasSize(17).allMatch(one -> Math.abs(one[1] - one[0] - 40) < 1e-9);
        assertThat(turns(new double[100], 1).whole()).isEmpty();
        assertThat(turns(new double[0], 1).whole()).isEmpty();
    }

    private static Reading read(double rate, Map<String, String> set, double[]... ports) {
        return read(rate, new TimeBase.Steady(0, 1 / rate), set, ports);
    }

    private static Reading read(double rate, TimeBase time, Map<String, String> set, double[]... ports) {
        Orders kind = new Orders();
        Reader reader = kind.reader(Settings.of(kind, set), rate);
        reader.accept(ports, ports[0].length, time);
        reader.finish();
        return reader.reading();
    }

    /** A cosine of each order, with its crest so far after the mark, at a number of samples a turn that is no whole one. */
    @ParameterizedTest
    @CsvSource({"1,0.7,30", "2,1.3,200", "3,0.2,355", "5,2.5,90"})
    void amplitudeAndPhaseOfAnOrderAreThoseThatWereDrawn(int order, double amplitude, double degrees) {
        double perTurn = 81.3;
        int n = 6000;
        double[] x = new double[n];
        double[] mark = new double[n];
        for (int i = 0; i < n; i++) {
            double turns = (i - 11.4) / perTurn;
            x[i] = 3 + amplitude * Math.cos(2 * Math.PI * order * turns - Math.toRadians(degrees));
            double since = (turns - Math.floor(turns)) * perTurn;
            double before = perTurn - since;
            // A flank of four samples about the mark, so that its moment is known between samples.
            mark[i] = since < 2 ? 0.5 + since / 4 : before < 2 ? 0.5 - before / 4 : since < 12 ? 1 : 0;
        }
        Reading reading = read(1000, Map.of(), x, mark);
        double[] told = reading.records("orders").get(order - 1);
        assertThat(told[2]).isCloseTo(amplitude, within(0.01 * amplitude));
        assertThat(told[4]).isCloseTo(degrees, within(0.5));
        assertThat(reading.scalar("turning_hz")).isCloseTo(1000 / perTurn, within(1e-6));
        assertThat(reading.scalar("strongest")).isEqualTo(order);
        assertThat(reading.scalar("with_turning")).isCloseTo(100, within(1.0));
        assertThat(reading.quality().share()).isEqualTo(1);
        // With three marks a turn set, it turns a third as fast and the order is three times as high.
        Reading third = read(1000, Map.of("marks", "3", "highest", "16"), x, mark);
        assertThat(third.scalar("turning_hz")).isCloseTo(1000 / perTurn / 3, within(1e-6));
        assertThat(third.scalar("strongest")).isEqualTo(3.0 * order);
    }

    /** A loop whose turns last now longer and now shorter tells the shaft by the times of its rows. */
    @Test
    void unevenSamplesTellTheSameTurns() {
        Random random = new Random(2);
        int n = 8000;
        double[] seconds = new double[n];
        double[] x = new double[n];
        double[] mark = new double[n];
        for (int i = 0; i < n; i++) {
            seconds[i] = i == 0 ? 0 : seconds[i - 1] + (i < 3000 ? 1e-3 : 1.4e-3) * (0.7 + 0.6 * random.nextDouble());
            double turns = 12.3 * seconds[i] + 0.1;
            x[i] = 3 + 0.7 * Math.cos(2 * Math.PI * 2 * turns - Math.toRadians(40));
            double since = turns - Math.floor(turns);
            mark[i] = since < 0.03 ? 0.5 + since / 0.06 : since > 0.97 ? 0.5 - (1 - since) / 0.06 : since < 0.2 ? 1 : 0;
        }
        Reading reading = read(1000, new TimeBase.Explicit(seconds), Map.of(), x, mark);
        assertThat(reading.scalar("turning_hz")).isCloseTo(12.3, within(0.005));
        assertThat(reading.scalar("unsteady_percent")).isLessThan(0.2);
        double[] told = reading.records("orders").get(1);
        assertThat(told[2]).isCloseTo(0.7, within(0.01));
        assertThat(told[4]).isCloseTo(40, within(1.0));
        assertThat(reading.scalar("with_turning")).isGreaterThan(97);
        assertThat(reading.quality().share()).isEqualTo(1);
    }

    /** Of slow samples only so many orders can be told, and that is said. */
    @Test
    void ordersBeyondTheRateAreNotTold() {
        double[] x = new double[3000];
        double[] mark = new double[3000];
        Arrays.setAll(x, i -> Math.cos(2 * Math.PI * i / 20.0));
        Arrays.setAll(mark, i -> i % 20 < 3 ? 1 : 0);
        Reading reading = read(200, Map.of(), x, mark);
        assertThat(reading.records("orders")).hasSize(4);
        assertThat(String.join(" ", reading.working())).contains("Orders above 4 need more than 200 samples/s");
        assertThatThrownBy(() -> read(200, Map.of("marks", "1.5"), x, mark))
                .isInstanceOf(ReaderException.class)
                .hasMessageContaining("marks takes a whole number, was 1.5");
        assertThatThrownBy(() -> read(5, Map.of(), x, mark)).hasMessageContaining("orders need 20 samples/s");
    }
}
