package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * Three axes of acceleration at the rudder stock, 1600/s: zero-byte-stuffed packets of a 16-bit sequence, three 16-bit
 * counts (8192 a g), low byte first, and a CRC-16. A hum at 46 Hz comes and goes with the boat's speed.
 */
final class HullBoard extends SampledBoard {
    private static final double COUNTS_PER_G = 8192;
    /** Of the tone above half the rate, in g; of the second harmonic, as a share of the hum; of the line of what wears, in g. */
    private final double folded;

    private final double second;
    private final double fresh;
    private double hum;

    HullBoard(Setup setup) {
        super(
                setup,
                setup.has(ThingMode.SLOWER) ? 1000 : 1600,
                List.of(
                        new Column("seq", "", Role.SEQUENCE, true),
                        new Column("ax", ""),
                        new Column("ay", ""),
                        new Column("az", "")));
        folded = setup.has(ThingMode.FOLDED) ? 0.1 : 0;
        second = setup.has(ThingMode.WORN) ? 0.75 : 0.3;
        fresh = setup.has(ThingMode.WORN) ? 0.03 : 0;
        for (int c = 1; c < 4; c++) {
            range(c, -4096, 8300);
        }
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren hull board, 8192 counts a g\nseq,ax,ay,az\n\0");
    }

    @Override
    void measure(double t) {
        hum = 0.12 + 0.1 * swing(t, 11);
        double phase = 2 * Math.PI * 46 * t;
        row[0] = sample & 0xffff;
        row[1] = Math.round(COUNTS_PER_G * (0.05 * swing(t, 5) + 0.4 * hum * Math.sin(phase + 1)) + noise(40));
        row[2] = Math.round(COUNTS_PER_G
                        * (0.17 * swing(t, 6.1)
                                + hum * Math.sin(phase)
                                + second * hum * Math.sin(2 * phase)
                                + fresh * Math.sin(2 * Math.PI * 131 * t)
                                + folded * Math.sin(2 * Math.PI * 900 * t))
                + noise(40));
        row[3] = Math.round(COUNTS_PER_G * (1 + 0.08 * swing(t, 3.4) + 0.2 * hum * Math.sin(phase + 2)) + noise(40));
    }

    @Override
    void write(ByteArrayOutputStream out) {
        ByteArrayOutputStream packet = new ByteArrayOutputStream(12);
        for (double value : row) {
            Packing.put(packet, (long) value, 2, true);
        }
        Packing.check(packet, 0, Check.CRC16_1021_FFFF, true);
        Packing.stuffed(packet.toByteArray(), out);
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("hum Hz", 46.0, "hum g", hum);
    }
}
