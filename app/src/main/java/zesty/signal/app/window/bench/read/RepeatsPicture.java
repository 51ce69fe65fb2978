package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Plot;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Watch;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.read.response.ChangeAfter;
import zesty.signal.core.read.response.Repeats;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.NumberHistory;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.Mark;

/**
 * What a signal, a reader's number, or how often its events come, does after markers of one text: all laid over each other from the
 * marker on. Worked out beside the window's thread.
 */
final class RepeatsPicture extends ReaderPicture {
    private static final String SIGNAL = Messages.of("bench.read.the-signal");
    private static final double AGAIN_SECONDS = 1;
    /** A reader's number speaks of so many seconds at most, in their middle. */
    private static final double NUMBER_SECONDS = 10;

    /**
     * What is laid over each other.
     *
     * @param reader whose events or number it is; null for the signal. @param number its key; empty for how often its events come
     */
    private record Subject(String words, ReaderSnapshot reader, String number, String unit) {}

    private final Plot plot = new Plot();
    private final ComboBox<String> marker = new ComboBox<>();
    private final ComboBox<String> of = new ComboBox<>();
    private final Label said = new Label();
    private Repeats repeats;
    private Object workedFor;
    private double workedAt = Double.NEGATIVE_INFINITY;
    private boolean filling;
    private boolean working;

    RepeatsPicture(Workspace workspace) {
        super(workspace);
        plot.setId("repeats-plot");
        marker.setId("repeats-marker");
        of.setId("repeats-of");
        said.setId("repeats-said");
        said.getStyleClass().add("bench-line");
        said.setWrapText(true);
        said.setMinHeight(USE_PREF_SIZE);
        Tip.on(marker, Messages.of("bench.read.markers-of-one-text-are-repeats-of"));
        Tip.on(of, Messages.of("bench.read.what-is-laid-over-each-other-the"));
        marker.setOnAction(event -> workedFor = filling ? workedFor : null);
        of.setOnAction(event -> workedFor = filling ? workedFor : null);
        HBox choice = new HBox(
                8,
                Bench.small(Messages.of("bench.read.after-each")),
                marker,
                Bench.small(Messages.of("bench.read.of")),
                of);
        choice.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(plot, Priority.ALWAYS);
        getChildren().addAll(choice, said, plot);
    }

    @Override
    void show(Snapshot snapshot, ChannelSnapshot channel, ReaderSnapshot reader, Color colour) {
        List<Mark> marks = workspace.shown().marks();
        Map<String, List<Double>> byText = new LinkedHashMap<>();
        for (Mark mark : marks) {
            byText.computeIfAbsent(mark.text(), text -> new ArrayList<>()).add(mark.seconds());
        }
        String wanted = reader == null ? "" : reader.setup().settings().getOrDefault("mark", "");
        choose(marker, new ArrayList<>(byText.keySet()), byText.containsKey(wanted) ? wanted : often(byText));
        List<Subject> subjects = subjects(channel);
        choose(of, subjects.stream().map(Subject::words).toList(), SIGNAL);
        String text = marker.getValue();
        if (text == null) {
            repeats = null;
            workedFor = null;
            said.setText(Messages.of("bench.read.no-marker-yet-write-one-where"));
            plot.begin(
                    workspace.view().night().get(),
                    -10,
                    60,
                    Messages.of("bench.read.s-after-the-marker"),
                    0,
                    1,
                    channel.channel().unit());
            return;
        }
        double before = number(reader, "before", 10);
        double until = number(reader, "until", 60);
        double now = System.nanoTime() * 1e-9;
        Subject subject = subjects.stream()
                .filter(one -> one.words().equals(of.getValue()))
                .findFirst()
                .orElse(subjects.get(0));
        List<Double> moments = byText.get(text);
        Object as = Arrays.asList(channel.channel().column(), text, subject.words(), moments, before, until);
        boolean asked = !Objects.equals(as, workedFor);
        if (!working
                && (asked || now - workedAt > AGAIN_SECONDS && workspace.shown().isLive())) {
            work(as, channel, subject, moments, new double[] {before, until});
        }
        if (asked) {
            repeats = null;
        }
        draw(subject.unit(), colour, before, until);
        said.setText(asked ? Messages.of("bench.read.calculating") : words(subject.unit(), moments.size()));
    }

    private void work(Object as, ChannelSnapshot channel, Subject subject, List<Double> moments, double[] lengths) {
        working = true;
        AtomicReference<Repeats> found = new AtomicReference<>();
        workspace
                .tasks()
                .atLeisure(
                        Messages.of("bench.read.the-repeats-could-not-be-worked"),
                        goOn -> {
                            try {
                                found.set(repeats(channel, subject, moments, lengths[0], lengths[1]));
                            } finally {
                                Platform.runLater(() -> working = false);
                            }
                        },
                        () -> {
                            workedFor = as;
                            workedAt = System.nanoTime() * 1e-9;
                            repeats = found.get();
                        });
    }

    private void choose(ComboBox<String> box, List<String> items, String first) {
        filling = true;
        if (!box.getItems().equals(items)) {
            String was = box.getValue();
            box.getItems().setAll(items);
            box.setValue(items.contains(was) ? was : items.contains(first) ? first : null);
        }
        filling = false;
    }

    private static String often(Map<String, List<Double>> byText) {
        return byText.entrySet().stream()
                .max((a, b) -> Integer.compare(a.getValue().size(), b.getValue().size()))
                .map(Map.Entry::getKey)
                .orElse("");
    }

    /** @return the signal, and of each of the channel's other readers its main numbers and how often its events come */
    private static List<Subject> subjects(ChannelSnapshot channel) {
        List<Subject> all = new ArrayList<>();
        all.add(new Subject(SIGNAL, null, "", channel.channel().unit()));
        for (ReaderSnapshot other : channel.readers()) {
            if (other.setup().kind().equals(ChangeAfter.NAME)
                    || other.setup().columns().size() > 1) {
                continue;
            }
            String title = other.kind().title();
            if (believed(other).size() > 2) {
                all.add(new Subject(Messages.of("bench.read.a-minute", title), other, "", "/min"));
            }
            List<String> keys = new ArrayList<>(other.kind().detailKeys());
            keys.add(0, other.kind().scalars().get(0).key());
            for (String key : keys) {
                ScalarInfo info = other.kind().scalar(key);
                all.add(new Subject(
                        title + ", " + info.words(),
                        other,
                        key,
                        info.unit(channel.channel().scaling().unit())));
            }
        }
        return all;
    }

    private static List<Event> believed(ReaderSnapshot reader) {
        return reader.events().stream().filter(Event::believed).toList();
    }

    private static double number(ReaderSnapshot reader, String key, double otherwise) {
        try {
            return reader == null
                    ? otherwise
                    : Double.parseDouble(reader.setup().settings().get(key));
        } catch (NumberFormatException | NullPointerException e) {
            return otherwise;
        }
    }

    /** Long: not on the window's thread. @return null where there is too little */
    private static Repeats repeats(
            ChannelSnapshot channel, Subject subject, List<Double> moments, double before, double until) {
        double from =
                channel.stream().times().secondsAt(channel.stream().times().start());
        double to = channel.stream().lastSeconds() + 1e-6;
        double[] seconds;
        double[] values;
        if (subject.reader() != null && subject.number().isEmpty()) {
            List<Event> events = believed(subject.reader());
            seconds = new double[events.size() - 1];
            values = new double[seconds.length];
            for (int i = 0; i < seconds.length; i++) {
                double step = events.get(i + 1).startSeconds() - events.get(i).startSeconds();
                seconds[i] = events.get(i + 1).startSeconds();
                values[i] = step > 0 ? 60 / step : Double.NaN;
            }
        } else {
            seconds = Samples.moments(channel, from, to);
            values = Samples.cleaned(channel, from, to);
            int n = Math.min(seconds.length, values.length);
            seconds = Arrays.copyOf(seconds, n);
            values = Arrays.copyOf(values, n);
            if (subject.reader() == null) {
                for (int i = 0; i < n; i++) {
                    values[i] = channel.channel().display().apply(values[i]);
                }
            } else {
                ReaderSetup setup = subject.reader().setup();
                double window = Math.min(NUMBER_SECONDS, subject.reader().kind().windowSeconds());
                NumberHistory.Values history = NumberHistory.of(
                        new Watch.Number(
                                setup.kind(), setup.columns().get(0), setup.settings(), subject.number(), window),
                        seconds,
                        values,
                        channel.rateHz());
                seconds = history.seconds().clone();
                values = history.values();
                for (int i = 0; i < seconds.length; i++) {
                    seconds[i] -= window / 2;
                }
            }
        }
        return seconds.length < 3 ? null : Repeats.of(seconds, values, moments, before, until);
    }

    private void draw(String unit, Color colour, double before, double until) {
        boolean night = workspace.view().night().get();
        double low = 0;
        double high = 0;
        for (double[] one : repeats == null ? List.<double[]>of() : repeats.each()) {
            for (double value : one) {
                low = value < low ? value : low;
                high = value > high ? value : high;
            }
        }
        double room = Math.max(1e-9, 0.1 * (high - low));
        plot.begin(
                night,
                -before,
                until,
                Messages.of("bench.read.s-after-the-marker"),
                low - room,
                high + room,
                Messages.of("bench.read.from-its-baseline", unit));
        plot.upright(0, 0, Palette.ink(night));
        if (repeats == null) {
            return;
        }
        double[] grid = repeats.grid();
        for (int i = 0; i + 1 < grid.length; i++) {
            double middle = repeats.mean()[i];
            double wide = repeats.spread()[i];
            if (wide == wide && middle == middle) {
                plot.bar(grid[i], grid[i + 1], middle - wide, middle + wide, colour.deriveColor(0, 1, 1, 0.14));
            }
        }
        for (double[] one : repeats.each()) {
            plot.line(grid, one, grid.length, colour.deriveColor(0, 0.7, 1, 0.5), 1);
        }
        plot.line(grid, repeats.mean(), grid.length, colour.deriveColor(0, 1, 0.75, 1), 2.6);
        plot.limit(0, Messages.of("bench.read.baseline"), Palette.muted(night), true);
        if (repeats.latency() == repeats.latency()) {
            plot.named(
                    repeats.latency(),
                    Messages.of("bench.read.half-after-s", Digits.about(repeats.latency(), 2)),
                    0,
                    Palette.ink(night));
        }
    }

    private String words(String unit, int marked) {
        if (repeats == null || repeats.each().isEmpty()) {
            return Messages.of("bench.read.none-of-markers-has-enough-before", marked);
        }
        int n = repeats.each().size();
        int peak = 0;
        for (int i = 0; i < repeats.mean().length; i++) {
            peak = repeats.mean()[i] == repeats.change() ? i : peak;
        }
        double spread = repeats.spread()[peak];
        String change = (repeats.change() >= 0 ? "+" : "\u2212") + Digits.about(Math.abs(repeats.change()), 2) + " "
                + unit + (spread == spread ? " ± " + Digits.about(spread, 2) : "");
        String chance = Double.isNaN(repeats.chance())
                ? Messages.of("bench.read.too-little-rest-in-it-to-tell-what")
                : repeats.chance() < 0.05
                        ? Messages.of("bench.read.its-own-wander-does-that-by-chance", percent(repeats.chance()))
                        : Messages.of("bench.read.its-own-wander-does-that-by-chance-2", percent(repeats.chance()));
        return n + (n == 1 ? Messages.of("bench.read.repeat") : Messages.of("bench.read.repeats"))
                + (n < marked ? Messages.of("bench.read.of-2", marked) : "") + ": " + change + ". " + chance;
    }

    private static String percent(double share) {
        return Digits.about(100 * share, share < 0.01 ? 1 : 2) + " %";
    }
}
