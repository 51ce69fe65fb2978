package zesty.signal.takes;

import java.util.Objects;

/** A remark at a moment, in seconds from the take's first sample. */
public record Mark(double seconds, String text) {
    public Mark {
        Objects.requireNonNull(text, "text");
    }
}
