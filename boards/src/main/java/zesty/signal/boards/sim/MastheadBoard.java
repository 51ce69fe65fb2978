package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * Wind cups and a vane, four labelled lines a second: the clock, the cups' pulses in that quarter of a second, and where
 * the wind comes from. One pulse a second is 0.8 m/s of wind. A lull comes about every half minute.
 */
final class MastheadBoard extends SampledBoard {
    static final double METRES_PER_PULSE = 0.8;
    private final MastheadWind wind;
    private final double from;
    private double turned;
    private long counted;

    MastheadBoard(Setup setup) {
        super(
                setup,
                4,
                List.of(
                        new Column("t", "ms", Role.CLOCK, true),
                        new Column("cups", "pulses"),
                        new Column("vane", "°")));
        wind = new MastheadWind(random, setup.has(ThingMode.CALM));
        from = setup.has(ThingMode.NORTH) ? 356 : 214;
        range(1, 0, 2);
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren masthead board is up\n");
    }

    @Override
    void measure(double t) {
        turned += wind.speed(t) / METRES_PER_PULSE / 4;
        long whole = (long) Math.floor(turned);
        row[0] = 250 + sample * 250;
        row[1] = whole - counted;
        counted = whole;
        row[2] = Math.floorMod(Math.round(from + 14 * swing(t, 23) + noise(4)), 360);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, "t: " + (long) row[0] + " ms  cups: " + (long) row[1] + " pulses  vane: " + (long) row[2] + " deg\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("wind m/s", wind.newest());
    }
}
