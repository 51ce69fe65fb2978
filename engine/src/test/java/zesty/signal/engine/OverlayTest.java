package zesty.signal.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Scaling;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** Takes laid over one another, and worked out with another rig, on signals whose answers are known beforehand. */
class OverlayTest {
    private static final int RATE = 200;

    @TempDir
    Path folder;

    private Path take(String title, double[] values, double... marks) throws TakeException {
        Path file = folder.resolve(title + ".zest");
        Rig rig = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null))
                .withReader(new ReaderSetup("level", List.of("pull"), Map.of()));
        try (TakeWriter writer = TakeWriter.create(file, title, rig, Instant.EPOCH)) {
            writer.append(
                    new Block(new TimeBase.Steady(0, 1.0 / RATE), new double[][] {values}, values.length, List.of()));
            for (double mark : marks) {
                writer.mark(mark, "gybe");
            }
            writer.finish();
        }
        return file;
    }

    /** A walk that never comes back: nothing of it is like another part of it. */
    private static double[] walk(int n) {
        Random random = new Random(5);
        double[] values = new double[n];
        for (int i = 1; i < n; i++) {
            values[i] = 0.995 * values[i - 1] + random.nextGaussian();
        }
        return values;
    }

    @Test
    void aTakeThatBeganLaterIsShiftedToWhereItAgrees() throws Exception {
        double[] all = walk(30 * RATE);
        Random noise = new Random(6);
        double[] late = new double[20 * RATE];
        for (int i = 0; i < late.length; i++) {
            late[i] = all[i + 643] * 2 + 7 + 0.3 * noise.nextGaussian();
        }
        Path first = take("first", all, 4, 9);
        Path second = take("second", late, 1.5);
        Path still = take("still", new double[4 * RATE]);
        Overlay best = Overlay.of(List.of(first, second, still), "pull", new Overlay.From.Best(), share -> true);
        Overlay.Line shifted = best.lines().get(1);
        // 643 samples at 200/s: what is its 0 lies so long before its first sample.
        assertThat(shifted.zero()).isCloseTo(-3.215, within(0.006));
        assertThat(shifted.correlation()).isBetween(0.98, 1.0);
        assertThat(best.lines().get(2).leftOut()).contains("agrees");
        Overlay marked =
                Overlay.of(List.of(first, second, still), "pull", new Overlay.From.Marked("gybe"), share -> true);
        assertThat(marked.lines()).extracting(Overlay.Line::zero).startsWith(4.0, 1.5);
        assertThat(marked.lines().get(0).seconds()[0]).isEqualTo(-4);
        assertThat(marked.lines().get(2).leftOut()).isEqualTo("it has no marker 'gybe'");
        assertThat(marked.unit()).isEqualTo("N");
    }

    @Test
    void anotherRigGivesOtherNumbersAndTheTakeStays() throws Exception {
        double[] ten = new double[100];
        java.util.Arrays.fill(ten, 10);
        Path file = take("ten", ten);
        Rig other = Rig.blank("kilogram", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "pull", List.of(new Column("pull", "N")), null))
                .withChannel("pull", c -> c.withScaling(new Scaling(null, 0.5, 1, "kg")))
                .withReader(new ReaderSetup("level", List.of("pull"), Map.of()));
        Report.Table table = OtherRig.of(file, other);
        List<String> means = new ArrayList<>(table.rows().stream()
                .filter(row -> row.get(0).endsWith("mean"))
                .findFirst()
                .orElseThrow());
        assertThat(means.subList(1, 3)).containsExactly("10 N", "6 kg");
        assertThat(OtherRig.of(file, other).rows()).isEqualTo(table.rows());
    }
}
