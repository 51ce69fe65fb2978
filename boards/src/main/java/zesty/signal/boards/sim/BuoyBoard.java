package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * What the mark buoy's board draws from its battery, fifty labelled lines a second: it sleeps, wakes for a moment, and sends, every
 * four seconds. The battery has 0.8 Ω in it and 2.6 Ah.
 */
final class BuoyBoard extends SampledBoard {
    private static final double RATE_HZ = 50;
    private static final double CYCLE = 4;
    private static final double AWAKE_FROM = 3.2;
    private static final double SENDING_FROM = 3.8;
    private static final double SLEEP_A = 0.00035;
    private static final double AWAKE_A = 0.018;
    private static final double SENDING_A = 0.094;
    private static final double OHMS = 0.8;

    BuoyBoard(Setup setup) {
        super(
                setup,
                RATE_HZ,
                List.of(
                        new Column("t", "ms", Role.CLOCK, true),
                        new Column("current", "A"),
                        new Column("voltage", "V")));
        range(1, 0, 0.05);
    }

    @Override
    public byte[] greeting() {
        return ascii("mark buoy\n");
    }

    @Override
    void measure(double t) {
        double at = t % CYCLE;
        double amps = at < AWAKE_FROM ? SLEEP_A : at < SENDING_FROM ? AWAKE_A : SENDING_A;
        row[0] = 500 + sample * 20;
        row[1] = Math.max(0, rounded(amps + noise(0.00004 + 0.01 * amps), 5));
        row[2] = rounded(3.94 - 2e-6 * t - OHMS * amps + noise(0.0015), 3);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(
                out,
                "t: " + (long) row[0] + " ms  current: " + decimals(row[1], 5) + " A  voltage: " + decimals(row[2], 3)
                        + " V\n");
    }

    @Override
    public Map<String, Double> truth() {
        double mean =
                (SLEEP_A * AWAKE_FROM + AWAKE_A * (SENDING_FROM - AWAKE_FROM) + SENDING_A * (CYCLE - SENDING_FROM))
                        / CYCLE;
        return Map.of("mean A", mean, "inner Ω", OHMS);
    }
}
