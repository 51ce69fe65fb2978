package zesty.signal.core.rig;

import java.util.Objects;
import zesty.signal.core.act.Band;

/**
 * A band on a number of a reader.
 *
 * @param reader the {@link ReaderSetup#id()} of the reader
 * @param scalar the number's key
 * @param band in that number's unit
 */
public record BandSetup(String reader, String scalar, Band band) {
    public BandSetup {
        Objects.requireNonNull(reader, "reader");
        Objects.requireNonNull(scalar, "scalar");
        Objects.requireNonNull(band, "band");
    }
}
