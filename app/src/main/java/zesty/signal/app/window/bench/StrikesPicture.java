package zesty.signal.app.window.bench;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.ReaderSight;
import zesty.signal.engine.Sight;

/** Hits and pulls: laid over each other from the strike or the onset, and how strong each was, against what it had to pass. */
final class StrikesPicture extends ReaderPicture {
    private static final Laid STRIKES = new Laid(0.01, 0.12, 40);
    private static final Laid PULLS = new Laid(0.4, 1.6, 24);
    /** Where among a pull's numbers its percent of the hardest stands. */
    private static final int PERCENT = 4;

    private final boolean pulls;
    private final Plot shapes = new Plot();
    private final Plot strengths = new Plot();
    private final Label caption = Bench.small("");

    StrikesPicture(Desk desk, String kind) {
        super(desk);
        pulls = kind.equals(Muscle.NAME);
        shapes.setId("laid");
        strengths.setId("strengths");
        VBox left = new VBox(
                4,
                Bench.small(pulls ? "The pulls laid over each other from their onset" : "The hits from the strike on"),
                shapes);
        VBox right = new VBox(4, caption, strengths);
        sideBySide(left, shapes, right, strengths);
    }

    @Override
    void show(Sight sight, ChannelSight channel, ReaderSight reader, Color colour) {
        Reading reading = reader == null ? null : reader.reading();
        List<Event> events = reading == null ? List.of() : reader.events();
        double late = reader == null ? 0 : reader.lateSeconds();
        (pulls ? PULLS : STRIKES)
                .draw(
                        shapes,
                        desk,
                        channel,
                        events,
                        late,
                        (event, newest) -> colour.deriveColor(0, event.believed() ? 1 : 0.2, 1, newest ? 1 : 0.3));
        double zero = zero(sight);
        double from = desk.isStored() ? desk.window().from() : zero - 30;
        double to = desk.isStored() ? desk.window().to() : zero;
        String unit = pulls ? "% of the hardest" : channel.channel().unit();
        caption.setText(
                events.isEmpty() ? "Nothing yet" : pulls ? "Each pull against the hardest" : "How high each hit went");
        double low = 0;
        double high = pulls ? 110 : 0;
        for (Event event : events) {
            low = Math.min(low, strength(event));
            high = Math.max(high, 1.08 * strength(event));
        }
        strengths.begin(desk.night().get(), from - zero, to - zero, "s", low, high > low ? high : low + 1, unit);
        double base = pulls ? 0 : low;
        for (Event event : events) {
            double at = event.startSeconds() - zero;
            double until = pulls ? event.endSeconds() - zero : at;
            strengths.bar(at, until, base, strength(event), colour.deriveColor(0, 1, 1, event.believed() ? 0.75 : 0.3));
        }
        if (pulls) {
            strengths.limit(100, "the hardest", colour.deriveColor(0, 1, 0.8, 0.9));
        } else if (reading != null) {
            for (String key : new String[] {"threshold", "release"}) {
                double value = channel.channel().display().apply(reading.scalar(key));
                if (!Double.isNaN(value)) {
                    strengths.limit(value, key + " " + Digits.about(value, 3), colour.deriveColor(0, 1, 0.8, 0.9));
                }
            }
        }
    }

    private double strength(Event event) {
        return pulls ? event.values()[PERCENT] : event.size();
    }
}
