package zesty.signal.core.decode;

import java.nio.charset.StandardCharsets;
import zesty.signal.core.text.Messages;

/** Decodes delimited text. Lines that equal the header are passed over. */
public final class DelimitedDecoder extends LineDecoder {
    private final DelimitedFormat format;
    private final NumberText number;
    private final byte delimiter;
    /** Whether lines can be read straight through: single delimiters, none at the end. */
    private final boolean straight;
    /** What the decimal sign is when 0 has been taken off it, as off a digit. */
    private final int point;

    private final int width;

    public DelimitedDecoder(DelimitedFormat format, RejectedLines rejectedLines) {
        super(format.columns().size(), format.header(), rejectedLines);
        this.format = format;
        number = new NumberText(format.decimalComma());
        delimiter = (byte) format.delimiter();
        straight = format.delimiter() != ' ' && !format.trailingDelimiter();
        point = (format.decimalComma() ? ',' : '.') - '0';
        width = format.columns().size();
    }

    @Override
    public DelimitedFormat format() {
        return format;
    }

    /**
     * Straight through while the line is what it should be, else with care. Ugly for speed: digits are read without
     * asking for the end, since {@code last} stops every number.
     */
    @Override
    int line(byte[] bytes, int from, int last) {
        if (!straight || firstMayBeHalf) {
            return super.line(bytes, from, last);
        }
        rows.need(1);
        double[][] columns = rows.columns;
        int at = from;
        int row = rows.count;
        for (int c = 0; c < width; c++) {
            int sign = bytes[at];
            if (sign == '-') {
                at++;
            }
            int start = at;
            long mantissa = 0;
            int digit = bytes[at] - '0';
            while (digit >= 0 && digit <= 9) {
                mantissa = mantissa * 10 + digit;
                digit = bytes[++at] - '0';
            }
            int decimals = 0;
            if (digit == point) {
                int afterPoint = at + 1;
                digit = bytes[++at] - '0';
                while (digit >= 0 && digit <= 9) {
                    mantissa = mantissa * 10 + digit;
                    digit = bytes[++at] - '0';
                }
                decimals = at - afterPoint;
            }
            int length = at - start;
            // Up to 15 digits are exact in a double, and so is the power of ten: one rounding, as it should be.
            if (length == 0 || length > 15) {
                break;
            }
            double value = decimals == 0 ? mantissa : mantissa / NumberText.POWERS_OF_TEN[decimals];
            columns[c][row] = sign == '-' ? -value : value;
            if (c < width - 1) {
                if (bytes[at] != delimiter) {
                    break;
                }
                at++;
                continue;
            }
            if (bytes[at] == '\r' && at < last) {
                at++;
            }
            if (bytes[at] == '\n') {
                rows.count++;
                lines++;
                understood += at + 1 - from;
                return at + 1;
            }
        }
        return super.line(bytes, from, last);
    }

    @Override
    String accept(String line) {
        String[] fields = Fields.split(line, format.delimiter(), format.trailingDelimiter());
        if (fields.length != width) {
            return Messages.of(
                    "decode.where-there-should-be",
                    fields.length + (fields.length == 1 ? Messages.of("decode.field") : Messages.of("decode.fields")),
                    width);
        }
        rows.need(1);
        boolean any = false;
        for (int c = 0; c < width; c++) {
            byte[] field = fields[c].getBytes(StandardCharsets.UTF_8);
            double value = number.parse(field, 0, field.length);
            boolean whole = number.stop == field.length;
            if (!whole && !NumberText.isMissing(fields[c])) {
                return Messages.of(
                        "decode.in-column-is-not-a-number",
                        fields[c],
                        (c + 1),
                        format.columns().get(c).name());
            }
            any |= whole;
            rows.columns[c][rows.count] = whole ? value : Double.NaN;
        }
        if (!any) {
            return Messages.of("decode.no-number-in-any-column");
        }
        rows.count++;
        return null;
    }
}
