package zesty.signal.core.decode;

import java.util.ArrayList;
import java.util.List;

/**
 * Pictures as text: each a block of lines with as many numbers as the picture has columns, parted from the next by a
 * heading or a blank line; or one long line for each. The stream's columns are the hottest, the coldest and the mean
 * value, then every pixel, row by row.
 *
 * @param rows of the picture, at least 1
 * @param width columns of the picture, at least 2
 * @param delimiter comma, semicolon, tab, or a blank for any run of blanks
 * @param perLine whether one line holds the whole picture
 */
public record PictureFormat(
        int rows, int width, char delimiter, boolean decimalComma, boolean perLine, List<Column> columns)
        implements StreamFormat {
    /** Columns before the first pixel. */
    public static final int SUMMARIES = 3;

    /** Most pixels a picture may have. */
    public static final int MOST_PIXELS = 1 << 15;

    public PictureFormat {
        checkSize(rows, width);
        columns = Columns.checked(columns, null);
        if (columns.size() != SUMMARIES + rows * width) {
            throw new IllegalArgumentException(columns.size() + " columns for " + rows * width + " pixels");
        }
    }

    /** @return the format with columns hottest, coldest, mean, and r1c1 and so on */
    public static PictureFormat of(
            int rows, int width, char delimiter, boolean decimalComma, boolean perLine, String unit) {
        checkSize(rows, width);
        List<Column> columns = new ArrayList<>();
        for (String summary : new String[] {"hottest", "coldest", "mean"}) {
            columns.add(new Column(summary, unit));
        }
        for (int r = 1; r <= rows; r++) {
            for (int c = 1; c <= width; c++) {
                columns.add(new Column("r" + r + "c" + c, unit, Role.PICTURE, true));
            }
        }
        return new PictureFormat(rows, width, delimiter, decimalComma, perLine, columns);
    }

    private static void checkSize(int rows, int width) {
        if (rows < 1 || width < 2 || (long) rows * width > MOST_PIXELS) {
            throw new IllegalArgumentException(
                    "a picture has up to " + MOST_PIXELS + " pixels, was " + rows + " × " + width);
        }
    }

    @Override
    public String kind() {
        return "picture";
    }

    @Override
    public BoardClock clock() {
        return null;
    }

    @Override
    public String words() {
        return "pictures of " + rows + " × " + width + " numbers" + (perLine ? ", one a line" : "");
    }

    @Override
    public PictureFormat with(List<Column> others, BoardClock ticking) {
        if (ticking != null) {
            throw new IllegalArgumentException("a picture carries no clock");
        }
        return new PictureFormat(rows, width, delimiter, decimalComma, perLine, others);
    }

    @Override
    public StreamDecoder decoder(RejectedLines rejectedLines) {
        return new PictureDecoder(this, rejectedLines);
    }
}
