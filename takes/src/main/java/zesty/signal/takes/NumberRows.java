package zesty.signal.takes;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import zesty.signal.core.scale.Digits;

/** Writes rows of numbers as CSV, quickly: texts of the same value as {@link Digits#exact}. One thread. */
public final class NumberRows {
    private static final int ROOM = 1 << 16;
    private static final int LONGEST = 32;
    private static final double[] POWERS = {10, 100, 1000, 1e4, 1e5, 1e6};
    private static final double LEAST = 1e-3;
    private static final double MOST = 1e9;

    private final OutputStream out;
    private final String missing;
    private final byte[] bytes = new byte[ROOM];
    private final byte[] digits = new byte[20];
    private int length;
    private boolean within;

    public NumberRows(OutputStream out) {
        this(out, "");
    }

    /** @param missing what stands for a value that is none */
    public NumberRows(OutputStream out, String missing) {
        this.out = out;
        this.missing = missing;
    }

    /** Adds a cell. */
    public void add(double value) throws IOException {
        if (length > ROOM - LONGEST) {
            flush();
        }
        if (within) {
            bytes[length++] = ',';
        }
        within = true;
        if (value != value || Double.isInfinite(value)) {
            text(missing);
            return;
        }
        long whole = (long) value;
        if (whole == value && whole < 1_000_000_000_000_000L && whole > -1_000_000_000_000_000L) {
            if (whole != 0 || 1 / value > 0) {
                number(whole, 0);
                return;
            }
        }
        double size = Math.abs(value);
        if (size >= LEAST && size < MOST) {
            for (int k = 0; k < POWERS.length; k++) {
                double scaled = Math.rint(value * POWERS[k]);
                if (scaled / POWERS[k] == value) {
                    number((long) scaled, k + 1);
                    return;
                }
            }
        }
        text(Digits.exact(value));
    }

    /** Adds a cell of text that needs no quotes. */
    public void add(String plain) throws IOException {
        if (length > ROOM - LONGEST - plain.length()) {
            flush();
        }
        if (within) {
            bytes[length++] = ',';
        }
        within = true;
        text(plain);
    }

    private void text(String plain) throws IOException {
        byte[] utf8 = plain.getBytes(StandardCharsets.UTF_8);
        if (utf8.length > ROOM - length) {
            flush();
            out.write(utf8);
            return;
        }
        System.arraycopy(utf8, 0, bytes, length, utf8.length);
        length += utf8.length;
    }

    private void number(long code, int decimals) {
        long rest = code;
        if (rest < 0) {
            bytes[length++] = '-';
            rest = -rest;
        }
        int at = digits.length;
        int count = 0;
        while (rest != 0 || count <= decimals) {
            digits[--at] = (byte) ('0' + rest % 10);
            rest /= 10;
            count++;
            if (count == decimals) {
                digits[--at] = '.';
            }
        }
        System.arraycopy(digits, at, bytes, length, digits.length - at);
        length += digits.length - at;
    }

    /** Ends a row. */
    public void end() throws IOException {
        if (length == ROOM) {
            flush();
        }
        bytes[length++] = '\n';
        within = false;
    }

    /** Hands on what was gathered. */
    public void flush() throws IOException {
        out.write(bytes, 0, length);
        length = 0;
    }
}
