package zesty.signal.core.decode;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * How a stream of text is written, where it is not as the decoders take it: in two bytes a sign, with a mark of its byte
 * order in front, or with carriage returns alone for line endings. Turns its bytes into UTF-8 with line feeds as they
 * come. One stream, one thread.
 */
public final class TextForm {
    private enum Form {
        AS_IT_IS,
        TWO_BYTES,
        RETURNS
    }

    private static final int LOOK = 4096;
    private static final double TEXT = 0.97;

    private final Form form;
    private final Charset charset;
    /** What is done to whole lines; null for nothing. */
    private LineForm lines;

    private int skip;
    /** The first byte of a pair whose second has not come; −1 for none. */
    private int half = -1;

    private TextForm(Form form, Charset charset, int skip) {
        this.form = form;
        this.charset = charset;
        this.skip = skip;
    }

    /** @return the form of a stream that begins with these bytes */
    public static TextForm of(byte[] head, int length) {
        TextForm signs = ofSigns(head, length);
        byte[] text = ofSigns(head, length).signs(Arrays.copyOf(head, length), length);
        signs.lines = text.length == 0 || !mostlyText(text)
                ? null
                : LineForm.of(Arrays.copyOf(text, Math.min(text.length, LOOK)));
        return signs;
    }

    private static boolean mostlyText(byte[] bytes) {
        int text = 0;
        int n = Math.min(bytes.length, LOOK);
        for (int i = 0; i < n; i++) {
            text += isText(bytes[i]) ? 1 : 0;
        }
        return text >= TEXT * n;
    }

    private static TextForm ofSigns(byte[] head, int length) {
        int n = Math.min(length, LOOK);
        if (n >= 3 && (head[0] & 0xff) == 0xef && (head[1] & 0xff) == 0xbb && (head[2] & 0xff) == 0xbf) {
            TextForm rest = ofSigns(Arrays.copyOfRange(head, 3, n), n - 3);
            return new TextForm(rest.form, rest.charset, 3);
        }
        if (n >= 4) {
            boolean bigMark = (head[0] & 0xff) == 0xfe && (head[1] & 0xff) == 0xff;
            boolean littleMark = (head[0] & 0xff) == 0xff && (head[1] & 0xff) == 0xfe;
            int from = bigMark || littleMark ? 2 : 0;
            if (!bigMark && twoBytes(head, from, n, 0)) {
                return new TextForm(Form.TWO_BYTES, StandardCharsets.UTF_16LE, from);
            }
            if (!littleMark && twoBytes(head, from, n, 1)) {
                return new TextForm(Form.TWO_BYTES, StandardCharsets.UTF_16BE, from);
            }
        }
        return new TextForm(returnsOnly(head, n) ? Form.RETURNS : Form.AS_IT_IS, StandardCharsets.UTF_8, 0);
    }

    /** @param low which byte of a pair is the sign itself; the other one is zero in the text of boards */
    private static boolean twoBytes(byte[] head, int from, int to, int low) {
        int pairs = (to - from) / 2;
        int text = 0;
        int ends = 0;
        for (int i = 0; i < pairs; i++) {
            int sign = head[from + 2 * i + low];
            int high = head[from + 2 * i + 1 - low];
            text += high == 0 && isText(sign) ? 1 : 0;
            ends += high == 0 && (sign == '\n' || sign == '\r') ? 1 : 0;
        }
        return pairs > 3 && text >= TEXT * pairs && (ends > 0 || from > 0);
    }

    private static boolean returnsOnly(byte[] head, int n) {
        int returns = 0;
        int text = 0;
        for (int i = 0; i < n; i++) {
            if (head[i] == '\n') {
                return false;
            }
            returns += head[i] == '\r' ? 1 : 0;
            text += isText(head[i]) ? 1 : 0;
        }
        return returns >= 2 && text >= TEXT * n;
    }

    private static boolean isText(int sign) {
        return sign >= ' ' && sign < 0x7f || sign == '\n' || sign == '\r' || sign == '\t';
    }

    /** @return the next bytes of the stream as UTF-8 with line feeds; the very same array where nothing is to be done */
    public byte[] plain(byte[] bytes, int length) {
        byte[] text = signs(bytes, length);
        return lines == null ? text : lines.plain(text);
    }

    private byte[] signs(byte[] bytes, int length) {
        int from = Math.min(skip, length);
        skip -= from;
        switch (form) {
            case TWO_BYTES -> {
                int before = half >= 0 ? 1 : 0;
                int all = before + length - from;
                byte[] pairs = new byte[all & ~1];
                for (int i = 0; i < pairs.length; i++) {
                    pairs[i] = i < before ? (byte) half : bytes[from + i - before];
                }
                half = (all & 1) == 0 ? -1 : all == before ? half : bytes[length - 1] & 0xff;
                return new String(pairs, charset).getBytes(StandardCharsets.UTF_8);
            }
            case RETURNS -> {
                byte[] lines = Arrays.copyOfRange(bytes, from, length);
                for (int i = 0; i < lines.length; i++) {
                    lines[i] = lines[i] == '\r' ? (byte) '\n' : lines[i];
                }
                return lines;
            }
            default -> {
                return from == 0 && length == bytes.length ? bytes : Arrays.copyOfRange(bytes, from, length);
            }
        }
    }

    /** @return what numbers stand for that are words in the stream, such as {@code mode: 0 = auto, 1 = hold}; empty for none */
    public String legend() {
        return lines == null ? "" : lines.legend();
    }

    /** @return whether bytes may be taken as they are from here on */
    public boolean isAsItIs() {
        return form == Form.AS_IT_IS && skip == 0 && lines == null;
    }
}
