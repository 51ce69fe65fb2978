package zesty.signal.engine;

import java.util.List;
import java.util.Optional;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.text.Messages;

/**
 * One reader at one moment.
 *
 * @param reading of the last stretch of a live trail, or of all of a take; null when it cannot read
 * @param events of a longer stretch, to be drawn
 * @param lateSeconds by how much the line that the events belong to is drawn late
 * @param trouble why it cannot read, in words; empty when it can
 */
public record ReaderSnapshot(
        ReaderSetup setup,
        Reading reading,
        List<Event> events,
        List<BandSnapshot> bands,
        double lateSeconds,
        String trouble) {
    private static final String UNREAD = Messages.of("engine.not-read-yet-all-of-the-take-is");

    public ReaderSnapshot {
        events = List.copyOf(events);
        bands = List.copyOf(bands);
    }

    /** @return of a reader that has not come to the long take yet */
    static ReaderSnapshot unread(ReaderSetup setup) {
        return new ReaderSnapshot(setup, null, List.of(), List.of(), 0, UNREAD);
    }

    public boolean isUnread() {
        return trouble.equals(UNREAD);
    }

    public ReaderKind kind() {
        return setup.readerKind();
    }

    /** @return the headline; NaN when there is none */
    public double headline() {
        return reading == null
                ? Double.NaN
                : reading.scalar(kind().scalars().get(0).key());
    }

    /** @return the band on a number */
    public Optional<BandSnapshot> band(String scalar) {
        return bands.stream().filter(b -> b.setup().scalar().equals(scalar)).findFirst();
    }
}
