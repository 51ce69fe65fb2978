package zesty.signal.core.decode;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * Packets as makers lay them out: clocks of 32 bits that stand anywhere, numbers of rows with some left out, and channels alike: 12-bit
 * counts (a), 16-bit axes (s), floats (f) and 24-bit counts (t), in either byte order, with a check or none.
 */
final class PacketLayouts {
    static final byte[][] STARTS = {
        {(byte) 0xaa, 0x55}, {(byte) 0xa5, 0x5a}, {(byte) 0xaa}, {(byte) 0xff, (byte) 0xfe}, {0x24, 0x5a}
    };

    private final int seed;
    private final ByteOrder order;
    private int number;
    private double seconds;

    /** What is drawn for it. */
    final Random random;

    PacketLayouts(int seed) {
        this.seed = seed;
        random = new Random(seed);
        order = seed % 2 == 0 ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN;
        number = random.nextInt(60_000);
    }

    /** How many of a thousand are parted otherwise than they were sent, by how many packets are seen. @param arguments a seed */
    public static void main(String[] arguments) {
        int from = arguments.length == 0 ? 1 : Integer.parseInt(arguments[0]);
        for (int[] rows : new int[][] {{12, 23}, {24, 60}, {200, 300}}) {
            long wrong = IntStream.range(0, 1000)
                    .filter(k -> !new PacketLayouts(1000 * from + k)
                            .ofAnySort(rows[0], rows[1])
                            .isEmpty())
                    .count();
            System.out.printf("%d to %d packets: %d of 1000 parted otherwise%n", rows[0], rows[1], wrong);
        }
    }

    /** @return as {@link #wrong}, of a layout drawn at random */
    List<String> ofAnySort(int least, int most) {
        String clock = new String[] {"", "U", "M"}[random.nextInt(3)];
        String count = new String[] {"", "", "q", "Q"}[random.nextInt(4)];
        String channels = String.valueOf("asft".charAt(random.nextInt(4))).repeat(1 + random.nextInt(6));
        String fields = (random.nextBoolean() ? clock + count : count + clock) + channels;
        double rate = 10 * Math.pow(50, random.nextDouble());
        double micros = random.nextDouble() * (random.nextInt(3) == 0 ? 2e8 : 0x1p32 - 1e8);
        byte[] start = STARTS[random.nextInt(STARTS.length)];
        boolean check = random.nextInt(3) > 0;
        return wrong(fields, start, check, rate, micros, least + random.nextInt(most - least + 1));
    }

    /** @return what was made of the packets where it is not what was sent, in words; empty where it is */
    List<String> wrong(String fields, byte[] start, boolean check, double rate, double micros, int rows) {
        double[] phase = random.doubles(8, 0, 6).toArray();
        double[] hertz = random.doubles(8, 0.2, 5).toArray();
        double[] offset = random.doubles(8, -1, 1).toArray();
        double[] size = random.doubles(8, 0.05, 1).toArray();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (int i = 0; i < rows; i++) {
            int left = random.nextInt(80) == 0 ? 2 : 1;
            seconds += left / rate;
            number += left;
            // A loop that looks at its clock each 400 µs sends a little late.
            double clock = micros + seconds * 1e6 + random.nextInt(400);
            ByteBuffer buffer = ByteBuffer.allocate(64).order(order).put(start);
            for (int c = 0; c < fields.length(); c++) {
                double wave = Math.sin(2 * Math.PI * hertz[c] * seconds + phase[c]);
                put(buffer, fields.charAt(c), clock, offset[c], size[c] * wave + 0.01 * random.nextGaussian());
            }
            int sum = 0;
            for (int b = 0; b < buffer.position(); b++) {
                sum += buffer.get(b);
            }
            bytes.write(buffer.array(), 0, buffer.position());
            if (check) {
                bytes.write(sum);
            }
        }
        List<Recogniser.Proposal> found = Recogniser.recognise(bytes.toByteArray(), bytes.size());
        boolean right =
                !found.isEmpty() && found.get(0).format() instanceof PacketFormat format && isRight(format, fields);
        return right
                ? List.of()
                : List.of("%d: %s %s, %d rows at %.0f/s, clock at %.0f: %s"
                        .formatted(seed, fields, order, rows, rate, micros, found));
    }

    private void put(ByteBuffer buffer, char field, double clock, double offset, double s) {
        switch (field) {
            case 'U' -> buffer.putInt((int) (long) clock);
            case 'M' -> buffer.putInt((int) (long) (clock / 1000));
            case 'q' -> buffer.put((byte) number);
            case 'Q' -> buffer.putShort((short) number);
            case 'a' -> buffer.putShort((short) (2048 + 700 * offset + 900 * s));
            case 's' -> buffer.putShort((short) (6000 * offset + 8000 * s));
            case 'f' -> buffer.putFloat((float) (20 * offset + 3 * s));
            default -> {
                int counts = (int) (900_000 * offset + 200_000 * s);
                boolean little = order == ByteOrder.LITTLE_ENDIAN;
                buffer.put((byte) (little ? counts : counts >> 16))
                        .put((byte) (counts >> 8))
                        .put((byte) (little ? counts >> 16 : counts));
            }
        }
    }

    private static boolean isRight(PacketFormat format, String fields) {
        boolean right = format.fields().size() == fields.length();
        for (int c = 0; right && c < fields.length(); c++) {
            Field.Type type = format.fields().get(c).type();
            right = switch (fields.charAt(c)) {
                case 'U', 'M' ->
                    type == Field.Type.U32
                            && format.clock() != null
                            && format.clock().column() == c
                            && format.clock().ticksPerSecond() == (fields.charAt(c) == 'U' ? 1e6 : 1e3);
                case 'q' -> type == Field.Type.U8 && format.columns().get(c).role() == Role.SEQUENCE;
                case 'Q' -> type == Field.Type.U16 && format.columns().get(c).role() == Role.SEQUENCE;
                case 'f' -> type == Field.Type.F32;
                // What never was below zero may have a sign all the same.
                case 't' -> type.bytes() == 3;
                default -> type.bytes() == 2;
            };
        }
        return right && (fields.matches(".*[UM].*") || format.clock() == null);
    }
}
