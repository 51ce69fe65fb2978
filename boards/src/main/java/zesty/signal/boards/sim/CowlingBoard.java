package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.PictureFormat;
import zesty.signal.core.decode.Role;

/**
 * A heat picture of the outboard's cowling, 24 rows of 32 degrees, four a second, each after a heading. A hot spot wanders
 * over the exhaust. Two of its pixels are not well: one always says the same, one is too hot.
 */
final class CowlingBoard extends SampledBoard {
    private static final int ROWS = 24;
    private static final int WIDTH = 32;
    /** Row and column of the pixels that are not well. */
    private static final int STILL = 3 * WIDTH + 29;

    private static final int HOT = 20 * WIDTH + 2;
    private double hottest;

    CowlingBoard(Setup setup) {
        super(setup, 4, columnsOf());
        for (int c = PictureFormat.SUMMARIES; c < columnsOf().size(); c++) {
            range(c, 0, 50);
        }
    }

    /** Hottest, coldest and mean, and the pixels that it sends. */
    private static List<Column> columnsOf() {
        List<Column> columns = new ArrayList<>(
                PictureFormat.of(ROWS, WIDTH, ' ', false, false, "").columns());
        for (int r = 1; r <= ROWS; r++) {
            for (int c = 1; c <= WIDTH; c++) {
                columns.add(new Column("r" + r + "c" + c, "", Role.PICTURE, true));
            }
        }
        return columns;
    }

    @Override
    public byte[] greeting() {
        return ascii("cowling camera\n");
    }

    @Override
    void measure(double t) {
        double spotRow = 14 + 3 * swing(t, 30);
        double spotColumn = 20 + 4 * swing(t, 21);
        for (int r = 0; r < ROWS; r++) {
            for (int c = 0; c < WIDTH; c++) {
                double away = Math.hypot(r - spotRow, c - spotColumn);
                double cowl = r > 4 && r < 21 && c > 5 && c < 28 ? 14 : 0;
                row[PictureFormat.SUMMARIES + r * WIDTH + c] =
                        rounded(21 + cowl + 38 * Math.exp(-away * away / 18) + noise(0.25), 1);
            }
        }
        row[PictureFormat.SUMMARIES + STILL] = 18.4;
        row[PictureFormat.SUMMARIES + HOT] = rounded(row[PictureFormat.SUMMARIES + HOT] + 9, 1);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        hottest = Double.NEGATIVE_INFINITY;
        double coldest = Double.POSITIVE_INFINITY;
        double sum = 0;
        StringBuilder picture =
                new StringBuilder(4000).append("picture ").append(sample).append('\n');
        for (int r = 0; r < ROWS; r++) {
            for (int c = 0; c < WIDTH; c++) {
                double value = row[PictureFormat.SUMMARIES + r * WIDTH + c];
                picture.append(c == 0 ? "" : " ").append(decimals(value, 1));
                hottest = Math.max(hottest, value);
                coldest = Math.min(coldest, value);
                sum += value;
            }
            picture.append('\n');
        }
        row[0] = hottest;
        row[1] = coldest;
        row[2] = sum / (ROWS * WIDTH);
        text(out, picture.toString());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("hottest °C", hottest);
    }

    @Override
    public int noiseCosts() {
        return 0;
    }
}
