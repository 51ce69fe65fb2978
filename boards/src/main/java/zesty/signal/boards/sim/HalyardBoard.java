package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * A knock sensor on the mast, 4000/s: frames B5 62, an 8-bit sequence, one 16-bit count, low byte first, and a CRC-8.
 * The halyard slaps about twice a second and rings.
 */
final class HalyardBoard extends SampledBoard {
    private final boolean weak;
    private final boolean twice;
    private final boolean falls;
    private final double dies;
    private double nextSlap = 0.3;
    private double slapAt = -9;
    private double size;
    private long slaps;

    HalyardBoard(Setup setup) {
        super(setup, 4000, List.of(new Column("seq", "", Role.SEQUENCE, true), new Column("knock", "")));
        weak = setup.has(ThingMode.WEAK);
        twice = setup.has(ThingMode.DOUBLE);
        falls = setup.has(ThingMode.FALLS);
        dies = setup.has(ThingMode.RINGS) ? 0.12 : 0.02;
        range(1, 300, 760);
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren halyard board\nseq,knock\n");
    }

    @Override
    void measure(double t) {
        if (t >= nextSlap) {
            slapAt = t;
            slaps++;
            size = 90 + 330 * random.nextDouble();
            if (weak && slaps % 3 == 0) {
                size = 9;
            }
            boolean again = twice && slaps % 2 == 0;
            nextSlap = t + (again ? 0.06 : 0.25 + 0.5 * random.nextDouble());
        }
        double since = t - slapAt;
        double height = size * Math.exp(-since / dies);
        double level = falls ? 900 - height : 512 + height * Math.sin(2 * Math.PI * 620 * since);
        row[0] = sample & 0xff;
        row[1] = Math.max(0, Math.min(1023, Math.round(level + noise(2.5))));
    }

    @Override
    void write(ByteArrayOutputStream out) {
        ByteArrayOutputStream frame = new ByteArrayOutputStream(8);
        Packing.put(frame, 0xB562, 2, false);
        Packing.put(frame, (long) row[0], 1, true);
        Packing.put(frame, (long) row[1], 2, true);
        Packing.check(frame, 2, Check.CRC8_07, true);
        out.writeBytes(frame.toByteArray());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("slaps", (double) slaps, "last slap s", slapAt);
    }

    @Override
    public int noiseCosts() {
        return 0;
    }

    @Override
    public int cutCosts() {
        return 1;
    }
}
