package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.List;

/**
 * Finds the fields in packets of equal length. Of all ways to part the bytes into numbers it takes the one that
 * describes the packets in the fewest bits, each number given by its difference to the one before (Rissanen 1978,
 * Modeling by shortest data description): joined rightly, bytes make a smooth signal; joined wrongly, or in the wrong
 * order, a jagged one.
 */
final class FieldFinder {
    /** Bits it takes to say that there is one field more. */
    private static final double FIELD_BITS = 1.5;

    private static final double UNLIKELY_BITS = 4;
    /** Boards seldom send numbers of eight bytes. */
    private static final double DOUBLE_BITS = 6;

    /** What it takes to say that a number goes on as it went. */
    private static final double SMOOTH_BITS = 0.5;
    /** A byte that is always zero is rather the upper end of a small number than one of its own. */
    private static final double ZERO_BITS = 2;
    /** Few boards send a number moved to the upper end of its bytes: where that explains no more, it is not so. */
    private static final double SHIFT_BITS = 1;

    /** A sensor of four bytes seldom counts further below zero. */
    private static final double LEAST_COUNTED = -0x1p24;

    /** 2e: a difference of mean size b, both signs alike often, takes log2(2e·b) bits. */
    private static final double LAPLACE = 2 * Math.E;

    /** Most steps of a clock are within so much of the one in the middle. */
    static final double CLOCK_SPREAD = 0.25;

    private static final int MOST_PACKETS = 400;
    /** Beyond this, trying every way of parting would take too long; the bytes are taken as they are. */
    private static final int MOST_LENGTH = 512;

    private final byte[][] packets;
    private final int length;

    /** @param rowsEach rows in a packet */
    record Layout(List<Field> fields, int rowsEach, double bits) {}

    FieldFinder(List<byte[]> packets) {
        this.packets =
                packets.subList(0, Math.min(MOST_PACKETS, packets.size())).toArray(byte[][]::new);
        length = packets.get(0).length;
    }

    /** @param wanted how many fields there are, from a header; 0 when that is not known */
    Layout find(int wanted) {
        if (length > MOST_LENGTH) {
            return bytes();
        }
        Layout best = null;
        for (boolean little : new boolean[] {false, true}) {
            Layout layout = part(length, little, wanted);
            if (layout != null && (best == null || layout.bits() < best.bits() - 1e-9)) {
                best = layout;
            }
        }
        Layout wave = waveform(wanted);
        if (wave != null && (best == null || wave.bits() < 0.9 * best.bits())) {
            return wave;
        }
        return best == null ? find(0) : best;
    }

    private Layout bytes() {
        List<Field> fields = new ArrayList<>();
        for (int at = 0; at < length; at++) {
            fields.add(new Field(at, Field.Type.U8, false));
        }
        return new Layout(fields, 1, 8.0 * length);
    }

    /** One way to read some bytes as a number, and what it takes to describe it. */
    private record Piece(Field field, double bits) {}

    private Layout part(int end, boolean little, int wanted) {
        int most = wanted > 0 ? wanted : end;
        double[][] bits = new double[end + 1][most + 1];
        Piece[][] last = new Piece[end + 1][most + 1];
        for (double[] row : bits) {
            java.util.Arrays.fill(row, Double.POSITIVE_INFINITY);
        }
        bits[0][0] = 0;
        // Without a wanted number all counts share one place: the fields' own price holds them down.
        boolean counted = wanted > 0;
        for (int at = 0; at < end; at++) {
            for (Piece piece : pieces(at, end, little)) {
                int to = at + piece.field().type().bytes();
                for (int n = 0; n < (counted ? most : 1); n++) {
                    int next = counted ? n + 1 : 0;
                    double total = bits[at][n] + piece.bits() + FIELD_BITS;
                    if (total < bits[to][next] - 1e-9) {
                        bits[to][next] = total;
                        last[to][next] = piece;
                    }
                }
            }
        }
        int n = counted ? most : 0;
        if (Double.isInfinite(bits[end][n])) {
            return null;
        }
        List<Field> fields = new ArrayList<>();
        for (int at = end; at > 0; n = counted ? n - 1 : 0) {
            fields.add(0, last[at][n].field());
            at = last[at][n].field().offset();
        }
        return new Layout(fields, 1, bits[end][counted ? most : 0]);
    }

    private List<Piece> pieces(int at, int end, boolean little) {
        List<Piece> pieces = new ArrayList<>();
        for (int n = 1; n <= 4 && at + n <= end; n++) {
            pieces.add(whole(at, n, little));
        }
        if (at + 4 <= end) {
            addFloating(pieces, new Field(at, Field.Type.F32, little), 24);
        }
        if (at + 8 <= end) {
            addFloating(pieces, new Field(at, Field.Type.F64, little), 53);
        }
        return pieces;
    }

    private double[] values(Field field) {
        double[] values = new double[packets.length];
        for (int i = 0; i < values.length; i++) {
            values[i] = field.read(packets[i], field.offset());
        }
        return values;
    }

    private Piece whole(int at, int n, boolean little) {
        Field unsigned = new Field(at, Field.Type.whole(n, false), little);
        double[] values = values(unsigned);
        boolean clocklike = n == 4 && rises(values);
        int shift = n == 1 || clocklike ? 0 : commonZeros(values, n);
        Field left = new Field(at, Field.Type.whole(n, false), little, shift, 0, 0);
        double moved = shift == 0 ? 0 : SHIFT_BITS;
        double plain = bits(shift == 0 ? values : values(left), 8 * n - shift) + moved;
        Field signed = new Field(at, Field.Type.whole(n, true), little, shift, 0, 0);
        double[] both = values(signed);
        double two = bits(both, 8 * n - shift) + moved;
        if (clocklike || shift == 0 && Roles.countsUp(values)) {
            // A clock, or a row's number, goes on in even steps, however long they are.
            plain = Math.min(plain, bits(steps(values), 8 * n));
        }
        if (n == 4 && shift == 0 && upperStands(values) && !clocklike) {
            // Few sensors count that far and hardly move: it is two numbers, or one with a point.
            plain += UNLIKELY_BITS;
        }
        boolean high = java.util.Arrays.stream(values).anyMatch(v -> v >= Math.scalb(1.0, 8 * n - 1));
        if (n == 3 && shift == 0 && stands(values, 65536) && values[0] >= 65536 && !high) {
            plain += UNLIKELY_BITS;
            two += UNLIKELY_BITS;
        }
        if (n > 1 && upperCounts(values, Math.scalb(1.0, 8 * (n - 1))) || n == 4 && upperCounts(values, 65536)) {
            plain += UNLIKELY_BITS;
            two += UNLIKELY_BITS;
        }
        if (n == 1 && java.util.Arrays.stream(values).allMatch(v -> v == 0)) {
            plain += ZERO_BITS;
        }
        // Converters of 24 bits count both ways: one that has not been below zero yet will be.
        boolean bothWays = n == 3 && shift == 0 && !high && !rises(values);
        boolean below = high
                && n > 1
                && (clocklike
                        ? !isClock(unsigned) && java.util.Arrays.stream(both).allMatch(v -> v >= LEAST_COUNTED)
                        : two <= plain);
        return bothWays || below ? new Piece(signed, Math.min(two, plain)) : new Piece(left, plain);
    }

    /** Whether the upper half of four bytes is the same all along, and no small number. */
    private static boolean upperStands(double[] values) {
        return values[0] >= 256.0 * 65536 && stands(values, 65536);
    }

    private static boolean stands(double[] values, double unit) {
        double upper = Math.floor(values[0] / unit);
        return java.util.Arrays.stream(values).allMatch(v -> Math.floor(v / unit) == upper);
    }

    /** Whether four bytes rise as evenly as no sensor's numbers do, but a clock's. */
    boolean isClock(Field field) {
        double[] values = values(field);
        return field.type() == Field.Type.U32
                && rises(values)
                && values.length > 2
                && PacketFinder.steady(values, field.wrap(), 2, CLOCK_SPREAD);
    }

    /** Whether the upper bytes are a counter of their own: one more in each packet. */
    private static boolean upperCounts(double[] values, double unit) {
        int one = 0;
        for (int i = 1; i < values.length; i++) {
            double step = Math.floor(values[i] / unit) - Math.floor(values[i - 1] / unit);
            one += step == 1 || step == -255 || step == -65535 ? 1 : 0;
        }
        return one * 10 >= values.length * 8;
    }

    private static double[] steps(double[] values) {
        double[] steps = new double[values.length - 1];
        for (int i = 0; i < steps.length; i++) {
            steps[i] = values[i + 1] - values[i];
        }
        return steps;
    }

    /**
     * Whether the numbers do not fall, as a clock's. Of twenty-five one may be damaged, which is a fall and a rise, where
     * the upper byte stands; where it moves it may be a counter of its own that begins anew.
     */
    private static boolean rises(double[] values) {
        int falls = 0;
        int upper = 0;
        for (int i = 1; i < values.length; i++) {
            falls += values[i] < values[i - 1] ? 1 : 0;
            upper += Math.floor(values[i] / 0x1000000) == Math.floor(values[i - 1] / 0x1000000) ? 0 : 1;
        }
        return falls == 0 || falls * 25 <= values.length && upper * 8 <= values.length;
    }

    /** @return low bits that are zero in all values, where it is more than chance; the values must vary */
    private static int commonZeros(double[] values, int bytes) {
        long any = 0;
        for (double value : values) {
            any |= (long) value;
        }
        int zeros = any == 0 ? 0 : Long.numberOfTrailingZeros(any);
        return zeros >= 2 && zeros < 8 * bytes - 4 ? zeros : 0;
    }

    /** By the numbers before, or, where that is less, by going on as they went: a fast smooth signal is no jagged one. */
    private static double bits(double[] values, int most) {
        double sum = 0;
        double smooth = 0;
        for (int i = 1; i < values.length; i++) {
            double step = values[i] - values[i - 1];
            sum += Math.log(1 + LAPLACE * Math.abs(step));
            smooth += i == 1 ? 0 : Math.log(1 + LAPLACE * Math.abs(step - (values[i - 1] - values[i - 2])));
        }
        double mean = sum / Math.max(1, values.length - 1) / Math.log(2);
        // Each by as many as it has: of few values the first two are no gift to those that go on.
        double further = smooth / Math.max(1, values.length - 2) / Math.log(2) + SMOOTH_BITS;
        return Math.min(most, values.length < 8 ? mean : Math.min(mean, further));
    }

    private void addFloating(List<Piece> pieces, Field field, int mantissa) {
        double[] values = values(field);
        double size = 0;
        int odd = 0;
        for (double value : values) {
            double magnitude = Math.abs(value);
            boolean natural = magnitude == 0 || magnitude > 1e-7 && magnitude < 1e9;
            odd += natural ? 0 : 1;
            size += natural ? magnitude : 0;
        }
        if (odd * 50 > values.length || size == 0) {
            return;
        }
        double quantum = Math.scalb(1.0, Math.getExponent(size / values.length) - mantissa + 1);
        double[] scaled = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            scaled[i] = values[i] / quantum;
        }
        if (mantissa == 24 && isClock(new Field(field.offset(), Field.Type.U32, field.littleEndian()))) {
            return;
        }
        double bits = bits(scaled, field.type().bytes() * 8);
        // Read as a whole number, a float is a huge one that moves by huge steps; a counter moves by even ones.
        double asWhole = whole(field.offset(), Math.min(4, field.type().bytes()), field.littleEndian())
                .bits();
        if (mantissa == 24) {
            double[] whole = values(new Field(field.offset(), Field.Type.U32, field.littleEndian()));
            boolean round = ((long) whole[0] >> 16 & 0x7f) == 0;
            if (upperStands(whole) && !rises(whole)) {
                // A quantity that hardly moves: only the lower half of its digits does. But where the upper half is a
                // round number, it is a number of its own that stands still.
                if (!round) {
                    pieces.add(new Piece(field, bits(whole, 16)));
                }
                return;
            }
        }
        if (asWhole > 12) {
            boolean eight = mantissa > 24;
            pieces.add(new Piece(field, Math.min(bits, asWhole + (eight ? 32 : 0)) + (eight ? DOUBLE_BITS : -0.5)));
        }
    }

    /** Packets that carry a run of samples of one signal: each sample is then close to its neighbour in the packet. */
    private Layout waveform(int wanted) {
        Layout best = null;
        for (int prefix : new int[] {0, 1, 2, 4}) {
            for (int n = 1; n <= 4; n++) {
                int run = (length - prefix) / n;
                if (length <= prefix || run * n != length - prefix || run < 4) {
                    continue;
                }
                for (boolean little : new boolean[] {false, true}) {
                    for (boolean signed : new boolean[] {false, true}) {
                        Layout layout = waveform(prefix, n, run, little, signed, wanted);
                        if (layout != null && (best == null || layout.bits() < best.bits() - 1e-9)) {
                            best = layout;
                        }
                    }
                }
            }
        }
        return best;
    }

    private Layout waveform(int prefix, int n, int run, boolean little, boolean signed, int wanted) {
        Layout front = prefix == 0 ? new Layout(List.of(), 1, 0) : part(prefix, little, Math.max(0, wanted - 1));
        if (front == null || wanted > 0 && front.fields().size() + 1 != wanted) {
            return null;
        }
        Field sample = new Field(prefix, Field.Type.whole(n, signed), little, 0, 0, n);
        double[] values = new double[run];
        double bits = 0;
        for (byte[] packet : packets) {
            for (int i = 0; i < run; i++) {
                values[i] = sample.read(packet, prefix + i * n);
            }
            bits += bits(values, 8 * n);
        }
        List<Field> fields = new ArrayList<>(front.fields());
        fields.add(sample);
        return new Layout(fields, run, front.bits() + FIELD_BITS + run * bits / packets.length);
    }
}
