package zesty.signal.engine;

import java.util.List;
import zesty.signal.core.act.Band;
import zesty.signal.core.rig.BandSetup;

/**
 * A band on a reader's number at one moment.
 *
 * @param side where the number lies
 * @param decisions when it changed sides, oldest first, as far as they are kept
 * @param seconds when the number was looked at, oldest first, as far as that is kept
 * @param values what it was; NaN where there was none
 */
public record BandSnapshot(
        BandSetup setup, Band.Side side, List<Decision> decisions, double[] seconds, double[] values) {
    /** A change of sides: when, to which, and what the number was. */
    public record Decision(double seconds, Band.Side side, double value) {}

    public BandSnapshot {
        decisions = List.copyOf(decisions);
    }
}
