package zesty.signal.boards.sim;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.sample.TimeBase;

/** The muscle reader against a forearm that was written without regard to it, in every mode of the simulated boards. */
class MuscleTruthTest {
    private static Set<MuscleMode> modes(String words) {
        Set<MuscleMode> modes = EnumSet.noneOf(MuscleMode.class);
        for (String word : words.split("\\+")) {
            if (!word.equals("plain")) {
                modes.add(MuscleMode.valueOf(word.toUpperCase(Locale.ROOT)));
            }
        }
        return modes;
    }

    /** Two bounds of an onset, in s: its median and its 90th percentile; and which share may be missed, or invented. */
    @ParameterizedTest(name = "{0} at {1}/s")
    @CsvSource({
        "plain, 1000, 0.02, 0.05, 0",
        "plain, 500, 0.02, 0.05, 0",
        "hum, 1000, 0.02, 0.05, 0",
        "heart, 1000, 0.02, 0.05, 0.02",
        "elbow, 1000, 0.02, 0.05, 0.02",
        "weak, 1000, 0.04, 0.09, 0.03",
        "wrist, 1000, 0.04, 0.09, 0.03",
        "cut, 1000, 0.02, 0.05, 0",
        "tires, 1000, 0.02, 0.05, 0"
    })
    void pullsOfFourSeedsAreFoundAndNoneIsInvented(
            String words, double rate, double median, double ninetieth, double share) {
        List<Double> off = new ArrayList<>();
        int all = 0;
        int missed = 0;
        int invented = 0;
        for (int seed = 1; seed <= 4; seed++) {
            MuscleSignal muscle = new MuscleSignal(seed, rate, modes(words));
            double[] x = new double[(int) (60 * rate)];
            for (int i = 0; i < x.length; i++) {
                double value = Math.rint(muscle.next());
                x[i] = words.equals("cut") ? Math.max(-45_000, Math.min(45_000, value)) : value;
            }
            List<Event> found = new ArrayList<>(read(rate, Map.of(), x).events("bursts"));
            for (MuscleSignal.Pull pull : muscle.pulls()) {
                if (pull.toSeconds() > 59) {
                    found.removeIf(e -> e.endSeconds() > pull.fromSeconds());
                    continue;
                }
                all++;
                List<Event> here = found.stream()
                        .filter(e -> e.startSeconds() < pull.toSeconds() && e.endSeconds() > pull.fromSeconds())
                        .toList();
                missed += here.isEmpty() ? 1 : 0;
                invented += Math.max(0, here.size() - 1);
                found.removeAll(here);
                if (!here.isEmpty()) {
                    // The first units fire within 30 ms; their shapes begin some ms after that.
                    off.add(Math.abs(here.get(0).startSeconds() - pull.fromSeconds()));
                }
            }
            invented += found.size();
        }
        double[] sorted = off.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        assertThat(all).isGreaterThan(20);
        assertThat((double) missed / all).as("missed of %d", all).isLessThanOrEqualTo(share);
        assertThat((double) invented / all).as("invented beside %d", all).isLessThanOrEqualTo(share);
        assertThat(sorted[sorted.length / 2]).isLessThan(median);
        assertThat(sorted[sorted.length * 9 / 10]).isLessThan(ninetieth);
    }

    private static Reading read(double rate, Map<String, String> set, double[] x) {
        ReaderKind kind = ReaderKinds.of("muscle");
        Reader reader = kind.reader(Settings.of(kind, set), rate);
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / rate));
        reader.finish();
        return reader.reading();
    }
}
