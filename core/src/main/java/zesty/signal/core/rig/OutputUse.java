package zesty.signal.core.rig;

import java.util.Optional;
import zesty.signal.core.text.Messages;

/**
 * How an output is used.
 *
 * @param source name of the source whose board it is on; empty for the first
 * @param live whether its lines are sent; false for a dry run, which only shows them
 * @param watchdog the line that asks the board for a watchdog of its own, which makes it safe when no line comes for a while; empty for
 *     none. It counts where the board answers with that line in its words
 * @param caution what it does that needs care: {@link Caution#HEAT} or {@link Caution#MOVING}; null for nothing
 */
public record OutputUse(String source, boolean live, Caution caution, String watchdog) {
    /** A new output sends nothing. */
    public static final OutputUse DRY = new OutputUse("", false, null, "");

    public OutputUse {
        if (caution != null && caution != Caution.HEAT && caution != Caution.MOVING) {
            throw new IllegalArgumentException(Messages.of("rig.an-output-heats-or-moves-was", caution));
        }
    }

    /** Without a watchdog on the board. */
    public OutputUse(String source, boolean live, Caution caution) {
        this(source, live, caution, "");
    }

    public OutputUse withSource(String other) {
        return new OutputUse(other, live, caution, watchdog);
    }

    public OutputUse withWatchdog(String line) {
        return new OutputUse(source, live, caution, line);
    }

    public OutputUse withLive(boolean other) {
        return new OutputUse(source, other, caution, watchdog);
    }

    public OutputUse withCaution(Caution other) {
        return new OutputUse(source, live, other, watchdog);
    }

    public Optional<Caution> takesCare() {
        return Optional.ofNullable(caution);
    }
}
