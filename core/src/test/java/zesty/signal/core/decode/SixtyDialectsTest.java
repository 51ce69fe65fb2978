package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Sixty ways in which boards were seen to write, put down before the recogniser was tried on them. At least 57 must come
 * out with the right columns, units and values, nothing told.
 */
class SixtyDialectsTest {
    private record Dialect(String name, byte[] bytes, String columns, int rows, double[] last) {}

    private final List<Dialect> dialects = new ArrayList<>();
    private final Random random = new Random(60);

    /** @param columns as name or name/unit, by commas; @param last the values of the last row */
    private void text(String name, String before, int lines, IntFunction<String> line, String columns, double... last) {
        StringBuilder text = new StringBuilder(before);
        for (int i = 0; i < lines; i++) {
            text.append(line.apply(i));
        }
        dialects.add(new Dialect(name, text.toString().getBytes(StandardCharsets.UTF_8), columns, lines, last));
    }

    private static String f(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }

    private int wobble(int i) {
        return (int) Math.round(40 * Math.sin(i / 7.0));
    }

    private void plainText() {
        text(
                "three commas",
                "",
                40,
                i -> f("%d,%d,%d\n", i, 500 + wobble(i), 7 - i),
                "column1,column2,column3",
                39,
                474,
                -32);
        text(
                "header",
                "raw,volts,degC\n",
                30,
                i -> f("%d,%.3f,%.2f\n", 512 + i, 2.5 + i * 0.005, 20 + i * 0.5),
                "raw,volts,degC",
                541,
                2.645,
                34.5);
        text(
                "header with units",
                "t [ms],load [kg]\n",
                30,
                i -> f("%d,%.2f\n", i * 20, 3 + i * 0.25),
                "t/ms,load/kg",
                580,
                10.25);
        text(
                "round brackets",
                "time (s);force (N)\n",
                30,
                i -> f("%.2f;%.1f\n", i * 0.1, 9.8 + i),
                "time/s,force/N",
                2.9,
                38.8);
        text(
                "decimal comma",
                "",
                30,
                i -> f("%d;%s\n", i, f("%.2f", 3.14 + i).replace('.', ',')),
                "column1,column2",
                29,
                32.14);
        text(
                "tabs",
                "x\ty\tz\r\n",
                25,
                i -> f("%d\t%d\t%d\r\n", wobble(i), -wobble(i), 1000),
                "x,y,z",
                wobble(24),
                -wobble(24),
                1000);
        text("aligned blanks", "", 25, i -> f("%6d %8.3f\n", i * 3, 0.5 * i), "column1,column2", 72, 12);
        text(
                "exponents",
                "",
                25,
                i -> f("%.3e,%.3e\n", 1e-6 * (i + 1), 2e5 + i * 1e3),
                "column1,column2",
                2.5e-5,
                2.24e5);
        text("hexadecimal", "", 25, i -> f("0x%04X,0x%02X\n", 4096 + i * 17, i), "column1,column2", 4504, 24);
        text("one column", "", 50, i -> f("%d\n", 300 + wobble(i)), "column1", 300 + wobble(49));
        text("one named column", "pressure [hPa]\n", 50, i -> f("%.2f\n", 1013 + 0.01 * i), "pressure/hPa", 1013.49);
        text("trailing comma", "", 30, i -> f("%d,%d,\n", i, i * i), "column1,column2", 29, 841);
        text(
                "banner",
                "*** rain gauge v1 ***\ninit ok\n",
                30,
                i -> f("%d,%d\n", i * 1000, 3 + i % 2),
                "column1,column2",
                29000,
                4);
        text("missing words", "a,b\n", 30, i -> f("%d,%s\n", i, i % 5 == 0 ? "nan" : "" + i), "a,b", 29, 29);
        text(
                "sequence",
                "seq,ax,ay\n",
                40,
                i -> f("%d,%d,%d\n", i, wobble(i), 100 + wobble(i + 3)),
                "seq,ax,ay",
                39,
                wobble(39),
                100 + wobble(42));
        text(
                "stations",
                "millis,node,volts\n",
                40,
                i -> f("%d,%d,%.2f\n", i * 50, i % 4, 12 + i % 4 * 0.1),
                "millis,node,volts",
                1950,
                3,
                12.3);
        text("quoted nothing", "n;v\n", 20, i -> f(" %d ; %.1f \n", i, i / 2.0), "n,v", 19, 9.5);
        text("comma and blank", "", 30, i -> f("%d, %d, %d\n", i, i + 1, i + 2), "column1,column2,column3", 29, 30, 31);
        text("plus signs", "", 30, i -> f("%+d,%+.2f\n", wobble(i), 1.5), "column1,column2", wobble(29), 1.5);
    }

    private void labelledText() {
        text(
                "colon and units",
                "",
                30,
                i -> f("temp: %.1f C, hum: %d %%\n", 21 + i * 0.1, 40 + i),
                "temp/°C,hum/%",
                23.9,
                69);
        text("equals", "", 30, i -> f("x=%d y=%d z=%d\n", i, -i, 2 * i), "x,y,z", 29, -29, 58);
        text(
                "equals and semicolons",
                "",
                30,
                i -> f("V=%.2fV;I=%.1fmA\n", 3.3 - i * 0.01, 12.5 + i),
                "V/V,I/mA",
                3.01,
                41.5);
        text("one label", "", 30, i -> f("Distance: %d cm\n", 100 + i), "Distance/cm", 129);
        text(
                "two words",
                "",
                30,
                i -> f("Air Temp: %.2f C Soil Temp: %.2f C\n", 20 + i * 0.5, 15 + i * 0.25),
                "Air Temp/°C,Soil Temp/°C",
                34.5,
                22.25);
        text("bars", "", 30, i -> f("rpm: %d | torque: %.1f Nm\n", 900 + i, 4 + i * 0.5), "rpm,torque/Nm", 929, 18.5);
        text(
                "over lines",
                "",
                30,
                i -> f("Voltage: %.2f V\nCurrent: %d mA\nPower: %d mW\n", 5 + i * 0.25, 100 + i, 500 + i),
                "Voltage/V,Current/mA,Power/mW",
                12.25,
                129,
                529);
        text(
                "over lines with rules",
                "",
                20,
                i -> f("----\nheading = %d\npitch = %d\n", 90 + i, wobble(i)),
                "heading,pitch",
                109,
                wobble(19));
        text("glued", "", 30, i -> f("co2:%dppm,t:%.1fC\n", 400 + i, 19 + i * 0.5), "co2/ppm,t/°C", 429, 33.5);
        text(
                "missing value",
                "",
                30,
                i -> f("lux: %s, dist: %d mm\n", i % 6 == 1 ? "--" : "" + i, i),
                "lux,dist/mm",
                29,
                29);
        text("clock among labels", "booted\n", 30, i -> f("ms=%d adc=%d\n", i * 5, 512 + i), "ms,adc", 145, 541);
        text("label with digits", "", 30, i -> f("pm10: %d pm25: %d\n", 20 + i, 10 + i), "pm10,pm25", 49, 39);
    }

    private void sentencesAndJson() {
        text("a sentence", "", 30, i -> f("The tank holds %.1f litres\n", 40 + i * 0.5), "tank holds", 54.5);
        text("suffix only", "", 30, i -> f("%.2fV\n", 1 + i * 0.25), "column1/V", 8.25);
        text("prefix glued", "", 30, i -> f("T%.1f H%d\n", 20 + i * 0.5, 40 + i), "T,H", 34.5, 69);
        text(
                "units after commas",
                "",
                30,
                i -> f("%.1fC,%d%%,%dhPa\n", 20 + i * 0.5, 40 + i, 1000 + i),
                "column1/°C,column2/%,column3/hPa",
                34.5,
                69,
                1029);
        text("arrow", "", 30, i -> f("pot -> %d\n", 300 + i), "pot", 329);
        text(
                "wordy start",
                "no reading yet\nno reading yet\n",
                30,
                i -> f("depth is %.2f m\n", 1 + i * 0.25),
                "depth/m",
                8.25);
        text("CO2 in the words", "", 30, i -> f("CO2 level %d ppm now\n", 410 + i), "CO2 level/ppm", 439);
        text("brackets", "", 30, i -> f("[%d] humidity %d%%\n", i * 1000, 45 + i % 9), "column1,humidity/%", 29000, 47);
        text("json flat", "", 30, i -> f("{\"t_ms\":%d,\"lux\":%d}\n", i * 100, 40 + i), "t_ms,lux", 2900, 69);
        text(
                "json nested",
                "",
                30,
                i -> f("{\"acc\":{\"x\":%d,\"y\":%d},\"temp\":%.1f}\n", i, -i, 20 + i * 0.5),
                "acc.x,acc.y,temp",
                29,
                -29,
                34.5);
        text(
                "json array",
                "",
                30,
                i -> f("{\"adc\":[%d,%d,%d]}\n", i, i + 1, i + 2),
                "adc[0],adc[1],adc[2]",
                29,
                30,
                31);
        text(
                "json with text",
                "",
                30,
                i -> f("{\"id\":\"well\",\"ok\":true,\"level\":%d}\n", 100 + i),
                "ok,level",
                1,
                129);
        text("json with null", "", 30, i -> f("{\"a\":%s,\"b\":%d}\n", i % 4 == 0 ? "null" : "" + i, i), "a,b", 29, 29);
        text(
                "json spaced",
                "ready\n",
                30,
                i -> f("{ \"wind\" : %.1f , \"gust\" : %.1f }\r\n", 3 + i * 0.5, 5 + i * 0.5),
                "wind,gust",
                17.5,
                19.5);
        text(
                "edges",
                "",
                40,
                i -> f("edge %d us\n", 1_000_000 + i * 123_456 + wobble(i) * 100),
                "edge/µs",
                1_000_000 + 39 * 123_456 + wobble(39) * 100);
    }

    private void registersAndPictures() {
        text(
                "register bytes",
                "",
                30,
                i -> f("F7 %02X %02X\n", 0x40 + i / 16, i * 16 % 256),
                "column1,column2",
                0xF7,
                0x41D0);
        text(
                "registers with 0x",
                "",
                30,
                i -> f("0x0C 0x%02X 0xA%X\n", 30 + i, i % 4),
                "column1,column2,column3",
                12,
                59,
                0xA1);
        StringBuilder picture = new StringBuilder();
        for (int i = 0; i < 5; i++) {
            picture.append('\n');
            for (int r = 0; r < 8; r++) {
                for (int c = 0; c < 8; c++) {
                    picture.append(c == 0 ? "" : ",").append(20 + r + c + i);
                }
                picture.append('\n');
            }
        }
        text("picture after blank lines", picture.toString(), 0, i -> "", "hottest,coldest,mean", 38, 24, 31);
        dialects.set(dialects.size() - 1, withRows(dialects.get(dialects.size() - 1), 5));
        text(
                "picture in a line",
                "",
                6,
                i -> java.util.stream.IntStream.range(0, 64)
                                .mapToObj(p -> "" + (20 + i + p % 9))
                                .collect(Collectors.joining(" "))
                        + "\n",
                "hottest,coldest,mean",
                33,
                25,
                28.98);
    }

    private static Dialect withRows(Dialect dialect, int rows) {
        return new Dialect(dialect.name(), dialect.bytes(), dialect.columns(), rows, dialect.last());
    }

    /** Packets of 400, each put into the buffer by the writer; what is around them is the framer's work. */
    private void packets(
            String name,
            int size,
            java.util.function.BiConsumer<ByteBuffer, Integer> writer,
            java.util.function.BiConsumer<byte[], ByteArrayOutputStream> framer,
            String columns,
            double... last) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (int i = 0; i < 400; i++) {
            ByteBuffer buffer = ByteBuffer.allocate(size);
            writer.accept(buffer, i);
            framer.accept(buffer.array(), out);
        }
        dialects.add(new Dialect(name, out.toByteArray(), columns, 400, last));
    }

    private static void started(byte[] packet, ByteArrayOutputStream out, int... start) {
        for (int b : start) {
            out.write(b);
        }
        out.writeBytes(packet);
    }

    private int noisy(int i) {
        return (int) Math.round(9000 * Math.sin(i / 30.0) + 60 * random.nextGaussian());
    }

    private void binary() {
        int[] a = new int[400];
        int[] b = new int[400];
        for (int i = 0; i < 400; i++) {
            a[i] = noisy(i);
            b[i] = noisy(i + 50);
        }
        packets(
                "two 16-bit, low first",
                4,
                (p, i) ->
                        p.order(ByteOrder.LITTLE_ENDIAN).putShort((short) a[i]).putShort((short) b[i]),
                (p, out) -> started(p, out, 0xAA, 0x55),
                "column1,column2",
                a[399],
                b[399]);
        packets(
                "two 16-bit, high first",
                4,
                (p, i) -> p.putShort((short) a[i]).putShort((short) b[i]),
                (p, out) -> started(p, out, 0xAA, 0x55),
                "column1,column2",
                a[399],
                b[399]);
        packets(
                "floats, low first",
                8,
                (p, i) ->
                        p.order(ByteOrder.LITTLE_ENDIAN).putFloat(a[i] / 1000f).putFloat(20 + b[i] / 9000f),
                (p, out) -> started(p, out, 0xFE, 0xEF),
                "column1,column2",
                (double) (a[399] / 1000f),
                (double) (20 + b[399] / 9000f));
        packets(
                "32-bit clock and one count",
                6,
                (p, i) -> p.order(ByteOrder.LITTLE_ENDIAN)
                        .putInt(5_000_000 + i * 2500)
                        .putShort((short) a[i]),
                (p, out) -> started(p, out, 0xA0),
                "clock,column1",
                5_000_000 + 399 * 2500,
                a[399]);
        packets(
                "sequence and 24 bit, sum",
                4,
                (p, i) -> p.put((byte) (int) i).put((byte) (a[i] * 50 >> 16)).putShort((short) (a[i] * 50)),
                (p, out) -> {
                    started(p, out, 0xC0, 0xDE);
                    out.write(p[0] + p[1] + p[2] + p[3]);
                },
                "sequence,column1",
                399 & 0xff,
                a[399] * 50);
        packets(
                "three 16-bit and a 24-bit",
                9,
                (p, i) -> p.putShort((short) a[i])
                        .putShort((short) b[i])
                        .putShort((short) (a[i] / 2))
                        .put((byte) (b[i] * 30 >> 16))
                        .putShort((short) (b[i] * 30)),
                (p, out) -> started(p, out, 0xEB, 0x90),
                "column1,column2,column3,column4",
                a[399],
                b[399],
                a[399] / 2,
                b[399] * 30);
        packets(
                "left-aligned 12 bit",
                2,
                (p, i) -> p.putShort((short) ((a[i] / 8 + 2000) << 4)),
                (p, out) -> started(p, out, 0x7E, 0x7E),
                "column1",
                a[399] / 8 + 2000);
        packets(
                "escape-framed",
                5,
                (p, i) -> p.order(ByteOrder.LITTLE_ENDIAN)
                        .put((byte) (int) i)
                        .putShort((short) a[i])
                        .putShort((short) b[i]),
                (p, out) -> {
                    for (byte each : p) {
                        int value = each & 0xff;
                        if (value == 0xC0 || value == 0xDB) {
                            out.write(0xDB);
                            out.write(value == 0xC0 ? 0xDC : 0xDD);
                        } else {
                            out.write(value);
                        }
                    }
                    out.write(0xC0);
                },
                "sequence,column1,column2",
                399 & 0xff,
                a[399],
                b[399]);
        packets(
                "zero-byte-stuffed, exclusive or",
                4,
                (p, i) -> p.putShort((short) a[i]).putShort((short) b[i]),
                (p, out) -> {
                    byte[] checked = java.util.Arrays.copyOf(p, 5);
                    checked[4] = (byte) (p[0] ^ p[1] ^ p[2] ^ p[3]);
                    int start = 0;
                    while (start <= checked.length) {
                        int stop = start;
                        while (stop < checked.length && checked[stop] != 0) {
                            stop++;
                        }
                        out.write(stop - start + 1);
                        out.write(checked, start, stop - start);
                        start = stop + 1;
                    }
                    out.write(0);
                },
                "column1,column2",
                a[399],
                b[399]);
        packets(
                "one byte of start, one count, CRC-8",
                2,
                (p, i) -> p.putShort((short) (512 + a[i] / 40)),
                (p, out) -> {
                    started(p, out, 0x99);
                    int crc = 0;
                    for (byte each : p) {
                        crc ^= each & 0xff;
                        for (int bit = 0; bit < 8; bit++) {
                            crc = (crc & 0x80) != 0 ? crc << 1 ^ 0x07 : crc << 1;
                        }
                    }
                    out.write(crc);
                },
                "column1",
                512 + a[399] / 40);
    }

    @Test
    void atLeastFiftySevenOfSixtyComeOutRight() {
        plainText();
        labelledText();
        sentencesAndJson();
        registersAndPictures();
        binary();
        assertThat(dialects).hasSize(60);
        List<String> wrong = new ArrayList<>();
        for (Dialect dialect : dialects) {
            String found = found(dialect);
            if (!found.isEmpty()) {
                wrong.add(dialect.name() + ": " + found);
            }
        }
        assertThat(wrong).describedAs("wrong").hasSizeLessThanOrEqualTo(3);
    }

    /** @return what is wrong with what was found; empty when nothing is */
    private static String found(Dialect dialect) {
        byte[] bytes = dialect.bytes();
        List<Recogniser.Proposal> proposals = Recogniser.recognise(bytes, bytes.length);
        if (proposals.isEmpty()) {
            return "nothing";
        }
        StreamFormat format = proposals.get(0).format();
        String columns = format.columns().stream()
                .map(c -> c.unit().isEmpty() ? c.name() : c.name() + "/" + c.unit())
                .collect(Collectors.joining(","));
        if (!columns.equals(dialect.columns())) {
            return format.words() + " " + columns + " instead of " + dialect.columns();
        }
        StreamDecoder decoder = format.decoder(new RejectedLines(10));
        decoder.feed(bytes, 0, bytes.length);
        Rows rows = decoder.takeRows();
        // The last frame without a checksum waits for the next one's start.
        if (rows.count() < dialect.rows() - 1 || rows.count() > dialect.rows()) {
            return rows.count() + " rows";
        }
        if (rows.count() < dialect.rows()) {
            return "";
        }
        for (int c = 0; c < dialect.last().length; c++) {
            double value = rows.columns()[c][rows.count() - 1];
            if (Math.abs(value - dialect.last()[c]) > 0.005 * Math.max(1, Math.abs(dialect.last()[c]))) {
                return "column " + (c + 1) + " ends with " + value + " instead of " + dialect.last()[c];
            }
        }
        return "";
    }
}
