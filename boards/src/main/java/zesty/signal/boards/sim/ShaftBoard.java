package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;

/**
 * Acceleration at the outboard's shaft and the mark of its tachometer, 1000/s, comma text. It turns 23 times a second, 3 % up and
 * down; what is out of balance shakes once a turn with its crest 60° after the mark, twice and five times a turn it shakes less;
 * the mains' hum next door has nothing to do with it.
 */
final class ShaftBoard extends SampledBoard {
    private static final double RATE_HZ = 1000;
    private static final double TURNS_HZ = 23;
    private static final double SWAY = 0.03;
    private static final double SWAY_SECONDS = 7;
    private static final double MARK_DEGREES = 9;
    /** Of orders 1, 2 and 5: amplitude in g, and by how much the crest comes after the mark. */
    private static final double[][] SHAKES = {{1, 0.4, 60}, {2, 0.15, 200}, {5, 0.08, 310}};

    private static final double HUM_G = 0.1;
    private final Setup setup;

    ShaftBoard(Setup setup) {
        super(setup, RATE_HZ, List.of(new Column("vibration", "g"), new Column("mark", "")));
        this.setup = setup;
        range(0, -0.3, 0.3);
    }

    @Override
    public byte[] greeting() {
        return ascii("outboard shaft\nvibration [g],mark\n");
    }

    /** @return turns since the start */
    private double turns(double t) {
        if (setup.has(ThingMode.RUNS_UP)) {
            double up = Math.min(t, 20);
            return 10 * up + 0.75 * up * up + 40 * (t - up);
        }
        return TURNS_HZ * (t + SWAY * SWAY_SECONDS / (2 * Math.PI) * (1 - Math.cos(2 * Math.PI * t / SWAY_SECONDS)));
    }

    @Override
    void measure(double t) {
        double turns = turns(t);
        double shaken = 0;
        for (double[] one : SHAKES) {
            shaken += one[1] * Math.cos(2 * Math.PI * one[0] * turns - Math.toRadians(one[2]));
        }
        if (setup.has(ThingMode.APART)) {
            shaken = 0;
        }
        row[0] = rounded(shaken + HUM_G * Math.sin(2 * Math.PI * 50 * t) + noise(0.05), 4);
        double degrees = 360 * (turns - Math.floor(turns));
        boolean mark = degrees < MARK_DEGREES;
        if (setup.has(ThingMode.BOUNCED) && Math.floor(turns) % 4 == 1) {
            mark = degrees < 4 || degrees > 9 && degrees < 13;
        }
        if (setup.has(ThingMode.SKIPS) && Math.floor(turns) % 9 == 4) {
            mark = false;
        }
        row[1] = mark ? 1 : 0;
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, decimals(row[0], 4) + "," + (int) row[1] + "\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("turns Hz", TURNS_HZ, "once g", SHAKES[0][1], "phase °", SHAKES[0][2]);
    }
}
