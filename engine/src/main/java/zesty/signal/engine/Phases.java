package zesty.signal.engine;

import zesty.signal.core.rig.Protocol;
import zesty.signal.takes.TakeException;
import zesty.signal.takes.TakeWriter;

/** Writes the phases of a protocol into a take as spans, as the rows reach them. The recorder's thread. */
final class Phases {
    /** Far below any sample period, far above the rounding of times. */
    private static final double ROUNDING_SECONDS = 1e-9;

    private final TakeWriter writer;
    private final Protocol protocol;
    private int next;
    private long begun = -1;

    Phases(TakeWriter writer, Protocol protocol) {
        this.writer = writer;
        this.protocol = protocol;
    }

    /**
     * @param first time of the take's first row on the trail; NaN before it
     * @param seconds recorded by now
     * @param over whether nothing more comes: a phase that is not over then ends with the last row
     */
    void goOn(double first, double seconds, boolean over) throws TakeException {
        while (next < protocol.phases().size() && !Double.isNaN(first)) {
            Protocol.Phase phase = protocol.phases().get(next);
            if (begun < 0) {
                boolean reached = next == 0 || seconds > phase.startSeconds() + ROUNDING_SECONDS;
                if (!reached) {
                    return;
                }
                begun = writer.mark(first + phase.startSeconds(), phase.name());
            }
            boolean passed = seconds >= phase.endSeconds() - ROUNDING_SECONDS;
            if (!passed && !over) {
                return;
            }
            // The last phase's end may lie a period behind the last row.
            writer.markEnd(begun, first + Math.min(phase.endSeconds(), writer.seconds()));
            begun = -1;
            next++;
        }
    }
}
