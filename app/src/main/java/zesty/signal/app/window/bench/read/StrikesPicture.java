package zesty.signal.app.window.bench.read;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Cursor;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Hits and pulls: laid over each other from the strike or the onset, and how strong each was, against what it had to pass. */
final class StrikesPicture extends ReaderPicture {
    private static final double SHOWN_SECONDS = 30;
    private static final Laid STRIKES = new Laid(0.01, 0.12, 40);
    private static final Laid PULLS = new Laid(0.4, 1.6, 24);

    private static final double GRIP_PIXELS = 7;

    private final boolean pulls;
    private final Plot shapes = new Plot();
    private final Plot strengths = new Plot();
    private final Label caption = Bench.small("");
    private final MuscleGuide guide;
    private final HitsGuide taps;
    /** Lines that can be pulled, by the setting they are: where each is drawn. */
    private final Map<String, Double> handles = new LinkedHashMap<>();

    private String held = "";
    private double pulledTo = Double.NaN;
    private ReaderSetup setup;
    private Reading seen;
    private ChannelSnapshot over;

    StrikesPicture(Workspace workspace, String kind) {
        super(workspace);
        pulls = kind.equals(Muscle.NAME);
        shapes.setId("laid");
        strengths.setId("strengths");
        VBox left = new VBox(
                4,
                Bench.small(pulls ? "The pulls laid over each other from their onset" : "The hits from the strike on"),
                shapes);
        VBox right = new VBox(4, caption, strengths);
        sideBySide(left, shapes, right, strengths);
        guide = pulls ? new MuscleGuide(workspace) : null;
        taps = pulls ? null : new HitsGuide(workspace);
        getChildren().add(pulls ? guide : taps);
        strengths.setOnMouseMoved(
                event -> strengths.setCursor(near(event.getY()).isEmpty() ? Cursor.DEFAULT : Cursor.V_RESIZE));
        strengths.setOnMousePressed(event -> {
            held = near(event.getY());
            if (!pulls && held.isEmpty() && !workspace.shown().isLive()) {
                taps.tapped(strengths.valueX(event.getX()));
            }
        });
        strengths.setOnMouseDragged(event -> pulledTo = held.isEmpty() ? Double.NaN : strengths.valueY(event.getY()));
        strengths.setOnMouseReleased(event -> letGo());
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        Reading reading = reader == null ? null : reader.reading();
        List<Event> events = reading == null ? List.of() : reader.events();
        double late = reader == null ? 0 : reader.lateSeconds();
        (pulls ? PULLS : STRIKES)
                .draw(
                        shapes,
                        workspace,
                        channel,
                        events,
                        late,
                        (event, newest) -> colour.deriveColor(0, event.believed() ? 1 : 0.2, 1, newest ? 1 : 0.3));
        double zero = zero(snapshot);
        Span inSight = workspace.shown().pictured(snapshot, SHOWN_SECONDS);
        double from = inSight.from();
        double to = inSight.to();
        String unit = pulls ? "% of the hardest" : channel.channel().unit();
        caption.setText(
                events.isEmpty() ? "Nothing yet" : pulls ? "Each pull against the hardest" : "How high each hit went");
        double rest = pulls || reading == null ? 0 : rest(channel, reading);
        double low = rest;
        double high = pulls ? 110 : rest;
        for (Event event : events) {
            low = Math.min(low, strength(event));
            high = Math.max(high, strength(event) + 0.08 * Math.abs(strength(event) - rest));
        }
        strengths.begin(
                workspace.view().night().get(), from - zero, to - zero, "s", low, high > low ? high : low + 1, unit);
        double base = rest;
        for (Event event : events) {
            double at = event.startSeconds() - zero;
            double until = pulls ? event.endSeconds() - zero : at;
            strengths.bar(at, until, base, strength(event), colour.deriveColor(0, 1, 1, event.believed() ? 0.75 : 0.3));
        }
        setup = reader == null ? null : reader.setup();
        seen = reading;
        over = channel;
        limits(channel, reading, colour.deriveColor(0, 1, 0.8, 0.9));
        if (pulls && reader != null) {
            guide.show(snapshot, channel, setup);
        } else if (reader != null) {
            taps.show(channel, setup, events, late);
            double[] tapped = taps.taps();
            double[] feet = new double[tapped.length];
            for (int i = 0; i < tapped.length; i++) {
                tapped[i] -= zero;
                feet[i] = low + 0.03 * (high - low);
            }
            strengths.dots(
                    tapped,
                    feet,
                    tapped.length,
                    Palette.ink(workspace.view().night().get()),
                    4);
        }
    }

    /** Where the signal is at rest: the release lies half way from there to the threshold unless it was set. */
    private static double rest(ChannelSnapshot channel, Reading reading) {
        double rest = 2 * reading.scalar("release") - reading.scalar("threshold");
        return rest == rest ? channel.channel().display().apply(rest) : 0;
    }

    private void limits(ChannelSnapshot channel, Reading reading, Color line) {
        handles.clear();
        if (reading == null) {
            return;
        }
        if (pulls) {
            handles.put(Muscle.HARDEST, 100.0);
        } else {
            for (String key : new String[] {"threshold", "release"}) {
                double value = channel.channel().display().apply(reading.scalar(key));
                if (!Double.isNaN(value)) {
                    handles.put(key, value);
                }
            }
        }
        handles.forEach((key, at) -> {
            double shown = key.equals(held) && pulledTo == pulledTo ? pulledTo : at;
            String words = pulls ? "the hardest" : key + " " + Digits.about(shown, 3);
            strengths.limit(shown, words, line, key.equals("release"));
        });
    }

    private String near(double pixel) {
        return handles.entrySet().stream()
                .filter(one -> Math.abs(strengths.pixelY(one.getValue()) - pixel) < GRIP_PIXELS)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("");
    }

    /** One gesture is one change. */
    private void letGo() {
        String key = held;
        double to = pulledTo;
        held = "";
        pulledTo = Double.NaN;
        if (key.isEmpty() || to != to || setup == null || seen == null) {
            return;
        }
        double value = to;
        if (pulls) {
            double base = seen.scalar("baseline");
            double most = hardest();
            value = base + (most - base) * to / 100;
            if (!(value > base)) {
                return;
            }
        } else {
            double zero = over.channel().display().apply(0);
            value = (to - zero) / over.channel().display().slope();
        }
        workspace.set(setup.id(), key, value);
    }

    /** The envelope at 100 %, worked back from any pull's percent. */
    private double hardest() {
        double base = seen.scalar("baseline");
        double set = MuscleGuide.captured(setup, Muscle.HARDEST);
        return set == set
                ? set
                : seen.events(Muscle.BURSTS).stream()
                        .mapToDouble(Event::size)
                        .max()
                        .orElse(base);
    }

    private double strength(Event event) {
        return pulls ? event.values()[Muscle.PERCENT_FIELD] : event.size();
    }
}
