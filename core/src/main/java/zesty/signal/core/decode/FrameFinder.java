package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Recognises packets that begin with start bytes: how long they are, and which of the bytes that stand still are the start. */
final class FrameFinder {
    /** A start has so many bytes at most. */
    private static final int LONGEST_START = 4;
    /** So like a start is any byte that stands still. */
    private static final int STANDS = 2;
    /** Numbers that stand in so much fewer bits a packet are the better reading. */
    private static final double BETTER_BITS = 0.25;

    /** Bytes that end a float of a natural size, from the ten-millionth to 10^9, or begin it: without the sign's bit. */
    private static final int LEAST_EXPONENT = 0x33;

    private static final int MOST_EXPONENT = 0x4e;

    private FrameFinder() {}

    private record Found(byte[] start, List<byte[]> packets, boolean checked, int likeness) {
        /** @return what the numbers of a packet take */
        double bits() {
            return layout(packets, start.length, null).bits();
        }

        double bitsPerByte() {
            return bits() / packets.get(0).length;
        }
    }

    /** @return the format; empty where nothing comes again as packets do */
    static Optional<StreamFormat> find(byte[] bytes, int length) {
        Found best = null;
        for (Rhythm rhythm : Rhythm.of(bytes, length)) {
            Found found = inRhythm(rhythm, bytes, length);
            if (found != null && (best == null || better(found, best))) {
                best = found;
            }
        }
        return Optional.ofNullable(best)
                .map(found -> PacketFinder.format(
                        Framing.START_BYTES, found.start(), found.packets(), PacketFinder.headers(bytes, length)));
    }

    /** Of a longer packet that holds the shorter one: channels alike may look like packets of their own. */
    private static boolean better(Found longer, Found shorter) {
        return longer.checked() == shorter.checked()
                ? longer.likeness() > shorter.likeness() && longer.bitsPerByte() <= shorter.bitsPerByte()
                : longer.checked();
    }

    private static Found inRhythm(Rhythm rhythm, byte[] bytes, int length) {
        int period = rhythm.period();
        List<Integer> at = rhythm.places();
        int middle = at.get(at.size() / 2);
        boolean[] constant = new boolean[period];
        for (int j = 0; j < period; j++) {
            int same = 0;
            for (int place : at) {
                same += bytes[place + j] == bytes[middle + j] ? 1 : 0;
            }
            constant[j] = same * 100 >= at.size() * 95;
        }
        Found unproven = null;
        double unprovenBits = Double.NaN;
        Found proven = null;
        byte[] sample = Arrays.copyOfRange(bytes, middle, middle + period);
        for (int turn = 0; turn < period; turn++) {
            if (!constant[turn]) {
                continue;
            }
            int run = 1;
            while (run < LONGEST_START
                    && run < period - 2
                    && constant[(turn + run) % period]
                    && goesOn(sample[(turn + run) % period] & 0xff)) {
                run++;
            }
            byte[] start = new byte[run];
            for (int i = 0; i < run; i++) {
                start[i] = sample[(turn + i) % period];
            }
            List<byte[]> packets = new ArrayList<>();
            for (int place : at) {
                int from = place + turn;
                if (from + period <= length && Arrays.equals(bytes, from, from + run, start, 0, run)) {
                    packets.add(Arrays.copyOfRange(bytes, from, from + period));
                }
            }
            if (packets.size() < PacketFinder.FEWEST) {
                continue;
            }
            start = Arrays.copyOf(start, withoutUpperEnd(start, packets));
            int checkedStart = start.length;
            while (checkedStart > 0 && Checked.of(packets, checkedStart).check() == Check.NONE) {
                checkedStart--;
            }
            if (checkedStart > 0) {
                // Of two places that both check, the longer start is the whole of it.
                if (proven == null || checkedStart > proven.start().length) {
                    proven = found(Arrays.copyOf(start, checkedStart), packets, true);
                }
                continue;
            }
            int likeness = likeness(start);
            boolean begins = !constant[(turn + period - 1) % period] || likeness > STANDS;
            boolean liker = unproven == null || likeness > unproven.likeness();
            boolean asLike = !liker && likeness == unproven.likeness() && likeness > STANDS;
            if (begins && (liker || asLike) && !endsFloat(start, packets)) {
                Found found = found(start, packets, false);
                // What the numbers take is reckoned only where two are as like a start.
                double bits = liker ? Double.NaN : found.bits();
                unprovenBits = liker || !Double.isNaN(unprovenBits) ? unprovenBits : unproven.bits();
                if (liker || bits < unprovenBits - BETTER_BITS) {
                    unproven = found;
                    unprovenBits = bits;
                }
            }
        }
        return proven == null ? unproven : proven;
    }

    private static Found found(byte[] start, List<byte[]> packets, boolean checked) {
        return new Found(start, packets, checked, likeness(start));
    }

    private static FieldFinder.Layout layout(List<byte[]> packets, int from, byte[] more) {
        return finder(packets, from, more).find(0);
    }

    /** @param more that stands behind each packet; null for nothing */
    private static FieldFinder finder(List<byte[]> packets, int from, byte[] more) {
        return new FieldFinder(packets.stream()
                .map(packet -> {
                    byte[] payload = Arrays.copyOfRange(packet, from, packet.length + (more == null ? 0 : more.length));
                    if (more != null) {
                        System.arraycopy(more, 0, payload, packet.length - from, more.length);
                    }
                    return payload;
                })
                .toList());
    }

    /** How much like a start chosen by a maker some standing bytes are; zeros and ones are small numbers' upper ends. */
    private static int likeness(byte[] start) {
        int first = start[0] & 0xff;
        if (first == 0) {
            return 0;
        }
        if (first == 0xff && (start.length == 1 || start[1] == start[0])) {
            return 1;
        }
        boolean own = striking(first) || start.length > 1 && start[1] == start[0] || word(start);
        return !own ? STANDS : start.length > 1 ? 4 : 3;
    }

    private static boolean striking(int one) {
        return one >= 0x80 || one == 0x55 || one == 0x5a || one > ' ' && "$#!<[{".indexOf(one) >= 0;
    }

    private static boolean word(byte[] start) {
        for (byte one : start) {
            if (one < 0 || !Character.isLetter(one)) {
                return false;
            }
        }
        return start.length > 1;
    }

    /** Whether a byte that is always the same may go on a start: small ones are the upper ends of small numbers. */
    private static boolean goesOn(int one) {
        return one >= ' ';
    }

    /** Whether a float of a natural size ends with the byte, or begins with it. */
    private static boolean exponent(byte one) {
        int size = one & 0x7f;
        return size >= LEAST_EXPONENT && size <= MOST_EXPONENT;
    }

    private static long floats(FieldFinder.Layout layout) {
        return layout.fields().stream().filter(field -> field.type().floating()).count();
    }

    /** Whether the first byte is no start but the upper end of the packet's last float, which hardly moves. */
    private static boolean endsFloat(byte[] start, List<byte[]> packets) {
        if (start.length < 2 || !exponent(start[0])) {
            return false;
        }
        FieldFinder.Layout with = layout(packets, start.length, new byte[] {start[0]});
        boolean last = with.fields().get(with.fields().size() - 1).type().floating();
        // A float by itself may be chance, where no more than a byte is left of the start.
        return last && (start.length > 2 || floats(with) > 1);
    }

    /** @return how much of the bytes is start: not the upper end of a float that hardly moves, of a clock or of a row's number */
    private static int withoutUpperEnd(byte[] start, List<byte[]> packets) {
        int found = start.length;
        for (int n = 1; n < start.length; n++) {
            boolean sure = n > 1 || !striking(start[n] & 0xff);
            if (!sure && !exponent(start[n])) {
                continue;
            }
            FieldFinder finder = finder(packets, n, null);
            FieldFinder.Layout layout = finder.find(0);
            Field first = layout.fields().get(0);
            if (first.type().floating() && exponent(start[n]) && (sure || floats(layout) > 1)) {
                return n;
            }
            // The last place of these: from a byte sooner all but the lowest byte is as even.
            found = sure && (finder.isClock(first) || finder.isNumber(first)) ? n : found;
        }
        return found;
    }
}
