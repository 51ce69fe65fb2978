package zesty.signal.takes;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * A remark at a moment or over a span, in seconds from the take's first sample.
 *
 * @param untilSeconds the span's end; NaN for a moment
 */
public record Mark(double seconds, double untilSeconds, String text) {
    public Mark {
        Objects.requireNonNull(text, "text");
        if (untilSeconds < seconds) {
            throw new IllegalArgumentException(
                    Messages.of("takes.a-span-ends-after-it-begins-to", seconds, untilSeconds));
        }
    }

    /** A remark at a moment. */
    public Mark(double seconds, String text) {
        this(seconds, Double.NaN, text);
    }

    /** @return whether it has an end of its own */
    public boolean isSpan() {
        return !Double.isNaN(untilSeconds);
    }
}
