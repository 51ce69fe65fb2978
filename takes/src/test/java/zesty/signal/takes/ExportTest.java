package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;

class ExportTest {
    private static final Scaling DEGREES = new Scaling(new Converter(10, 5, Divisor.STEPS), 100, -50, "°C");

    @TempDir
    Path folder;

    private Path take(double[] counts, double[] plain) throws TakeException {
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("raw", "counts"), new Column("as, it \"came\"", "")), null);
        Rig rig = new Rig(
                "r",
                SourceSetup.at("stdin"),
                format,
                List.of(
                        new Channel("raw", "Cupboard", DEGREES, Recipe.parse("mean:9"), true),
                        new Channel("as, it \"came\"", "Plain", Scaling.asItCame(""), Recipe.NONE, false)));
        Path file = folder.resolve("t.zest");
        try (TakeWriter writer = TakeWriter.create(file, "t", rig, Instant.EPOCH)) {
            writer.append(
                    new Block(new TimeBase.Steady(7, 0.1), new double[][] {counts, plain}, counts.length, List.of()));
            writer.finish();
        }
        return file;
    }

    @Test
    void rawAndScaledStandSideBySideInFullPrecisionAndReadBack() throws Exception {
        double[] plain = {1e-9 / 3, -0.0, Double.NaN, 1e300};
        Path csv = folder.resolve("t.csv");
        try (Take take = Take.open(take(new double[] {512, 0, Double.NaN, 1023}, plain))) {
            assertThat(CsvExport.write(take, csv, false, share -> true)).isTrue();
        }
        List<String> lines = Files.readAllLines(csv);
        assertThat(lines.get(0)).isEqualTo("t,raw [counts],\"as, it \"\"came\"\"\",Cupboard [°C]");
        assertThat(lines.get(1)).startsWith("0,512,").endsWith(",200");
        // What is missing is an empty cell, and so is what would be made of it.
        assertThat(lines.get(3)).endsWith(",,,");
        String[] last = lines.get(4).split(",");
        assertThat(Double.parseDouble(last[last.length - 1])).isEqualTo(DEGREES.apply(1023));
        for (int row : new int[] {0, 1, 3}) {
            String[] cells = lines.get(row + 1).split(",");
            assertThat(Double.compare(Double.parseDouble(cells[2]), plain[row])).isZero();
        }
        Table table = Table.open(csv);
        assertThat(table.headers()).containsExactly("t", "raw", "as, it \"came\"", "Cupboard");
        assertThatThrownBy(() -> table.column("raw"))
                .hasMessageContaining("line 4, column raw: nothing where a number");
        assertThat(table.times().orElseThrow()).hasSize(4);
    }

    @Test
    void aBoardsOwnColumnOfTimeDoesNotTakeTheNameOfTheTime() throws Exception {
        DelimitedFormat format =
                new DelimitedFormat(',', false, false, "", List.of(new Column("t", "ms"), new Column("a", "")), null);
        Path file = folder.resolve("own.zest");
        try (TakeWriter writer = TakeWriter.create(
                file, "own", new Rig("own", SourceSetup.at("stdin"), format, List.of()), Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(0, 0.5), new double[][] {{40, 90}, {1, 2}}, 2, List.of()));
            writer.finish();
        }
        Path csv = folder.resolve("own.csv");
        try (Take take = Take.open(file)) {
            CsvExport.write(take, csv, false, share -> true);
        }
        assertThat(Files.readAllLines(csv)).containsExactly("t,t_board [ms],a", "0,40,1", "0.5,90,2");
        assertThat(Table.open(csv).column("t_board")).containsExactly(40, 90);
    }

    @Test
    void givingUpLeavesNothingAndTheOldFileAsItWas() throws Exception {
        double[] counts = new Random(1).ints(20_000, 0, 1024).asDoubleStream().toArray();
        Path csv = Files.writeString(folder.resolve("old.csv"), "what was here before");
        try (Take take = Take.open(take(counts, counts))) {
            double[] last = {-1};
            assertThatThrownBy(() -> CsvExport.write(take, csv, false, share -> true))
                    .hasMessageContaining("is there already and was not made this way");
            assertThat(CsvExport.write(take, csv, true, share -> {
                        assertThat(share).isGreaterThan(last[0]);
                        last[0] = share;
                        return share < 0.5;
                    }))
                    .isFalse();
            assertThat(Files.readString(csv)).isEqualTo("what was here before");
            assertThatThrownBy(
                            () -> CsvExport.write(take, folder.resolve("none").resolve("a.csv"), false, share -> true))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining("is not there; make it first");
        }
        try (var files = Files.list(folder)) {
            assertThat(files.map(f -> f.getFileName().toString())).containsExactlyInAnyOrder("t.zest", "old.csv");
        }
    }
}
