package zesty.signal.core.doctor;

import java.util.Map;
import zesty.signal.core.read.Nature;
import zesty.signal.core.text.Messages;

/**
 * A stretch of a channel as the doctor looks at it.
 *
 * @param values raw numbers as they came, NaN where one is missing
 * @param seconds when each was; rising. Those of a rate that was found are even by themselves
 * @param low the least number its converter can give; NaN when it is not known
 * @param high the greatest
 * @param nature what it is by the kind of reader that works on it
 * @param others the other columns of the same rows, by name
 */
public record Examined(
        double[] values, double[] seconds, double low, double high, Nature nature, Map<String, double[]> others) {
    public Examined {
        if (values.length != seconds.length) {
            throw new IllegalArgumentException(Messages.of("doctor.values-but-times", values.length, seconds.length));
        }
        others = Map.copyOf(others);
    }
}
