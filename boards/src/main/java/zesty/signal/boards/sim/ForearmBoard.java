package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zesty.signal.core.decode.Check;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/**
 * The sheet hand's forearm, raw, 1000/s: frames A5 5A, an 8-bit sequence, one 24-bit count, high byte first, and the sum
 * of the bytes. With a motor on the same supply its duty follows as one byte, with a second pair of electrodes another 24-bit count.
 */
public final class ForearmBoard extends SampledBoard {
    private static final double RATE_HZ = 1000;
    private static final double OFFSET = 1200;
    /** What the converter of the mode {@link MuscleMode#CUT} ends at. */
    private static final double END = 45_000;

    private final MuscleSignal muscle;
    private final boolean motor;
    /** The muscle on the other side; null where there is one pair of electrodes. */
    private final MuscleSignal other;

    ForearmBoard(Setup setup) {
        super(setup, RATE_HZ, columns(setup.muscle()));
        muscle = new MuscleSignal(setup.seed(), RATE_HZ, setup.muscle());
        motor = setup.muscle().contains(MuscleMode.MOTOR);
        other = setup.muscle().contains(MuscleMode.TWO)
                ? new MuscleSignal(setup.seed() + 1, RATE_HZ, setup.muscle())
                : null;
        range(1, -20_000, 20_000);
        if (setup.muscle().contains(MuscleMode.CUT)) {
            end = END;
        }
    }

    private double end = 8_000_000;

    private static List<Column> columns(Set<MuscleMode> modes) {
        List<Column> columns = new ArrayList<>();
        columns.add(new Column("seq", "", Role.SEQUENCE, true));
        columns.add(new Column("muscle", ""));
        if (modes.contains(MuscleMode.MOTOR)) {
            columns.add(new Column("motor", "%"));
        }
        if (modes.contains(MuscleMode.TWO)) {
            columns.add(new Column("other", ""));
        }
        return columns;
    }

    /** @return the signal with its truth */
    public MuscleSignal muscle() {
        return muscle;
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren forearm board\n"
                + String.join(",", columns().stream().map(Column::name).toList()) + "\n");
    }

    @Override
    void measure(double t) {
        row[0] = sample & 0xff;
        row[1] = Math.round(Math.max(-end, Math.min(end, OFFSET + muscle.next())));
        if (motor) {
            row[2] = muscle.motor();
        }
        if (other != null) {
            row[row.length - 1] = Math.round(Math.max(-end, Math.min(end, OFFSET + other.next())));
        }
    }

    @Override
    void write(ByteArrayOutputStream out) {
        ByteArrayOutputStream frame = new ByteArrayOutputStream(12);
        Packing.put(frame, 0xA55A, 2, false);
        Packing.put(frame, (long) row[0], 1, false);
        Packing.put(frame, (long) row[1], 3, false);
        if (motor) {
            Packing.put(frame, (long) row[2], 1, false);
        }
        if (other != null) {
            Packing.put(frame, (long) row[row.length - 1], 3, false);
        }
        Packing.check(frame, 2, Check.SUM8, false);
        out.writeBytes(frame.toByteArray());
    }

    @Override
    public Map<String, Double> truth() {
        return Map.of("effort percent", 100 * muscle.effort());
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
