package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.LinkedList;
import java.util.List;

/**
 * Finds the fields in packets of equal length. Of all ways to part the bytes into numbers it takes the one that
 * describes the packets in the fewest bits, each number given by its difference to the one before (Rissanen 1978,
 * Modeling by shortest data description): joined rightly, bytes make a smooth signal; joined wrongly, or in the wrong
 * order, a jagged one.
 *
 * <p>Prices were set on random layouts of packets: of a thousand that were not looked at, of 24 to 60 packets, 30 are
 * parted otherwise than they were sent, and 30 to 40 with one of the prices moved by a fifth.
 */
final class FieldFinder {
    /** Bits it takes to say that there is one field more. */
    private static final double FIELD_BITS = 1.5;

    /** … and that it is like the one before. */
    private static final double AGAIN_BITS = 0.5;
    /** None, whole numbers of one to four bytes, floating ones of four and eight, and {@link #ODD}. */
    private static final int KINDS = 8;

    private static final int FLOAT = 5;
    /** One of three bytes whose upper one stands: two numbers, unless there are more such. */
    private static final int ODD = 7;
    /** What takes less from packet to packet hardly moves. */
    private static final double STANDS_BITS = 1;

    private static final double UNLIKELY_BITS = 4;
    /** Whole numbers that move by so many bits from packet to packet are rather two that lie beside each other. */
    private static final double WILD_BITS = 26;
    /** Boards seldom send numbers of eight bytes. */
    private static final double DOUBLE_BITS = 6;

    /** A byte that is always zero is rather the upper end of a small number than one of its own. */
    private static final double ZERO_BITS = 2;
    /** Few boards send a number moved to the upper end of its bytes: where that explains no more, it is not so. */
    private static final double SHIFT_BITS = 1;

    /** A sensor of four bytes seldom counts further below zero. */
    private static final double LEAST_COUNTED = -0x1p24;

    private static final int MOST_PACKETS = 400;
    /** Beyond this, trying every way of parting would take too long; the bytes are taken as they are. */
    private static final int MOST_LENGTH = 512;

    private static final Part[] NOTHING = {};

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

    /**
     * One way to read some bytes as a number, and what it takes to describe it.
     *
     * @param kind of number: by its bytes up to three, floating ones beyond; 0 for a clock, a count, what stands still and what is all
     *     noise
     * @param odd bits more where the number before it is none like it
     */
    private record Piece(Field field, double bits, int kind, double odd) {}

    private Layout part(int end, boolean little, int wanted) {
        // Without a wanted number all counts share one place: the fields' own price holds them down.
        int most = wanted > 0 ? wanted : 0;
        Part[][][] best = new Part[end + 1][most + 1][KINDS];
        best[0][0][0] = new Part(null, null, 0, 0);
        for (int at = 0; at < end; at++) {
            for (Piece piece : pieces(at, end, little)) {
                int to = at + piece.field().type().bytes();
                int kind = piece.kind();
                for (int n = 0; n <= most; n++) {
                    int next = wanted > 0 ? n + 1 : 0;
                    for (Part before : next > most ? NOTHING : best[at][n]) {
                        if (before == null) {
                            continue;
                        }
                        double total = before.bits() + price(before.kind(), piece);
                        Part old = best[to][next][kind];
                        if (old == null || total < old.bits() - 1e-9) {
                            best[to][next][kind] = new Part(before, piece.field(), kind, total);
                        }
                    }
                }
            }
        }
        Part cheapest = null;
        for (Part one : best[end][most]) {
            if (one != null && (cheapest == null || one.bits() < cheapest.bits() - 1e-9)) {
                cheapest = one;
            }
        }
        if (cheapest == null) {
            return null;
        }
        LinkedList<Field> fields = new LinkedList<>();
        for (Part one = cheapest; one.field() != null; one = one.before()) {
            fields.addFirst(one.field());
        }
        return new Layout(List.copyOf(fields), 1, cheapest.bits());
    }

    /** A way to part the bytes so far. @param before all but the last field. @param kind of the last one */
    private record Part(Part before, Field field, int kind, double bits) {}

    /** Of one sensor's axes, or of channels alike, each is a number like the one before it. */
    private static double price(int kindBefore, Piece piece) {
        boolean alike = piece.kind() > 1 && piece.kind() == kindBefore || piece.kind() == ODD && kindBefore == 3;
        if (alike) {
            return piece.bits() + AGAIN_BITS;
        }
        // The one before was no odd one after all.
        return piece.kind() == 3 && kindBefore == ODD
                ? piece.bits() + AGAIN_BITS - UNLIKELY_BITS / 2
                : piece.bits() + piece.odd() + FIELD_BITS;
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
        boolean clocklike = n == 4 && Trends.rises(values);
        int shift = n == 1 || clocklike ? 0 : Trends.commonZeros(values, n);
        Field left = new Field(at, Field.Type.whole(n, false), little, shift, 0, 0);
        double moved = shift == 0 ? 0 : SHIFT_BITS;
        double plain = Trends.bits(shift == 0 ? values : values(left), 8 * n - shift) + moved;
        Field signed = new Field(at, Field.Type.whole(n, true), little, shift, 0, 0);
        double[] both = values(signed);
        double two = Trends.bits(both, 8 * n - shift) + moved;
        boolean goesOn = shift == 0 && Roles.countsUp(values);
        if (clocklike || goesOn) {
            // A clock, or a row's number, goes on in even steps, however long they are.
            plain = Math.min(plain, Trends.bits(Trends.steps(values), 8 * n));
        }
        if (n == 4 && shift == 0 && Trends.upperStands(values) && !clocklike) {
            // Few sensors count that far and hardly move: it is two numbers, or one with a point.
            plain += UNLIKELY_BITS;
        }
        boolean high = java.util.Arrays.stream(values).anyMatch(v -> v >= Math.scalb(1.0, 8 * n - 1));
        double odd =
                n == 3 && shift == 0 && Trends.stands(values, 65536) && values[0] >= 65536 && !high ? UNLIKELY_BITS : 0;
        if (n == 4 && shift == 0 && Math.min(plain, two) > WILD_BITS) {
            plain += UNLIKELY_BITS;
            two += UNLIKELY_BITS;
        }
        if (n > 1 && Trends.upperCounts(values, Math.scalb(1.0, 8 * (n - 1)))
                || n == 4 && Trends.upperCounts(values, 65536) && !Trends.runsOn(values)) {
            plain += UNLIKELY_BITS;
            two += UNLIKELY_BITS;
        }
        if (n == 1 && java.util.Arrays.stream(values).allMatch(v -> v == 0)) {
            plain += ZERO_BITS;
        }
        // Converters of 24 bits count both ways: one that has not been below zero yet will be.
        boolean bothWays = n == 3 && shift == 0 && !high && !Trends.rises(values);
        boolean below = high
                && n > 1
                && (clocklike
                        ? !Trends.isClock(values)
                                && java.util.Arrays.stream(both).allMatch(v -> v >= LEAST_COUNTED)
                        : two <= plain);
        double least = Math.min(two, plain);
        // Of four bytes a float would look the same.
        boolean wave = n < 4
                && !Trends.rises(values)
                && !Roles.countsUp(shift == 0 ? values : values(left))
                && least > STANDS_BITS
                && least < 8 * n - shift - STANDS_BITS;
        int kind = !wave ? 0 : odd > 0 ? ODD : n;
        return bothWays || below
                ? new Piece(signed, Math.min(two, plain), kind, odd)
                : new Piece(left, plain, kind, odd);
    }

    /** Whether it is of four bytes, and a clock. */
    boolean isClock(Field field) {
        return field.type() == Field.Type.U32 && Trends.isClock(values(field));
    }

    /** Whether two bytes, the upper first, are a row's number. */
    boolean isNumber(Field field) {
        return field.type() == Field.Type.U16 && !field.littleEndian() && Roles.countsUp(values(field));
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
        double bits = Trends.bits(scaled, field.type().bytes() * 8);
        // Read as a whole number, a float is a huge one that moves by huge steps; a counter moves by even ones.
        double asWhole = whole(field.offset(), Math.min(4, field.type().bytes()), field.littleEndian())
                .bits();
        if (mantissa == 24) {
            double[] whole = values(new Field(field.offset(), Field.Type.U32, field.littleEndian()));
            if (Trends.isClock(whole)) {
                return;
            }
            boolean round = ((long) whole[0] >> 16 & 0x7f) == 0;
            if (Trends.upperStands(whole) && !Trends.rises(whole)) {
                // A quantity that hardly moves: only the lower half of its digits does. But where the upper half is a
                // round number, it is a number of its own that stands still.
                if (!round) {
                    pieces.add(new Piece(field, Trends.bits(whole, 16), FLOAT, 0));
                }
                return;
            }
        }
        if (asWhole > 12) {
            boolean eight = mantissa > 24;
            double price = Math.min(bits, asWhole + (eight ? 32 : 0)) + (eight ? DOUBLE_BITS : -0.5);
            pieces.add(new Piece(field, price, eight ? FLOAT + 1 : FLOAT, 0));
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
            bits += Trends.bits(values, 8 * n);
        }
        List<Field> fields = new ArrayList<>(front.fields());
        fields.add(sample);
        return new Layout(fields, run, front.bits() + FIELD_BITS + run * bits / packets.length);
    }
}
