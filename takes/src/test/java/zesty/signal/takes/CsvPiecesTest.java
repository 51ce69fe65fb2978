package zesty.signal.takes;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Random;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables that are read in pieces give what the same tables give cell by cell, to the last bit, and the same errors. */
class CsvPiecesTest {
    @TempDir
    Path folder;

    private static String number(Random random) {
        return switch (random.nextInt(9)) {
            case 0 -> String.valueOf(random.nextInt(2000) - 1000);
            case 1 -> String.valueOf(random.nextGaussian());
            case 2 -> String.format(Locale.ROOT, "%.3f", random.nextGaussian() * 1000);
            case 3 -> random.nextLong() + ".";
            case 4 -> (1 + random.nextDouble()) + "e-" + random.nextInt(300);
            case 5 -> "+0" + random.nextInt(99) + ".50";
            case 6 -> "-0";
            case 7 -> random.nextBoolean() ? "" : "NaN";
            default ->
                " " + random.nextInt(9) + "." + (1_000_000_000_000_000L + Math.abs(random.nextLong() % 9999)) + " ";
        };
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4})
    void eachNumberIsTheNearestOneWhateverWayItIsRead(int seed) throws Exception {
        Random random = new Random(seed);
        boolean comma = seed % 2 == 0;
        int rows = 40_000;
        StringBuilder text = new StringBuilder("# made up\nt;a;b;note [V]\n");
        String end = seed == 3 ? "\r\n" : "\n";
        for (int i = 0; i < rows; i++) {
            // Quotes from the middle on, in one of the tables: the rest goes record by record.
            String b = number(random);
            String cells = i / 100.0 + ";" + number(random) + ";" + (seed == 4 && i > 25_000 ? '"' + b + '"' : b) + ";"
                    + number(random);
            text.append(comma ? cells.replace('.', ',') : cells).append(end);
            if (i % 9000 == 0) {
                text.append("# still running").append(end);
            }
        }
        Path file = Files.writeString(folder.resolve("many.csv"), text.append("\n\n"));
        Table table = Table.open(file);
        CsvPieces pieces = new CsvPieces(file, "");
        assertThat(pieces.headers()).containsExactly("t", "a", "b", "note");
        assertThat(pieces.count()).isEqualTo(rows);
        double[][] all = new double[4][0];
        pieces.read(false, (seconds, values) -> {
            all[0] = joined(all[0], seconds);
            for (int c = 1; c < 4; c++) {
                all[c] = joined(all[c], values[c]);
            }
        });
        assertThat(all[0]).isEqualTo(table.times().orElseThrow());
        for (int c = 1; c < 4; c++) {
            double[] wanted = table.columnWithHoles(table.headers().get(c));
            for (int i = 0; i < rows; i++) {
                assertThat(Double.doubleToLongBits(all[c][i]))
                        .as("row %d, column %d", i, c)
                        .isEqualTo(Double.doubleToLongBits(wanted[i]));
            }
        }
    }

    private static double[] joined(double[] a, double[] b) {
        return DoubleStream.concat(DoubleStream.of(a), DoubleStream.of(b)).toArray();
    }

    @Test
    void whatIsWrongFarDownIsNamedByItsLine() throws Exception {
        StringBuilder text = new StringBuilder("t,a\n");
        for (int i = 0; i < 30_000; i++) {
            text.append(i).append(',').append(i).append('\n');
        }
        String whole = text.toString();
        for (String[] one : new String[][] {
            {"29999,29999", "29999,two", "line 30001, column a: 'two' where a number should be"},
            {"29999,29999", "29999,1,2", "line 30001: 3 cells where the header has 2"},
            {"29999,29999", ",5", "line 30001, column t: nothing where a time should be"},
            {"29999,29999", "3,5", "line 30001: t must not fall from row to row, but 3 follows 29998"},
            {"29990,29990", "", "line 29992: nothing where a row of numbers should be"}
        }) {
            Path file = Files.writeString(folder.resolve("wrong.csv"), whole.replace("\n" + one[0], "\n" + one[1]));
            assertThatThrownBy(() -> new CsvPieces(file, "").read(false, (seconds, values) -> {}))
                    .isInstanceOf(TakeException.class)
                    .hasMessageContaining(one[2]);
        }
    }

    /** A board's counter of 32 bits ends after 71 minutes, or 50 days, and begins again; one that falls to less began anew. */
    /** A row that repeats the one before it is left out, unless rows that share a time differ, or rows are mostly alike anyway. */
    @ParameterizedTest
    @CsvSource({
        "'0,1;1,2;1,2;2,3;3,4;3,4;3,4;4,5', 5",
        "'0,1;1,2;1,2;2,3;3,4;3,5;4,5', 7",
        "'0,1;1,1;1,1;2,1;3,1;4,2', 6",
        "'0,1;1,2;2,2', 3"
    })
    void rowsSentTwiceAreOne(String rows, int left) throws Exception {
        Table table = Table.open(Files.writeString(folder.resolve("twice.csv"), "t_s,x\n" + rows.replace(';', '\n')));
        assertThat(table.withoutRepeats().rows()).isEqualTo(left);
        assertThat(table.withoutRepeats() == table).isEqualTo(table.rows() == left);
    }

    @ParameterizedTest
    @CsvSource({"t_us, 10000, true", "t_ms, 10, true", "t_us, 10000, false", "t_s, 10, false"})
    void aCountersEndIsNoFall(String header, long step, boolean goesOn) throws Exception {
        long end = 1L << 32;
        StringBuilder text = new StringBuilder(header).append(",x\n");
        for (int i = 0; i < 40_000; i++) {
            long count = end - 20_000 * step + i * step + 123;
            text.append(count < end ? count : goesOn ? count - end : 77 + i * step)
                    .append(',')
                    .append(i)
                    .append('\n');
        }
        Path file = Files.writeString(folder.resolve("long.csv"), text);
        if (!goesOn) {
            assertThatThrownBy(() -> Table.open(file).times()).hasMessageContaining("must not fall");
            return;
        }
        double[] times = Table.open(file).times().orElseThrow();
        double[][] pieces = {new double[0]};
        new CsvPieces(file, "").read(false, (seconds, values) -> pieces[0] = joined(pieces[0], seconds));
        for (int i = 0; i < times.length; i++) {
            assertThat(times[i] - times[0]).as("row %d", i).isCloseTo(i * 0.01, within(1e-6));
            assertThat(pieces[0][i]).as("row %d", i).isCloseTo(i * 0.01, within(1e-6));
        }
    }

    /** Who gives a rate does not ask for times: whatever stands in their column, quoted or not. */
    @ParameterizedTest
    @ValueSource(strings = {"t,a\n5,1\n3,2\nlater,3\n,4\n", "t,a\n5,1\n\"3\",2\n\"later, then\",3\n,\"4\"\n"})
    void timesThatAreLeftAsideMayBeAnything(String text) throws Exception {
        Path file = Files.writeString(folder.resolve("aside.csv"), text);
        double[][] all = {new double[0]};
        new CsvPieces(file, "").read(true, (seconds, values) -> {
            assertThat(seconds).isNull();
            all[0] = joined(all[0], values[1]);
        });
        assertThat(all[0]).containsExactly(1, 2, 3, 4);
        assertThatThrownBy(() -> new CsvPieces(file, "").read(false, (seconds, values) -> {}))
                .isInstanceOf(TakeException.class)
                .hasMessageMatching("(?s).*aside.csv line [34].*");
    }
}
