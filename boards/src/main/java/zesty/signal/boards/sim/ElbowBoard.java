package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * Two motion units of six axes on the sheet hand's arm, 100/s: comma text with a header that gives the units. Both are strapped on at
 * angles of their own. The upper arm swings a little; the elbow is bent and stretched, four seconds a time, with a rest after
 * each third. What the units feel besides gravity follows from where they are (second differences of their places).
 */
final class ElbowBoard extends SampledBoard {
    private static final String[] AXES = {"ax", "ay", "az", "gx", "gy", "gz"};
    private static final double PERIOD = 0.01;
    private static final double DIFFERENCE = 0.002;
    private static final double GRAVITY = 9.80665;
    /** From the shoulder to the first unit, to the elbow, and from there to the second unit, in m. */
    private static final double[] LENGTHS = {0.16, 0.31, 0.19};

    private static final double STRETCHED = Math.toRadians(12);
    private static final double BENT = Math.toRadians(104);
    private static final Pose FIRST = new Pose(0.4, -0.25, 1.1);
    private static final Pose SECOND = new Pose(-0.7, 0.3, -0.5);
    private static final double[][] BIAS = {{0.5, -0.3, 0.2}, {-0.4, 0.25, 0.35}};
    private static final double REPETITION = 4;

    private final boolean resting;
    private final boolean upright;
    private final boolean twists;
    private double angle;

    ElbowBoard(Setup setup) {
        super(setup, 1 / PERIOD, units());
        resting = setup.has(ThingMode.RESTING);
        upright = setup.has(ThingMode.UPRIGHT);
        twists = setup.has(ThingMode.TWISTS);
        for (int c = 1; c < 4; c++) {
            range(c, -0.3, 0.6);
        }
    }

    private static List<Column> units() {
        List<Column> columns = new ArrayList<>();
        columns.add(new Column("t_ms", "", Role.CLOCK, true));
        for (int unit = 1; unit <= 2; unit++) {
            for (int k = 0; k < AXES.length; k++) {
                columns.add(new Column(AXES[k] + unit, k < 3 ? "g" : "°/s"));
            }
        }
        return columns;
    }

    @Override
    public byte[] greeting() {
        StringBuilder header = new StringBuilder("t_ms");
        for (Column column : units().subList(1, 13)) {
            header.append(',')
                    .append(column.name())
                    .append(" [")
                    .append(column.unit().equals("g") ? "g" : "dps")
                    .append(']');
        }
        return ascii("sheet hand's elbow\n" + header + "\n");
    }

    /** Of three repetitions and a rest as long as one, each from stretched to bent and back with a rate that is 0 at its ends. */
    private static double flexion(double t) {
        double at = t / REPETITION;
        double share = Math.floor(at) % 4 == 3 ? 0 : (1 - Math.cos(2 * Math.PI * at)) / 2;
        return STRETCHED + (BENT - STRETCHED) * share;
    }

    private Triad upper(double t) {
        double sway = resting ? 0 : 1;
        return Triad.of(new Pose(
                (upright ? Math.PI / 2 : 0) + sway * 0.2 * swing(t, 5.3),
                upright ? 0 : 0.9 + sway * 0.25 * swing(t, 7.1),
                0.4 + sway * 0.3 * swing(t, 9.7)));
    }

    private Triad lower(double t) {
        Triad bent = upper(t).about(1, -flexion(t));
        return twists ? bent.about(0, 0.9 * swing(t, 2.9)) : bent;
    }

    private double[] place(double t, boolean second) {
        double[] along = upper(t).axes()[0];
        double[] further = lower(t).axes()[0];
        double[] place = new double[3];
        for (int k = 0; k < 3; k++) {
            place[k] = second ? LENGTHS[1] * along[k] + LENGTHS[2] * further[k] : LENGTHS[0] * along[k];
        }
        return place;
    }

    @Override
    void measure(double t) {
        angle = flexion(t);
        row[0] = 700 + sample * 10;
        unit(1, t, false);
        unit(7, t, true);
    }

    private void unit(int column, double t, boolean second) {
        Pose mounted = second ? SECOND : FIRST;
        Triad now = (second ? lower(t) : upper(t)).with(mounted);
        Triad then = (second ? lower(t + DIFFERENCE) : upper(t + DIFFERENCE)).with(mounted);
        double[] before = place(t - DIFFERENCE, second);
        double[] here = place(t, second);
        double[] after = place(t + DIFFERENCE, second);
        double[] felt = new double[3];
        for (int k = 0; k < 3; k++) {
            felt[k] = (before[k] - 2 * here[k] + after[k]) / (DIFFERENCE * DIFFERENCE) / GRAVITY + (k == 2 ? 1 : 0);
        }
        double[] a = now.seen(felt[0], felt[1], felt[2]);
        double[] w = now.turning(then, DIFFERENCE);
        for (int k = 0; k < 3; k++) {
            row[column + k] = rounded(a[k] + noise(0.006), 3);
            row[column + 3 + k] = rounded(Math.toDegrees(w[k]) + BIAS[second ? 1 : 0][k] + noise(0.1), 2);
        }
    }

    @Override
    void write(ByteArrayOutputStream out) {
        StringBuilder line = new StringBuilder(100).append((long) row[0]);
        for (int c = 1; c < row.length; c++) {
            line.append(',').append(decimals(row[c], (c - 1) % 6 < 3 ? 3 : 2));
        }
        text(out, line.append('\n').toString());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("angle °", Math.toDegrees(angle), "range °", Math.toDegrees(BENT - STRETCHED));
    }
}
