package zesty.signal.core.rig;

import java.util.Objects;
import zesty.signal.core.act.Band;
import zesty.signal.core.read.PulseKind;

/**
 * A pulse reader on a channel, and the band its rate is meant to stay in.
 *
 * @param column the column of the channel it reads
 * @param band in beats/min
 */
public record PulseSetup(String column, PulseKind kind, Band band) {
    /** A resting adult's pulse is usually within 60 to 100 beats a minute. */
    public static final Band RESTING = new Band(60, 100, 3);

    public PulseSetup {
        Objects.requireNonNull(column, "column");
        Objects.requireNonNull(kind, "kind");
        Objects.requireNonNull(band, "band");
    }
}
