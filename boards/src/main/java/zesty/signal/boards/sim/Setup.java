package zesty.signal.boards.sim;

import java.util.Set;

/**
 * What a simulated board is made with.
 *
 * @param clipped whether its sensor's range is too small for what it measures
 * @param modes how bad its pulse signal is, where it has one
 * @param muscle how bad its muscle signal is, where it has one
 * @param things how bad the signal of a thing is, where it measures one
 */
record Setup(long seed, boolean clipped, Set<PulseMode> modes, Set<MuscleMode> muscle, Set<ThingMode> things) {
    boolean has(ThingMode mode) {
        return things.contains(mode);
    }
}
