package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.lang.reflect.Field;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.BoardClock;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.Packed;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Scaling;

class TakeTest {
    @TempDir
    Path folder;

    private static Rig rig() {
        DelimitedFormat format = new DelimitedFormat(
                ';',
                true,
                true,
                "t_us;pulse",
                List.of(new Column("t_us", ""), new Column("pulse", "counts")),
                new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT));
        Scaling scaling = new Scaling(new Converter(12, 3.3, Divisor.HIGHEST_CODE), 2, -1, "V");
        return new Rig(
                        "Wren",
                        SourceSetup.at("sim:deck#3"),
                        format,
                        List.of(new Channel(
                                "pulse", "Helm pulse", scaling, Recipe.parse("bandpass:0.5..8@2 | mean:3"), true)))
                .withReader(ReaderSetup.on("pulse", "pulse", Map.of("kind", "optical")));
    }

    private static Block block(double first, int rows, Random random, List<Gap> gaps) {
        double[] seconds = new double[rows];
        double[][] columns = new double[2][rows];
        for (int i = 0; i < rows; i++) {
            seconds[i] = Math.rint((first + i * 0.005) * 1e6) / 1e6;
            columns[0][i] = Math.rint(seconds[i] * 1e6);
            columns[1][i] = random.nextInt(20) == 0 ? Double.NaN : random.nextInt(1024);
        }
        return new Block(new TimeBase.Explicit(seconds), columns, rows, gaps);
    }

    @Test
    void packingLosesNotOneBit() throws TakeException {
        Random random = new Random(8);
        List<double[]> columns = new ArrayList<>();
        columns.add(random.doubles(500).toArray());
        columns.add(random.ints(500, -5, 300).asDoubleStream().toArray());
        columns.add(random.ints(500, 0, 1 << 24).mapToDouble(i -> i / 1000.0).toArray());
        columns.add(random.ints(500).mapToDouble(i -> i == 0 ? 0 : i * 2.0).toArray());
        columns.add(new double[] {0, -0.0, 1, Double.NaN, 4294967295.0, 1e300});
        columns.add(new double[] {Double.NaN, Double.NaN});
        columns.add(new double[] {254, 0, Double.NaN});
        columns.add(new double[0]);
        for (double[] column : columns) {
            Packed packed = Packed.of(column, column.length);
            double[] back = new double[column.length];
            packed.unpack(back, 0, back.length);
            for (int i = 0; i < back.length; i++) {
                assertThat(Double.doubleToLongBits(back[i])).isEqualTo(Double.doubleToLongBits(column[i]));
            }
        }
        assertThat(Packed.of(columns.get(1), 500).width()).isEqualTo(2);
        assertThat(Packed.of(columns.get(2), 500).divisor()).isEqualTo(1000);
    }

    @Test
    void aTakeGivesBackWhatWentInAndStockSqliteReadsIt() throws Exception {
        Path file = folder.resolve("a.zest");
        Random random = new Random(1);
        Block first = block(100, 700, random, List.of());
        Block second = block(104, 900, random, List.of(new Gap(103.495, 104, 100)));
        try (TakeWriter writer = TakeWriter.create(file, "Reach", rig(), Instant.parse("2026-09-12T15:04:00Z"))) {
            writer.append(first);
            writer.mark(104.5, "tack");
            writer.append(second);
            writer.commit();
            writer.finish();
        }
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(1600);
            assertThat(take.rig()).isEqualTo(rig());
            double[] pulse = take.column(1);
            double[] times = take.times();
            for (int i = 0; i < 900; i++) {
                assertThat(Double.compare(pulse[700 + i], second.columns()[1][i]))
                        .isZero();
                assertThat(times[700 + i]).isEqualTo(Math.rint((4 + i * 0.005) * 1e6) / 1e6);
            }
            assertThat(take.gaps()).containsExactly(new Gap(3.495, 4, 100));
            assertThat(take.marks()).containsExactly(new Mark(4.5, "tack"));
            assertThat(take.mended()).isEmpty();
            assertThat(take.overview(0, 1)).containsExactly(100e6, 108.495e6);
        }
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = stock.createStatement()) {
            assertThat(statement.executeQuery("PRAGMA application_id").getInt(1))
                    .isEqualTo(0x5A455354);
            assertThat(statement.executeQuery("SELECT sum(rows) FROM block").getInt(1))
                    .isEqualTo(1600);
            assertThat(statement.executeQuery("SELECT max(level) FROM pyramid").getInt(1))
                    .isEqualTo(3);
            assertThat(statement.executeQuery("PRAGMA integrity_check").getString(1))
                    .isEqualTo("ok");
        }
        assertThat(folder.resolve("a.zest-wal")).doesNotExist();
    }

    @Test
    void thePyramidEqualsTheSamplesAlsoAfterMending() throws Exception {
        Path file = folder.resolve("long.zest");
        Random random = new Random(2);
        int blocks = 200;
        TakeWriter writer = TakeWriter.create(file, "Long", rig(), Instant.EPOCH);
        for (int b = 0; b < blocks; b++) {
            writer.append(block(b * 8, 1600, random, List.of()));
        }
        writer.commit();
        writer.close();
        // As if the process had died: the state still says recording, of a process that is gone.
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = stock.createStatement()) {
            assertThat(statement.executeUpdate("UPDATE take SET value = '1 1' WHERE key = 'process'"))
                    .isOne();
            statement.executeUpdate("DELETE FROM pyramid WHERE first_cell > 0");
        }
        try (Take take = Take.open(file)) {
            assertThat(take.mended())
                    .isEqualTo("The recording broke off. 320000 rows, 1600.00 s, are here; at most the last"
                            + " second before that is missing.");
            double[] pulse = take.column(1);
            double[] cells = take.overview(1, 20);
            int size = 1024 * 16;
            assertThat(cells).hasSize(2 * ((320_000 + size - 1) / size));
            for (int cell = 0; cell < cells.length / 2; cell++) {
                double low = Double.POSITIVE_INFINITY;
                double high = Double.NEGATIVE_INFINITY;
                for (int i = cell * size; i < Math.min(pulse.length, (cell + 1) * size); i++) {
                    low = pulse[i] < low ? pulse[i] : low;
                    high = pulse[i] > high ? pulse[i] : high;
                }
                assertThat(cells[2 * cell]).isEqualTo(low);
                assertThat(cells[2 * cell + 1]).isEqualTo(high);
            }
        }
    }

    private static int version(Path file) throws Exception {
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = stock.createStatement();
                ResultSet result = statement.executeQuery("PRAGMA user_version")) {
            return result.getInt(1);
        }
    }

    @Test
    void eachOfSeveralSourcesHasItsOwnRowsTimesAndGapsAndIsMendedAsWell() throws Exception {
        DelimitedFormat loads = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("load", "kg"), new Column("heat", "°C")), null);
        Rig rig = rig().joined("silent", SourceSetup.at("sim:hull"))
                .joined("hoist", SourceSetup.at("sim:hoist"))
                .fittedTo(2, loads);
        Path file = folder.resolve("three.zest");
        TakeWriter writer = TakeWriter.create(file, "Three", rig, Instant.EPOCH);
        assertThat(writer.holds(0)).isTrue();
        assertThat(writer.holds(1)).isFalse();
        assertThat(writer.holds(2)).isTrue();
        Random random = new Random(5);
        double[] load = random.doubles(5000, 0, 80).map(Math::rint).toArray();
        double[] heat = random.doubles(5000, 15, 30).toArray();
        Gap gap = new Gap(12, 13, 9);
        writer.append(0, block(10, 2000, random, List.of()));
        for (int at = 0; at < 5000; at += 1000) {
            double[][] part = {Arrays.copyOfRange(load, at, at + 1000), Arrays.copyOfRange(heat, at, at + 1000)};
            writer.append(
                    2,
                    new Block(
                            new TimeBase.Steady(10.05 + at * 0.1, 0.1),
                            part,
                            1000,
                            at == 0 ? List.of(gap) : List.of()));
            writer.append(0, block(20 + at, 500, random, List.of(new Gap(19.995 + at, 20 + at, 1))));
        }
        writer.mark(15, "gust");
        writer.commit();
        writer.close();
        assertThat(version(file)).isEqualTo(4);
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = stock.createStatement()) {
            statement.executeUpdate("UPDATE take SET value = '1 1' WHERE key = 'process'");
            statement.executeUpdate("DELETE FROM pyramid");
        }
        try (Take take = Take.open(file)) {
            assertThat(take.mended()).startsWith("The recording broke off. 9500 rows");
            assertThat(take.sources()).isEqualTo(3);
            assertThat(take.sourceName(2)).isEqualTo("hoist");
            assertThat(new long[] {take.rows(0), take.rows(1), take.rows(2)}).containsExactly(4500, 0, 5000);
            assertThat(take.columns())
                    .extracting(Column::name)
                    .containsExactly("t_us", "pulse", "hoist/load", "hoist/heat");
            assertThat(take.sourceOf(1)).isZero();
            assertThat(take.sourceOf(3)).isEqualTo(2);
            assertThat(take.column(2)).containsExactly(load);
            assertThat(take.column(3)).containsExactly(heat);
            double[] own = take.times(2);
            assertThat(own[0]).isCloseTo(0.05, within(1e-9));
            assertThat(own[4999]).isCloseTo(499.95, within(1e-9));
            assertThat(take.times(0)[0]).isZero();
            assertThat(take.times(1)).isEmpty();
            assertThat(take.gaps(0)).hasSize(5);
            assertThat(take.gaps(2)).containsExactly(new Gap(2, 3, 9));
            assertThat(take.marks()).singleElement().satisfies(mark -> assertThat(mark.seconds())
                    .isEqualTo(5));
            double[] cells = take.overview(3, 2);
            assertThat(cells[0]).isEqualTo(Arrays.stream(heat).min().orElseThrow());
            assertThat(cells[1]).isEqualTo(Arrays.stream(heat).max().orElseThrow());
            assertThat(take.rig().sources().get(2).format()).isEqualTo(loads);
        }
        assertThat(Table.open(file, "hoist/heat").column("hoist/heat")).hasSize(5000);
        assertThat(Table.open(file).column("pulse")).hasSize(4500);
        Path one = folder.resolve("one.zest");
        try (TakeWriter alone = TakeWriter.create(one, "One", rig(), Instant.EPOCH)) {
            alone.append(block(0, 10, random, List.of()));
            alone.finish();
        }
        assertThat(version(one)).isEqualTo(4);
    }

    @Test
    void whatIsNoTakeIsSaidSo() throws Exception {
        Path text =
                Files.writeString(folder.resolve("x.zest"), "this is no database, but it is long enough to look at");
        assertThatThrownBy(() -> Take.open(text))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining("is no take");
        Path other = folder.resolve("other.zest");
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + other);
                Statement statement = stock.createStatement()) {
            statement.execute("CREATE TABLE a (b)");
        }
        assertThatThrownBy(() -> Take.open(other)).hasMessageContaining("is no take; a take ends in .zest");
        assertThatThrownBy(() -> Take.open(folder.resolve("none.zest"))).hasMessageContaining("is not there");
        try (TakeWriter writer = TakeWriter.create(folder.resolve("live.zest"), "L", rig(), Instant.EPOCH)) {
            writer.append(block(0, 10, new Random(1), List.of()));
            writer.commit();
            assertThatThrownBy(() -> Take.open(writer.file())).hasMessageContaining("is still being recorded");
        }
        // A full disk keeps the writer from saying that it has ended: it is none any more all the same.
        try (Take take = Take.open(folder.resolve("live.zest"))) {
            assertThat(take.rows()).isEqualTo(10);
            assertThat(take.damage()).isEmpty();
        }
    }

    /** A full disk ends the recording, and the file is let go: else its room came back only when the program ends. */
    @Test
    void aTakeThatAFullDiskEndedIsHeldOpenNoLonger() throws Exception {
        TakeWriter writer = TakeWriter.create(folder.resolve("full.zest"), "Full", rig(), Instant.EPOCH);
        Field own = TakeWriter.class.getDeclaredField("connection");
        own.setAccessible(true);
        try (Statement statement = ((Connection) own.get(writer)).createStatement()) {
            statement.execute("PRAGMA max_page_count = 60");
        }
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 100; i++) {
                        writer.append(block(i * 50, 10_000, new Random(1), List.of()));
                    }
                })
                .hasMessageContaining("recording stopped");
        writer.close();
        try (Stream<Path> handles = Files.list(Path.of("/proc/self/fd"))) {
            assertThat(handles.filter(handle -> {
                        try {
                            return Files.readSymbolicLink(handle).endsWith("full.zest");
                        } catch (IOException e) {
                            return false;
                        }
                    }))
                    .isEmpty();
        }
    }

    @Test
    void aFolderThatVanishesStopsTheRecordingWithWords() throws Exception {
        Path gone = Files.createDirectory(folder.resolve("stick"));
        try (TakeWriter writer = TakeWriter.create(gone.resolve("a.zest"), "A", rig(), Instant.EPOCH)) {
            writer.append(block(0, 10, new Random(1), List.of()));
            writer.commit();
            Files.move(gone, folder.resolve("elsewhere"));
            assertThatThrownBy(writer::commit).hasMessageContaining("the take's file or folder is gone");
            assertThatThrownBy(() -> writer.mark(1, "x")).hasMessageContaining("took an error before");
        }
    }

    @Test
    void aRemovedTakeComesBackAndNamesAreKept() throws Exception {
        Shelf shelf = new Shelf(folder);
        Path file = shelf.freshFile(LocalDateTime.of(2026, 9, 12, 15, 4, 5));
        try (TakeWriter writer = TakeWriter.create(file, "Reach", rig(), Instant.parse("2026-09-12T15:04:05Z"))) {
            writer.append(block(0, 300, new Random(1), List.of()));
            writer.finish();
        }
        Files.writeString(folder.resolve("broken.zest"), "rubbish");
        assertThat(shelf.list(null)).extracting(Shelf.Entry::title).containsExactlyInAnyOrder("Reach", "broken.zest");
        try (Take take = Take.open(file)) {
            take.rename("  Long reach ");
        }
        Path lying = shelf.remove(file);
        assertThat(shelf.list(null))
                .extracting(Shelf.Entry::trouble)
                .singleElement()
                .asString()
                .contains("no take");
        shelf.restore(lying);
        assertThat(shelf.list(null)).extracting(Shelf.Entry::title).contains("Long reach");
        shelf.remove(file);
        shelf.tidy(Instant.now().plusSeconds(31 * 86_400L));
        assertThat(lying).doesNotExist();
    }

    @Test
    void aRigThatDoesNotReadSaysWhichPartIsWrong() throws Exception {
        String good = RigJson.write(rig());
        assertThat(RigJson.read(good, "x")).isEqualTo(rig());
        assertThatThrownBy(() -> RigJson.read("{}", "my rig")).hasMessageContaining("my rig is no rig");
        assertThatThrownBy(() -> RigJson.read("{", "my rig")).hasMessageContaining("my rig is no JSON");
        assertThatThrownBy(() -> RigJson.read(good.replace("\"bits\" : 12", "\"bits\" : 40"), "my rig"))
                .hasMessage("my rig: a converter has 8 to 24 bits, not 40");
        assertThatThrownBy(() -> RigJson.read(good.replace("mean:3", "mean:x"), "my rig"))
                .hasMessageContaining("step 'mean:x'");
        assertThatThrownBy(() -> RigJson.read(good.replace("\"slope\" : 2.0", "\"slope\" : \"two\""), "my rig"))
                .hasMessageContaining("\"slope\" must be a number, was \"two\"");
    }

    @Test
    void tablesFromElsewhereAreReadOrRefusedByLine() throws Exception {
        Path file = folder.resolve("t.csv");
        Files.writeString(file, "t,a [V],b\n0,1,x\n0.5,2.5,y\n1,-3e-2,\n\n");
        Table table = Table.open(file);
        assertThat(table.column("a")).containsExactly(1, 2.5, -0.03);
        assertThat(table.times().orElseThrow()).containsExactly(0, 0.5, 1);
        assertThatThrownBy(() -> table.column("b"))
                .hasMessageEndingWith("line 2, column b: 'x' where a number should be");
        assertThatThrownBy(() -> table.column("c")).hasMessageContaining("no column 'c'; it has t, a, b");
        for (String[] wrong : new String[][] {
            {"", "is empty"},
            {"a,b\n1,2\n", "holds one row"},
            {"a,b\n1,2\n3\n", "line 3: 1 cells where the header has 2"},
            {"1,2\n3,4\n5,6\n", "line 1 holds numbers"},
            {"a\n1\n\n3\n", "line 3: nothing where a row of numbers should be"}
        }) {
            Files.writeString(file, wrong[0]);
            assertThatThrownBy(() -> Table.open(file))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining(wrong[1]);
        }
    }

    /** Times that fell within a block: none is written any more, and of a take that has them no row is lost. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void rowsWhoseTimesFallAreAllThere(boolean written) throws Exception {
        Path file = folder.resolve("overlap.zest");
        double[] times = {5, 5.1, 5.2, 5.15, 5.25};
        Rig rig = Rig.blank("r", "sim:deck")
                .withFormat(new DelimitedFormat(',', false, false, "", List.of(new Column("x", "V")), null));
        try (TakeWriter writer = TakeWriter.create(file, "t", rig, Instant.EPOCH)) {
            writer.append(
                    new Block(new TimeBase.Explicit(times), new double[][] {{1, 2, 3, 4, 5}}, times.length, List.of()));
            writer.finish();
        }
        if (written) {
            Packed fallen = Packed.of(Arrays.stream(times).map(t -> t - 5).toArray(), times.length);
            int column = TakeSchema.timesOf(0);
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                    PreparedStatement update = connection.prepareStatement(
                            "UPDATE block_values SET width = ?, divisor = ?, base = ?, data = ?, check_sum = ?"
                                    + " WHERE column_id = " + column)) {
                update.setInt(1, fallen.width());
                update.setDouble(2, fallen.divisor());
                update.setLong(3, fallen.base());
                update.setBytes(4, fallen.data());
                update.setLong(5, TakeRows.check(fallen, 0, column));
                assertThat(update.executeUpdate()).isEqualTo(1);
            }
        }
        try (Take take = Take.open(file)) {
            assertThat(take.column(0)).containsExactly(1, 2, 3, 4, 5);
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.times(0)).containsExactly(new double[] {0, 0.1, 0.2, 0.2, 0.25}, within(1e-9));
        }
    }
}
