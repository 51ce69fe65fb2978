package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.DoubleFunction;
import java.util.stream.Collectors;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Profile;
import zesty.signal.core.act.Rule;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;

/** A rule as a sentence whose parts are pressed. Longer than others: a small method for each part of the sentence. */
final class RuleRow extends HBox {
    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");
    private static final PseudoClass ON = PseudoClass.getPseudoClass("on");

    private final Workspace workspace;
    private final ActSetup act;
    private final Rule rule;
    private final int index;
    private final List<WatchChoice> choices;
    private final double spread;
    private final Label state = new Label();
    private final FlowPane sentence = new FlowPane(6, 4);

    /** @param spread about how far what it watches ranges, for limits that are new */
    RuleRow(Workspace workspace, ActSetup act, int index, List<WatchChoice> choices, double spread, Runnable choose) {
        super(8);
        this.workspace = workspace;
        this.act = act;
        this.index = index;
        this.choices = choices;
        this.spread = spread;
        rule = act.book().rules().get(index);
        setId("rule-" + index);
        getStyleClass().add("rule-row");
        setAlignment(Pos.CENTER_LEFT);
        Region bar = new Region();
        bar.getStyleClass().add("rule-bar");
        bar.setStyle("-fx-background-color: "
                + Palette.css(Palette.channel(index), workspace.view().night().get()));
        state.getStyleClass().add("rule-state");
        state.setMinWidth(Region.USE_PREF_SIZE);
        sentence.setAlignment(Pos.CENTER_LEFT);
        sentence.setRowValignment(javafx.geometry.VPos.CENTER);
        HBox.setHgrow(sentence, Priority.ALWAYS);
        fill();
        Button off =
                Bench.button("rule-off-" + index, "\u00d7", Messages.of("bench.act.takes-this-rule-off-u-undoes-it"));
        off.setAccessibleText(Messages.of("bench.act.take-off-the-rule", rule.name()));
        off.setOnAction(event -> workspace.acting().change(now -> now.withoutRule(rule.name())));
        getChildren().addAll(bar, sentence, state, off);
        addEventFilter(MouseEvent.MOUSE_PRESSED, event -> choose.run());
    }

    Rule rule() {
        return rule;
    }

    void chosen(boolean is) {
        pseudoClassStateChanged(CHOSEN, is);
    }

    /** Shows how it stands now; null where nothing runs. */
    void show(ActSnapshot.RuleNow now, double seconds) {
        boolean on = now != null && now.isOn();
        pseudoClassStateChanged(ON, on);
        if (now == null) {
            state.setText("");
        } else if (!now.found()) {
            state.setText(Messages.of("bench.act.waits-for-its-channel"));
        } else if (rule instanceof Rule.InBands bands) {
            state.setText(now.state() < 0 ? "" : lamps(bands.edges().length + 1, now.state()));
        } else {
            state.setText(
                    on && now.sinceSeconds() == now.sinceSeconds()
                            ? Messages.of("bench.act.on-s", Digits.fixed(Math.max(0, seconds - now.sinceSeconds()), 0))
                            : now.timesOn() == 0
                                    ? Messages.of("bench.act.off")
                                    : Messages.of("bench.act.off-2", now.timesOn()));
        }
    }

    /** @return a lamp a band, the one it is in lit */
    private static String lamps(int count, int lit) {
        StringBuilder lamps = new StringBuilder();
        for (int i = 0; i < count; i++) {
            lamps.append(i == lit ? "\u25cf " : "\u25cb ");
        }
        return lamps.toString().strip();
    }

    private void put(Rule other) {
        // A sentence that has just got another name writes none under the old one.
        workspace.acting().change(now -> now.book().rules().contains(rule) ? now.withRule(other) : now);
    }

    private Pill number(String part, String text, double value, String tip, DoubleFunction<Rule> with) {
        return new Pill("rule-" + index + "-" + part, text, Digits.box(value), tip, typed -> {
            try {
                put(with.apply(Parts.number(typed)));
            } catch (NumberFormatException e) {
                workspace.trouble(Messages.of("bench.act.a-number-such-as-60-is-needed-was", typed));
            } catch (IllegalArgumentException e) {
                workspace.trouble(Messages.of("bench.act.the-old-one-stays", e.getMessage()));
            }
        });
    }

    private void fill() {
        List<Node> parts = new ArrayList<>();
        parts.add(new Pill(
                "rule-" + index + "-name",
                rule.name(),
                rule.name(),
                Messages.of("bench.act.what-it-is-called"),
                this::rename));
        if (rule instanceof Rule.OnSamples one) {
            onSamples(parts, one);
        } else if (rule instanceof Rule.InBands bands) {
            inBands(parts, bands);
        } else {
            made(parts, (Rule.Made) rule);
        }
        if (!(rule instanceof Rule.InBands)) {
            parts.add(new RuleMenu(workspace, act, rule, "rule-" + index + "-deeds").button());
        }
        sentence.getChildren().setAll(parts);
    }

    private void rename(String name) {
        if (!name.equals(rule.name())) {
            workspace.acting().change(now -> Renamed.rule(now, rule.name(), name));
        }
    }

    private void onSamples(List<Node> parts, Rule.OnSamples one) {
        WatchChoice choice = WatchChoice.find(choices, one.watch());
        String unit = act.inPercent().contains(one.name()) ? "%" : choice.unit();
        parts.add(Parts.words(Messages.of("bench.act.when")));
        parts.add(watch(choice, watch -> put(RuleEdits.watching(one, watch)), one.when() instanceof Condition.Events));
        if (one.when() instanceof Condition.Events events) {
            parts.add(Parts.words(Messages.of("bench.act.come")));
            parts.add(number(
                    "count",
                    events.count() + "\u00d7",
                    events.count(),
                    Messages.of("bench.act.how-many"),
                    v -> RuleEdits.when(one, new Condition.Events((int) v, events.withinSeconds()))));
            parts.add(Parts.words(Messages.of("bench.act.within")));
            parts.add(number(
                    "within",
                    seconds(events.withinSeconds()),
                    events.withinSeconds(),
                    Messages.of("bench.act.within-how-long"),
                    v -> RuleEdits.when(one, new Condition.Events(events.count(), v))));
        } else {
            condition(parts, one, unit);
        }
        if (one.holds().deadSeconds() > 0) {
            parts.add(Parts.words(Messages.of("bench.act.not-again-within")));
            parts.add(number(
                    "dead",
                    seconds(one.holds().deadSeconds()),
                    one.holds().deadSeconds(),
                    Messages.of("bench.act.no-turn-sooner-than-that-after-the"),
                    v -> RuleEdits.holds(one, RuleEdits.holds(one.holds(), 2, v))));
        }
        if (one.holds().latch()) {
            parts.add(Parts.words(Messages.of("bench.act.until")));
            Button acknowledge = Bench.button(
                    "rule-" + index + "-acknowledge",
                    "acknowledged",
                    Messages.of("bench.act.lets-go-of-it-it-turns-off-by-its"));
            acknowledge.setOnAction(event -> workspace.acting().acknowledge(one.name()));
            parts.add(acknowledge);
        }
    }

    private void condition(List<Node> parts, Rule.OnSamples one, String unit) {
        RuleEdits.When kind = RuleEdits.When.of(one.when());
        MenuButton when =
                Parts.menu("rule-" + index + "-when", kind.words, Messages.of("bench.act.what-is-asked-of-it"));
        for (RuleEdits.When other : RuleEdits.When.values()) {
            when.getItems()
                    .add(Parts.item(
                            other.words, () -> put(RuleEdits.when(one, RuleEdits.as(one.when(), other, spread)))));
        }
        parts.add(when);
        List<Double> limits = RuleEdits.limits(one.when());
        for (int i = 0; i < limits.size(); i++) {
            int which = i;
            if (i == 1) {
                parts.add(Parts.words(Messages.of("bench.act.and")));
            }
            parts.add(number(
                    "limit" + (i == 0 ? "" : "2"),
                    amount(limits.get(i), unit),
                    limits.get(i),
                    Messages.of("bench.act.the-limit-write-it-or-drag-it-in"),
                    v -> RuleEdits.when(one, RuleEdits.moved(one.when(), which, v))));
        }
        if (one.when() instanceof Condition.Rising slope) {
            slope(parts, one, slope.limit(), slope.overSeconds(), unit, true);
        } else if (one.when() instanceof Condition.Falling slope) {
            slope(parts, one, slope.limit(), slope.overSeconds(), unit, false);
        } else if (one.when() instanceof Condition.Silent silent) {
            parts.add(number(
                    "silent",
                    seconds(silent.forSeconds()),
                    silent.forSeconds(),
                    Messages.of("bench.act.how-long-nothing-comes"),
                    v -> RuleEdits.when(one, new Condition.Silent(v))));
            return;
        }
        parts.add(number(
                "hysteresis",
                "\u00b1 " + amount(one.hysteresis() / 2, unit),
                one.hysteresis() / 2,
                Messages.of("bench.act.hysteresis-it-turns-on-so-far"),
                v -> RuleEdits.hysteresis(one, 2 * v)));
        parts.add(number(
                "for",
                Messages.of("bench.act.for-2", seconds(one.holds().forSeconds())),
                one.holds().forSeconds(),
                Messages.of("bench.act.how-long-it-must-be-so-without-a"),
                v -> RuleEdits.holds(one, RuleEdits.holds(one.holds(), 0, v))));
        if (one.holds().offForSeconds() > 0) {
            parts.add(number(
                    "off-for",
                    Messages.of("bench.act.off-after", seconds(one.holds().offForSeconds())),
                    one.holds().offForSeconds(),
                    Messages.of("bench.act.how-long-it-must-be-over-before-it"),
                    v -> RuleEdits.holds(one, RuleEdits.holds(one.holds(), 1, v))));
        }
        if (act.inPercent().contains(one.name())) {
            Profile.Span span = act.span(one).orElse(null);
            WatchChoice choice = WatchChoice.find(choices, one.watch());
            parts.add(Parts.words(
                    span == null
                            ? Messages.of("bench.act.of-a-profile-none-is-measured-yet")
                            : limits.stream()
                                    .map(limit -> "= " + amount(span.at(limit), choice.unit()))
                                    .collect(Collectors.joining(", "))));
        }
    }

    private void slope(List<Node> parts, Rule.OnSamples one, double limit, double over, String unit, boolean up) {
        DoubleFunction<Condition> at = v -> up ? new Condition.Rising(v, over) : new Condition.Falling(v, over);
        parts.add(number(
                "limit",
                amount(limit, unit + "/s"),
                limit,
                Messages.of("bench.act.the-slope-in-a-second"),
                v -> RuleEdits.when(one, at.apply(v))));
        parts.add(Parts.words(Messages.of("bench.act.over")));
        parts.add(number(
                "over",
                seconds(over),
                over,
                Messages.of("bench.act.the-slope-is-that-of-so-long-a"),
                v -> RuleEdits.when(one, up ? new Condition.Rising(limit, v) : new Condition.Falling(limit, v))));
    }

    private MenuButton watch(WatchChoice now, Consumer<zesty.signal.core.act.Watch> with, boolean events) {
        MenuButton menu = Parts.menu(
                "rule-" + index + "-watch", now.words(), Messages.of("bench.act.what-it-watches-a-channel-or-a"));
        for (WatchChoice other : choices) {
            if (other.events() == events) {
                menu.getItems().add(Parts.item(other.words(), () -> with.accept(other.watch())));
            }
        }
        return menu;
    }

    private void inBands(List<Node> parts, Rule.InBands bands) {
        WatchChoice choice = WatchChoice.find(choices, bands.watch());
        parts.add(Parts.words(Messages.of("bench.act.says-which-band")));
        parts.add(watch(
                choice,
                watch -> put(
                        new Rule.InBands(bands.name(), watch, bands.edges(), bands.hysteresis(), bands.leastSeconds())),
                false));
        parts.add(Parts.words(Messages.of("bench.act.is-in-parted-at")));
        String edges =
                java.util.Arrays.stream(bands.edges()).mapToObj(Digits::exact).collect(Collectors.joining("; "));
        parts.add(new Pill(
                "rule-" + index + "-bands",
                edges.replace('-', '\u2212') + (choice.unit().isEmpty() ? "" : " " + choice.unit()),
                edges,
                Messages.of("bench.act.edges-of-the-bands-rising-parted"),
                typed -> {
                    try {
                        double[] all = java.util.Arrays.stream(typed.split(";"))
                                .mapToDouble(Digits::typed)
                                .toArray();
                        put(new Rule.InBands(
                                bands.name(), bands.watch(), all, bands.hysteresis(), bands.leastSeconds()));
                    } catch (NumberFormatException e) {
                        workspace.trouble(Messages.of("bench.act.edges-are-numbers-parted-by-such"));
                    } catch (IllegalArgumentException e) {
                        workspace.trouble(Messages.of("bench.act.the-old-ones-stay", e.getMessage()));
                    }
                }));
        parts.add(number(
                "hysteresis",
                "\u00b1 " + amount(bands.hysteresis() / 2, choice.unit()),
                bands.hysteresis() / 2,
                Messages.of("bench.act.hysteresis-of-every-edge"),
                v -> new Rule.InBands(bands.name(), bands.watch(), bands.edges(), 2 * v, bands.leastSeconds())));
        parts.add(number(
                "least",
                Messages.of("bench.act.for-2", seconds(bands.leastSeconds())),
                bands.leastSeconds(),
                Messages.of("bench.act.how-long-another-band-must-be"),
                v -> new Rule.InBands(bands.name(), bands.watch(), bands.edges(), bands.hysteresis(), v)));
    }

    private void made(List<Node> parts, Rule.Made made) {
        String how =
                switch (made.how()) {
                    case ALL -> Messages.of("bench.act.when-all-are-on");
                    case ANY -> Messages.of("bench.act.when-any-is-on");
                    case NOT -> Messages.of("bench.act.when-this-is-off");
                    case THEN -> Messages.of("bench.act.when-these-turn-on-in-this-order");
                };
        parts.add(Parts.words(how));
        MenuButton which = Parts.menu(
                "rule-" + index + "-parts",
                String.join(", ", made.parts()),
                Messages.of("bench.act.which-rules-it-is-made-of"));
        for (Rule above : act.book().rules().subList(0, index)) {
            if (!(above instanceof Rule.InBands)) {
                which.getItems()
                        .add(Parts.item(
                                made.parts().contains(above.name()) && made.how() != Rule.Together.NOT
                                        ? Messages.of("bench.act.without", above.name())
                                        : above.name(),
                                () -> toggle(made, above.name())));
            }
        }
        parts.add(which);
        if (made.how() == Rule.Together.THEN) {
            parts.add(Parts.words(Messages.of("bench.act.within")));
            parts.add(number(
                    "within",
                    seconds(made.withinSeconds()),
                    made.withinSeconds(),
                    Messages.of("bench.act.how-soon-the-second-must-follow"),
                    v -> new Rule.Made(made.name(), made.how(), made.parts(), v)));
        }
    }

    private void toggle(Rule.Made made, String name) {
        List<String> parts = new ArrayList<>(made.parts());
        if (made.how() == Rule.Together.NOT) {
            parts = List.of(name);
        } else if (!parts.remove(name)) {
            parts.add(name);
            if (made.how() == Rule.Together.THEN && parts.size() > 2) {
                parts.remove(0);
            }
        }
        try {
            put(new Rule.Made(made.name(), made.how(), parts, made.withinSeconds()));
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage() + ".");
        }
    }

    private static String seconds(double seconds) {
        return Digits.of(seconds) + " s";
    }

    static String amount(double value, String unit) {
        String number = Digits.about(value, 4);
        return unit.isEmpty() ? number : number + " " + unit;
    }
}
