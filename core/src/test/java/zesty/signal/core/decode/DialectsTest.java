package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import zesty.signal.core.sample.Block;
import zesty.signal.core.sample.Gap;

/** Ways in which boards write columns of text, each with what must come of it. */
class DialectsTest {
    static Stream<Arguments> dialects() {
        return Stream.of(
                Arguments.of("512,2.500\r\n513,2.505\r\n", ',', "column1,column2", 2, 0),
                Arguments.of("raw\tvolts\n512\t2.5\n513\t2.505\n", '\t', "raw,volts", 2, 0),
                Arguments.of("raw; volts\n512; 2,5\n513; 2,505\n", ';', "raw,volts", 2, 0),
                Arguments.of("   7   -3.5  1e3\n  12    4.0  2e-3\n", ' ', "column1,column2,column3", 2, 0),
                Arguments.of("\u00B5V [uV],T (\u00B0C)\n1,20.5\n2,20.6\n", ',', "\u00B5V,T", 2, 0),
                Arguments.of("booting...\n\nx\n1\n2\n3\n", ',', "x", 3, 2),
                Arguments.of("Ready to go\n1\n2\n3\n", ',', "column1", 3, 1),
                Arguments.of("a,b,c\n1,2,3\n4,nan,6\n,8,9\n7,inf,\n", ',', "a,b,c", 4, 0),
                Arguments.of("a,b\n1,2\n# note\n3,4\n5;6\n7,8,9\n", ',', "a,b", 2, 3),
                Arguments.of("1,2,3,\n4,5,6,\n7,8,9,\n", ',', "column1,column2,column3", 3, 0),
                Arguments.of("+1,-2\n.5,-.5\n5.,-0\n", ',', "column1,column2", 3, 0),
                Arguments.of("1,2\n0x1F,3\n1e999,3\n1__0,3\n2,3\n", ',', "column1,column2", 3, 2),
                Arguments.of("t_ms,a\n0,1\n10,2\nt_ms,a\n0,1\n10,2\n", ',', "t_ms,a", 4, 0));
    }

    @ParameterizedTest
    @MethodSource("dialects")
    void isRecognisedAndDecoded(String text, char delimiter, String names, int rows, int aside) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        DelimitedFormat format = DelimitedFinder.find(bytes, bytes.length).orElseThrow();
        assertThat(format.columns().stream().map(Column::name).toList()).containsExactly(names.split(","));
        if (format.columns().size() > 1) {
            assertThat(format.delimiter()).isEqualTo(delimiter);
        }
        DelimitedDecoder decoder = new DelimitedDecoder(format, new RejectedLines(100));
        for (byte b : bytes) {
            decoder.feed(new byte[] {b}, 0, 1);
        }
        assertThat(decoder.takeRows().count()).isEqualTo(rows);
        assertThat(decoder.rejectedLines().count()).isEqualTo(aside);
    }

    @Test
    void aLabelledLineReadTheShortWayReadsAsTheCarefulWay() {
        Random random = new Random(5);
        List<String> lines = new ArrayList<>();
        String[] shapes = {
            "wind: %d mm/s, vane=%d deg",
            "wind: %d mm/s",
            "vane=%d",
            "wind:%6d mm/s, vane=%d deg",
            "wind -> %d; vane: -%d",
            "vane=%d deg, wind: %d mm/s",
            "wind: nan mm/s, vane=%d deg",
            "wind: %de2 mm/s, vane=0x%d"
        };
        for (int i = 0; i < 2000; i++) {
            String line =
                    String.format(shapes[random.nextInt(shapes.length)], random.nextInt(900), random.nextInt(360));
            // Every tenth line has a letter struck out, doubled or exchanged.
            int at = random.nextInt(line.length());
            String mangled = line.substring(0, at)
                    + new String[] {"", "7", ".", "e", "="}[random.nextInt(5)]
                    + line.substring(at + random.nextInt(2));
            lines.add(i % 10 == 9 ? mangled : line);
        }
        LabelledFormat format = new LabelledFormat(
                List.of("wind", "vane"), List.of(new Column("wind", ""), new Column("vane", "")), false, false, null);
        StreamDecoder decoder = format.decoder(new RejectedLines(3000));
        decoder.feed((String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8), 0, bytesOf(lines));
        Rows all = decoder.takeRows();
        int row = 0;
        for (String line : lines) {
            // A fresh decoder has learned nothing yet.
            StreamDecoder careful = format.decoder(new RejectedLines(10));
            careful.feed((line + "\n").getBytes(StandardCharsets.UTF_8), 0, line.length() + 1);
            Rows one = careful.takeRows();
            for (int c = 0; c < 2 && one.count() == 1; c++) {
                assertThat((Double) all.columns()[c][row]).as(line).isEqualTo((Double) one.columns()[c][0]);
            }
            row += one.count();
        }
        assertThat(all.count()).isEqualTo(row).isGreaterThan(1700);
    }

    private static int bytesOf(List<String> lines) {
        return lines.stream().mapToInt(line -> line.length() + 1).sum();
    }

    @Test
    void aLineCutAfterAWholeNumberIsSetAsideWhereAllLinesCarryAllLabels() {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < 60; i++) {
            // The cut one looks whole: "wind: 41" of "wind: 412 mm/s, vane: 7 deg".
            text.append(i == 40 ? "wind: 41\n" : "wind: " + (400 + i % 9) + " mm/s, vane: 7 deg\n");
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
        RejectedLines aside = new RejectedLines(10);
        StreamDecoder decoder =
                Recogniser.recognise(bytes, bytes.length).get(0).format().decoder(aside);
        decoder.feed(bytes, 0, bytes.length);
        assertThat(decoder.takeRows().count()).isEqualTo(59);
        assertThat(aside.items()).singleElement().satisfies(item -> assertThat(item.why())
                .contains("vane"));
    }

    private static PacketFormat packets(int length, BiConsumer<ByteBuffer, Integer> write) {
        ByteBuffer stream = ByteBuffer.allocate(400 * (length + 3)).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < 400; i++) {
            stream.put((byte) 0xAA).put((byte) 0x55);
            int from = stream.position();
            write.accept(stream, i);
            int sum = 0;
            for (int at = from; at < stream.position(); at++) {
                sum += stream.get(at);
            }
            stream.put((byte) sum);
        }
        return (PacketFormat)
                Recogniser.recognise(stream.array(), stream.capacity()).get(0).format();
    }

    /** Packets whose bytes could be taken for other fields: each comes out as the one who wrote it meant it. */
    @Test
    void fieldsThatStandStillOrRiseSlowlyAreToldApart() {
        Random random = new Random(3);
        for (int noise : new int[] {0, 3, 200}) {
            PacketFormat two = packets(4, (out, i) -> out.putShort((short) (120 * Math.sin(i / 9.0)))
                    .putShort((short) (16384 + noise * random.nextGaussian())));
            assertThat(two.fields()).extracting(field -> field.type().bytes()).containsExactly(2, 2);
        }
        PacketFormat pressure = packets(4, (out, i) -> out.putFloat((float) (1013.25 + 0.03 * random.nextGaussian())));
        assertThat(pressure.fields()).extracting(Field::type).containsExactly(Field.Type.F32);
        for (int step : new int[] {10, 1000}) {
            PacketFormat clocked = packets(
                    6, (out, i) -> out.putInt(i * step + step).putShort((short) (500 + 100 * Math.sin(i / 20.0))));
            assertThat(clocked.start()).isEqualTo("AA55");
            assertThat(clocked.check()).isEqualTo(Check.SUM8);
            assertThat(clocked.clock().ticksPerSecond()).isEqualTo(step == 10 ? 1e3 : 1e6);
            assertThat(clocked.clock().wrapTicks()).isGreaterThan(1e7);
        }
    }

    @Test
    void oneMonstrousLineIsSetAsideAndHidesNoFormat() {
        StringBuilder text = new StringBuilder("a,b\n");
        for (int i = 0; i < 200; i++) {
            text.append(i).append(',').append(2 * i).append('\n');
            if (i == 150) {
                text.append("7,".repeat(9_999)).append("7\n");
            }
        }
        byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
        StreamFormat format = Recogniser.recognise(bytes, bytes.length).get(0).format();
        assertThat(format.columns()).extracting(Column::name).containsExactly("a", "b");
        RejectedLines aside = new RejectedLines(10);
        StreamDecoder decoder = format.decoder(aside);
        decoder.feed(bytes, 0, bytes.length);
        assertThat(decoder.takeRows().count()).isEqualTo(200);
        assertThat(aside.items()).singleElement().satisfies(item -> assertThat(item.why())
                .contains("10000"));
    }

    @Test
    void clocksAreToldByNameAndUnit() {
        assertThat(clock("micros,a\n10,1\n20,2\n30,3\n")).isEqualTo(new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT));
        assertThat(clock("a,millis\n5,10\n6,20\n2,30\n")).isEqualTo(new BoardClock(1, 1e3, BoardClock.WRAP_32_BIT));
        assertThat(clock("time [s],a\n0.1,1\n0.2,2\n0.3,3\n")).isEqualTo(new BoardClock(0, 1, 0));
        assertThat(clock("time,a\n1000,1\n6000,2\n11000,3\n"))
                .isEqualTo(new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT));
        // Two lines a millisecond are still on a clock; a column that stands still is not one.
        assertThat(clock("t_ms,a\n7,1\n7,2\n8,3\n8,4\n9,5\n9,6\n"))
                .isEqualTo(new BoardClock(0, 1e3, BoardClock.WRAP_32_BIT));
        assertThat(clock("t_ms,a\n7,1\n7,2\n7,3\n7,4\n")).isNull();
        assertThat(clock("t,a\n3,1\n2,2\n1,3\n")).isNull();
        assertThat(clock("count,a\n1,1\n2,2\n3,3\n")).isNull();
    }

    private static BoardClock clock(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        return DelimitedFinder.find(bytes, bytes.length).orElseThrow().clock();
    }

    @Test
    void anyClockWithAnyLossesIsDatedToTheMicrosecond() {
        for (long seed = 1; seed <= 40; seed++) {
            Random random = new Random(seed);
            double wrap = BoardClock.WRAP_32_BIT;
            long start = (long) (wrap - random.nextInt(30_000_000));
            int period = 500 + random.nextInt(20_000);
            List<Double> ticks = new ArrayList<>();
            List<Double> seconds = new ArrayList<>();
            long missing = 0;
            int gaps = 0;
            long at = 0;
            for (int i = 0; i < 4000; i++) {
                // No losses before the rate is known: it takes fifteen steps.
                if (i > 40 && random.nextInt(300) == 0) {
                    int lost = 1 + random.nextInt(50);
                    at += (long) lost * period;
                    missing += lost;
                    gaps++;
                }
                long jitter = random.nextInt(period / 50 + 1);
                ticks.add((double) Math.floorMod(start + at + jitter, (long) wrap));
                seconds.add((at + jitter) / 1e6);
                at += period;
            }
            double zero = seconds.get(0);
            Timestamper timestamper = new Timestamper(new BoardClock(0, 1e6, wrap), Double.NaN, 100);
            int row = 0;
            long told = 0;
            while (row < ticks.size()) {
                int n = Math.min(ticks.size() - row, 1 + random.nextInt(200));
                double[] column =
                        ticks.subList(row, row + n).stream().mapToDouble(t -> t).toArray();
                Block block = timestamper.date(new Rows(new double[][] {column}, n), seconds.get(row + n - 1), 0);
                for (int i = 0; i < n; i++) {
                    double expected = seconds.get(row + i) - zero;
                    if (Math.abs(block.time().secondsAt(i) - expected) > 1e-9) {
                        throw new AssertionError("seed " + seed + ", row " + (row + i) + ": "
                                + block.time().secondsAt(i) + " instead of " + expected);
                    }
                }
                told += block.gaps().stream().mapToLong(Gap::missing).sum();
                row += n;
            }
            assertThat(told).as("seed " + seed).isEqualTo(missing).isEqualTo(timestamper.lostRows());
            assertThat(timestamper.gapCount()).isEqualTo(gaps);
        }
    }

    private static Recogniser.Proposal best(String text) {
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        byte[] plain = TextForm.of(bytes, bytes.length).plain(bytes, bytes.length);
        return Recogniser.recognise(plain, plain.length).get(0);
    }

    private static String lines(int count, IntFunction<String> line) {
        return IntStream.range(0, count).mapToObj(line).collect(Collectors.joining("\n", "", "\n"));
    }

    /** Lines as makers write them: words of two states, a date for a clock, a check at the end of a sentence. */
    @Test
    void wordsOfTwoStatesDatesAndChecksAreRead() {
        Recogniser.Proposal door = best(lines(
                120, i -> "door=" + (i % 40 < 20 ? "open" : "closed") + " motion=" + (i % 3 == 0) + " light=" + i));
        assertThat(door.format().columns()).extracting(Column::name).containsExactly("door", "motion", "light");
        assertThat(door.rows()).isEqualTo(120);
        assertThat(door.sample().columns()[1]).startsWith(1, 0, 0, 1);
        Recogniser.Proposal dated =
                best(lines(100, i -> String.format("2026-11-29 12:%02d:%02d.5,%d", i / 60, i % 60, 500 + i % 50)));
        assertThat(dated.format().columns()).hasSize(2);
        assertThat(dated.format().clock().ticksPerSecond()).isEqualTo(1);
        // 2026-11-29 is the 20786th day since 1970.
        assertThat(dated.sample().columns()[0][1]).isEqualTo(20_786.0 * 86_400 + 43_201.5);
        Recogniser.Proposal sentence = best(lines(200, i -> {
            String said = "WIND," + (i * 3 % 360) + "," + (4 + i % 5) + "." + i % 10 + ",m";
            return "$" + said + String.format("*%02X", said.chars().reduce(0, (a, b) -> a ^ b));
        }));
        assertThat(sentence.rows()).isEqualTo(200);
        assertThat(sentence.format().columns()).hasSize(2);
        // Whatever parts the numbers parts the names above them.
        Recogniser.Proposal barred = best("t_s | heel [deg]\n"
                + lines(
                        40,
                        i -> String.format(java.util.Locale.ROOT, "%.3f | %d", 2424.8 + 0.02 * i, -40 + i * i % 17)));
        assertThat(barred.format().columns())
                .extracting(Column::name, Column::unit)
                .containsExactly(tuple("t_s", ""), tuple("heel", "°"));
        assertThat(barred.format().clock()).isEqualTo(new BoardClock(0, 1, 0));
    }

    /** Very many columns that have nothing to do with their neighbours are no picture. */
    @Test
    void threeThousandColumnsAreNoPicture() {
        Random random = new Random(4);
        String text = lines(
                12, i -> random.ints(3000, 0, 1000).mapToObj(Integer::toString).collect(Collectors.joining(",")));
        assertThat(best(text).format()).isInstanceOf(DelimitedFormat.class);
    }

    private static String heat(int width, int row, double spot) {
        return java.util.stream.IntStream.range(0, width)
                .mapToObj(x -> String.format(
                        java.util.Locale.ROOT,
                        "%.1f",
                        20
                                + 40 * Math.exp(-(Math.pow(x - spot, 2) + Math.pow(row - 50, 2)) / 200)
                                + (x * 7 + row * 13 + (int) spot) % 5 * 0.1))
                .collect(Collectors.joining(" "));
    }

    /** Lines of a picture that is longer than what a guess is made of look like pictures themselves; a word now and then parts none. */
    @Test
    void aLargePictureIsNotItsLinesAndLinesThatArePicturesStayThat() {
        String large = lines(4 * 121, i -> i % 121 == 0 ? "picture " + i / 121 : heat(160, i % 121 - 1, 60 + i / 121));
        PictureFormat picture = (PictureFormat) best(large).format();
        assertThat(List.of(picture.rows(), picture.width(), picture.perLine() ? 1 : 0))
                .containsExactly(120, 160, 0);
        String small = lines(
                66,
                i -> i % 11 == 0
                        ? "status ok"
                        : java.util.stream.IntStream.range(0, 64)
                                .mapToObj(p -> String.format(
                                        java.util.Locale.ROOT,
                                        "%.1f",
                                        20
                                                + 30
                                                        * Math.exp(-(Math.pow(p % 8 - 3 - i / 30.0, 2)
                                                                        + Math.pow(p / 8 - 4, 2))
                                                                / 8)))
                                .collect(Collectors.joining(" ")));
        PictureFormat each = (PictureFormat) best(small).format();
        assertThat(List.of(each.rows(), each.width(), each.perLine() ? 1 : 0)).containsExactly(8, 8, 1);
    }

    /** Words of few kinds are numbers in the order of the alphabet; one that comes later is the next. */
    @Test
    void wordsOfFewKindsAreNumbersAndKeptAsALegend() {
        String[] modes = {"manual", "auto", "hold"};
        IntFunction<String> mode = i -> i == 260 ? "fault" : modes[i / 7 % 3];
        List<IntFunction<String>> dialects = List.of(
                i -> "mode=" + mode.apply(i) + " temp=" + (20 + i % 10) + ".5",
                i -> 10 * i + "," + mode.apply(i) + "," + (20 + i % 10) + ".5",
                i -> 10 * i + ";" + (20 + i % 10) + ";" + mode.apply(i));
        for (IntFunction<String> dialect : dialects) {
            byte[] bytes = lines(300, dialect).getBytes(StandardCharsets.UTF_8);
            TextForm form = TextForm.of(bytes, bytes.length);
            byte[] plain = form.plain(bytes, bytes.length);
            Recogniser.Proposal found =
                    Recogniser.recognise(plain, plain.length).get(0);
            RejectedLines aside = new RejectedLines(9);
            StreamDecoder decoder = found.format().decoder(aside);
            decoder.feed(plain, 0, plain.length);
            double[][] columns = decoder.takeRows().columns();
            assertThat(aside.items()).isEmpty();
            assertThat(form.legend()).endsWith(": 0 = auto, 1 = hold, 2 = manual, 3 = fault");
            assertThat(List.of(columns)).anySatisfy(column -> {
                assertThat(column).startsWith(2, 2, 2, 2, 2, 2, 2, 0, 0, 0, 0, 0, 0, 0, 1);
                assertThat(column[260]).isEqualTo(3);
            });
        }
        byte[] overLines = lines(300, i -> new String[] {"heel: 12", "trim: 3", "bilge: 40"}[i % 3])
                .getBytes(StandardCharsets.UTF_8);
        assertThat(TextForm.of(overLines, overLines.length).legend()).isEmpty();
    }
}
