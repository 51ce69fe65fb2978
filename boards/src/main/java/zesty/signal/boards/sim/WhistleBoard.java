package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * A microphone, 8000 samples a second: escape-framed packets of an 8-bit sequence, 32 samples of 16 bits, low byte
 * first, with no checksum. The race officer's whistle blows at about 1180 Hz for a second and a half of every three.
 */
final class WhistleBoard extends SampledBoard {
    private static final int SAMPLES = 32;
    private static final double RATE_HZ = 8000;
    /** Half steps above the lowest note, a major scale up. */
    private static final int[] SCALE = {0, 2, 4, 5, 7, 9, 11, 12};

    private static final double NOTE_SECONDS = 0.5;
    private final double[][] samples = new double[SAMPLES][2];
    private double phase;
    private double hertz;

    WhistleBoard(Setup setup) {
        super(setup, RATE_HZ / SAMPLES, List.of(new Column("seq", "", Role.SEQUENCE, true), new Column("sound", "")));
        things = setup.things();
        clipsAt = setup.clipped() ? 4000 : Short.MAX_VALUE;
    }

    private final double clipsAt;
    private final Set<ThingMode> things;

    @Override
    public double rowsPerSecond() {
        return RATE_HZ;
    }

    @Override
    public byte[] greeting() {
        return ascii("club whistle microphone\nseq,sound\n");
    }

    @Override
    void measure(double t) {
        for (int i = 0; i < SAMPLES; i++) {
            double now = t + i / RATE_HZ;
            hertz = hertz(now);
            phase += 2 * Math.PI * hertz / RATE_HZ;
            double rumble = (things.contains(ThingMode.RUMBLE) ? 9000 : 250) * Math.sin(2 * Math.PI * 31 * now);
            double value = Math.round(sound(now) + rumble + noise(60));
            samples[i][0] = sample & 0xff;
            samples[i][1] = Math.max(-clipsAt, Math.min(clipsAt, value));
        }
    }

    private double hertz(double now) {
        if (things.contains(ThingMode.SCALE)) {
            return 220 * Math.pow(2, SCALE[(int) (now / NOTE_SECONDS) % SCALE.length] / 12.0);
        }
        return things.contains(ThingMode.MISSING)
                ? 180
                : things.contains(ThingMode.GLIDES) ? 800 + 400 * swing(now, 8) : 1180 + 25 * swing(now, 0.2);
    }

    private double sound(double now) {
        if (things.contains(ThingMode.SCALE) || things.contains(ThingMode.GLIDES)) {
            return 5000 * Math.sin(phase) + 2500 * Math.sin(2 * phase) + 1200 * Math.sin(3 * phase);
        }
        double blown = now % 3 < 1.5 ? 9000 : 0;
        return things.contains(ThingMode.MISSING)
                ? 0.4 * blown * (Math.sin(2 * phase) + Math.sin(3 * phase) + 0.7 * Math.sin(4 * phase))
                : blown * Math.sin(phase) + 0.2 * blown * Math.sin(2 * phase);
    }

    @Override
    void write(ByteArrayOutputStream out) {
        ByteArrayOutputStream packet = new ByteArrayOutputStream(2 * SAMPLES + 1);
        Packing.put(packet, sample & 0xff, 1, true);
        for (double[] each : samples) {
            Packing.put(packet, (long) each[1], 2, true);
        }
        Packing.escaped(packet.toByteArray(), out);
    }

    @Override
    public double[][] newest() {
        double[][] rows = new double[SAMPLES][];
        for (int i = 0; i < SAMPLES; i++) {
            rows[i] = samples[i].clone();
        }
        return rows;
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("tone Hz", hertz);
    }

    /** Each packet begins with an end byte of its own, so what lies between two is none of theirs. */
    @Override
    public int noiseCosts() {
        return 0;
    }

    @Override
    public int cutCosts() {
        return 1;
    }
}
