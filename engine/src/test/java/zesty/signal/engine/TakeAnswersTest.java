package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.boards.sim.MuscleSignal;
import zesty.signal.boards.sim.MuscleSignal.Pull;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** What is said of takes beside their readings: phases, setups that differ, main numbers, events counted by themselves. */
class TakeAnswersTest {
    @TempDir
    Path folder;

    private static Rig rig(String column) {
        return Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, column, List.of(new Column(column, "counts")), null));
    }

    private Path write(String name, Rig rig, double[] values, double rateHz, Mark... marks) throws TakeException {
        Path file = folder.resolve(name + ".zest");
        try (TakeWriter writer = TakeWriter.create(file, name, rig, Instant.EPOCH)) {
            writer.append(
                    new Block(new TimeBase.Steady(0, 1 / rateHz), new double[][] {values}, values.length, List.of()));
            for (Mark mark : marks) {
                writer.mark(mark);
            }
            writer.finish();
        }
        return file;
    }

    /** A forearm that rests, pulls hard once, then three times half as hard; the model knows nothing of the reader. */
    private static double[] forearm() {
        MuscleSignal muscle = MuscleSignal.planned(
                7,
                1000,
                Set.of(),
                List.of(new Pull(6, 9, 1), new Pull(14, 16, 0.5), new Pull(18, 20, 0.5), new Pull(22, 24, 0.5)));
        double[] values = new double[28_000];
        for (int i = 0; i < values.length; i++) {
            values[i] = Math.rint(1200 + muscle.next());
        }
        return values;
    }

    private static double rms(int from, int to) {
        double[] values = forearm();
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += (values[i] - 1200) * (values[i] - 1200);
        }
        return Math.sqrt(sum / (to - from));
    }

    private static List<String> column(Report.Table table, String head) {
        int at = table.head().indexOf(head);
        assertThat(at).as("%s in %s", head, table.head()).isNotNegative();
        return table.rows().stream().map(row -> row.get(at)).toList();
    }

    @Test
    void aPhaseOfPullsIsReadAgainstTheRestOfTheWholeTake() throws Exception {
        Rig rig = rig("arm").withReader(new ReaderSetup("muscle", List.of("arm"), Map.of("rest", "1..5")));
        Path file = write(
                "arm",
                rig,
                forearm(),
                1000,
                new Mark(1, 5, "rest"),
                new Mark(6, 9, "hardest"),
                new Mark(13, 25, "three"));
        try (Take take = Take.open(file)) {
            Report.Table table = PhaseTables.of(take).get(0);
            assertThat(column(table, "phase")).containsExactly("rest", "hardest", "three", "all");
            assertThat(column(table, "bursts")).containsExactly("0", "1", "3", "4");
            List<Double> busy = column(table, "share of the time").stream()
                    .map(Double::parseDouble)
                    .toList();
            assertThat(busy.get(0)).isZero();
            assertThat(busy.get(1)).isGreaterThan(0.95);
            assertThat(busy.get(2)).isCloseTo(0.5, within(0.04));
            // What compares with a rest that lies elsewhere is not said of a part.
            assertThat(table.head()).doesNotContain("signal over noise", "rest", "effort now");
            List<Double> heights = column(table, "mean height").stream()
                    .filter(one -> !one.equals("none"))
                    .map(one -> Double.parseDouble(one.split(" ")[0]))
                    .toList();
            // As high against each other as their root mean squares, worked out here from the samples.
            double ratio = rms(14_100, 15_900) / rms(6100, 8900);
            assertThat(heights.get(1) / heights.get(0) / ratio).isCloseTo(1, within(0.15));
        }
    }

    @Test
    void withoutSpansThereIsNoTableAndWhatCannotBeReadSaysWhy() throws Exception {
        Rig rig = rig("arm").withReader(new ReaderSetup("muscle", List.of("arm"), Map.of("kind", "raw")));
        Path plain = write("plain", rig, forearm(), 1000, new Mark(3, "gust"));
        Path slow = write("slow", rig, new double[500], 50, new Mark(1, 5, "rest"));
        try (Take take = Take.open(plain)) {
            assertThat(PhaseTables.of(take)).isEmpty();
        }
        try (Take take = Take.open(slow)) {
            Report.Table table = PhaseTables.of(take).get(0);
            assertThat(table.rows().get(0).get(1)).contains("a raw muscle signal needs");
        }
    }

    @Test
    void whatDiffersBetweenSetupsIsSaidAndWhatDoesNotIsNot() throws Exception {
        Rig rig = rig("pull").withReader(new ReaderSetup("level", List.of("pull"), Map.of()));
        double[] values = new Random(1).doubles(2000, 0, 100).toArray();
        Path a = write("a", rig, values, 100);
        Path b = write("b", rig, values, 100);
        Path c = write(
                "c",
                rig.withName("Tern")
                        .withChannel("pull", one -> one.withRecipe(Recipe.parse("mean:5"))
                                .withScaling(new Scaling(null, 2, 1, "kg")))
                        .withReader(new ReaderSetup("level", List.of("pull"), Map.of("hysteresis", "3"))),
                values,
                200);
        assertThat(SetupDifferences.of(List.of(a, b))).isEmpty();
        List<String> differ = SetupDifferences.of(List.of(a, b, c));
        assertThat(differ)
                .contains(
                        "Rig: Wren in A and B, Tern in C",
                        "Samples a second: 100 in A and B, 200 in C",
                        "Cleaning of pull: none in A and B, mean:5 in C",
                        "Hysteresis of pull, Level and bands: usual in A and B, 3 in C")
                .anySatisfy(one -> assertThat(one)
                        .startsWith("Scaling of pull: raw in A and B, ")
                        .endsWith(", in kg in C"))
                .hasSize(5);
    }

    /** A knock of that height every second for ten seconds, in noise of one count. */
    private static double[] knocks(double height, long seed) {
        Random random = new Random(seed);
        double[] values = new double[10_000];
        for (int i = 0; i < values.length; i++) {
            double since = (i % 1000 - 500) / 1000.0;
            double ring = since < 0 ? 0 : Math.exp(-since / 0.03) * Math.cos(2 * Math.PI * 70 * since);
            values[i] = Math.rint(512 + height * (0.9 + 0.02 * (i / 1000)) * ring + random.nextGaussian());
        }
        return values;
    }

    @Test
    void eventsOfTwoTakesAreComparedByThemselvesAndTheMainNumberIsTold() throws Exception {
        Rig rig = rig("knock").withReader(new ReaderSetup("hits", List.of("knock"), Map.of()));
        Path soft = write("soft", rig, knocks(150, 3), 1000);
        Path hard = write("hard", rig, knocks(250, 4), 1000);
        Comparison compared =
                Comparison.of(List.of(soft, hard), "hits", List.of("knock"), Map.of(), Comparison.Part.ALL);
        double[] a = compared.sizes(List.of(soft));
        double[] b = compared.sizes(List.of(hard));
        assertThat(a).hasSize(10);
        assertThat(b).hasSize(10);
        for (int i = 0; i < 10; i++) {
            // The height is that of the file: over 512, of the knock as the model has it.
            assertThat(a[i] - 512).isCloseTo(150 * (0.9 + 0.02 * i), within(8.0));
            assertThat(b[i] - 512).isCloseTo(250 * (0.9 + 0.02 * i), within(8.0));
        }
        assertThat(MainNumbers.of(soft)).containsExactly("knock: hits 10");
        Path still = write("still", rig, new double[3000], 1000);
        assertThat(MainNumbers.of(still)).singleElement().asString().startsWith("knock: hits 0");
    }

    @Test
    void takesAreLaidOverOneAnotherFromTheirNthEvent() throws Exception {
        Rig rig = rig("knock").withReader(new ReaderSetup("hits", List.of("knock"), Map.of()));
        Path first = write("first", rig, knocks(150, 3), 1000);
        Path second = write("second", rig, knocks(200, 5), 1000);
        Overlay.From third = new Overlay.From.Nth("hits(knock)", 3);
        Overlay overlay = Overlay.of(List.of(first, second), "knock", third, share -> true);
        List<Double> zeros = new ArrayList<>();
        overlay.lines().forEach(line -> zeros.add(line.zero()));
        assertThat(zeros).allSatisfy(zero -> assertThat(zero).isCloseTo(2.5, within(0.01)));
        Overlay none =
                Overlay.of(List.of(first, second), "knock", new Overlay.From.Nth("hits(knock)", 11), share -> true);
        assertThat(none.lines())
                .extracting(Overlay.Line::leftOut)
                .containsOnly("it has no event number 11 of hits(knock)");
        Overlay other = Overlay.of(List.of(first), "pull", third, share -> true);
        assertThat(other.lines().get(0).leftOut()).isEqualTo("it has no channel pull");
    }
}
