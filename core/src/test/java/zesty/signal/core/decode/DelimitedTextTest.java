package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class DelimitedTextTest {
    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static DelimitedFormat find(String text) {
        byte[] bytes = bytes(text);
        return DelimitedFinder.find(bytes, bytes.length).orElseThrow();
    }

    private static DelimitedDecoder decode(String text) {
        DelimitedDecoder decoder = new DelimitedDecoder(find(text), new RejectedLines(1000));
        byte[] bytes = bytes(text);
        decoder.feed(bytes, 0, bytes.length);
        return decoder;
    }

    @Test
    void bannersHeaderHalfLineAndRubbishAreToldApart() {
        DelimitedDecoder decoder =
                decode("3,4\nboard ready\nt_us,pulse [counts],heel (deg)\n1000,512,1.5\n2000,513,-2\n\n"
                        + "3000,514\n4000,wait,3\n5000,,4\nt_us,pulse [counts],heel (deg)\n6000,515,5e-1\n7000,51");
        Rows rows = decoder.takeRows();
        assertThat(decoder.format().columns())
                .containsExactly(
                        new Column("t_us", "", Role.CLOCK, true),
                        new Column("pulse", "counts"),
                        new Column("heel", "°"));
        assertThat(decoder.format().clock()).isEqualTo(new BoardClock(0, 1e6, BoardClock.WRAP_32_BIT));
        assertThat(rows.count()).isEqualTo(4);
        assertThat(List.of(rows.columns()[0][0], rows.columns()[0][3])).containsExactly(1000.0, 6000.0);
        assertThat(rows.columns()[1][2]).isNaN();
        assertThat(rows.columns()[2][3]).isEqualTo(0.5);
        assertThat(decoder.lines()).isEqualTo(11);
        assertThat(decoder.rejectedLines().items())
                .extracting(RejectedLines.Item::line, RejectedLines.Item::why)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(1L, "2 fields where there should be 3"),
                        org.assertj.core.groups.Tuple.tuple(2L, "1 field where there should be 3"),
                        org.assertj.core.groups.Tuple.tuple(6L, "blank line"),
                        org.assertj.core.groups.Tuple.tuple(7L, "2 fields where there should be 3"),
                        org.assertj.core.groups.Tuple.tuple(8L, "'wait' in column 2 (pulse) is not a number"));
    }

    @Test
    void eachDelimiterIsRecognised() {
        assertThat(find("1;2,5;3\n4;5,5;6\n")).satisfies(f -> {
            assertThat(f.delimiter()).isEqualTo(';');
            assertThat(f.decimalComma()).isTrue();
        });
        assertThat(find("1\t2\t3\n4\t5\t6\n").delimiterName()).isEqualTo("tab");
        assertThat(find("  1  2 3\n4 5   6\n").columns()).hasSize(3);
        assertThat(find("a, b\r\n1, 2\r\n3, 4\r\n").columns())
                .containsExactly(new Column("a", ""), new Column("b", ""));
        assertThat(find("1,2,\n3,4,\n5,6,\n").columns()).hasSize(2);
        assertThat(find("512\n513\n514\n").columns()).containsExactly(new Column("column1", ""));
        assertThat(find("x,x\n1,2\n3,4\n").columns()).extracting(Column::name).containsExactly("x", "x 2");
        assertThat(DelimitedFinder.find(bytes("hello there\nno numbers\n"), 22)).isEqualTo(Optional.empty());
        assertThat(DelimitedFinder.find(new byte[0], 0)).isEmpty();
    }

    @Test
    void aFirstLineWithItsFrontCutOffIsToldByItsClock() {
        String cut = "95000,512\n1000000,513\n1005000,514\n";
        assertThat(DelimitedFinder.startsMidLine(bytes("t_us,a\n" + cut), 40, find("t_us,a\n" + cut)))
                .isFalse();
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("t_us", ""), new Column("a", "")), new BoardClock(0, 1e6, 0));
        assertThat(DelimitedFinder.startsMidLine(bytes(cut), cut.length(), format))
                .isTrue();
        String whole = "995000,512\n1000000,513\n1005000,514\n";
        assertThat(DelimitedFinder.startsMidLine(bytes(whole), whole.length(), format))
                .isFalse();
    }

    @Test
    void numbersAreTheNearestDoubleToTheirText() {
        Random random = new Random(5);
        StringBuilder text = new StringBuilder();
        List<Double> expected = new ArrayList<>();
        for (int i = 0; i < 50_000; i++) {
            double value = Double.longBitsToDouble(random.nextLong());
            if (!Double.isFinite(value)) {
                continue;
            }
            String written =
                    switch (i % 4) {
                        case 0 -> Double.toString(value);
                        case 1 -> String.format(Locale.ROOT, "%.6f", random.nextGaussian() * 1e4);
                        case 2 -> Long.toString(random.nextLong());
                        default -> "+" + random.nextInt(1000) + ".";
                    };
            text.append(written).append('\n');
            expected.add(Double.parseDouble(written));
        }
        byte[] bytes = bytes(text.toString());
        DelimitedFormat format = new DelimitedFormat(',', false, false, "", List.of(new Column("x", "")), null);
        DelimitedDecoder decoder = new DelimitedDecoder(format, new RejectedLines(10));
        decoder.feed(bytes, 0, bytes.length);
        Rows rows = decoder.takeRows();
        assertThat(decoder.rejectedLines().count()).isZero();
        double[] found = java.util.Arrays.copyOf(rows.columns()[0], rows.count());
        assertThat(found).isEqualTo(expected.stream().mapToDouble(d -> d).toArray());
    }

    @Test
    void aMillionMangledBytesLoseNoGoodLineAndShiftNoColumn() {
        Random random = new Random(77);
        ByteArrayOutputStream stream = new ByteArrayOutputStream();
        Set<Integer> good = new HashSet<>();
        int number = 0;
        boolean endsLine = true;
        while (stream.size() < 1_000_000) {
            switch (random.nextInt(5)) {
                case 0 -> {
                    byte[] rubbish = new byte[random.nextInt(60)];
                    random.nextBytes(rubbish);
                    stream.writeBytes(rubbish);
                    endsLine = rubbish.length == 0 ? endsLine : rubbish[rubbish.length - 1] == '\n';
                }
                case 1 -> {
                    byte[] mutated = bytes(number + "," + 2 * number + "," + 3 * number + "\n");
                    mutated[random.nextInt(mutated.length)] = (byte) random.nextInt(256);
                    stream.writeBytes(mutated);
                    number++;
                    endsLine = mutated[mutated.length - 1] == '\n';
                }
                default -> {
                    if (!endsLine) {
                        stream.write('\n');
                        endsLine = true;
                    }
                    stream.writeBytes(bytes(number + "," + 2 * number + "," + 3 * number + "\n"));
                    good.add(number++);
                }
            }
        }
        DelimitedFormat format = new DelimitedFormat(
                ',', false, false, "", List.of(new Column("a", ""), new Column("b", ""), new Column("c", "")), null);
        RejectedLines aside = new RejectedLines(RejectedLines.KEPT);
        DelimitedDecoder decoder = new DelimitedDecoder(format, aside);
        byte[] bytes = stream.toByteArray();
        Set<Integer> seen = new HashSet<>();
        long rowsSeen = 0;
        for (int at = 0; at < bytes.length; ) {
            int n = Math.min(bytes.length - at, random.nextInt(4000));
            decoder.feed(bytes, at, n);
            at += n;
            Rows rows = decoder.takeRows();
            rowsSeen += rows.count();
            for (int row = 0; row < rows.count(); row++) {
                double a = rows.columns()[0][row];
                if (rows.columns()[1][row] == 2 * a && rows.columns()[2][row] == 3 * a) {
                    seen.add((int) a);
                }
            }
        }
        assertThat(good).hasSizeGreaterThan(20_000);
        good.removeAll(seen);
        assertThat(good).isEmpty();
        assertThat(aside.items()).hasSize(RejectedLines.KEPT);
        assertThat(rowsSeen + aside.count()).isEqualTo(decoder.lines());
    }

    @Test
    void anEndlessLineIsCutAndTheNextOneRead() {
        DelimitedFormat format =
                new DelimitedFormat(',', false, false, "", List.of(new Column("a", ""), new Column("b", "")), null);
        DelimitedDecoder decoder = new DelimitedDecoder(format, new RejectedLines(10));
        byte[] endless = new byte[10_000];
        java.util.Arrays.fill(endless, (byte) '7');
        for (int i = 0; i < 100; i++) {
            decoder.feed(endless, 0, endless.length);
        }
        byte[] end = bytes("\n1,2\n");
        decoder.feed(end, 0, end.length);
        assertThat(decoder.takeRows().count()).isEqualTo(1);
        assertThat(decoder.rejectedLines().items()).singleElement().satisfies(item -> assertThat(item.why())
                .isEqualTo("no line ending within 65536 bytes"));
    }

    @Test
    void afterOpeningMidStreamTheFirstLineIsNotBelieved() {
        DelimitedDecoder decoder = decode("1,512\n");
        decoder.takeRows();
        decoder.restart(true);
        byte[] rest = bytes("12,513\n13,514\n");
        decoder.feed(rest, 0, rest.length);
        Rows rows = decoder.takeRows();
        assertThat(rows.count()).isEqualTo(1);
        assertThat(rows.columns()[0][0]).isEqualTo(13);
        assertThat(decoder.rejectedLines().items()).last().satisfies(item -> assertThat(item.why())
                .isEqualTo("first line, may be half a line"));
    }

    @Test
    void aColumnThatComesWithSomeLinesOnlyIsAColumnAndNotASentence() {
        for (int every : new int[] {2, 3, 5, 10}) {
            StringBuilder text = new StringBuilder("t_ms,drive,warm,slow\n");
            for (int i = 0; i < 300; i++) {
                text.append(20 * i)
                        .append(',')
                        .append(i < 100 ? 0 : 50)
                        .append(',')
                        .append(20 + i % 9 / 100.0)
                        .append(',')
                        .append(i % every == 0 ? String.valueOf(i % 7) : "")
                        .append('\n');
            }
            byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
            StreamFormat best = Recogniser.recognise(bytes, bytes.length).get(0).format();
            assertThat(best).as("every %d. line", every).isInstanceOf(DelimitedFormat.class);
            assertThat(best.columns()).extracting(Column::name).containsExactly("t_ms", "drive", "warm", "slow");
            assertThat(best.clock()).isNotNull();
        }
    }
}
