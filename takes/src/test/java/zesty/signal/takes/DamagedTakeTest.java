package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.core.clean.Recipe;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.read.HandEdit;
import zesty.signal.core.rig.Channel;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.SourceSetup;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;
import zesty.signal.core.scale.Line;
import zesty.signal.core.scale.Scaling;

/** Takes that something has happened to: what is shown of them was recorded, and what is left out is told. */
@Timeout(240)
class DamagedTakeTest {
    private static final int PIECE = 500;
    private static final int PIECES = 16;

    @TempDir
    Path folder;

    private Path file;
    private double[] load;

    @BeforeEach
    void record() throws TakeException {
        file = folder.resolve("hoist.zest");
        load = new Random(5).ints(PIECE * PIECES, 0, 4096).asDoubleStream().toArray();
        recordTo(file);
    }

    private void recordTo(Path to) throws TakeException {
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("load", "counts"), new Column("heat", "")), null);
        Scaling tonnes = new Scaling(new Converter(12, 5, Divisor.STEPS), new Line(2, -0.5), List.of(), "t");
        Rig rig = new Rig(
                "hoist",
                SourceSetup.at("sim:hoist"),
                format,
                List.of(new Channel("load", "Load", tonnes, Recipe.NONE, true)));
        try (TakeWriter writer = TakeWriter.create(to, "Hoist", rig, Instant.EPOCH)) {
            for (int piece = 0; piece < PIECES; piece++) {
                double[] own = Arrays.copyOfRange(load, piece * PIECE, (piece + 1) * PIECE);
                double[] heat = Arrays.stream(own).map(v -> v / 7).toArray();
                double first = 3 + piece * PIECE * 0.01;
                // Pieces with a period and pieces with times of their own, as with and without a board's clock.
                TimeBase time = new TimeBase.Steady(first, 0.01);
                if (piece % 2 == 1) {
                    double[] seconds = new double[PIECE];
                    Arrays.setAll(seconds, i -> Math.rint((first + i * 0.01) * 1e6) / 1e6);
                    time = new TimeBase.Explicit(seconds);
                }
                writer.append(new Block(time, new double[][] {own, heat}, PIECE, List.of()));
                writer.mark(first + 1, "lift " + piece);
                writer.commit();
            }
            writer.finish();
        }
    }

    private static void sql(Path take, String... statements) throws Exception {
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + take);
                Statement statement = stock.createStatement()) {
            for (String one : statements) {
                statement.executeUpdate(one);
            }
        }
    }

    private Map<String, String> rows(Path csv) throws IOException {
        Map<String, String> rows = new HashMap<>();
        for (String line : Files.readAllLines(csv)) {
            rows.put(line.substring(0, line.indexOf(',')), line);
        }
        return rows;
    }

    @Test
    void whateverByteIsHitNothingIsShownThatWasNotRecorded() throws Exception {
        Path good = folder.resolve("good.csv");
        try (Take take = Take.open(file)) {
            CsvExport.write(take, good, false, share -> true);
        }
        Map<String, String> recorded = rows(good);
        byte[] whole = Files.readAllBytes(file);
        Random random = new Random(77);
        int opened = 0;
        int told = 0;
        for (int run = 0; run < 120; run++) {
            byte[] hit = whole.clone();
            int hits = 1 + random.nextInt(run % 5 == 0 ? 200 : 4);
            for (int h = 0; h < hits; h++) {
                hit[random.nextInt(hit.length)] = (byte) random.nextInt(256);
            }
            Path hurt = folder.resolve("hurt.zest");
            Files.write(hurt, run % 7 == 0 ? Arrays.copyOf(hit, 4096 + random.nextInt(hit.length - 4096)) : hit);
            Path csv = folder.resolve("hurt" + run + ".csv");
            try (Take take = Take.open(hurt)) {
                opened++;
                CsvExport.write(take, csv, false, share -> true);
                boolean same = Files.mismatch(csv, good) < 0;
                if (!same) {
                    told++;
                    assertThat(take.damage()).as("run %d: it differs", run).isNotEmpty();
                    onlyLess(recorded, rows(csv), run);
                }
                take.marks().forEach(mark -> assertThat(mark.text()).startsWith("lift "));
            } catch (TakeException e) {
                assertThat(e.getMessage()).doesNotContainIgnoringCase("sql").doesNotContain("Exception", "java.");
            }
        }
        // Most damage costs a piece, not the take; and the damage of this test is felt.
        assertThat(opened).isGreaterThan(72);
        assertThat(told).isGreaterThan(24);
    }

    /** Every row that is there is one of those recorded, with cells left empty at most. */
    private static void onlyLess(Map<String, String> recorded, Map<String, String> found, int run) {
        boolean named = found.get("t").equals(recorded.get("t"));
        for (Map.Entry<String, String> row : found.entrySet()) {
            String[] now = row.getValue().split(",", -1);
            if (row.getKey().equals("t") || Arrays.stream(now).skip(1).allMatch(String::isEmpty)) {
                continue;
            }
            String was = recorded.get(row.getKey());
            assertThat(was).as("run %d, a row at %s s", run, row.getKey()).isNotNull();
            String[] cells = was.split(",", -1);
            for (int c = 1; named && c < now.length; c++) {
                if (!now[c].isEmpty() && !now[c].equals(cells[c])) {
                    throw new AssertionError(
                            "run %d at %s s: %s for %s".formatted(run, row.getKey(), now[c], cells[c]));
                }
            }
        }
    }

    @Test
    void aPieceThatDoesNotCheckCostsItselfAndIsNamed() throws Exception {
        sql(file, "UPDATE block_values SET data = zeroblob(length(data)) WHERE column_id = 1 AND first_row = 1000");
        try (Take take = Take.open(file)) {
            double[] found = take.column(0);
            for (int i = 0; i < found.length; i++) {
                boolean lost = i >= 1000 && i < 1500;
                assertThat(Double.isNaN(found[i])).as("row %d", i).isEqualTo(lost);
                assertThat(lost ? load[i] : found[i]).isEqualTo(load[i]);
            }
            assertThat(take.column(1)[1200]).isEqualTo(load[1200] / 7);
            assertThat(take.damage())
                    .containsExactly("column load, 500 rows from 10.000 s on: the values do not check");
        }
    }

    @Test
    void rowsWhoseTimeIsLostAreAGapNotAGuess() throws Exception {
        sql(
                file,
                "UPDATE block SET first_seconds = 2.5 WHERE first_row = 2000",
                "UPDATE block_values SET data = zeroblob(length(data)) WHERE column_id = 0 AND first_row = 3500");
        try (Take take = Take.open(file)) {
            assertThat(take.rows()).isEqualTo(load.length - PIECE);
            // From the last row before the piece to the first one after it.
            assertThat(take.gaps()).singleElement().satisfies(gap -> {
                assertThat(gap.missing()).isEqualTo(PIECE);
                assertThat(gap.startSeconds()).isCloseTo(15, within(5.0));
                assertThat(gap.endSeconds()).isEqualTo(25);
            });
            double[] found = take.column(0);
            assertThat(found[2000]).isEqualTo(load[2500]);
            assertThat(Arrays.copyOfRange(found, 3000, 3500)).containsOnly(Double.NaN);
            double[] times = take.times();
            for (int i = 1; i < times.length; i++) {
                assertThat(times[i]).isGreaterThanOrEqualTo(times[i - 1]);
            }
            assertThat(take.damage()).anyMatch(words -> words.contains("500 rows are lost between"));
            assertThat(take.damage()).anyMatch(words -> words.contains("their times do not check"));
        }
    }

    @Test
    void aBadByteInTheRigsTextDoesNotKeepTheNumbersBack() throws Exception {
        sql(file, "UPDATE take SET value = replace(value, '\"slope\" : 2.0', '\"slope\" : 9.0') WHERE key = 'rig'");
        Path csv = folder.resolve("raw.csv");
        try (Take take = Take.open(file)) {
            assertThatThrownBy(take::rig)
                    .hasMessageContaining("its rig cannot be read, so only the raw numbers are here");
            assertThat(CsvExport.write(take, csv, false, share -> true)).isTrue();
            assertThat(take.damage()).containsExactly("its rig does not check");
        }
        assertThat(Files.readAllLines(csv).get(0)).isEqualTo("t,load [counts],heat");
        assertThat(Table.open(csv).column("load")).containsExactly(load);
    }

    @Test
    void namesMarksGapsAndTheDrawingAreCheckedToo() throws Exception {
        sql(
                file,
                "UPDATE channel_column SET name = 'loud' WHERE id = 1",
                "UPDATE mark SET text = 'lift 99' WHERE id = 3",
                "INSERT INTO gap (start_seconds, end_seconds, missing, check_sum) VALUES (1, 2, 100, 0)",
                "UPDATE pyramid SET data = zeroblob(length(data)) WHERE column_id = 2",
                "UPDATE take SET value = 'Boom' WHERE key = 'title'");
        try (Take take = Take.open(file)) {
            assertThat(take.columns()).extracting(Column::name).containsExactly("column1", "heat");
            assertThat(take.marks()).hasSize(PIECES - 1).noneMatch(mark -> mark.text()
                    .contains("99"));
            assertThat(take.gaps()).isEmpty();
            assertThat(take.title()).isEmpty();
            assertThat(take.damage())
                    .contains(
                            "its title does not check",
                            "the name of column 1 does not check",
                            "a mark does not check and is left out",
                            "a gap does not check and is left out");
            assertThat(take.overview(1, 3)).containsOnly(Double.NaN);
        }
    }

    @Test
    void aTakeThatWouldComputeForEverIsRefused() throws Exception {
        sql(
                file,
                "DROP TABLE mark",
                "CREATE VIEW mark AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) "
                        + "SELECT i AS id, i * 1.0 AS seconds, 'x' AS text, 0 AS check_sum FROM n");
        assertThatThrownBy(() -> Take.open(file)).hasMessageEndingWith("its table mark is not there, or is none");
        Path other = folder.resolve("other.zest");
        recordTo(other);
        sql(other, "CREATE TRIGGER more AFTER UPDATE ON take BEGIN DELETE FROM block; END");
        assertThatThrownBy(() -> Take.open(other)).hasMessageContaining("it holds a 'more', which no take has");
    }

    /** Takes of before carry no checksums; what cannot be is left out all the same. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '!',
            value = {
                "rows that no file holds!UPDATE block SET rows = 1099511627776 WHERE first_row = 500",
                "rows below none!UPDATE block SET rows = -7 WHERE first_row = 500",
                "a time that is none!UPDATE block SET first_seconds = 9e999 WHERE first_row = 500",
                "a piece over another!UPDATE block SET rows = 900 WHERE first_row = 0",
                "a period of nothing!UPDATE block SET period_seconds = 0 WHERE first_row = 0",
                "a divisor of nothing!UPDATE block_values SET divisor = 0 WHERE column_id = 1 AND first_row = 500",
                "a width that is none!UPDATE block_values SET width = 3 WHERE column_id = 1 AND first_row = 500",
                "a column that is gone!DELETE FROM block_values WHERE column_id = 1 AND first_row = 500",
                "times that fall!UPDATE block_values SET base = -90000000 WHERE column_id = 0 AND first_row = 500"
            })
    void whatCannotBeInATakeWithoutChecksumsIsLeftOut(String what, String damage) throws Exception {
        sql(file, "PRAGMA user_version = 1");
        sql(file, damage);
        try (Take take = Take.open(file)) {
            double[] times = take.times();
            double[] found = take.column(0);
            assertThat(found).hasSameSizeAs(times).hasSizeLessThanOrEqualTo(load.length);
            assertThat(found[found.length - 1]).isEqualTo(load[load.length - 1]);
            for (double one : found) {
                assertThat(Double.isNaN(one) || one >= 0 && one < 4096).isTrue();
            }
            assertThat(take.damage()).as(what).isNotEmpty();
        }
    }

    /** As a recording leaves it that was killed. */
    private void breakOff() throws Exception {
        sql(
                file,
                "UPDATE take SET value = 'recording', check_sum = " + Checks.of("state", "recording")
                        + " WHERE key = 'state'",
                "UPDATE take SET value = '1 1', check_sum = " + Checks.of("process", "1 1") + " WHERE key = 'process'",
                "DELETE FROM pyramid");
    }

    private static int run(String... words) throws Exception {
        return new ProcessBuilder(words)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
    }

    /** The disk is as full as disks are when a recording breaks off. */
    @Test
    void aTakeThatBrokeOffIsReadWhereTheDiskIsFull() throws Exception {
        breakOff();
        Path disk = Files.createDirectory(folder.resolve("disk"));
        assumeTrue(
                run("mount", "-t", "tmpfs", "-o", "size=1m", "tmpfs", disk.toString()) == 0, "only root makes a disk");
        try {
            Path there = Files.copy(file, disk.resolve("there.zest"));
            assertThatThrownBy(() -> {
                        try (OutputStream filler = Files.newOutputStream(disk.resolve("filler"))) {
                            while (true) {
                                filler.write(new byte[64]);
                            }
                        }
                    })
                    .hasMessageContaining("No space");
            try (Take take = Take.open(there)) {
                assertThat(take.mended()).startsWith("The recording broke off. 8000 rows");
                assertThat(take.column(0)).containsExactly(load);
                assertThatThrownBy(() -> take.rename("x")).hasMessageContaining("copy the take first");
            }
            assertThat(Files.readAllBytes(there)).isEqualTo(Files.readAllBytes(file));
        } finally {
            run("umount", disk.toString());
        }
    }

    @Test
    void aTakeWhereNothingCanBeWrittenIsReadAndLeftAsItIs() throws Exception {
        byte[] before = Files.readAllBytes(file);
        try (Take take = Take.open(file, false)) {
            assertThat(take.readOnly()).isTrue();
            assertThat(take.column(0)).containsExactly(load);
            assertThatThrownBy(() -> take.rename("x")).hasMessageContaining("copy the take first");
            assertThatThrownBy(() -> take.edit("pulse(load)", List.of()))
                    .hasMessageContaining("nothing can be written");
        }
        breakOff();
        byte[] broken = Files.readAllBytes(file);
        try (Take take = Take.open(file, false)) {
            assertThat(take.mended()).startsWith("The recording broke off. 8000 rows");
            assertThat(take.overview(0, 1)[1])
                    .isEqualTo(Arrays.stream(load).max().orElseThrow());
        }
        assertThat(Files.readAllBytes(file)).isEqualTo(broken).isNotEqualTo(before);
        try (var left = Files.list(folder)) {
            assertThat(left.map(f -> f.getFileName().toString())).containsExactly("hoist.zest");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"what?.zest", "no#1.zest", "50%41.zest", "two words & more.zest", "mât.zest"})
    void aTakesNameIsANameWhateverIsInIt(String name) throws Exception {
        Path odd = folder.resolve(name);
        recordTo(odd);
        assertThat(odd).isRegularFile();
        try (Take take = Take.open(odd)) {
            assertThat(take.rows()).isEqualTo(load.length);
        }
        try (var left = Files.list(folder)) {
            assertThat(left.map(f -> f.getFileName().toString())).containsExactlyInAnyOrder("hoist.zest", name);
        }
    }

    @Test
    void ofTwoThatRecordToOneNameOneIsToldAndNothingIsLost() throws Exception {
        Path name = folder.resolve("same.zest");
        try (TakeWriter first = TakeWriter.create(name, "first", rigOf(), Instant.EPOCH)) {
            assertThatThrownBy(() -> TakeWriter.create(name, "second", rigOf(), Instant.EPOCH))
                    .hasMessageContaining("is there already; choose another name");
            first.append(
                    new Block(new TimeBase.Steady(0, 0.1), new double[][] {{1, 2, 3}}, 3, List.of(new Gap(0, 0, 0))));
            first.finish();
        }
        try (Take take = Take.open(name)) {
            assertThat(take.title()).isEqualTo("first");
            assertThat(take.column(0)).containsExactly(1, 2, 3);
        }
    }

    private static Rig rigOf() {
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("a", "")), null);
        return new Rig("r", SourceSetup.at("stdin"), format, List.of());
    }

    /** All that a take tells, in one text. */
    private String told(Take take, Path csv) throws Exception {
        Files.deleteIfExists(csv);
        CsvExport.write(take, csv, false, share -> true);
        String rig;
        try {
            rig = take.rig().toString();
        } catch (TakeException e) {
            rig = "";
        }
        return take.title()
                + take.started()
                + take.columns()
                + take.marks()
                + take.gaps()
                + rig
                + Files.readString(csv);
    }

    /** A checksum of a row cannot see that the row is gone: a bit in the head of a page hides many. */
    @Test
    void aBitInTheHeadOfAPageIsNeverSilent() throws Exception {
        Path csv = folder.resolve("told.csv");
        String good;
        try (Take take = Take.open(file)) {
            good = told(take, csv);
            take.edit("pulse(load)", List.of(new HandEdit(true, 1.5), new HandEdit(false, 2)));
        }
        byte[] whole = Files.readAllBytes(file);
        int page = 256 * (whole[16] & 0xff) + (whole[17] & 0xff);
        Random random = new Random(5);
        int silent = 0;
        int hidden = 0;
        for (int run = 0; run < 200; run++) {
            byte[] hit = whole.clone();
            int start = page * random.nextInt(whole.length / page);
            // The head of a page, the list of its cells behind it, and the file's own head on the first one.
            int at = start + random.nextInt(start == 0 ? 112 : 24);
            hit[at] ^= (byte) (1 << random.nextInt(8));
            Path hurt = folder.resolve("hurt.zest");
            Files.write(hurt, hit);
            try (Take take = Take.open(hurt)) {
                boolean edits =
                        take.edits().getOrDefault("pulse(load)", List.of()).size() == 2;
                boolean same = told(take, csv).equals(good) && edits;
                hidden += same ? 0 : 1;
                silent += same || !take.damage().isEmpty() ? 0 : 1;
            } catch (TakeException e) {
                hidden++;
            }
        }
        assertThat(silent).isZero();
        assertThat(hidden).isGreaterThan(20);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "DELETE FROM block",
                "DELETE FROM block WHERE first_row > 3000",
                "DELETE FROM take WHERE key = 'rig'",
                "DELETE FROM mark WHERE id = 2",
                "DELETE FROM channel_column WHERE id = 2",
                "DELETE FROM tally WHERE name = 'block'",
                "DELETE FROM tally"
            })
    void rowsThatAreGoneAreMissed(String deleted) throws Exception {
        sql(file, deleted);
        try (Take take = Take.open(file)) {
            take.marks();
            assertThat(take.damage()).isNotEmpty();
            assertThat(take.columns()).hasSize(2);
        }
    }

    @Test
    void theStoredChecksumIsTheOneTheFormatsPageDescribes() throws Exception {
        // Worked out here by the page alone: kind and eight bytes, little-endian, for each cell in turn.
        java.util.zip.CRC32 sum = new java.util.zip.CRC32();
        byte[] key = "title".getBytes(StandardCharsets.UTF_8);
        byte[] value = "Hoist".getBytes(StandardCharsets.UTF_8);
        for (byte[] text : List.of(key, value)) {
            sum.update(new byte[] {3, (byte) text.length, 0, 0, 0, 0, 0, 0, 0});
            sum.update(text);
        }
        try (Connection stock = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = stock.createStatement()) {
            assertThat(statement
                            .executeQuery("SELECT check_sum FROM take WHERE key = 'title'")
                            .getLong(1))
                    .isEqualTo(sum.getValue());
        }
        try (RandomAccessFile header = new RandomAccessFile(file.toFile(), "r")) {
            header.seek(60);
            assertThat(header.readInt()).as("the format's version").isEqualTo(4);
        }
    }

    /** Marks with ends, of which one row or another is changed or taken out behind the program's back. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "UPDATE mark_end SET seconds = 0.02 WHERE mark = 2 | the end of a mark does not check and is left out",
                "DELETE FROM mark_end WHERE mark = 2 | of 2 rows of its table mark_end 1 are there",
                "DELETE FROM mark WHERE id = 1 | of 2 rows of its table mark 1 are there",
                "UPDATE mark SET text = 'other' WHERE id = 1 | a mark does not check and is left out"
            })
    void aSpanWhoseEndIsSpoiltIsAMomentAndItIsTold(String change, String told) throws Exception {
        Path spans = folder.resolve("spans.zest");
        Rig rig = Rig.blank("Wren", "stdin")
                .fittedTo(new DelimitedFormat(',', false, false, "", List.of(new Column("load", "")), null));
        try (TakeWriter writer = TakeWriter.create(spans, "spans", rig, Instant.EPOCH)) {
            writer.append(new Block(new TimeBase.Steady(50, 0.01), new double[][] {new double[200]}, 200, List.of()));
            writer.mark(new Mark(50.25, 50.5, "pull"));
            writer.mark(new Mark(50.75, 51.5, "rest"));
            writer.finish();
        }
        Mark pull = new Mark(0.25, 0.5, "pull");
        Mark rest = new Mark(0.75, 1.5, "rest");
        try (Take take = Take.open(spans)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.marks()).containsExactly(pull, rest);
        }
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + spans);
                Statement statement = connection.createStatement()) {
            statement.executeUpdate(change);
        }
        try (Take take = Take.open(spans)) {
            take.verify();
            assertThat(take.damage()).anySatisfy(one -> assertThat(one).contains(told));
            assertThat(take.marks())
                    .hasSize(change.contains("mark_end") ? 2 : 1)
                    .allSatisfy(one -> assertThat(List.of(pull, rest, new Mark(0.75, "rest")))
                            .contains(one));
            if (change.contains("mark_end")) {
                assertThat(take.marks().get(1).isSpan()).isFalse();
                // What is right is changed all the same.
                take.marks(List.of(new Mark(1, 1.25, "reef")));
                assertThat(take.marks()).containsExactly(new Mark(1, 1.25, "reef"));
            }
            assertThat(take.column(0)).hasSize(200);
        }
    }
}
