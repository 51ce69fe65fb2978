package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/** Distance by echo, ten a second: how long the sound took there and back, glued to its unit, and the ping's number. */
final class SounderBoard extends SampledBoard {
    private double metres;

    SounderBoard(Setup setup) {
        super(setup, 10, List.of(new Column("echo", "µs"), new Column("ping", "", Role.SEQUENCE, true)));
        range(0, 0, 6000);
    }

    @Override
    public byte[] greeting() {
        return ascii("sounder on\n");
    }

    @Override
    void measure(double t) {
        metres = 1.05 + 0.22 * swing(t, 19) + 0.05 * swing(t, 3);
        double speed = 331.3 * Math.sqrt(1 + 20 / 273.15);
        row[0] = Math.round(2e6 * (metres + noise(0.003)) / speed);
        row[1] = sample + 1;
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, "echo " + (long) row[0] + "us, ping " + (long) row[1] + "\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("distance m", metres);
    }
}
