package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The drying cupboard, five JSON objects a second: the clock, the heater's duty in percent, and the temperatures of the
 * air and of the wood. It takes the order {@code heat NN} and answers. The air follows the heater with a time constant
 * of 20 s after a dead time of 2 s. {@code power off} and {@code power on} pull and push the heater's own plug.
 */
final class CupboardBoard extends SampledBoard {
    private static final double RATE_HZ = 5;
    private final double[] late = new double[(int) (2 * RATE_HZ)];
    private double duty;
    private boolean powered;
    /** How much warmer the shed becomes from row to row. */
    private final double sun;

    private double shed = 19;
    private double air = 19;
    private double wood = 18.6;

    CupboardBoard(Setup setup) {
        super(
                setup,
                RATE_HZ,
                List.of(
                        new Column("t", "", Role.CLOCK, true),
                        new Column("heat", ""),
                        new Column("air", "°C"),
                        new Column("wood", "°C")));
        powered = !setup.has(ThingMode.UNPOWERED);
        sun = setup.has(ThingMode.SUNNY) ? 2.0 / 60 / RATE_HZ : 0;
        range(2, 0, 30);
    }

    @Override
    public byte[] greeting() {
        return ascii("{\"board\":\"cupboard\",\"orders\":\"heat 0..100\"}\n");
    }

    @Override
    void measure(double t) {
        int slot = (int) (sample % late.length);
        double power = late[slot];
        late[slot] = powered ? duty : 0;
        shed += sun;
        air += (shed + 0.4 * power - air) / (20 * RATE_HZ);
        wood += (air - wood) / (90 * RATE_HZ);
        row[0] = rounded(t, 1);
        row[1] = duty;
        row[2] = rounded(air + noise(0.03), 2);
        row[3] = rounded(wood + noise(0.03), 2);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(
                out,
                "{\"t\":" + decimals(row[0], 1) + ",\"heat\":" + (long) row[1] + ",\"air\":{\"C\":"
                        + decimals(row[2], 2) + "},\"wood\":{\"C\":" + decimals(row[3], 2) + "}}\n");
    }

    @Override
    public String receive(String order) {
        if (order.equals("power off") || order.equals("power on")) {
            powered = order.endsWith("on");
            return "{\"done\":\"" + order + "\"}\n";
        }
        try {
            double asked = order.startsWith("heat ")
                    ? Integer.parseInt(order.substring(5).strip())
                    : -1;
            if (asked >= 0 && asked <= 100) {
                duty = asked;
                return "{\"done\":\"heat " + (long) asked + "\"}\n";
            }
        } catch (NumberFormatException e) {
            // Answered below.
        }
        return "{\"wrong\":\"" + order.replaceAll("[^ -!#-\\[\\]-~]", "?") + "\",\"orders\":\"heat 0..100\"}\n";
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("air °C", air, "wood °C", wood);
    }
}
