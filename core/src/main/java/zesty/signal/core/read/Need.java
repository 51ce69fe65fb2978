package zesty.signal.core.read;

import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * What a sensor of one sort needs to answer a kind's question: knowledge that a plan is made from before anything is wired.
 *
 * @param sensor the sort of sensor, in a few words
 * @param highestHz the fastest thing in its signal that matters, in Hz
 * @param swingVolts how far its signal usually goes from lowest to highest at the converter
 * @param fewestCounts into how many counts that must come for the answer to hold
 * @param channels it sends
 * @param limits what limits it, a sentence
 * @param wiring what to see to while wiring it, in order
 */
public record Need(
        String sensor,
        double highestHz,
        double swingVolts,
        double fewestCounts,
        int channels,
        String limits,
        List<String> wiring) {
    public Need {
        wiring = List.copyOf(wiring);
        if (!(highestHz > 0) || !(swingVolts > 0) || !(fewestCounts >= 1) || channels < 1) {
            throw new IllegalArgumentException(Messages.of(
                    "read.a-need-of-has-hz-v-counts-channels", sensor, highestHz, swingVolts, fewestCounts, channels));
        }
    }
}
