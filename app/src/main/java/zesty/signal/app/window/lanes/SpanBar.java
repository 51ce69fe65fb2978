package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.DoublePredicate;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.sample.SpanNumbers;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** What lies between the two moments that are measured, of the channel in focus; copied for all lanes as a table. */
final class SpanBar extends HBox {
    /** So many are added up between two frames; more beside the window, with progress. */
    private static final int MOST_AT_ONCE = 400_000;
    /** Whether to go on is asked this often. */
    private static final int ASK = 1 << 15;

    private final Workspace workspace;
    private final Label words = new Label();
    private final FlowPane numbers = new FlowPane(16, 4);
    private final VBox told = new VBox(2, words, numbers);
    private final Button trim = new Button(Messages.of("lanes.cut-out"));
    private final Button mark = new Button(Messages.of("lanes.mark"));
    private Object shownFor;
    private Snapshot seen;

    SpanBar(Workspace workspace) {
        super(10);
        HelpPlace.mark(this, "span");
        this.workspace = workspace;
        setId("span-bar");
        getStyleClass().add("span-bar");
        setAlignment(Pos.CENTER_LEFT);
        words.setId("span-words");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        numbers.setId("span-numbers");
        numbers.setMinWidth(0);
        HBox.setHgrow(told, Priority.ALWAYS);
        told.setMinWidth(0);
        told.setMaxWidth(Double.MAX_VALUE);
        Button copy = new Button(Messages.of("lanes.copy"));
        copy.setId("span-copy");
        copy.getStyleClass().setAll("small-button");
        copy.setMinWidth(USE_PREF_SIZE);
        Tip.on(copy, Messages.of("lanes.copies-the-numbers-of-every-lane"));
        copy.setOnAction(event -> copy());
        Button closer = new Button(Messages.of("lanes.closer"));
        closer.setId("span-closer");
        closer.getStyleClass().setAll("small-button");
        closer.setMinWidth(USE_PREF_SIZE);
        Tip.on(closer, Messages.of("lanes.fills-the-lanes-with-what-lies"));
        closer.setOnAction(event -> closer());
        trim.setId("span-trim");
        trim.getStyleClass().setAll("small-button");
        trim.setMinWidth(USE_PREF_SIZE);
        Tip.on(trim, Messages.of("lanes.makes-a-take-of-its-own-of-what"));
        trim.setOnAction(event -> workspace.trim(workspace.view().span().get()));
        trim.managedProperty().bind(trim.visibleProperty());
        mark.setId("span-mark");
        mark.getStyleClass().setAll("small-button");
        mark.setMinWidth(USE_PREF_SIZE);
        Tip.on(mark, Messages.of("lanes.makes-a-span-of-it-that-every"));
        mark.setOnAction(event -> workspace.markSpan(workspace.view().span().get()));
        mark.managedProperty().bind(mark.visibleProperty());
        Button away = new Button("×");
        away.getStyleClass().setAll("tile-off");
        away.setMinWidth(USE_PREF_SIZE);
        Tip.on(away, Messages.of("lanes.stop-measuring-shift-x"));
        away.setOnAction(event -> workspace.view().span().set(Span.NONE));
        managedProperty().bind(visibleProperty());
        setVisible(false);
        // Two by two: the numbers need the width.
        GridPane presses = new GridPane();
        presses.setHgap(6);
        presses.setVgap(6);
        presses.addRow(0, closer, copy);
        presses.addRow(1, mark, trim);
        presses.setMinWidth(USE_PREF_SIZE);
        presses.setAlignment(Pos.CENTER_RIGHT);
        getChildren().addAll(told, presses, away);
    }

    /** @param zero what times are shown against */
    void show(Snapshot snapshot, double zero) {
        seen = snapshot;
        Span span = workspace.view().span().get();
        setVisible(span.begun());
        trim.setVisible(span.whole() && !workspace.shown().isLive());
        mark.setVisible(trim.isVisible());
        if (!span.begun()) {
            return;
        }
        Optional<ChannelSnapshot> focused =
                snapshot.focused(workspace.view().focus().get());
        if (!span.whole()) {
            say(Messages.of("lanes.measuring-from-here-press-x-at-the"));
            shownFor = null;
            return;
        }
        Object now = focused.map(c -> List.of(span, c.channel(), c.clean().end() < 0))
                .orElse(List.of());
        if (focused.isEmpty() || now.equals(shownFor)) {
            return;
        }
        shownFor = now;
        double from = workspace.shown().isLive() ? Double.NaN : 0;
        ChannelSnapshot channel = focused.get();
        long[] rows = rows(channel, span);
        if (rows[1] - rows[0] <= MOST_AT_ONCE) {
            tell(channel, span, from, sums(channel, rows, share -> true));
            return;
        }
        say(Messages.of("lanes.calculating-samples", (rows[1] - rows[0])));
        workspace
                .tasks()
                .atLength(
                        Messages.of("lanes.calculating-the-selection"),
                        Messages.of("lanes.what-is-measured-could-not-be"),
                        goOn -> sums(channel, rows, goOn),
                        sums -> {
                            if (now.equals(shownFor)) {
                                tell(channel, span, from, sums);
                            }
                        });
    }

    /** Puts the numbers into tiles, each with its name and unit. */
    private void tell(ChannelSnapshot channel, Span span, double zero, SpanNumbers.Sums sums) {
        SpanNumbers n = sums.numbers();
        double apart = span.to() - span.from();
        String unit = channel.channel().unit();
        String own = unit.isEmpty() ? "" : " " + unit;
        List<Node> tiles = new ArrayList<>();
        tiles.add(tile(Messages.of("lanes.t"), Digits.about(apart, 5) + " s"));
        tiles.add(tile(Messages.of("lanes.1-t"), Digits.about(1 / apart, 4) + " Hz"));
        if (zero == zero) {
            tiles.add(tile(Messages.of("lanes.from"), Digits.fixed(span.from(), 3) + " s"));
            tiles.add(tile(Messages.of("lanes.to"), Digits.fixed(span.to(), 3) + " s"));
        }
        if (n.count() > 0) {
            double first = sums.first();
            double last = sums.last();
            tiles.add(tile(Messages.of("lanes.first"), Digits.about(first, 4) + own));
            tiles.add(tile(Messages.of("lanes.last"), Digits.about(last, 4) + own));
            tiles.add(tile(
                    Messages.of("lanes.change"), (last >= first ? "+" : "") + Digits.about(last - first, 4) + own));
            tiles.add(tile(Messages.of("lanes.mean"), Digits.about(n.mean(), 5) + own));
            tiles.add(tile(Messages.of("lanes.sd"), Digits.about(n.deviation(), 3) + own));
            tiles.add(tile(Messages.of("lanes.rms"), Digits.about(n.rms(), 4) + own));
            tiles.add(tile(Messages.of("lanes.lowest"), Digits.about(n.low(), 4) + own));
            tiles.add(tile(Messages.of("lanes.highest"), Digits.about(n.high(), 4) + own));
            tiles.add(tile(Messages.of("lanes.slope"), Digits.about(n.slope(), 3) + own + "/s"));
            tiles.add(tile(Messages.of("lanes.crest-factor"), Digits.about(n.crest(), 3)));
            tiles.add(tile(Messages.of("lanes.area"), Digits.about(n.area(), 4) + own + "·s"));
            tiles.add(tile(Messages.of("lanes.samples"), String.valueOf(n.count())));
        }
        words.setText(channel.channel().name() + (n.count() == 0 ? Messages.of("lanes.no-sample-lies-between") : ""));
        numbers.getChildren().setAll(tiles);
    }

    private static Node tile(String name, String value) {
        Label called = new Label(name);
        called.getStyleClass().add("hint");
        Label number = new Label(value);
        number.getStyleClass().add("span-number");
        VBox tile = new VBox(called, number);
        tile.setMinWidth(USE_PREF_SIZE);
        return tile;
    }

    private void say(String text) {
        words.setText(text);
        numbers.getChildren().clear();
    }

    /** @return first row of the stretch and the one behind its last */
    private static long[] rows(ChannelSnapshot channel, Span span) {
        Times times = channel.stream().times();
        long late = channel.lateSamples();
        long first = Math.max(times.firstAtOrAfter(span.from()), channel.clean().start() - late);
        long last = Math.min(
                Math.min(
                        times.firstAtOrAfter(Math.nextUp(span.to())),
                        channel.clean().end() - late),
                times.end());
        return new long[] {first, Math.max(first, last)};
    }

    /** Adds up cleaned values in the unit that is shown. Any thread. */
    private static SpanNumbers.Sums sums(ChannelSnapshot channel, long[] rows, DoublePredicate goOn) {
        Times times = channel.stream().times();
        SpanNumbers.Sums sums = new SpanNumbers.Sums(1 / channel.stream().rateHz());
        for (long row = rows[0]; row < rows[1]; row++) {
            if ((row - rows[0]) % ASK == 0 && !goOn.test((double) (row - rows[0]) / (rows[1] - rows[0]))) {
                throw new CancellationException();
            }
            sums.add(
                    channel.channel().display().apply(channel.clean().value(row + channel.lateSamples())),
                    times.secondsAt(row));
        }
        return sums;
    }

    private void closer() {
        Span span = workspace.view().span().get();
        if (span.whole()) {
            workspace.shown().window().show(span.from(), span.to());
        }
    }

    private void copy() {
        Span span = workspace.view().span().get();
        if (!span.whole() || seen == null) {
            return;
        }
        List<ChannelSnapshot> lanes = seen.channels().stream()
                .filter(channel -> channel.channel().shown())
                .toList();
        workspace
                .tasks()
                .atLength(
                        Messages.of("lanes.calculating-every-lane"),
                        Messages.of("lanes.the-numbers-could-not-be-copied"),
                        goOn -> table(lanes, span, goOn),
                        lines -> {
                            ClipboardContent content = new ClipboardContent();
                            content.putString(String.join("\n", lines) + "\n");
                            Clipboard.getSystemClipboard().setContent(content);
                            workspace.say(Messages.of(
                                    "lanes.copied-a-line-for-each-of",
                                    (lines.size() - 1),
                                    (lines.size() == 2 ? Messages.of("lanes.lane") : Messages.of("lanes.lanes-2"))));
                        });
    }

    private static List<String> table(List<ChannelSnapshot> lanes, Span span, DoublePredicate goOn) {
        List<String> lines = new ArrayList<>();
        lines.add("channel\tunit\tfrom_s\tto_s\tsamples\tmean\tdeviation\trms\tlow\thigh\tslope_per_s\tcrest\tarea");
        for (ChannelSnapshot channel : lanes) {
            int done = lines.size() - 1;
            SpanNumbers n = sums(channel, rows(channel, span), share -> goOn.test((done + share) / lanes.size()))
                    .numbers();
            lines.add(String.join(
                    "\t",
                    channel.channel().name(),
                    channel.channel().unit(),
                    String.valueOf(span.from()),
                    String.valueOf(span.to()),
                    String.valueOf(n.count()),
                    String.valueOf(n.mean()),
                    String.valueOf(n.deviation()),
                    String.valueOf(n.rms()),
                    String.valueOf(n.low()),
                    String.valueOf(n.high()),
                    String.valueOf(n.slope()),
                    String.valueOf(n.crest()),
                    String.valueOf(n.area())));
        }
        return lines;
    }
}
