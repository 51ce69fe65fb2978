package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import java.util.List;
import zesty.signal.core.text.Messages;

/** Decodes lines that follow a template. */
final class SentenceDecoder extends LineDecoder {
    private final SentenceFormat format;
    private final NumberText number;
    private final byte[][] pieces;
    private final double[] row;

    SentenceDecoder(SentenceFormat format, RejectedLines rejectedLines) {
        super(format.columns().size(), format.header(), rejectedLines);
        this.format = format;
        number = new NumberText(format.decimalComma());
        List<String> texts = format.pieces();
        pieces = new byte[texts.size()][];
        for (int i = 0; i < pieces.length; i++) {
            pieces[i] = texts.get(i).getBytes(StandardCharsets.UTF_8);
        }
        row = new double[format.columns().size()];
    }

    @Override
    public SentenceFormat format() {
        return format;
    }

    @Override
    String accept(String line) {
        byte[] bytes = line.strip().getBytes(StandardCharsets.UTF_8);
        int at = match(bytes, 0, pieces[0]);
        boolean any = false;
        for (int c = 0; c < row.length; c++) {
            if (at < 0) {
                return Messages.of("decode.not-like", format.template());
            }
            double value = number.parse(bytes, at, bytes.length);
            if (number.stop < 0) {
                int end = wordEnd(bytes, at);
                String word = new String(bytes, at, end - at, StandardCharsets.UTF_8);
                if (!NumberText.isMissing(word) || word.isEmpty()) {
                    return Messages.of(
                            "decode.no-number-where-should-be",
                            format.columns().get(c).name());
                }
                row[c] = Double.NaN;
                at = match(bytes, end, pieces[c + 1]);
                continue;
            }
            any = true;
            row[c] = value;
            at = match(bytes, number.stop, pieces[c + 1]);
        }
        if (at != bytes.length) {
            return Messages.of("decode.not-like", format.template());
        }
        if (!any) {
            return Messages.of("decode.no-number-in-any-column");
        }
        rows.add(row);
        return null;
    }

    private static int wordEnd(byte[] bytes, int from) {
        int at = from;
        while (at < bytes.length && (bytes[at] & 0xff) > ' ' && bytes[at] != ',' && bytes[at] != ';') {
            at++;
        }
        return at;
    }

    /** @return one past the piece found at {@code at}; −1 when it is not there */
    private static int match(byte[] bytes, int from, byte[] piece) {
        int at = from;
        int p = 0;
        while (p < piece.length) {
            if (blank(piece[p])) {
                if (at >= bytes.length || !blank(bytes[at])) {
                    return -1;
                }
                while (p < piece.length && blank(piece[p])) {
                    p++;
                }
                while (at < bytes.length && blank(bytes[at])) {
                    at++;
                }
            } else if (at < bytes.length && bytes[at] == piece[p]) {
                at++;
                p++;
            } else {
                return -1;
            }
        }
        return at;
    }

    private static boolean blank(byte b) {
        return b == ' ' || b == '\t';
    }
}
