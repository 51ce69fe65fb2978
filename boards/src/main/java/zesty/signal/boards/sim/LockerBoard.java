package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;

/**
 * The chain locker's thermometer, five sentences a second, in quarter degrees and two units. It has nothing to say at
 * first, and says so in words.
 */
final class LockerBoard extends SampledBoard {
    private static final int WAKING = 4;
    private double celsius;

    LockerBoard(Setup setup) {
        super(setup, 5, List.of(new Column("locker", "°C"), new Column("locker in °F", "°F")));
        range(0, 0, 18.5);
        range(1, 0, 65.3);
    }

    @Override
    public byte[] greeting() {
        return ascii("locker thermometer\n");
    }

    @Override
    void measure(double t) {
        celsius = 18.6 + 0.9 * swing(t, 70) + noise(0.05);
        row[0] = Math.rint(celsius * 4) / 4;
        row[1] = rounded(row[0] * 1.8 + 32, 2);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(
                out,
                sample < WAKING
                        ? "locker has nothing yet\n"
                        : "locker is at " + decimals(row[0], 2) + " C, which is " + decimals(row[1], 2) + " F\n");
    }

    @Override
    public double[][] newest() {
        return sample <= WAKING ? new double[0][] : super.newest();
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("locker °C", celsius);
    }
}
