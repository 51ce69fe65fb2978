package zesty.signal.core.decode;

import java.util.Objects;
import zesty.signal.core.text.Messages;

/**
 * A field of the stream.
 *
 * @param name as the stream or the maker calls it, never empty
 * @param unit as the stream gives it; empty when it gives none
 * @param role what it is for
 * @param kept whether it becomes a channel; a hidden one is still recorded
 */
public record Column(String name, String unit, Role role, boolean kept) {
    public Column {
        Objects.requireNonNull(unit, "unit");
        Objects.requireNonNull(role, "role");
        if (name.isBlank()) {
            throw new IllegalArgumentException(Messages.of("decode.a-column-needs-a-name"));
        }
    }

    /** A kept column of values. */
    public Column(String name, String unit) {
        this(name, unit, Role.VALUE, true);
    }

    public Column withName(String other) {
        return new Column(other, unit, role, kept);
    }

    public Column withRole(Role other) {
        return new Column(name, unit, other, kept);
    }

    /** @return whether a channel is made of it */
    public boolean isChannel() {
        return kept && (role == Role.VALUE || role == Role.EDGE || role == Role.REGION);
    }
}
