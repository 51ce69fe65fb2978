package zesty.signal.core.decode;

import java.util.List;
import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Lines of numbers parted by a delimiter.
 *
 * @param delimiter comma, semicolon, tab, or a blank that stands for any run of blanks and tabs
 * @param decimalComma whether 1,5 is one and a half; not with the comma as delimiter
 * @param trailingDelimiter whether every line ends with one more delimiter
 * @param header the header line as the stream writes it, with its blanks trimmed; empty when it writes none
 * @param columns the fields in order, one at least, each name once
 * @param clock the column that is the board's clock; null when it sends none
 */
public record DelimitedFormat(
        char delimiter,
        boolean decimalComma,
        boolean trailingDelimiter,
        String header,
        List<Column> columns,
        BoardClock clock)
        implements StreamFormat {

    /** The delimiters known, in the order in which they are tried. */
    public static final String DELIMITERS = ",;\t ";

    public DelimitedFormat {
        Objects.requireNonNull(header, "header");
        if (DELIMITERS.indexOf(delimiter) < 0) {
            throw new IllegalArgumentException(Messages.of("decode.the-delimiter-must-be-comma", delimiter));
        }
        if (decimalComma && delimiter == ',') {
            throw new IllegalArgumentException(Messages.of("decode.a-comma-cannot-be-both-the"));
        }
        columns = Columns.checked(columns, clock);
    }

    @Override
    public String kind() {
        return "delimited";
    }

    @Override
    public String words() {
        return Messages.of(
                "decode.text-parted-by",
                delimiterName(),
                (decimalComma ? Messages.of("decode.with-a-decimal-comma") : ""));
    }

    @Override
    public DelimitedFormat with(List<Column> others, BoardClock ticking) {
        return new DelimitedFormat(delimiter, decimalComma, trailingDelimiter, header, others, ticking);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new DelimitedDecoder(this, rejectedLines);
    }

    /** @return the delimiter in words */
    public String delimiterName() {
        return nameOf(delimiter);
    }

    /** @return a delimiter in words */
    public static String nameOf(char delimiter) {
        return switch (delimiter) {
            case ',' -> "comma";
            case ';' -> "semicolon";
            case '\t' -> "tab";
            default -> "blanks";
        };
    }
}
