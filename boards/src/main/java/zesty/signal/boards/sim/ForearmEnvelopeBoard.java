package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import zesty.signal.core.decode.Column;

/**
 * The sheet hand's forearm from a module that makes the envelope itself: rectified and smoothed over 60 ms, 10-bit counts,
 * 50 labelled lines a second.
 */
final class ForearmEnvelopeBoard extends SampledBoard {
    private static final double RATE_HZ = 50;
    private static final int TOGETHER = 20;
    private static final double SMOOTH_SECONDS = 0.06;
    private static final double COUNTS = 0.02;

    private final MuscleSignal muscle;
    private double smooth;

    ForearmEnvelopeBoard(Setup setup) {
        super(setup, RATE_HZ, List.of(new Column("envelope", "")));
        muscle = new MuscleSignal(setup.seed(), RATE_HZ * TOGETHER, setup.muscle());
        range(0, 0, 400);
    }

    @Override
    void measure(double t) {
        for (int i = 0; i < TOGETHER; i++) {
            double x = Math.abs(muscle.next());
            smooth += (x - smooth) / (SMOOTH_SECONDS * RATE_HZ * TOGETHER);
        }
        row[0] = Math.max(0, Math.min(1023, Math.round(12 + COUNTS * smooth + noise(1))));
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, "envelope=" + (long) row[0] + "\n");
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren forearm module\n");
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("effort percent", 100 * muscle.effort());
    }
}
