package zesty.signal.core.decode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Two seconds of packets as makers lay them out by hand: whole numbers of one to four bytes, a float among them wherever
 * it falls, either byte order, start bytes that also occur in the data, an 8-bit check or none, and damage on the way.
 */
class PacketsTest {
    /** Of few rows noise may rise or fall all along: a column with a name of its own is no clock for that. */
    @Test
    void aNamedReadingIsNoClockHoweverFewRowsThereAre() {
        for (int seed = 0; seed < 300; seed++) {
            Random random = new Random(seed);
            StringBuilder text = new StringBuilder("pressure,temperature\n");
            for (int row = 0; row < 4 + seed % 4; row++) {
                long pressure = 413_000 + Math.round(12 * random.nextGaussian()) << 4;
                String line =
                        String.format("%06X%06X", pressure, 498_000 + Math.round(25 * random.nextGaussian()) << 4);
                text.append(line.replaceAll("..(?!$)", "$0 ")).append('\n');
            }
            byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
            Recogniser.recognise(bytes, bytes.length).stream().limit(1).forEach(best -> assertThat(
                            best.format().clock())
                    .as(text.toString())
                    .isNull());
        }
    }

    private static final int STREAMS = 120;
    private static final byte[][] STARTS = {
        {(byte) 0xaa, 0x55}, {(byte) 0xa5, 0x5a}, {0x7e, 0x7e}, {0x24, 0x5a}, {(byte) 0xaa}, {(byte) 0xff, (byte) 0xfe}
    };

    /** A stream and what was sent in it. */
    private record Stream(
            String about, byte[] bytes, List<Set<Double>> sent, int packets, int damaged, boolean checked) {}

    @Test
    void eachColumnIsFoundAndEachDamagedPacketIsOneReject() {
        List<String> wrong = new ArrayList<>();
        for (int seed = 0; seed < STREAMS; seed++) {
            Stream stream = stream(new Random(seed));
            List<Recogniser.Proposal> found = Recogniser.recognise(stream.bytes(), stream.bytes().length);
            if (found.isEmpty()) {
                wrong.add(seed + " " + stream.about() + ": not recognised");
                continue;
            }
            RejectedLines aside = new RejectedLines(10);
            StreamDecoder decoder = found.get(0).format().decoder(aside);
            decoder.restart(true);
            decoder.feed(stream.bytes(), 0, stream.bytes().length);
            double[][] columns = decoder.takeRows().columns();
            for (int c = 0; c < stream.sent().size(); c++) {
                Set<Double> sent = stream.sent().get(c);
                long most = Arrays.stream(columns)
                        .filter(column -> Arrays.stream(column).distinct().count() > 2)
                        .mapToLong(column ->
                                Arrays.stream(column).filter(sent::contains).count())
                        .max()
                        .orElse(0);
                if (most < 0.9 * stream.packets()) {
                    wrong.add(seed + " " + stream.about() + ": column " + c + " of "
                            + found.get(0).format().words());
                }
            }
            int allowed = stream.checked() ? stream.damaged() + 1 : 2 * stream.damaged() + 1;
            if (aside.count() > allowed) {
                wrong.add(seed + " " + stream.about() + ": " + aside.count() + " rejects, damaged " + stream.damaged());
            }
        }
        assertThat(wrong).isEmpty();
    }

    /** Where bytes are lost, the begin of one packet and the rest of the next have the right sum once in 256 times. */
    @ParameterizedTest
    @ValueSource(ints = {1 << 16, 61})
    void bytesThatAreLostInventNoPacket(int read) {
        Random random = new Random(11);
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        ByteArrayOutputStream lossy = new ByteArrayOutputStream();
        int whole = 0;
        for (int i = 0; i < 60_000; i++) {
            ByteBuffer packet =
                    ByteBuffer.allocate(13).order(ByteOrder.LITTLE_ENDIAN).putShort((short) 0x55aa);
            packet.putInt((int) (3_426_197_851L + 1000L * i));
            for (int most : new int[] {1 << 16, 3000, 1 << 16}) {
                packet.putShort((short) random.nextInt(most));
            }
            int sum = 0;
            for (int k = 0; k < 12; k++) {
                sum += packet.get(k);
            }
            packet.put((byte) sum);
            all.writeBytes(packet.array());
            boolean loses = i % 5 == 4;
            int from = loses ? random.nextInt(13) : 13;
            int to = Math.min(13, from + 1 + random.nextInt(6));
            lossy.write(packet.array(), 0, from);
            lossy.write(packet.array(), to, 13 - to);
            whole += loses ? 0 : 1;
        }
        StreamFormat format =
                Recogniser.recognise(all.toByteArray(), 40_000).get(0).format();
        Set<String> sent = new HashSet<>(rows(format, all.toByteArray(), 1 << 16));
        assertThat(sent).hasSize(60_000);
        List<String> found = rows(format, lossy.toByteArray(), read);
        // Of 12 000 packets that lack bytes, some 40 were taken for others.
        assertThat(found.stream().filter(row -> !sent.contains(row)).count()).isLessThanOrEqualTo(1);
        assertThat(found.size()).isBetween(whole - 25, whole + 1);
    }

    /** @return each row's cells, of a stream that is read in pieces */
    private static List<String> rows(StreamFormat format, byte[] bytes, int read) {
        StreamDecoder decoder = format.decoder(new RejectedLines(10));
        decoder.restart(false);
        List<String> found = new ArrayList<>();
        for (int at = 0; at < bytes.length; at += read) {
            decoder.feed(bytes, at, Math.min(read, bytes.length - at));
            Rows rows = decoder.takeRows();
            for (int row = 0; row < rows.count(); row++) {
                StringBuilder cells = new StringBuilder();
                for (double[] column : rows.columns()) {
                    cells.append(column[row]).append(' ');
                }
                found.add(cells.toString());
            }
        }
        return found;
    }

    private static Stream stream(Random random) {
        int rate = new int[] {50, 100, 200}[random.nextInt(3)];
        int packets = 2 * rate;
        ByteOrder order = random.nextInt(5) < 3 ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN;
        byte[] start = STARTS[random.nextInt(STARTS.length)];
        StringBuilder types = new StringBuilder();
        int fields = 2 + random.nextInt(5);
        for (int i = 0; i < fields; i++) {
            types.append("bsSiI".charAt(random.nextInt(5)));
        }
        if (random.nextInt(3) > 0) {
            types.insert(random.nextInt(types.length() + 1), 'f');
        }
        String check = new String[] {"sum", "exclusive or", "sum with start", "none"}[random.nextInt(4)];
        double[] phase = random.doubles(types.length(), 0, 6).toArray();
        double[] hertz = random.doubles(types.length(), 0.3, 3).toArray();
        double[] offset = random.doubles(types.length()).toArray();
        List<Set<Double>> sent = new ArrayList<>();
        types.chars().forEach(type -> sent.add(new HashSet<>()));
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        int damaged = 0;
        for (int i = 0; i < packets; i++) {
            ByteBuffer buffer = ByteBuffer.allocate(64).order(order).put(start);
            for (int c = 0; c < types.length(); c++) {
                double s = Math.sin(2 * Math.PI * hertz[c] * i / rate + phase[c]) + 0.03 * random.nextGaussian();
                sent.get(c).add(put(buffer, types.charAt(c), s, offset[c]));
            }
            byte[] packet = withCheck(buffer, start.length, check);
            boolean hit = i > 3 && random.nextInt(50) == 0;
            damaged += hit ? 1 : 0;
            bytes.writeBytes(hit ? damage(packet, random) : packet);
        }
        return new Stream(
                types + " " + order + " after " + start.length + ", check " + check,
                bytes.toByteArray(),
                sent,
                packets,
                damaged,
                !check.equals("none"));
    }

    private static double put(ByteBuffer buffer, char type, double s, double offset) {
        switch (type) {
            case 'b':
                int small = (int) (128 + s * 60);
                buffer.put((byte) small);
                return small;
            case 's':
                short signed = (short) ((s * 0.3 + offset - 0.5) * 8000);
                buffer.putShort(signed);
                return signed;
            case 'S':
                short counts = (short) (2048 + s * 600);
                buffer.putShort(counts);
                return counts;
            case 'i':
                int wide = (int) ((s + offset - 0.5) * 300_000);
                buffer.putInt(wide);
                return wide;
            case 'I':
                int raw = (int) (1_500_000 + s * 40_000);
                buffer.putInt(raw);
                return raw;
            default:
                float real = (float) (s * 2 + offset * 30);
                buffer.putFloat(real);
                return real;
        }
    }

    private static byte[] withCheck(ByteBuffer buffer, int start, String check) {
        int sum = 0;
        int xor = 0;
        for (int i = check.endsWith("start") ? 0 : start; i < buffer.position(); i++) {
            sum += buffer.get(i);
            xor ^= buffer.get(i);
        }
        if (!check.equals("none")) {
            buffer.put((byte) (check.equals("exclusive or") ? xor : sum));
        }
        return Arrays.copyOf(buffer.array(), buffer.position());
    }

    /** One byte lost, one bit turned over, or the rest of the packet lost. */
    private static byte[] damage(byte[] packet, Random random) {
        int at = random.nextInt(packet.length);
        byte[] less = new byte[packet.length - 1];
        System.arraycopy(packet, 0, less, 0, at);
        System.arraycopy(packet, at + 1, less, at, less.length - at);
        byte[] turned = packet.clone();
        turned[at] ^= (byte) (1 << random.nextInt(8));
        return switch (random.nextInt(3)) {
            case 0 -> less;
            case 1 -> turned;
            default -> Arrays.copyOf(packet, 1 + random.nextInt(packet.length - 1));
        };
    }
}
