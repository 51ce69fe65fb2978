package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/** Nine axes at the mast foot, 100/s: comma text with a millisecond clock and a header that gives the units. */
final class MotionBoard extends SampledBoard {
    private static final String[] AXES = {"ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz"};
    private static final String[] UNITS = {"g", "°/s", "µT"};
    private static final String[] WRITTEN = {"g", "dps", "uT"};
    private double roll;
    private double pitch;
    private double heading;

    MotionBoard(Setup setup) {
        super(setup, 100, columns(UNITS));
        for (int c = 1; c < 4; c++) {
            range(c, -0.2, 0.9);
        }
    }

    private static List<Column> columns(String[] units) {
        List<Column> columns = new ArrayList<>();
        columns.add(new Column("t_ms", "", Role.CLOCK, true));
        for (int i = 0; i < AXES.length; i++) {
            columns.add(new Column(AXES[i], units[i / 3]));
        }
        return columns;
    }

    @Override
    public byte[] greeting() {
        StringBuilder header = new StringBuilder("t_ms");
        for (int i = 0; i < AXES.length; i++) {
            header.append(',')
                    .append(AXES[i])
                    .append(" [")
                    .append(WRITTEN[i / 3])
                    .append(']');
        }
        return ascii("Wren motion board\n" + header + "\n");
    }

    @Override
    void measure(double t) {
        double w = 2 * Math.PI / 6.1;
        roll = Math.toRadians(12 + 9 * Math.sin(w * t));
        pitch = Math.toRadians(-1.5 + 2 * swing(t, 4.3));
        heading = Math.toRadians(120 + 15 * swing(t, 40));
        row[0] = 1500 + sample * 10;
        row[1] = rounded(-Math.sin(pitch) + noise(0.004), 4);
        row[2] = rounded(Math.sin(roll) * Math.cos(pitch) + noise(0.004), 4);
        row[3] = rounded(Math.cos(roll) * Math.cos(pitch) + noise(0.004), 4);
        row[4] = rounded(9 * w * Math.cos(w * t) + 0.4 + noise(0.05), 3);
        row[5] = rounded(2 * 2 * Math.PI / 4.3 * Math.cos(2 * Math.PI * t / 4.3) - 0.2 + noise(0.05), 3);
        row[6] = rounded(-15 * 2 * Math.PI / 40 * Math.cos(2 * Math.PI * t / 40) + noise(0.05), 3);
        row[7] = rounded(20 * Math.cos(heading) + noise(0.2), 2);
        row[8] = rounded(20 * Math.sin(heading) * Math.cos(roll) + 42 * Math.sin(roll) + noise(0.2), 2);
        row[9] = rounded(-42 * Math.cos(roll) + 20 * Math.sin(heading) * Math.sin(roll) + noise(0.2), 2);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        StringBuilder line = new StringBuilder(80).append((long) row[0]);
        for (int c = 1; c < row.length; c++) {
            line.append(',').append(decimals(row[c], c < 4 ? 4 : c < 7 ? 3 : 2));
        }
        text(out, line.append('\n').toString());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of(
                "roll °", Math.toDegrees(roll), "pitch °", Math.toDegrees(pitch), "heading °", Math.toDegrees(heading));
    }
}
