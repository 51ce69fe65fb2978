package zesty.signal.core.decode;

import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;

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
        BoardClock clock) {

    /** The delimiters known, in the order in which they are tried. */
    public static final String DELIMITERS = ",;\t ";

    public DelimitedFormat {
        Objects.requireNonNull(header, "header");
        columns = List.copyOf(columns);
        if (DELIMITERS.indexOf(delimiter) < 0) {
            throw new IllegalArgumentException(
                    "the delimiter must be comma, semicolon, tab or blank, was '" + delimiter + "'");
        }
        if (decimalComma && delimiter == ',') {
            throw new IllegalArgumentException("a comma cannot be both the delimiter and the decimal sign");
        }
        if (columns.isEmpty()) {
            throw new IllegalArgumentException("a format needs at least one column");
        }
        Set<String> names = new HashSet<>();
        for (Column column : columns) {
            if (!names.add(column.name())) {
                throw new IllegalArgumentException("two columns are called '" + column.name() + "'");
            }
        }
        if (clock != null && clock.column() >= columns.size()) {
            throw new IllegalArgumentException("the clock is column " + clock.column() + " of only " + columns.size());
        }
    }

    /** @return index of the column; −1 when there is none of that name */
    public int indexOf(String name) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(name)) {
                return i;
            }
        }
        return -1;
    }

    /** @return the delimiter in words */
    public String delimiterName() {
        return switch (delimiter) {
            case ',' -> "comma";
            case ';' -> "semicolon";
            case '\t' -> "tab";
            default -> "blanks";
        };
    }
}
