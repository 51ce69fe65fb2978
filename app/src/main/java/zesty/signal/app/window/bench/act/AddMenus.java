package zesty.signal.app.window.bench.act;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Flicker;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.Snapshot;

/** The ways to a rule or an output more: what there is to watch at this moment, with limits that suit what is in sight. */
final class AddMenus extends HBox {
    private final Workspace workspace;
    private final Consumer<String> chosen;
    private final MenuButton rules = Parts.menu(
            "add-rule", Messages.of("bench.act.a-rule"), Messages.of("bench.act.a-rule-on-a-channel-a-reader-s"));
    private final MenuButton outputs = Parts.menu(
            "add-output", Messages.of("bench.act.an-output"), Messages.of("bench.act.lines-to-a-board-by-a-rule-or"));

    /** @param chosen is told the name of a rule that was added */
    AddMenus(Workspace workspace, Consumer<String> chosen) {
        super(10);
        this.workspace = workspace;
        this.chosen = chosen;
        setAlignment(Pos.CENTER_LEFT);
        rules.setOnShowing(event -> offerRules());
        outputs.setOnShowing(event -> offerOutputs());
        // A menu without an entry does not open, and its entries are those of the moment.
        rules.getItems().setAll(new MenuItem(""));
        outputs.getItems().setAll(new MenuItem(""));
        getChildren().addAll(rules, outputs);
    }

    private List<WatchChoice> choices(Snapshot snapshot) {
        return WatchChoice.of(
                snapshot,
                snapshot.focused(workspace.view().focus().get())
                        .map(one -> one.channel().column())
                        .orElse(""));
    }

    /** Limits begin where they can be seen: three quarters up what is in sight. */
    private double[] start(Snapshot snapshot, Watch watch) {
        Span sight = workspace.shown().pictured(snapshot, ActBench.LEAST_SECONDS);
        Watched seen = Watched.of(snapshot, watch, sight.from(), sight.to());
        double[] range = seen.range();
        if (watch instanceof Watch.Number || Double.isNaN(range[0])) {
            ActSnapshot.RuleNow known = snapshot.act().rules().stream()
                    .filter(one -> one.rule() instanceof Rule.OnSamples on
                            && on.watch().equals(watch))
                    .findFirst()
                    .orElse(null);
            double value = known == null || Double.isNaN(known.value()) ? reading(snapshot, watch) : known.value();
            double about = Double.isNaN(value) ? 1 : value;
            return new double[] {NewParts.tidy(about), NewParts.tidy(1.2 * about), 0};
        }
        double low = NewParts.tidy(range[0] + 0.25 * (range[1] - range[0]));
        double high = NewParts.tidy(range[0] + 0.75 * (range[1] - range[0]));
        double hysteresis = Flicker.hysteresis(seen.values(), seen.rateHz());
        double most = 0.5 * (range[1] - range[0]);
        return new double[] {low, high, hysteresis > 0 && hysteresis < most ? NewParts.tidy(hysteresis) : 0};
    }

    private static double reading(Snapshot snapshot, Watch watch) {
        return watch instanceof Watch.Number one
                ? Optional.ofNullable(Watched.channel(snapshot, watch))
                        .flatMap(channel -> channel.reader(one.kind()))
                        .filter(reader -> reader.reading() != null)
                        .map(reader -> reader.reading().scalar(one.number()))
                        .orElse(Double.NaN)
                : Double.NaN;
    }

    private void offerRules() {
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        List<WatchChoice> choices = choices(snapshot);
        rules.getItems().clear();
        for (WatchChoice choice : choices) {
            rules.getItems()
                    .add(Parts.item(
                            choice.events()
                                    ? Messages.of("bench.act.when-come", choice.words())
                                    : Messages.of("bench.act.when-is-above", choice.words()),
                            () -> added(now -> {
                                double[] at = choice.events() ? null : start(snapshot, choice.watch());
                                return choice.events()
                                        ? NewParts.events(now, choice)
                                        : NewParts.above(now, choice, at[1], at[2]);
                            })));
        }
        snapshot.focused(workspace.view().focus().get())
                .map(ChannelSnapshot::channel)
                .ifPresent(channel -> {
                    WatchChoice choice = WatchChoice.find(choices, new Watch.Column(channel.column()));
                    rules.getItems()
                            .add(Parts.item(
                                    Messages.of("bench.act.which-of-three-bands-is-in", choice.words()),
                                    () -> added(now -> {
                                        double[] at = start(snapshot, choice.watch());
                                        return NewParts.bands(
                                                now, choice, at[0], at[1] > at[0] ? at[1] : at[0] + 1, at[2]);
                                    })));
                });
        List<String> plain = workspace.shown().rig().act().book().rules().stream()
                .filter(one -> !(one instanceof Rule.InBands))
                .map(Rule::name)
                .toList();
        if (!plain.isEmpty()) {
            rules.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.when-is-off", plain.get(plain.size() - 1)),
                            () -> added(now -> NewParts.made(
                                    now, Rule.Together.NOT, plain.subList(plain.size() - 1, plain.size())))));
        }
        if (plain.size() > 1) {
            List<String> two = plain.subList(plain.size() - 2, plain.size());
            rules.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.when-all-of-several-are-on"),
                            () -> added(now -> NewParts.made(now, Rule.Together.ALL, two))));
            rules.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.when-any-of-several-is-on"),
                            () -> added(now -> NewParts.made(now, Rule.Together.ANY, two))));
            rules.getItems()
                    .add(Parts.item(
                            Messages.of("bench.act.when-one-turns-on-soon-after"),
                            () -> added(now -> NewParts.made(now, Rule.Together.THEN, two))));
        }
    }

    private void added(UnaryOperator<ActSetup> change) {
        workspace.acting().change(now -> {
            ActSetup more = change.apply(now);
            chosen.accept(
                    more.book().rules().get(more.book().rules().size() - 1).name());
            return more;
        });
    }

    private void offerOutputs() {
        Snapshot snapshot = workspace.shown().snapshot(System.nanoTime());
        List<WatchChoice> choices = choices(snapshot);
        outputs.getItems().clear();
        for (Rule rule : workspace.shown().rig().act().book().rules()) {
            if (!(rule instanceof Rule.InBands)) {
                outputs.getItems().add(Parts.item(Messages.of("bench.act.on-while-is-on", rule.name()), () -> workspace
                        .acting()
                        .change(now -> NewParts.output(now, rule.name()))));
            }
        }
        for (WatchChoice choice : choices) {
            if (!choice.events()) {
                outputs.getItems().add(Parts.item(Messages.of("bench.act.following", choice.words()), () -> workspace
                        .acting()
                        .change(now -> {
                            double[] at = start(snapshot, choice.watch());
                            return NewParts.output(now, choice.watch(), at[0], at[1] > at[0] ? at[1] : at[0] + 1);
                        })));
            }
        }
    }
}
