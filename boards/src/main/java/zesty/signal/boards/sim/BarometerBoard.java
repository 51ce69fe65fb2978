package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;

/**
 * A pressure chip read register by register, ten lines a second: six bytes, two counts of 20 bits each, left-aligned in
 * 24, high byte first. Its greeting gives the constants from the factory: temperature in °C is c0 + c1 · T, pressure in
 * hPa is c2 + c3 · P + c4 · (T · c1 + c0).
 */
final class BarometerBoard extends SampledBoard {
    private double hectopascals;
    private double celsius;

    BarometerBoard(Setup setup) {
        super(setup, 10, List.of(new Column("pressure", ""), new Column("temperature", "")));
        range(0, 0, 417_000);
    }

    @Override
    public byte[] greeting() {
        return ascii("c0=-41.5\nc1=0.000122\nc2=310.25\nc3=0.00169\nc4=-0.11\npressure,temperature\n");
    }

    @Override
    void measure(double t) {
        hectopascals = 1009.2 + 0.6 * swing(t, 300) + noise(0.02);
        celsius = 19.4 + 0.3 * swing(t, 200);
        row[0] = Math.round((hectopascals - 310.25 + 0.11 * celsius) / 0.00169);
        row[1] = Math.round((celsius + 41.5 + noise(0.003)) / 0.000122);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        StringBuilder line = new StringBuilder(20);
        for (double value : row) {
            line.append(String.format("%06X", (long) value << 4));
        }
        text(out, line.toString().replaceAll("..(?!$)", "$0 ") + "\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("pressure hPa", hectopascals, "temperature °C", celsius);
    }
}
