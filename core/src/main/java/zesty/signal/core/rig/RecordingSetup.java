package zesty.signal.core.rig;

import java.util.List;
import zesty.signal.core.text.Messages;

/**
 * What a recording of a rig goes by.
 *
 * @param markers remarks that have a key each, in the order of the keys; at most {@link #MOST_MARKERS}
 * @param protocol phases that it goes through; {@link Protocol#NONE} for none
 * @param leftOut columns that are not recorded, by their full names
 */
public record RecordingSetup(List<String> markers, Protocol protocol, List<String> leftOut) {
    /** As many as there are keys for them. */
    public static final int MOST_MARKERS = 8;

    public static final RecordingSetup NONE = new RecordingSetup(List.of(), Protocol.NONE, List.of());

    public RecordingSetup {
        markers = markers.stream().map(String::strip).toList();
        leftOut = leftOut.stream().distinct().sorted().toList();
        if (markers.size() > MOST_MARKERS) {
            throw new IllegalArgumentException(
                    Messages.of("rig.at-most-markers-have-a-key-were", MOST_MARKERS, markers.size()));
        }
        if (markers.stream().anyMatch(String::isEmpty)
                || markers.stream().distinct().count() < markers.size()) {
            throw new IllegalArgumentException(Messages.of("rig.each-marker-needs-words-of-its-own", markers));
        }
    }

    public boolean isNone() {
        return markers.isEmpty() && protocol.isNone() && leftOut.isEmpty();
    }

    public RecordingSetup withMarkers(List<String> others) {
        return new RecordingSetup(others, protocol, leftOut);
    }

    public RecordingSetup withProtocol(Protocol other) {
        return new RecordingSetup(markers, other, leftOut);
    }

    public RecordingSetup withLeftOut(List<String> columns) {
        return new RecordingSetup(markers, protocol, columns);
    }
}
