package zesty.signal.core.scale;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * Something added to the quantity at the end, with its day, so that it can be seen and taken away again.
 *
 * @param name what it is, such as tare
 * @param offset in the quantity's unit
 * @param epochSeconds when it was made, in seconds since 1970
 */
public record Correction(String name, double offset, long epochSeconds) {
    public Correction {
        Objects.requireNonNull(name, "name");
        Conversion.needFinite(Messages.of("scale.a-correction"), offset);
    }
}
