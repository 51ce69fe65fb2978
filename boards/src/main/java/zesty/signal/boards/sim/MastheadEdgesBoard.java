package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The masthead board in its other mode: it sends the moment of each pulse of the cups, in microseconds, a line each, eight
 * a second in the mean. The lines come unevenly, as the pulses do.
 */
final class MastheadEdgesBoard extends SampledBoard {
    private final MastheadWind wind;
    private final boolean bounces;
    private int left;
    private double seconds = 0.1;

    MastheadEdgesBoard(Setup setup) {
        super(setup, 8, List.of(new Column("edge", "µs", Role.EDGE, true)));
        wind = new MastheadWind(random, false);
        bounces = setup.has(ThingMode.BOUNCES);
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren masthead board, edges\n");
    }

    @Override
    void measure(double t) {
        if (left > 0) {
            left--;
            row[0] += 400 + random.nextInt(900);
            return;
        }
        left = bounces ? 1 + random.nextInt(3) : 0;
        double speed = wind.speed(seconds);
        seconds += speed > 0 ? MastheadBoard.METRES_PER_PULSE / speed : 4;
        row[0] = Math.round(seconds * 1e6);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, "edge " + (long) row[0] + " us\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("wind m/s", wind.newest());
    }
}
