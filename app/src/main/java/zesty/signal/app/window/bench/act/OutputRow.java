package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleFunction;
import java.util.function.Function;
import java.util.stream.Collectors;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.OutputUse;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.rig.Source;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;

/** An output: how it stands, and its lines as parts that are pressed. Longer than others: a small method for each part. */
final class OutputRow extends VBox {
    private static final PseudoClass ON = PseudoClass.getPseudoClass("on");
    private static final PseudoClass DRY = PseudoClass.getPseudoClass("dry");
    /** By hand a value is sent so often while the slider is held. */
    private static final double HAND_MS = 150;
    /** Its line may be on its way so long after its rule turned on. */
    private static final double SETTLED_SECONDS = 1;

    private final Workspace workspace;
    private final Rig rig;
    private final Output output;
    private final OutputUse use;
    private final int index;
    private final List<WatchChoice> choices;
    private final Label line = new Label();
    private final Label trouble = new Label();
    private final Gauge gauge = new Gauge();
    private final Slider slider = new Slider(0, 100, 0);
    private Timeline held;

    OutputRow(Workspace workspace, Rig rig, int index, List<WatchChoice> choices) {
        super(3);
        HelpPlace.mark(this, "output");
        this.workspace = workspace;
        this.rig = rig;
        this.index = index;
        this.choices = choices;
        output = rig.act().book().outputs().get(index);
        use = rig.act().use(output.name());
        setId("output-" + index);
        getStyleClass().add("output-row");
        Region dot = new Region();
        dot.getStyleClass().add("output-dot");
        line.getStyleClass().add("output-line");
        line.setWrapText(true);
        trouble.getStyleClass().addAll("hint", "output-trouble");
        trouble.setWrapText(true);
        trouble.managedProperty().bind(trouble.visibleProperty());
        trouble.setVisible(false);
        Pill name = new Pill(
                "output-" + index + "-name",
                output.name(),
                output.name(),
                Messages.of("bench.act.what-it-is-called"),
                typed -> {
                    if (!typed.equals(output.name())) {
                        workspace.acting().change(now -> Renamed.output(now, output.name(), typed));
                    }
                });
        Button off = Bench.button(
                "output-off-" + index, "\u00d7", Messages.of("bench.act.takes-this-output-off-it-is-made"));
        off.setAccessibleText(Messages.of("bench.act.take-off-the-output", output.name()));
        off.setOnAction(event -> workspace.acting().change(now -> now.withoutOutput(output.name())));
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox head = new HBox(8, dot, name, space, live(), off);
        head.setAlignment(Pos.CENTER_LEFT);
        FlowPane parts = new FlowPane(6, 4);
        parts.setAlignment(Pos.CENTER_LEFT);
        parts.getChildren()
                .setAll(output instanceof Output.ByRule one ? byRule(one) : byValue((Output.ByValue) output));
        if (output instanceof Output.ByRule) {
            parts.getChildren().add(hand());
        }
        parts.getChildren()
                .addAll(
                        part(
                                "safe",
                                Messages.of("bench.act.safe", output.safe()),
                                output.safe(),
                                Messages.of("bench.act.the-line-that-makes-it-safe"),
                                text -> NewParts.safe(output, text)),
                        more());
        if (!guardable()) {
            String watch = use.watchdog();
            parts.getChildren()
                    .add(new Pill(
                            "output-" + index + "-watchdog",
                            watch.isEmpty()
                                    ? Messages.of("bench.act.no-watchdog-on-the-board")
                                    : Messages.of("bench.act.board-watches-itself", watch),
                            watch,
                            Messages.of("bench.act.the-line-that-asks-the-board-to"),
                            text -> workspace
                                    .acting()
                                    .change(now -> now.withUse(output.name(), u -> u.withWatchdog(text)))));
        }
        getChildren().addAll(head, line, parts);
        if (output instanceof Output.ByValue) {
            gauge.setMaxWidth(Double.MAX_VALUE);
            getChildren().addAll(gauge, hand());
        }
        getChildren().add(trouble);
    }

    /** @return whether a watchdog of the program can hold its port, or none is needed */
    private boolean guardable() {
        return rig.sources().stream()
                .filter(source -> source.name().equals(use.source()))
                .allMatch(source -> source.setup().address().startsWith("serial:")
                        || source.setup().address().startsWith("sim:"));
    }

    private void put(Output other) {
        // What has just been changed is not overwritten by a row that does not show it yet.
        workspace
                .acting()
                .change(now ->
                        now.book().outputs().contains(output) ? now.withOutput(other, now.use(other.name())) : now);
    }

    private Pill part(String part, String text, String value, String tip, Function<String, Output> with) {
        return new Pill("output-" + index + "-" + part, text, value, tip, typed -> {
            try {
                put(with.apply(typed));
            } catch (NumberFormatException e) {
                workspace.trouble(Messages.of("bench.act.a-number-such-as-10-is-needed-was", typed));
            } catch (IllegalArgumentException e) {
                workspace.trouble(Messages.of("bench.act.the-old-one-stays", e.getMessage()));
            }
        });
    }

    private Pill number(String part, String text, double value, String tip, DoubleFunction<Output> with) {
        return part(part, text, Digits.box(value), tip, typed -> with.apply(Parts.number(typed)));
    }

    private List<Node> byRule(Output.ByRule one) {
        MenuButton rule =
                Parts.menu("output-" + index + "-rule", one.rule(), Messages.of("bench.act.the-rule-it-goes-by"));
        for (Rule other : rig.act().book().rules()) {
            if (!(other instanceof Rule.InBands)) {
                rule.getItems()
                        .add(Parts.item(
                                other.name(),
                                () -> put(new Output.ByRule(
                                        one.name(),
                                        one.safe(),
                                        other.name(),
                                        one.on(),
                                        one.off(),
                                        one.longestOnSeconds()))));
            }
        }
        boolean limited = one.longestOnSeconds() < Double.POSITIVE_INFINITY;
        List<Node> parts = new ArrayList<>();
        parts.add(Parts.words(Messages.of("bench.act.when")));
        parts.add(rule);
        parts.add(part(
                "on",
                one.on(),
                one.on(),
                Messages.of("bench.act.the-line-when-its-rule-turns-on"),
                text -> new Output.ByRule(
                        one.name(), one.safe(), one.rule(), text, one.off(), one.longestOnSeconds())));
        parts.add(Parts.words(Messages.of("bench.act.else")));
        parts.add(part(
                "off",
                one.off(),
                one.off(),
                Messages.of("bench.act.the-line-when-its-rule-turns-off"),
                text -> new Output.ByRule(one.name(), one.safe(), one.rule(), one.on(), text, one.longestOnSeconds())));
        parts.add(part(
                "longest",
                limited
                        ? Messages.of("bench.act.at-most-s", Digits.of(one.longestOnSeconds()))
                        : Messages.of("bench.act.as-long-as-it-is-on"),
                limited ? Digits.box(one.longestOnSeconds()) : "",
                Messages.of("bench.act.after-so-many-seconds-it-is-made"),
                text -> new Output.ByRule(
                        one.name(),
                        one.safe(),
                        one.rule(),
                        one.on(),
                        one.off(),
                        text.isEmpty() ? Double.POSITIVE_INFINITY : Parts.number(text))));
        return parts;
    }

    private Output.ByValue with(Output.ByValue one, Watch watch, double[][] map, double[] shape, String line) {
        return new Output.ByValue(one.name(), one.safe(), watch, map, shape[0], shape[1], shape[2], shape[3], line);
    }

    private static double[] shape(Output.ByValue one) {
        return new double[] {one.smoothSeconds(), one.slewPerSecond(), one.deadZone(), one.periodSeconds()};
    }

    private Output.ByValue shaped(Output.ByValue one, int which, double value) {
        double[] shape = shape(one);
        shape[which] = value;
        return with(one, one.watch(), one.map(), shape, one.line());
    }

    private List<Node> byValue(Output.ByValue one) {
        WatchChoice choice = WatchChoice.find(choices, one.watch());
        MenuButton watch =
                Parts.menu("output-" + index + "-watch", choice.words(), Messages.of("bench.act.what-it-follows"));
        choices.stream().filter(other -> !other.events()).forEach(other -> watch.getItems()
                .add(Parts.item(
                        other.words(), () -> put(with(one, other.watch(), one.map(), shape(one), one.line())))));
        String map = Arrays.stream(one.map())
                .map(p -> Digits.exact(p[0]) + " > " + Digits.exact(p[1]))
                .collect(Collectors.joining("; "));
        String shown = Arrays.stream(one.map())
                .map(p -> Digits.about(p[0], 3) + " \u2192 " + Digits.about(p[1], 3))
                .collect(Collectors.joining(", "));
        boolean percent = rig.act().inPercent().contains(one.name());
        List<Node> parts = new ArrayList<>();
        parts.add(Parts.words(Messages.of("bench.act.follows")));
        parts.add(watch);
        if (percent) {
            parts.add(Parts.words(
                    rig.act().profile().isEmpty()
                            ? Messages.of("bench.act.in-of-a-profile-none-is-chosen")
                            : Messages.of("bench.act.in-of", rig.act().profile())));
        }
        parts.add(part(
                "map",
                one.map().length == 0 ? Messages.of("bench.act.as-it-is") : shown,
                map,
                Messages.of("bench.act.points-of-in-out-parted-by"),
                text -> with(one, one.watch(), points(text), shape(one), one.line())));
        parts.add(part(
                "line",
                one.line(),
                one.line(),
                Messages.of("bench.act.the-line-with-value-in-it"),
                text -> with(one, one.watch(), one.map(), shape(one), text)));
        parts.add(number(
                "smooth",
                Messages.of("bench.act.smoothed-over-s", Digits.of(one.smoothSeconds())),
                one.smoothSeconds(),
                Messages.of("bench.act.the-larger-the-calmer-and-the"),
                v -> shaped(one, 0, v)));
        boolean slewed = one.slewPerSecond() < Double.POSITIVE_INFINITY;
        parts.add(part(
                "slew",
                slewed
                        ? Messages.of("bench.act.at-most-s-2", Digits.of(one.slewPerSecond()))
                        : Messages.of("bench.act.at-any-speed"),
                slewed ? Digits.box(one.slewPerSecond()) : "",
                Messages.of("bench.act.the-greatest-change-in-a-second"),
                text -> shaped(one, 1, text.isEmpty() ? Double.POSITIVE_INFINITY : Parts.number(text))));
        parts.add(number(
                "zone",
                Messages.of("bench.act.steps-of", Digits.of(one.deadZone())),
                one.deadZone(),
                Messages.of("bench.act.dead-zone-nothing-is-sent-unless"),
                v -> shaped(one, 2, v)));
        return parts;
    }

    private static double[][] points(String text) {
        return text.isBlank()
                ? new double[0][]
                : Arrays.stream(text.split(";"))
                        .map(point -> {
                            String[] ends = point.split(">");
                            if (ends.length != 2) {
                                throw new IllegalArgumentException(
                                        Messages.of("bench.act.each-point-is-in-out-such-as-0-0"));
                            }
                            return new double[] {Parts.number(ends[0]), Parts.number(ends[1])};
                        })
                        .toArray(double[][]::new);
    }

    private ToggleButton live() {
        ToggleButton live =
                new ToggleButton(use.live() ? Messages.of("bench.act.sends") : Messages.of("bench.act.dry-run"));
        live.setId("output-live-" + index);
        live.getStyleClass().add("small-button");
        live.setSelected(use.live());
        live.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(live, Messages.of("bench.act.a-dry-run-shows-what-would-be-sent"));
        live.setOnAction(event ->
                workspace.acting().change(now -> now.withUse(output.name(), u -> u.withLive(live.isSelected()))));
        return live;
    }

    private MenuButton more() {
        String says = use.caution() == Caution.HEAT ? "heats" : use.caution() == Caution.MOVING ? "moves" : "harmless";
        MenuButton menu = Parts.menu(
                "output-" + index + "-more", says, Messages.of("bench.act.whether-it-heats-or-moves-so-that"));
        menu.getItems()
                .addAll(
                        Parts.item(Messages.of("bench.act.harmless"), () -> workspace
                                .acting()
                                .change(now -> now.withUse(output.name(), u -> u.withCaution(null)))),
                        Parts.item(Messages.of("bench.act.heats"), () -> workspace
                                .acting()
                                .change(now -> now.withUse(output.name(), u -> u.withCaution(Caution.HEAT)))),
                        Parts.item(Messages.of("bench.act.moves"), () -> workspace
                                .acting()
                                .change(now -> now.withUse(output.name(), u -> u.withCaution(Caution.MOVING)))));
        if (output instanceof Output.ByValue) {
            CheckMenuItem percent = new CheckMenuItem(Messages.of("bench.act.follows-percents-of-a-profile"));
            percent.setSelected(rig.act().inPercent().contains(output.name()));
            percent.setOnAction(
                    event -> workspace.acting().change(now -> now.withPercent(output.name(), percent.isSelected())));
            menu.getItems().add(percent);
        }
        for (Source source : rig.sources()) {
            if (rig.sources().size() > 1) {
                CheckMenuItem on = new CheckMenuItem(Messages.of(
                        "bench.act.on-the-board",
                        (source.name().isEmpty() ? source.setup().address() : source.name())));
                on.setSelected(use.source().equals(source.name()));
                on.setOnAction(event ->
                        workspace.acting().change(now -> now.withUse(output.name(), u -> u.withSource(source.name()))));
                menu.getItems().add(on);
            }
        }
        return menu;
    }

    /** By hand: as long as it is held. */
    private Node hand() {
        if (output instanceof Output.ByRule one) {
            Button hold = Bench.button(
                    "output-hold-" + index,
                    Messages.of("bench.act.hold-to-turn-on"),
                    Messages.of("bench.act.sends-the-line-while-it-is-held"));
            whileHeld(hold, () -> workspace.acting().byHand(one.name(), one.on()));
            return hold;
        }
        Output.ByValue one = (Output.ByValue) output;
        double low = Arrays.stream(one.map()).mapToDouble(p -> p[1]).min().orElse(0);
        double high = Arrays.stream(one.map()).mapToDouble(p -> p[1]).max().orElse(100);
        slider.setId("output-hand-" + index);
        slider.setMin(low);
        slider.setMax(high > low ? high : low + 1);
        Tip.on(slider, Messages.of("bench.act.by-hand-as-long-as-it-is-held"));
        whileHeld(slider, () -> send(one));
        HBox.setHgrow(slider, Priority.ALWAYS);
        HBox row = new HBox(8, Parts.words(Messages.of("bench.act.by-hand")), slider);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void whileHeld(Node node, Runnable again) {
        node.setOnMousePressed(event -> {
            held = new Timeline(new KeyFrame(Duration.millis(HAND_MS), tick -> again.run()));
            held.setCycleCount(Animation.INDEFINITE);
            held.play();
            again.run();
        });
        node.setOnMouseReleased(event -> letGo());
        // A bench that is left by a key, or a row that is made anew, hears of no release.
        node.sceneProperty().addListener((p, was, is) -> {
            if (is == null && held != null) {
                letGo();
            }
        });
    }

    private void letGo() {
        if (held != null) {
            held.stop();
            held = null;
        }
        workspace.acting().letGo(output.name());
    }

    private void send(Output.ByValue one) {
        workspace
                .acting()
                .byHand(
                        one.name(),
                        one.line().replace("{value}", Digits.exact(Math.rint(slider.getValue() * 10) / 10)));
    }

    /** Shows how it stands, at seconds of the trail. */
    void show(ActSnapshot all, double seconds) {
        ActSnapshot.OutputNow now = index < all.outputs().size() ? all.outputs().get(index) : null;
        boolean on = now != null && !now.safe();
        pseudoClassStateChanged(ON, on);
        pseudoClassStateChanged(DRY, now == null || !now.drives());
        String said = now == null || now.line().isEmpty() ? Messages.of("bench.act.nothing-sent") : now.line();
        line.setText(
                now != null && now.drives() && !now.answer().isEmpty()
                        ? Messages.of("bench.act.answered", said)
                        : said);
        Tip.on(line, now == null ? null : now.answer());
        boolean unread = use.live() && use.takesCare().isPresent() && !rig.drives(output.name());
        String why =
                unread ? Messages.of("bench.act.nothing-is-sent-before-its-caution") : now == null ? "" : now.trouble();
        if (why.isEmpty() && waitsForOff(all, now, seconds)) {
            why = Messages.of("bench.act.safe-until-has-been-off-once", ((Output.ByRule) output).rule());
        }
        trouble.setText(why);
        trouble.setVisible(!why.isEmpty());
        if (output instanceof Output.ByValue one) {
            gauge.show(value(one, said), slider.getMin(), slider.getMax(), on);
        }
    }

    /** @return whether its rule is on, and it is not, for it was made safe meanwhile */
    private boolean waitsForOff(ActSnapshot all, ActSnapshot.OutputNow now, double seconds) {
        boolean planned = all.plan() != null
                && all.plan().ended().isEmpty()
                && all.plan().output().equals(output.name());
        return output instanceof Output.ByRule one
                && now != null
                && now.drives()
                && now.safe()
                && all.held().isEmpty()
                && !planned
                && all.rules().stream()
                        .anyMatch(rule -> rule.isOn()
                                && rule.rule().name().equals(one.rule())
                                && seconds - rule.sinceSeconds() > SETTLED_SECONDS);
    }

    /** @return the number in the line that was sent last; NaN where there is none */
    private static double value(Output.ByValue one, String line) {
        int at = one.line().indexOf("{value}");
        String head = one.line().substring(0, at);
        String tail = one.line().substring(at + "{value}".length());
        if (line.length() < head.length() + tail.length() || !line.startsWith(head) || !line.endsWith(tail)) {
            return Double.NaN;
        }
        try {
            return Double.parseDouble(line.substring(head.length(), line.length() - tail.length()));
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }
}
