package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.Samples;
import zesty.signal.app.window.workspace.TimeWindow;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.read.Reader;
import zesty.signal.core.read.ReaderException;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.Setting;
import zesty.signal.core.read.Settings;
import zesty.signal.core.read.muscle.Muscle;
import zesty.signal.core.read.muscle.Placement;
import zesty.signal.core.rig.ReaderSetup;
import zesty.signal.core.sample.TimeBase;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * Leads through what a muscle needs before its percent means anything: a moment of rest, the hardest pull, and the same
 * pulls at several places, the best of which is kept. Live each takes its time; of a take what is in sight counts.
 */
final class MuscleGuide extends Guide {
    private static final double REST_SECONDS = 3;
    private static final double PULL_SECONDS = 5;
    private static final double ENDS_SECONDS = 0.1;
    private static final int MOST_PLACES = 4;

    private final Button rest = Bench.button(
            "capture-rest",
            Messages.of("bench.read.capture-rest"),
            Messages.of("bench.read.rest-the-muscle-for-3-s-that-is"));
    private final Button hardest = Bench.button(
            "capture-hardest",
            Messages.of("bench.read.capture-the-hardest-pull"),
            Messages.of("bench.read.pull-as-hard-as-you-can-within-5-s"));
    private final TextField place = new TextField();
    private final Button trial = Bench.button(
            "place-trial",
            Messages.of("bench.read.try-this-place"),
            Messages.of("bench.read.make-the-same-pulls-three-of-them"));
    private final VBox ranks = new VBox(3);
    private final List<Placement> tried = new ArrayList<>();

    private ChannelSnapshot channel;
    private ReaderSetup setup;
    /** What is being captured: a setting's key; empty for nothing. */
    private String capturing = "";

    private double from = Double.NaN;
    private double trialFrom = Double.NaN;
    private boolean ranked = true;

    MuscleGuide(Workspace workspace) {
        super(workspace, "muscle-guide");
        place.setId("place");
        place.setPromptText(Messages.of("bench.read.where-they-sit"));
        place.setPrefColumnCount(12);
        place.setOnAction(event -> tryPlace());
        rest.setOnAction(event -> capture(Muscle.REST_LEVEL));
        hardest.setOnAction(event -> capture(Muscle.HARDEST));
        trial.setOnAction(event -> tryPlace());
        row(rest, hardest, place, trial);
        ranks.setId("places");
        ranks.managedProperty().bind(ranks.visibleProperty());
        ranks.setVisible(false);
        getChildren().add(ranks);
    }

    void show(Snapshot snapshot, ChannelSnapshot now, ReaderSetup reader) {
        if (setup != null && !setup.columns().equals(reader.columns())) {
            tried.clear();
            capturing = "";
            trialFrom = Double.NaN;
            ranked = false;
        }
        channel = now;
        setup = reader;
        double last = now.stream().lastSeconds();
        if (!capturing.isEmpty()) {
            double needed = capturing.equals(Muscle.REST_LEVEL) ? REST_SECONDS : PULL_SECONDS;
            double left = from + needed + now.delaySeconds() - last;
            says.setText((capturing.equals(Muscle.REST_LEVEL)
                            ? Messages.of("bench.read.let-it-rest")
                            : Messages.of("bench.read.pull-as-hard-as-you-can"))
                    + " \u2026 " + Digits.fixed(Math.max(0, Math.ceil(left)), 0) + " s");
            if (left <= 0) {
                keep(capturing, from, from + needed);
            }
        } else if (!Double.isNaN(trialFrom)) {
            says.setText(
                    Messages.of("bench.read.pull-three-times-alike-then-press", Digits.fixed(last - trialFrom, 0)));
        }
        trial.setText(
                Double.isNaN(trialFrom)
                        ? Messages.of("bench.read.try-this-place")
                        : Messages.of("bench.read.done-here"));
        if (!ranked) {
            ranked = true;
            rank();
        }
    }

    private void capture(String key) {
        if (channel == null) {
            return;
        }
        if (!workspace.shown().isLive()) {
            keep(
                    key,
                    workspace.shown().window().from(),
                    workspace.shown().window().to());
        } else if (capturing.equals(key)) {
            capturing = "";
            says.setText(Messages.of("bench.read.cancelled-nothing-was-changed"));
        } else {
            capturing = key;
            from = channel.stream().lastSeconds();
        }
    }

    private void keep(String key, double begin, double end) {
        capturing = "";
        double[] x = Samples.cleaned(channel, begin, end);
        if (x.length < 0.2 * channel.rateHz() || Arrays.stream(x).anyMatch(Double::isNaN)) {
            says.setText(Messages.of("bench.read.there-was-a-gap-in-it-capture-it"));
            return;
        }
        double[] all = Muscle.envelope(x, channel.rateHz(), setup.checked());
        // At the cut ends of the stretch a filter has only half of what it needs.
        int edge = (int) Math.min(all.length / 4, Math.ceil(ENDS_SECONDS * channel.rateHz()));
        double[] envelope = Arrays.copyOfRange(all, edge, all.length - edge);
        double level = key.equals(Muscle.REST_LEVEL)
                ? Arrays.stream(envelope).average().orElse(Double.NaN)
                : Arrays.stream(envelope).max().orElse(Double.NaN);
        double other = setup.checked().number(key.equals(Muscle.REST_LEVEL) ? Muscle.HARDEST : Muscle.REST_LEVEL);
        boolean upsideDown = key.equals(Muscle.REST_LEVEL) ? level >= other : level <= other;
        if (upsideDown) {
            says.setText(Messages.of(
                    "bench.read.the-hardest-pull-is-not-above-rest",
                    Digits.about(Math.min(level, other), 3),
                    Digits.about(Math.max(level, other), 3)));
            return;
        }
        workspace.set(setup.id(), key, level);
        says.setText(Messages.of(
                "bench.read.u-undoes-it",
                (key.equals(Muscle.REST_LEVEL)
                                ? Messages.of("bench.read.at-rest-the-envelope-is")
                                : Messages.of("bench.read.at-the-hardest-pull-it-is"))
                        + Digits.about(level, 3)
                        + (channel.channel().unit().isEmpty()
                                ? ""
                                : " " + channel.channel().scaling().unit())));
    }

    private void tryPlace() {
        if (channel == null) {
            return;
        }
        String name = place.getText().strip();
        if (name.isEmpty()) {
            says.setText(Messages.of("bench.read.say-where-they-sit-then-try-it"));
            place.requestFocus();
            return;
        }
        if (workspace.shown().isLive() && Double.isNaN(trialFrom)) {
            trialFrom = channel.stream().lastSeconds();
            return;
        }
        boolean live = workspace.shown().isLive();
        TimeWindow inSight = workspace.shown().window();
        double begin = live ? trialFrom : inSight.from();
        double end = live ? channel.stream().lastSeconds() : inSight.to();
        trialFrom = Double.NaN;
        try {
            tried.removeIf(one -> one.place().equals(name));
            tried.add(Placement.of(name, read(Samples.cleaned(channel, begin, end))));
            says.setText("");
            place.clear();
        } catch (ReaderException e) {
            says.setText(e.getMessage());
        }
        ranked = false;
    }

    /** What the reader says of a stretch by itself, without what was captured before. */
    private Reading read(double[] x) {
        ReaderKind kind = setup.readerKind();
        Map<String, String> set = new java.util.TreeMap<>(setup.settings());
        set.keySet().removeAll(List.of(Muscle.REST_LEVEL, Muscle.HARDEST, "rest"));
        Reader reader = kind.reader(Settings.of(kind, set), channel.rateHz());
        reader.accept(new double[][] {x}, x.length, new TimeBase.Steady(0, 1 / channel.rateHz()));
        reader.finish();
        return reader.reading();
    }

    private void rank() {
        ranks.getChildren().clear();
        ranks.setVisible(!tried.isEmpty());
        int number = 1;
        for (Placement one : Placement.ranked(tried)) {
            if (number > MOST_PLACES) {
                break;
            }
            String worth = Double.isNaN(one.scoreDb()) ? "" : Digits.fixed(one.scoreDb(), 1) + " dB: ";
            Label words = new Label(number + "  " + one.place() + "  " + worth + one.reason());
            words.getStyleClass().add("bench-line");
            words.setMinWidth(0);
            HBox row = new HBox(8, words);
            row.setAlignment(Pos.CENTER_LEFT);
            boolean here = setup.checked().text(Muscle.PLACE).equals(one.place());
            if (here) {
                row.getChildren().add(Bench.small(Messages.of("bench.read.in-use")));
            } else if (one.pulls() > 0) {
                Button take = Bench.button(
                        "take-place-" + number,
                        Messages.of("bench.read.use-this-position"),
                        Messages.of("bench.read.saves-this-position-with-the-rig-u"));
                take.setOnAction(event -> {
                    workspace.set(setup.id(), Muscle.PLACE, one.place());
                    ranked = false;
                });
                row.getChildren().add(take);
            }
            ranks.getChildren().add(row);
            number++;
        }
    }

    /** @return a captured level of a setting; NaN where the reader finds it itself */
    static double captured(ReaderSetup setup, String key) {
        String text = setup.checked().text(key);
        return text.equals(Setting.AUTO) ? Double.NaN : setup.checked().number(key);
    }
}
