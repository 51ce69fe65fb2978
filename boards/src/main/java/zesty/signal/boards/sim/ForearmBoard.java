package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The sheet hand's forearm, raw, 1000/s: frames A5 5A, an 8-bit sequence, one 24-bit count, high byte first, and the sum
 * of the bytes. Pulls come about every four seconds, on some hum from the mains.
 */
final class ForearmBoard extends SampledBoard {
    private double pullStart = 2;
    private double pullEnd = 4;
    private double size = 30_000;
    private double effort;

    ForearmBoard(Setup setup) {
        super(setup, 1000, List.of(new Column("seq", "", Role.SEQUENCE, true), new Column("muscle", "")));
        range(1, -20_000, 20_000);
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren forearm board\nseq,muscle\n");
    }

    @Override
    void measure(double t) {
        if (t > pullEnd + 0.3) {
            pullStart = t + 1 + 2 * random.nextDouble();
            pullEnd = pullStart + 1 + 2 * random.nextDouble();
            size = 15_000 + 30_000 * random.nextDouble();
        }
        double target = t >= pullStart && t < pullEnd ? size : 0;
        effort += (target - effort) / 60;
        row[0] = sample & 0xff;
        row[1] = Math.round(1200 + noise(1) * effort + 900 * Math.sin(2 * Math.PI * 50 * t) + noise(250));
    }

    @Override
    void write(ByteArrayOutputStream out) {
        ByteArrayOutputStream frame = new ByteArrayOutputStream(8);
        Packing.put(frame, 0xA55A, 2, false);
        Packing.put(frame, (long) row[0], 1, false);
        Packing.put(frame, (long) row[1], 3, false);
        Packing.check(frame, 2, Check.SUM8, false);
        out.writeBytes(frame.toByteArray());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("effort counts", effort);
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
