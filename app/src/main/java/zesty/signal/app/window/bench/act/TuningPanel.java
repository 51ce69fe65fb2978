package zesty.signal.app.window.bench.act;

import java.io.File;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleSpans;
import zesty.signal.core.act.ThresholdMap;
import zesty.signal.core.act.Watch;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.Snapshot;
import zesty.signal.takes.Mark;
import zesty.signal.takes.Table;
import zesty.signal.takes.TakeException;

/** True events, tapped, pointed at, marked, from a file or only counted; and the map of thresholds and hystereses that tell them. */
final class TuningPanel extends VBox {
    /** A hand is late by no more than this, in s; a reader's number comes once a second. */
    private static final double HAND_SECONDS = 0.35;

    private static final double NUMBER_SECONDS = 1.5;
    private static final int STEPS = 50;
    private static final int FEWEST = 3;
    /** Of the range of the signal, the widest hysteresis that is tried. */
    private static final double WIDEST = 0.5;

    private final Workspace workspace;
    private final Consumer<Rule> adopt;
    private final Consumer<Rule> attempt;
    private final Button tap = Bench.button(
            "tap-event", Messages.of("bench.act.tap"), Messages.of("bench.act.press-at-each-true-event-as-it"));
    private final MenuButton from = new MenuButton(Messages.of("bench.act.from"));
    private final TextField count = new TextField();
    private final Button clear =
            Bench.button("clear-events", Messages.of("bench.act.forget"), Messages.of("bench.act.begins-anew"));
    private final Label says = new Label();
    private final Button use = Bench.button(
            "use-best", Messages.of("bench.act.use"), Messages.of("bench.act.takes-the-best-threshold-and"));
    private final MapView map = new MapView();
    private final TreeSet<Double> truth = new TreeSet<>();
    private Rule.OnSamples rule;
    private String unit = "";
    private ThresholdMap made;
    private Rule.OnSamples best;
    private int running;
    private double newest = Double.NaN;
    private Runnable look = () -> {};

    /** What came of a run. */
    private record Result(ThresholdMap map, ThresholdMap.Check check) {}

    /** @param adopt takes a rule in values. @param attempt shows one in the picture; null for none any more */
    TuningPanel(Workspace workspace, Consumer<Rule> adopt, Consumer<Rule> attempt) {
        super(5);
        HelpPlace.mark(this, "map");
        this.workspace = workspace;
        this.adopt = adopt;
        this.attempt = attempt;
        setId("tuning");
        Label title = new Label(Messages.of("bench.act.which-threshold-and-hysteresis"));
        title.getStyleClass().add("kinds-title");
        title.setWrapText(true);
        from.setId("events-from");
        from.getStyleClass().add("pill");
        Tip.on(from, Messages.of("bench.act.true-events-from-markers-or-from-a"));
        from.setOnShowing(event -> offer());
        count.setId("events-count");
        count.setPromptText(Messages.of("bench.act.how-many"));
        count.setPrefColumnCount(7);
        Tip.on(count, Messages.of("bench.act.only-how-many-true-events-there"));
        count.setOnAction(event -> tune());
        tap.setOnAction(event -> pointed(newest));
        clear.setOnAction(event -> {
            truth.clear();
            count.clear();
            forget();
        });
        use.setVisible(false);
        use.managedProperty().bind(use.visibleProperty());
        use.setOnAction(event -> {
            if (best != null) {
                adopt.accept(best);
            }
        });
        says.setId("tuning-says");
        says.setWrapText(true);
        says.getStyleClass().add("tuning-says");
        map.on(
                (row, column) -> attempt.accept(row < 0 ? null : at(row, column)),
                (row, column) -> adopt.accept(at(row, column)));
        FlowPane ways = new FlowPane(8, 4, tap, from, count, clear);
        ways.setAlignment(Pos.CENTER_LEFT);
        from.setMinWidth(Region.USE_PREF_SIZE);
        count.setMinWidth(Region.USE_PREF_SIZE);
        getChildren().addAll(title, ways, map, says, use);
    }

    private void forget() {
        made = null;
        best = null;
        use.setVisible(false);
        map.show(null, -1, -1, "", false);
        attempt.accept(null);
    }

    double[] truth() {
        return truth.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** A true event at a moment, in s; again on the same one takes it away. */
    void pointed(double seconds) {
        if (seconds != seconds || rule == null) {
            return;
        }
        Double near = truth.stream()
                .filter(one -> Math.abs(one - seconds) < HAND_SECONDS / 3)
                .findFirst()
                .orElse(null);
        if (near != null) {
            truth.remove(near);
        } else {
            truth.add(seconds);
        }
        count.clear();
        if (truth.size() >= FEWEST) {
            tune();
        } else {
            forget();
        }
    }

    /** @param inValues the rule that is chosen, its limits as values; null for none that has a threshold */
    void show(Snapshot snapshot, Rule.OnSamples inValues, String unitNow) {
        boolean threshold = inValues != null
                && (inValues.when() instanceof Condition.Above || inValues.when() instanceof Condition.Below);
        setVisible(threshold);
        setManaged(threshold);
        // Nothing is let go of where nothing was held: the picture would lose what is being dragged in it.
        boolean other = threshold
                ? rule == null
                        || !rule.watch().equals(inValues.watch())
                        || !rule.name().equals(inValues.name())
                : rule != null;
        rule = threshold ? inValues : null;
        unit = unitNow;
        newest = snapshot.lastSeconds();
        boolean live = workspace.shown().isLive();
        tap.setDisable(!live);
        look = () -> {
            if (rule != null) {
                read(workspace.shown().snapshot(System.nanoTime()));
            }
        };
        if (other) {
            truth.clear();
            count.clear();
            forget();
            offer();
        }
        clear.setDisable(truth.isEmpty() && count.getText().isEmpty());
        if (made == null) {
            says.setText(
                    truth.isEmpty()
                            ? live
                                    ? Messages.of("bench.act.tap-at-each-true-event-as-it-comes")
                                    : Messages.of("bench.act.point-at-each-true-event-in-the")
                            : Messages.of(
                                    "bench.act.are-needed-at-least",
                                    truth.size()
                                            + (truth.size() == 1
                                                    ? Messages.of("bench.act.true-event")
                                                    : Messages.of("bench.act.true-events"))
                                            + FEWEST));
        }
    }

    private void offer() {
        Map<String, Integer> texts = new TreeMap<>();
        for (Mark mark : workspace.shown().marks()) {
            texts.merge(mark.text(), 1, Integer::sum);
        }
        from.getItems().clear();
        texts.forEach((text, n) -> from.getItems().add(Parts.item(Messages.of("bench.act.markers", text, n), () -> {
            workspace.shown().marks().stream()
                    .filter(one -> one.text().equals(text))
                    .forEach(one -> truth.add(one.seconds()));
            tune();
        })));
        for (Rule other : workspace.shown().rig().act().inForce().rules()) {
            boolean own = rule != null && other.name().equals(rule.name());
            if (!own && other instanceof Rule.OnSamples one && one.watch() instanceof Watch.Column) {
                from.getItems()
                        .add(Parts.item(Messages.of("bench.act.each-time-turns-on", one.name()), () -> turnings(one)));
            }
        }
        from.getItems().add(Parts.item(Messages.of("bench.act.a-file-of-times"), this::file));
    }

    /** True events told by another channel, such as a switch beside the sensor. */
    private void turnings(Rule.OnSamples of) {
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        Span sight = sight(snapshot);
        Watched watched = Watched.of(snapshot, of.watch(), sight.from(), sight.to());
        RuleSpans.of(of, watched.seconds(), watched.values()).forEach(on -> truth.add(on.from()));
        tune();
    }

    /** @return what the picture shows of it, in s */
    private Span sight(Snapshot snapshot) {
        return workspace
                .shown()
                .pictured(
                        snapshot,
                        Math.max(
                                ActBench.LEAST_SECONDS,
                                workspace.shown().window().span()));
    }

    private void file() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle(Messages.of("bench.act.a-file-whose-first-column-is-the"));
        File file = chooser.showOpenDialog(getScene().getWindow());
        if (file != null) {
            workspace
                    .tasks()
                    .fetch(
                            Messages.of("bench.act.the-times-could-not-be-read"),
                            () -> times(file.toPath()),
                            this::take);
        }
    }

    /** @return its column of times, or its first one */
    private static double[] times(Path file) throws TakeException {
        Table table = Table.open(file);
        Optional<double[]> times = table.times();
        return times.isPresent() ? times.get() : table.column(table.headers().get(0));
    }

    private void take(double[] times) {
        Arrays.stream(times).filter(Double::isFinite).forEach(truth::add);
        tune();
    }

    private int counted() {
        try {
            return count.getText().isBlank()
                    ? 0
                    : Integer.parseInt(count.getText().strip());
        } catch (NumberFormatException e) {
            workspace.trouble(Messages.of("bench.act.how-many-is-a-whole-number-such-as", count.getText()));
            return 0;
        }
    }

    private void tune() {
        look.run();
    }

    private void read(Snapshot snapshot) {
        int known = truth.isEmpty() ? counted() : 0;
        if (truth.isEmpty() && known < 1) {
            return;
        }
        Span sight = sight(snapshot);
        double first = truth.isEmpty() ? sight.from() : truth.first() - 1;
        double last = truth.isEmpty() ? sight.to() : truth.last() + 1;
        Rule.OnSamples of = rule;
        Watched column = Watched.of(snapshot, of.watch(), first, last);
        double[] times = truth();
        boolean above = of.when() instanceof Condition.Above;
        int mine = ++running;
        says.setText(Messages.of("bench.act.trying-thresholds"));
        workspace
                .tasks()
                .fetch(
                        Messages.of("bench.act.the-threshold-could-not-be-tuned"),
                        () -> {
                            Watched watched =
                                    of.watch() instanceof Watch.Number number ? column.number(number, unit) : column;
                            double within = of.watch() instanceof Watch.Number ? NUMBER_SECONDS : HAND_SECONDS;
                            double[] range = watched.range();
                            if (Double.isNaN(range[0])) {
                                return new Result(null, null);
                            }
                            // Beyond what is usual lies what tells an event.
                            double usual = watched.median();
                            double[] thresholds = above ? even(usual, range[1]) : even(range[0], usual);
                            double[] hystereses = even(0, WIDEST * (range[1] - range[0]));
                            ThresholdMap.Ground ground = times.length > 0
                                    ? ThresholdMap.Ground.of(watched.values(), watched.seconds(), times, within)
                                    : ThresholdMap.Ground.counted(watched.values(), watched.seconds(), known);
                            double dead = of.holds().deadSeconds();
                            return new Result(
                                    ThresholdMap.of(ground, above, thresholds, hystereses, dead),
                                    ThresholdMap.check(ground, above, thresholds, hystereses, dead));
                        },
                        result -> {
                            if (mine == running && rule != null && rule.name().equals(of.name())) {
                                told(result, times.length > 0);
                            }
                        });
    }

    private static double[] even(double from, double to) {
        double[] all = new double[STEPS];
        Arrays.setAll(all, i -> from + (to - from) * i / (STEPS - 1));
        return all;
    }

    private void told(Result result, boolean timed) {
        made = result.map();
        ThresholdMap.Best place = made == null ? null : made.best();
        if (made == null || !(made.f1(place.row(), place.column()) > 0)) {
            forget();
            says.setText(Messages.of("bench.act.no-threshold-tells-these-events-is"));
            return;
        }
        best = at(place.row(), place.column());
        map.show(made, place.row(), place.column(), unit, rule.when() instanceof Condition.Below);
        use.setText(Messages.of("bench.act.use-3", words(best)));
        use.setVisible(true);
        int found = made.found()[place.row()][place.column()];
        int invented = made.invented()[place.row()][place.column()];
        String one = Messages.of(
                "bench.act.finds-of",
                words(best),
                found,
                made.events(),
                (invented == 0
                        ? Messages.of("bench.act.none-of-them-false")
                        : Messages.of("bench.act.and-that-are-none", invented)));
        String room = place.low() == place.high()
                ? Messages.of("bench.act.no-other-threshold-does-as-well")
                : Messages.of(
                        "bench.act.anything-from-to-does-as-well",
                        RuleRow.amount(place.low(), ""),
                        RuleRow.amount(place.high(), unit));
        ThresholdMap.Check check = result.check();
        String half = check == null
                ? timed ? "" : Messages.of("bench.act.only-their-number-was-known-tap")
                : Messages.of(
                        "bench.act.checked-on-the-half-it-was-not",
                        check.found(),
                        check.events(),
                        (check.invented() == 0 ? "." : Messages.of("bench.act.false", check.invented())));
        says.setText(one + room + half);
    }

    private String words(Rule.OnSamples one) {
        return RuleEdits.limits(one.when()).stream()
                        .map(v -> RuleRow.amount(v, unit))
                        .collect(Collectors.joining()) + " \u00b1 " + Digits.about(one.hysteresis() / 2, 3);
    }

    private Rule.OnSamples at(int row, int column) {
        return RuleEdits.hysteresis(
                RuleEdits.when(rule, RuleEdits.moved(rule.when(), 0, NewParts.tidy(made.thresholds()[column]))),
                NewParts.tidy(made.hystereses()[row]));
    }
}
