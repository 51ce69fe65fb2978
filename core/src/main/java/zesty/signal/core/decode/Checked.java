package zesty.signal.core.decode;

import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** A checksum found at the end of packets. @param from the first byte it covers */
record Checked(Check check, boolean little, int from) {
    private static final int LOOKED_AT = 64;

    boolean fromStart() {
        return from == 0;
    }

    boolean agrees(byte[] packet) {
        int at = packet.length - check.bytes();
        long written = 0;
        for (int i = 0; i < check.bytes(); i++) {
            written = written << 8 | packet[little ? packet.length - 1 - i : at + i] & 0xff;
        }
        return written == check.of(packet, from, at);
    }

    /** @param startLength of the bytes that each packet begins with. @return what most of them agree with; {@link Check#NONE} for nothing */
    static Checked of(List<byte[]> packets, int startLength) {
        List<byte[]> some = packets.subList(0, Math.min(LOOKED_AT, packets.size()));
        int length = some.get(0).length;
        Set<List<Byte>> ends = new HashSet<>();
        for (byte[] packet : some) {
            ends.add(List.of(packet[length - 1], packet[Math.max(0, length - 2)]));
        }
        if (ends.size() < Math.min(4, some.size())) {
            // A checksum that stands still proves nothing.
            return new Checked(Check.NONE, false, 0);
        }
        Check[] checks = Check.values();
        for (int c = checks.length - 1; c > 0; c--) {
            Check check = checks[c];
            if (length - startLength - check.bytes() < 1) {
                continue;
            }
            for (boolean little : check.bytes() == 1 ? new boolean[] {false} : new boolean[] {true, false}) {
                for (int from = startLength; from >= 0; from -= Math.max(1, startLength)) {
                    Checked candidate = new Checked(check, little, from);
                    long agreeing = some.stream().filter(candidate::agrees).count();
                    if (agreeing * 10 >= some.size() * 7L) {
                        return candidate;
                    }
                }
            }
        }
        return new Checked(Check.NONE, false, 0);
    }
}
