package zesty.signal.core.rig;

import java.util.Objects;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.text.Messages;

/**
 * A source of a rig: a stream of bytes with a format and columns of its own.
 *
 * @param name what parts its columns from those of the other sources; empty for the rig's first source
 * @param setup where the bytes come from
 * @param format null when it is to be recognised from the stream
 */
public record Source(String name, SourceSetup setup, StreamFormat format) {
    /** Stands between a source's name and its column in the name of a channel's column. */
    private static final String SEPARATOR = "/";

    public Source {
        Objects.requireNonNull(setup, "setup");
        if (name.contains(SEPARATOR) || !name.equals(name.strip())) {
            throw new IllegalArgumentException(Messages.of("rig.a-source-s-name-has-no-in-it-and", SEPARATOR, name));
        }
    }

    /** @return what the names of its channels' columns begin with: nothing for the first source, masthead/ for another */
    public String prefix() {
        return name.isEmpty() ? "" : name + SEPARATOR;
    }

    public Source withSetup(SourceSetup other) {
        return new Source(name, other, format);
    }

    public Source withFormat(StreamFormat other) {
        return new Source(name, setup, other);
    }
}
