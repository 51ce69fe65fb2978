package zesty.signal.core.decode;

import java.util.Objects;

/**
 * A field of the stream.
 *
 * @param name as the stream or the maker calls it, never empty
 * @param unit as the stream gives it; empty when it gives none
 */
public record Column(String name, String unit) {
    public Column {
        Objects.requireNonNull(unit, "unit");
        if (name.isBlank()) {
            throw new IllegalArgumentException("a column needs a name");
        }
    }
}
