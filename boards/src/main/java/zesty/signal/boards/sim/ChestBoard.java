package zesty.signal.boards.sim;

import java.io.ByteArrayOutputStream;
import java.util.List;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Role;

/** Electrodes on the helm's chest: comma text, 500 lines a second, a clock in ms and the heart in 12-bit counts. */
public final class ChestBoard extends SampledBoard {
    /** Lines a second. */
    public static final double RATE_HZ = 500;

    private final HeartSignal heart;

    ChestBoard(Setup setup) {
        super(setup, RATE_HZ, List.of(new Column("t_ms", "", Role.CLOCK, true), new Column("heart", "")));
        heart = new HeartSignal(setup.seed(), RATE_HZ, setup.modes());
        range(1, 1600, 2500);
    }

    @Override
    public byte[] greeting() {
        return ascii("Wren chest board, battery powered\nt_ms,heart\n");
    }

    @Override
    void measure(double t) {
        row[0] = Math.round(1000 * t);
        row[1] = heart.next();
    }

    @Override
    void write(ByteArrayOutputStream out) {
        text(out, (long) row[0] + "," + (long) row[1] + "\n");
    }

    /** @return the heart with its truth */
    public HeartSignal heart() {
        return heart;
    }
}
