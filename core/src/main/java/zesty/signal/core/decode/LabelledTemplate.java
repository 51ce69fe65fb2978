package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/**
 * How a labelled line that was understood looked, so that the next one like it is read where it lies: the same bytes
 * around the numbers, whatever the numbers. A line that differs in anything else is left to the careful way.
 */
final class LabelledTemplate {
    private final byte[][] pieces;
    private final int[] places;
    private final double[] values;

    private LabelledTemplate(byte[][] pieces, int[] places) {
        this.pieces = pieces;
        this.places = places;
        values = new double[places.length];
    }

    /**
     * @param pairs what the line was understood as
     * @param placeOf the column of each label
     * @return null when the line makes none: a number is missing in it, or it is not found where it should be
     */
    static LabelledTemplate of(byte[] line, List<Labels.Pair> pairs, Map<String, Integer> placeOf, NumberText number) {
        byte[][] pieces = new byte[pairs.size() + 1][];
        int[] places = new int[pairs.size()];
        int at = 0;
        for (int i = 0; i < places.length; i++) {
            Labels.Pair pair = pairs.get(i);
            byte[] label = pair.label().getBytes(StandardCharsets.UTF_8);
            int found = pair.missing() ? -1 : indexOf(line, label, at);
            if (found < 0) {
                return null;
            }
            int p = blanks(line, found + label.length);
            int sign = p;
            while (p < line.length && (line[p] == ':' || line[p] == '=' || line[p] == '>' || line[p] == '-')) {
                p++;
                if (line[p - 1] == '>'
                        || line[p - 1] == ':'
                        || line[p - 1] == '=' && (p == line.length || line[p] != '>')) {
                    break;
                }
            }
            int start = blanks(line, p);
            double value = number.parse(line, start, line.length);
            if (p == sign || number.stop < 0 || value != pair.value()) {
                return null;
            }
            pieces[i] = Arrays.copyOfRange(line, at, p);
            places[i] = placeOf.get(pair.label());
            at = number.stop;
        }
        pieces[places.length] = Arrays.copyOfRange(line, at, line.length);
        return new LabelledTemplate(pieces, places);
    }

    private static int blanks(byte[] line, int from) {
        int at = from;
        while (at < line.length && (line[at] == ' ' || line[at] == '\t')) {
            at++;
        }
        return at;
    }

    private static int indexOf(byte[] line, byte[] part, int from) {
        for (int i = from; i + part.length <= line.length; i++) {
            if (Arrays.equals(line, i, i + part.length, part, 0, part.length)) {
                return i;
            }
        }
        return -1;
    }

    /** Reads a line. @return whether it is like this one; then {@link #value} gives its numbers */
    boolean reads(byte[] bytes, int from, int to, NumberText number) {
        int at = from;
        for (int i = 0; i < places.length; i++) {
            byte[] piece = pieces[i];
            if (to - at < piece.length) {
                return false;
            }
            for (int k = 0; k < piece.length; k++) {
                if (bytes[at + k] != piece[k]) {
                    return false;
                }
            }
            at += piece.length;
            while (at < to && (bytes[at] == ' ' || bytes[at] == '\t')) {
                at++;
            }
            values[i] = number.parse(bytes, at, to);
            if (number.stop < 0) {
                return false;
            }
            at = number.stop;
        }
        byte[] tail = pieces[places.length];
        return to - at == tail.length && Arrays.equals(bytes, at, to, tail, 0, tail.length);
    }

    int count() {
        return places.length;
    }

    int place(int i) {
        return places[i];
    }

    double value(int i) {
        return values[i];
    }
}
