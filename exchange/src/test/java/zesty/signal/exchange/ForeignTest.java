package zesty.signal.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import zesty.signal.exchange.foreign.DumpFile;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.exchange.foreign.TableFile;
import zesty.signal.exchange.foreign.TakeImport;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Take;
import zesty.signal.takes.TakeException;

/** Files that other programs wrote (make_vectors.py) are read; what we write is read back, to the value where the format allows. */
class ForeignTest {
    @TempDir
    Path folder;

    private Path resource(String name) throws IOException {
        Path file = folder.resolve(name);
        try (InputStream in = ForeignTest.class.getResourceAsStream("/" + name)) {
            Files.write(file, in.readAllBytes());
        }
        return file;
    }

    /** By column's name its values, and the times under "t"; a name of a further source as SOURCE/NAME. */
    private static Map<String, double[]> all(TakeView view) throws IOException {
        Map<String, double[]> all = new LinkedHashMap<>();
        for (int s = 0; s < view.sources().size(); s++) {
            TakeView.Source source = view.sources().get(s);
            String prefix = source.name().isEmpty() ? "" : source.name() + "/";
            int[] wanted = IntStream.range(0, source.columns().size()).toArray();
            view.read(s, wanted, (seconds, values) -> {
                all.merge(prefix + "t", seconds, ForeignTest::joined);
                for (int c = 0; c < wanted.length; c++) {
                    all.merge(prefix + source.columns().get(c).name(), values[c], ForeignTest::joined);
                }
            });
        }
        return all;
    }

    private static double[] joined(double[] a, double[] b) {
        return DoubleStream.concat(Arrays.stream(a), Arrays.stream(b)).toArray();
    }

    @Test
    void anotherLibrarysEdfIsReadWithItsTwoRatesItsUnitsAndItsAnnotations() throws Exception {
        try (ForeignFile edf = ForeignFile.open(resource("foreign.edf"))) {
            assertThat(edf.sources()).extracting(TakeView.Source::rateHz).containsExactly(100.0, 10.0);
            assertThat(edf.sources().get(0).columns()).containsExactly(new TakeView.Column("ramp", "uV"));
            assertThat(edf.started()).contains(Instant.parse("2026-05-02T14:30:15Z"));
            assertThat(edf.marks()).containsExactly(new Mark(1.25, "bö"), new Mark(2, 2.5, "reef"));
            Map<String, double[]> all = all(edf);
            double step = 1000.0 / 65535;
            for (int i = 0; i < 300; i++) {
                assertThat(all.get("ramp")[i]).isCloseTo(i - 150, within(step));
                assertThat(all.get("t")[i]).isCloseTo(i / 100.0, within(1e-9));
            }
            assertThat(all.get("rate 2/slow")).hasSize(30).satisfies(slow -> {
                assertThat(slow[29]).isCloseTo(22.9, within(0.002));
            });
        }
    }

    @Test
    void h5pysFileIsReadWithGroupsAsSourcesAndMarks() throws Exception {
        try (ForeignFile h5 = ForeignFile.open(resource("foreign.h5"))) {
            Map<String, double[]> all = all(h5);
            assertThat(all.keySet()).containsExactlyInAnyOrder("t", "pull", "count", "masthead/t", "masthead/wind");
            assertThat(all.get("pull")).containsExactly(1.5, -2.25, Double.NaN, 4, 5);
            assertThat(all.get("count")).containsExactly(0, 1, 2, 3, 4);
            assertThat(all.get("masthead/t")).containsExactly(0, 0.5, 1);
            assertThat(h5.marks()).containsExactly(new Mark(0.5, "gust"));
            assertThat(h5.sources().get(0).rateHz()).isEqualTo(4);
            assertThat(h5.sources().get(0).columns()).contains(new TakeView.Column("pull", "N"));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "u8, 8000, -1;0;0.9921875",
        "i16, 8000, 0;0.0030517578125;0.999969482421875",
        "i24, 500, 0;-0.00000011920928955078125;0.5;-1",
        "i32, 8000, -1;0;0.5",
        "f32, 44100, 0.5;-1.25;3",
        "f64, 44100, 0.1;-0.2"
    })
    void soundOfEveryWidthIsPartsOfFullScale(String name, double rate, String values) throws Exception {
        try (ForeignFile wav = ForeignFile.open(resource(name + ".wav"))) {
            assertThat(wav.sources().get(0).rateHz()).isEqualTo(rate);
            assertThat(all(wav).get("1"))
                    .containsExactly(Arrays.stream(values.split(";"))
                            .mapToDouble(Double::parseDouble)
                            .toArray());
        }
    }

    @Test
    void arraysOfEveryWidthAndOrderAreReadAndOthersNamed() throws Exception {
        try (ForeignFile npz = ForeignFile.open(resource("kinds.npz"))) {
            Map<String, double[]> all = all(npz);
            assertThat(all.get("small")).containsExactly(-1, 2, 3, 4);
            assertThat(all.get("byte")).containsExactly(0, 255, 7, 8);
            assertThat(all.get("big")).containsExactly(1.5, -2.5, 3, 4);
            assertThat(all.get("long")).containsExactly(-0x1p40, 1, 2, 3);
            assertThat(npz.sources().get(0).rateHz()).isEqualTo(8);
            assertThat(npz.remarks()).singleElement().asString().startsWith("flat.npy is left out");
        }
    }

    /** A take's view of given rows: two columns, one of whole numbers, one of halves. */
    private record Rows(double[] seconds, double[] counts, double[] halves, double rateHz) implements TakeView {
        @Override
        public List<Source> sources() {
            return List.of(new Source(
                    "", List.of(new Column("count one", ""), new Column("pull", "µN")), seconds.length, rateHz));
        }

        @Override
        public void read(int source, int[] columns, Taker taker) throws IOException {
            double[][] both = {counts, halves};
            taker.take(seconds, Arrays.stream(columns).mapToObj(c -> both[c]).toArray(double[][]::new));
        }
    }

    private static final List<Mark> MARKS = List.of(
            new Mark(0.5, "gust ü"),
            new Mark(4.25, 4.75, "a long remark ".repeat(9).strip()));

    /** Five seconds at 50/s of which the third and fourth are missing. */
    private static Rows broken() {
        double[] seconds = IntStream.range(0, 250)
                .filter(i -> i < 105 || i >= 203)
                .mapToDouble(i -> i / 50.0)
                .toArray();
        return new Rows(
                seconds,
                Arrays.stream(seconds).map(t -> Math.rint(1000 * Math.sin(t))).toArray(),
                Arrays.stream(seconds).map(t -> 0.5 + Math.cos(t)).toArray(),
                50);
    }

    /** By another library alone: values to the last bit, attributes, marks with their ends, and names that fill a link. */
    @Test
    void anHdf5FileIsReadByALibraryThatKnowsNothingOfUs() throws Exception {
        Rows rows = broken();
        Path file = written("own.h5", out -> Hdf5Export.write(rows, MARKS, out));
        try (io.jhdf.HdfFile hdf = new io.jhdf.HdfFile(file)) {
            assertThat(hdf.getChildren().keySet()).contains("t", "marks");
            for (int c = 0; c < rows.sources().get(0).columns().size(); c++) {
                TakeView.Column column = rows.sources().get(0).columns().get(c);
                io.jhdf.api.Dataset one = hdf.getDatasetByPath(column.name());
                assertThat(one.getDimensions()).containsExactly(rows.seconds.length);
                assertThat((double[]) one.getData()).containsExactly(c == 0 ? rows.counts : rows.halves);
                assertThat(one.getAttribute("unit").getData())
                        .isEqualTo(column.unit().isEmpty() ? "1" : column.unit());
                assertThat(one.getAttribute("rate_hz").getData()).isEqualTo(50.0);
            }
            assertThat((double[]) hdf.getDatasetByPath("t").getData()).containsExactly(rows.seconds);
            assertThat((double[]) hdf.getDatasetByPath("marks/t_s").getData()).containsExactly(0.5, 4.25);
            assertThat((double[]) hdf.getDatasetByPath("marks/until_s").getData())
                    .containsExactly(Double.NaN, 4.75);
            assertThat((String[]) hdf.getDatasetByPath("marks/text").getData())
                    .containsExactly(MARKS.get(0).text(), MARKS.get(1).text());
        }
        // R. J. Jenkins gives this one with his code.
        byte[] known = "Four score and seven years ago".getBytes(StandardCharsets.US_ASCII);
        assertThat(Hdf5Headers.lookup3(known, known.length)).isEqualTo(0x17770551);
        assertThat(Hdf5Headers.lookup3(new byte[0], 0)).isEqualTo(0xdeadbeef);
    }

    private Path written(String name, ThrowingWriter writer) throws IOException {
        Path file = folder.resolve(name);
        try (OutputStream out = Files.newOutputStream(file)) {
            writer.write(out);
        }
        return file;
    }

    private interface ThrowingWriter {
        void write(OutputStream out) throws IOException;
    }

    @Test
    void whatEdfCannotHoldIsSaidAsANumberAndAGapIsNoSamples() throws Exception {
        Rows rows = broken();
        List<String> said = new ArrayList<>();
        Path file = written(
                "a.edf",
                out -> said.addAll(EdfExport.write(rows, Instant.parse("2026-05-02T10:00:00Z"), "Wren", MARKS, out)
                        .words()));
        String head = Files.readString(file, StandardCharsets.ISO_8859_1).substring(0, 256);
        assertThat(head.substring(192, 197)).isEqualTo("EDF+D");
        assertThat(head.substring(168, 184)).isEqualTo("02.05.2610.00.00");
        assertThat(said).singleElement().asString().startsWith("pull is rounded by up to 0.00001");
        double most = Double.parseDouble(said.get(0).replaceAll(".*up to ([0-9.]+) .*", "$1"));
        try (ForeignFile edf = ForeignFile.open(file)) {
            Map<String, double[]> all = all(edf);
            assertThat(all.get("count one")).containsExactly(rows.counts());
            assertThat(all.get("t")).hasSize(rows.seconds().length);
            for (int i = 0; i < rows.seconds().length; i++) {
                assertThat(all.get("t")[i]).isCloseTo(rows.seconds()[i], within(1e-9));
                assertThat(all.get("pull")[i]).isCloseTo(rows.halves()[i], within(1.01 * most));
            }
            assertThat(edf.marks()).isEqualTo(MARKS);
            assertThat(edf.sources().get(0).columns().get(1).unit()).isEqualTo("uN");
        }
    }

    @Test
    void arraysSetsAndSoundComeBackToTheBit() throws Exception {
        Rows rows = broken();
        Path npz = written("a.npz", out -> NpzExport.write(rows, out));
        Path h5 = written("a.h5", out -> Hdf5Export.write(rows, MARKS, out));
        for (Path file : List.of(npz, h5)) {
            try (ForeignFile back = ForeignFile.open(file)) {
                Map<String, double[]> all = all(back);
                assertThat(all.get("t")).containsExactly(rows.seconds());
                assertThat(all.get("count one")).containsExactly(rows.counts());
                assertThat(all.get("pull")).containsExactly(rows.halves());
            }
        }
        double[] times = IntStream.range(0, 8).mapToDouble(i -> i / 49.98).toArray();
        Rows whole = new Rows(times, new double[] {1, -2, 3, 4, 5, 6, 7, 32767}, times.clone(), 49.98);
        Arrays.setAll(whole.halves(), i -> -i);
        try (ForeignFile wav = ForeignFile.open(written("a.wav", out -> WavExport.write(whole, 0, out)))) {
            assertThat(wav.sources().get(0).rateHz()).isEqualTo(49.98);
            assertThat(all(wav).get("count one")).containsExactly(whole.counts());
            assertThat(all(wav).get("pull")).containsExactly(whole.halves());
        }
    }

    @Test
    void anImportedFileIsATakeWithItsGapsMarksAndUnits() throws Exception {
        Rows rows = broken();
        Path edf = written("a.edf", out -> EdfExport.write(rows, Instant.EPOCH, "Wren", MARKS, out));
        Path out = folder.resolve("b.zest");
        try (ForeignFile view = ForeignFile.open(edf)) {
            assertThat(TakeImport.write(view, out, "b", "a.edf", Instant.EPOCH, Double.NaN))
                    .isEqualTo(152);
        }
        try (Take take = Take.open(out)) {
            take.verify();
            assertThat(take.damage()).isEmpty();
            assertThat(take.column(0)).containsExactly(rows.counts());
            assertThat(take.gaps()).singleElement().satisfies(gap -> {
                assertThat(gap.startSeconds()).isCloseTo(2.08, within(1e-9));
                assertThat(gap.missing()).isEqualTo(98);
            });
            assertThat(take.marks()).isEqualTo(MARKS);
            assertThat(take.columns().get(1).unit()).isEqualTo("uN");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"foreign.edf", "foreign.h5", "i16.wav", "kinds.npz"})
    void aFileThatIsCutOffOrSomethingElseIsRefusedInOneSentenceOrSaysWhatIsMissing(String name) throws Exception {
        byte[] whole = Files.readAllBytes(resource(name));
        Path cut = folder.resolve("cut-" + name);
        Files.write(cut, Arrays.copyOf(whole, whole.length * 2 / 3));
        boolean said;
        try (ForeignFile view = ForeignFile.open(cut)) {
            said = view.remarks().stream().anyMatch(words -> words.contains("missing"));
        } catch (TakeException e) {
            said = e.getMessage().startsWith(cut.toString()) && !e.getMessage().contains("\n");
        }
        assertThat(said).isTrue();
        Path other = folder.resolve("other" + name.substring(name.indexOf('.')));
        Files.writeString(other, "t,x\n0,1\n1,2\n".repeat(30));
        assertThatThrownBy(() -> ForeignFile.open(other).close())
                .isInstanceOf(TakeException.class)
                .hasMessageContaining(other + " is no ");
    }

    @Test
    void whatABoardKeptIsReadByRowsByBlocksAndByTurns() throws Exception {
        String rows = "temp [°C], volts\n20.5, 3.1\n21 3.0\n";
        String blocks = "interval: 2 min\n== temp [°C] ==\n20.5\n21\nvolts:\n3.1 3.0\n";
        String turns = "20.5\n3.1\n21\n3.0\n";
        for (DumpFile dump : List.of(
                new DumpFile(rows, "dump", DumpFile.Layout.ROWS, List.of()),
                new DumpFile(blocks, "dump", DumpFile.Layout.BLOCKS, List.of()),
                new DumpFile("20.5 21\n3.1 3.0", "dump", DumpFile.Layout.BLOCKS, List.of("temp [°C]", "volts")),
                new DumpFile(turns, "dump", DumpFile.Layout.INTERLEAVED, List.of("temp [°C]", "volts")))) {
            Map<String, double[]> all = all(dump);
            assertThat(all.get("temp")).containsExactly(20.5, 21);
            assertThat(all.get("volts")).containsExactly(3.1, 3.0);
            assertThat(dump.sources().get(0).columns().get(0).unit()).isEqualTo("°C");
            assertThat(dump.timed()).isEqualTo(all.get("t")[1] == 120);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "BLOCKS | a:/1/2/3/b:/4/5 | '' | dump: b is 1 short, with 2 numbers where there should be 3",
                "BLOCKS | 1/2/3 | a,b | dump: 3 numbers do not part evenly into 2 columns: b is 1 short of 2",
                "INTERLEAVED | 1/2/3/4 | a,b,c | dump: 4 numbers do not come out even by turns of 3: b and c are each one short",
                "ROWS | 1 2/3 | a,b | dump line 2: 1 number where a row has 2",
                "ROWS | 1 x/3 4 | a,b | dump line 1: 'x' where a number should be",
                "ROWS | hello | '' | dump holds no numbers"
            })
    void aDumpThatDoesNotComeOutEvenNamesWhatIsShort(
            DumpFile.Layout layout, String text, String columns, String message) {
        List<String> names = columns.isEmpty() ? List.of() : List.of(columns.split(","));
        assertThatThrownBy(() -> new DumpFile(text.replace('/', '\n'), "dump", layout, names))
                .hasMessage(message);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sep=;~t;x [V];y~0,5;1,25;2~1,0;2,5;~ | 0;0.5 | ; | a decimal comma",
                "# made by hand~Time [ms]\tx\ty~100\t1.25\t2~600\t2.5\tNaN~ | 0;0.5 | tab | by its unit",
                "\uFEFFdate,\"x\",y~2026-05-02 10:00:00.250,1.25,2~2026-05-02 10:00:00.750,2.5,~ | 0;0.5 | , | dates",
                "Logger 3~begun today~time_us;x;y~0;1.25;2~500000;2.5;~ | 0;0.5 | ; | 2 lines before the header left out",
                "timestamp,x,y~1777716000000,1.25,2~1777716000500,2.5,~ | 0;0.5 | , | taken as ms"
            })
    void anySpreadsheetsTableIsReadAndTheGuessIsSaid(String text, String times, String delimiter, String said)
            throws Exception {
        for (String ending : List.of("\n", "\r\n")) {
            Path file = folder.resolve("sheet.csv");
            Files.writeString(file, text.replace("~", ending));
            TableFile table = new TableFile(file, "", false);
            Map<String, double[]> all = all(table);
            assertThat(all.get("t"))
                    .containsExactly(Arrays.stream(times.split(";"))
                            .mapToDouble(Double::parseDouble)
                            .toArray());
            assertThat(all.get("x")).containsExactly(1.25, 2.5);
            assertThat(all.get("y")).containsExactly(2, Double.NaN);
            assertThat(String.join("; ", table.remarks())).contains(said);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "date | 13.02.2026 10:00:00 | 13.02.2026 10:00:01,5 | 1.5 | dates | 2026-02-13T10:00:00Z",
                "date | 02/13/2026 10:00:00 | 02/13/2026 10:00:02 | 2 | month first | 2026-02-13T10:00:00Z",
                "date | 13/02/2026 10:00 | 13/02/2026 10:01 | 60 | day first | 2026-02-13T10:00:00Z",
                "timestamp | 2026-02-13T10:00:00+01:00 | 2026-02-13T10:00:04+01:00 | 4 | dates | 2026-02-13T09:00:00Z",
                "Zeit | 23:59:59.500 | 00:00:01 | 1.5 | times of day | ''",
                "time | 100 | 110 | 0.01 | taken as ms | ''",
                "elapsed (min) | 1.5 | 2 | 30 | by its unit | ''",
                "seconds | 7 | 9 | 2 | by its unit | ''",
                "time | 7 | 7.5 | 0.5 | taken as s | ''"
            })
    void datesAndTimesOfEveryFormAreSecondsFromTheFirstRow(
            String header, String first, String second, double step, String said, String started) throws Exception {
        Path file = folder.resolve("sheet.csv");
        Files.writeString(file, header + ";x\n" + first + ";1\n" + second + ";2\n");
        TableFile table = new TableFile(file, "", false);
        double[] times = all(table).get("t");
        assertThat(times[0]).isZero();
        assertThat(times[1]).isCloseTo(step, within(1e-6));
        assertThat(String.join("; ", table.remarks())).contains(said);
        assertThat(table.started().map(Instant::toString).orElse("")).isEqualTo(started);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "date;x/13.02.2026 10:00:00;1/later;2 | line 3, column date: 'later' where a time should be",
                "t;x/0;1/1;two | line 3, column x: 'two' where a number should be",
                "t;x/1;1/0;2 | line 3: t must not fall from row to row, but 0 follows 1",
                "t/0/1 | has no column but its time"
            })
    void aTableThatBreaksItsFormIsRefusedByLineAndColumn(String text, String message) throws Exception {
        Path file = folder.resolve("sheet.csv");
        Files.writeString(file, text.replace('/', '\n') + "\n");
        assertThatThrownBy(() -> new TableFile(file, "", false).read(0, new int[0], (seconds, values) -> {}))
                .isInstanceOf(TakeException.class)
                .hasMessageContaining(message);
    }
}
