package zesty.signal.core.rig;

import java.util.Optional;

/**
 * How an output is used.
 *
 * @param source name of the source whose board it is on; empty for the first
 * @param live whether its lines are sent; false for a dry run, which only shows them
 * @param caution what it does that needs care: {@link Caution#HEAT} or {@link Caution#MOVING}; null for nothing
 */
public record OutputUse(String source, boolean live, Caution caution) {
    /** A new output sends nothing. */
    public static final OutputUse DRY = new OutputUse("", false, null);

    public OutputUse {
        if (caution != null && caution != Caution.HEAT && caution != Caution.MOVING) {
            throw new IllegalArgumentException("an output heats or moves; was " + caution);
        }
    }

    public OutputUse withLive(boolean other) {
        return new OutputUse(source, other, caution);
    }

    public OutputUse withCaution(Caution other) {
        return new OutputUse(source, live, other);
    }

    public Optional<Caution> takesCare() {
        return Optional.ofNullable(caution);
    }
}
