package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * Nine axes at the mast foot, 100/s: comma text with a millisecond clock and a header that gives the units. Whoever holds the board
 * does as told: {@code show level}, {@code show head}, {@code show nose up}, {@code show nose down}, {@code show left up}, {@code show
 * right up}, {@code turn} for a figure of eight, {@code sail} for the sea again.
 */
final class MotionBoard extends SampledBoard {
    private static final String[] AXES = {"ax", "ay", "az", "gx", "gy", "gz", "mx", "my", "mz"};
    private static final String[] UNITS = {"g", "°/s", "µT"};
    private static final String[] WRITTEN = {"g", "dps", "uT"};
    private static final double PERIOD = 0.01;
    private static final double HAND_SECONDS = 0.8;
    /** By its order, how a face is shown: roll and pitch in degrees. */
    private static final Map<String, double[]> SHOWN = Map.of(
            "show level", new double[] {0, 0},
            "show head", new double[] {180, 0},
            "show nose up", new double[] {0, -90},
            "show nose down", new double[] {0, 90},
            "show left up", new double[] {90, 0},
            "show right up", new double[] {-90, 0});

    private static final double[] EARTH = {20, 0, -42};
    private static final double[] BIAS = {0.4, -0.2, 0};

    private final Set<ThingMode> things;
    private String told = "sail";
    private double toldAt;
    private Pose from = new Pose(0, 0, 0);
    private Pose pose = new Pose(0, 0, 0);

    MotionBoard(Setup setup) {
        super(setup, 100, columns(UNITS));
        things = setup.things();
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
        pose = at(t);
        double[] a = pose.seen(0, 0, 1);
        double[] g = pose.turning(at(t + 0.1 * PERIOD), 0.1 * PERIOD);
        double[] m = pose.seen(EARTH[0], EARTH[1], EARTH[2]);
        if (things.contains(ThingMode.IRON)) {
            m = new double[] {1.15 * m[0] + 22, 0.92 * m[1] - 14 + 0.06 * m[0], 0.97 * m[2] + 9};
        }
        if (things.contains(ThingMode.MAGNET) && t % 10 > 5) {
            m[0] += 45;
        }
        for (int k = 0; k < 3; k++) {
            g[k] = Math.toDegrees(g[k]);
        }
        if (things.contains(ThingMode.SWAPPED)) {
            a = swapped(a);
            g = swapped(g);
            m = swapped(m);
            a = new double[] {1.04 * a[0] + 0.06, 0.97 * a[1] - 0.04, 1.02 * a[2] + 0.05};
        }
        row[0] = 1500 + sample * 10;
        for (int k = 0; k < 3; k++) {
            row[1 + k] = rounded(a[k] + noise(0.004), 4);
            row[4 + k] = rounded(g[k] + BIAS[k] + noise(0.05), 3);
            row[7 + k] = rounded(m[k] + noise(0.2), 2);
        }
    }

    /** What a unit reads that sits turned by a quarter: its x looks left, its y looks back. */
    private static double[] swapped(double[] body) {
        return new double[] {body[1], -body[0], body[2]};
    }

    private Pose at(double t) {
        if (told.equals("turn")) {
            double s = t - toldAt;
            double ease = Math.min(1, s);
            return new Pose(
                    from.roll() * (1 - ease) + ease * 2.9 * Math.sin(1.7 * s),
                    from.pitch() * (1 - ease) + ease * 1.4 * Math.sin(s),
                    from.heading() + 1.3 * s);
        }
        double[] face = SHOWN.get(told);
        if (face != null) {
            double share = Math.min(1, (t - toldAt) / HAND_SECONDS);
            double ease = share * share * (3 - 2 * share);
            return new Pose(
                    from.roll() + ease * (Math.toRadians(face[0] + 0.4) - from.roll()),
                    from.pitch() + ease * (Math.toRadians(face[1] * 0.996) - from.pitch()),
                    from.heading());
        }
        return new Pose(
                Math.toRadians(12 + 9 * swing(t, 6.1)),
                Math.toRadians(-1.5 + 2 * swing(t, 4.3)),
                Math.toRadians(120 + 15 * swing(t, 40)));
    }

    @Override
    public String receive(String order) {
        String asked = order.strip();
        if (SHOWN.containsKey(asked) || asked.equals("turn") || asked.equals("sail")) {
            from = pose;
            told = asked;
            toldAt = sample * PERIOD;
            return "# done " + asked + "\n";
        }
        return "# orders: show level, show head, show nose up, show nose down, show left up, show right up, turn, sail\n";
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
                "roll °",
                Math.toDegrees(pose.roll()),
                "pitch °",
                Math.toDegrees(pose.pitch()),
                "heading °",
                Math.toDegrees(pose.heading()));
    }
}
