package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The hoist's load cell, ten lines a second: a millisecond clock and the 24-bit count in hexadecimal digits, parted by a
 * tab. Empty it reads 84 200; a kilogram is 1870 counts more. It takes {@code hoist stop} and {@code hoist go}, and answers.
 */
final class HoistBoard extends SampledBoard {
    private double kilograms;
    private boolean stopped;

    HoistBoard(Setup setup) {
        super(setup, 10, List.of(new Column("t_ms", "", Role.CLOCK, true), new Column("load", "")));
        range(1, 0, 150_000);
    }

    @Override
    public byte[] greeting() {
        return ascii("hoist, 24 bit\nt_ms\tload\n");
    }

    @Override
    void measure(double t) {
        double target = t % 24 < 8 ? 0 : t % 24 < 16 ? 42 : 61.5;
        kilograms += stopped ? 0 : (target - kilograms) / 6;
        row[0] = 2000 + sample * 100;
        row[1] = Math.round(84_200 + 1870 * kilograms * (1 + 0.004 * swing(t, 1.7)) + noise(35));
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, (long) row[0] + "\t0x" + String.format("%06X", (long) row[1]) + "\n");
    }

    /** {@code hoist stop} and {@code hoist go}. */
    @Override
    public String receive(String order) {
        if (order.equals("hoist stop") || order.equals("hoist go")) {
            stopped = order.endsWith("stop");
            return "done: " + order + "\n";
        }
        return "wrong: " + order.replaceAll("[^ -~]", "?") + "; hoist stop, hoist go\n";
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("load kg", kilograms);
    }
}
