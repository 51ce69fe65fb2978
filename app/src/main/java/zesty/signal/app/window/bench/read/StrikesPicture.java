package zesty.signal.app.window.bench.read;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
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
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/** Hits and pulls: laid over each other from the strike or the onset, and how strong each was, against what it had to pass. */
final class StrikesPicture extends ReaderPicture {
    private static final double SHOWN_SECONDS = 30;
    /** After a hit so much is shown, and more where its dead time is longer. */
    private static final double SHORTEST_SECONDS = 0.12;

    private static final Laid STRIKES = new Laid(0.01, SHORTEST_SECONDS, 40);
    private static final Laid PULLS = new Laid(0.4, 1.6, 24);

    private final boolean pulls;
    private final Plot shapes = new Plot();
    private final Plot strengths = new Plot();
    private final Label caption = Bench.small("");
    private final MuscleGuide guide;
    private final HitsGuide taps;
    private final PlotHandles levels;
    private final PlotHandles after;
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
                Bench.small(
                        pulls
                                ? Messages.of("bench.read.the-pulls-laid-over-each-other")
                                : Messages.of("bench.read.the-hits-from-the-strike-on")),
                shapes);
        VBox right = new VBox(4, caption, strengths);
        sideBySide(left, shapes, right, strengths);
        guide = pulls ? new MuscleGuide(workspace) : null;
        taps = pulls ? null : new HitsGuide(workspace);
        getChildren().add(pulls ? guide : taps);
        levels = new PlotHandles(strengths, this::pulled);
        after = new PlotHandles(shapes, (key, seconds) -> deadTime(seconds));
        strengths.addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            if (!pulls && !levels.isHeld() && !workspace.shown().isLive()) {
                taps.tapped(strengths.valueX(event.getX()));
            }
        });
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        Reading reading = reader == null ? null : reader.reading();
        List<Event> events = reading == null ? List.of() : reader.events();
        double late = reader == null ? 0 : reader.lateSeconds();
        (pulls ? PULLS : strikes(reading))
                .draw(
                        shapes,
                        workspace,
                        channel,
                        events,
                        late,
                        (event, newest) -> colour.deriveColor(0, event.believed() ? 1 : 0.2, 1, newest ? 1 : 0.3));
        deadTime(reading, colour);
        double zero = zero(snapshot);
        Span inSight = workspace.shown().pictured(snapshot, SHOWN_SECONDS);
        double from = inSight.from();
        double to = inSight.to();
        String unit = pulls
                ? Messages.of("bench.read.of-the-hardest")
                : channel.channel().unit();
        caption.setText(
                events.isEmpty()
                        ? Messages.of("bench.read.nothing-yet")
                        : pulls
                                ? Messages.of("bench.read.each-pull-against-the-hardest")
                                : Messages.of("bench.read.how-high-each-hit-went"));
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

    private static Laid strikes(Reading reading) {
        double dead = reading == null ? Double.NaN : reading.scalar("dead_s");
        return dead > 0.9 * SHORTEST_SECONDS ? new Laid(STRIKES.before(), 1.3 * dead, STRIKES.most()) : STRIKES;
    }

    /** Where the signal is at rest: the release lies half way from there to the threshold unless it was set. */
    private static double rest(ChannelSnapshot channel, Reading reading) {
        double rest = 2 * reading.scalar("release") - reading.scalar("threshold");
        return rest == rest ? channel.channel().display().apply(rest) : 0;
    }

    private void limits(ChannelSnapshot channel, Reading reading, Color line) {
        levels.clear();
        if (reading == null) {
            return;
        }
        if (pulls) {
            strengths.limit(levels.put(Muscle.HARDEST, false, 100), Messages.of("bench.read.the-hardest"), line);
            return;
        }
        for (String key : new String[] {"threshold", "release"}) {
            double value = channel.channel().display().apply(reading.scalar(key));
            if (value == value) {
                double shown = levels.put(key, false, value);
                strengths.limit(shown, key + " " + Digits.about(shown, 3), line, key.equals("release"));
            }
        }
    }

    /** An edge after which the next hit may come. */
    private void deadTime(Reading reading, Color colour) {
        after.clear();
        double seconds = pulls || reading == null ? Double.NaN : reading.scalar("dead_s");
        if (seconds == seconds) {
            double shown = Math.max(0, after.put("dead", true, seconds));
            shapes.upright(0, Math.min(shown, shapes.highX()), colour.deriveColor(0, 1, 1, 0.12));
            shapes.named(
                    shown,
                    Messages.of("bench.read.dead-time-ms", Digits.about(1000 * shown, 2)),
                    0,
                    colour.deriveColor(0, 1, 0.8, 0.9));
        }
    }

    private void deadTime(double seconds) {
        if (setup != null) {
            workspace.set(setup.id(), "dead", Math.max(0, seconds));
        }
    }

    private void pulled(String key, double to) {
        if (setup == null || seen == null) {
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
