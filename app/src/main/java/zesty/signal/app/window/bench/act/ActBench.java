package zesty.signal.app.window.bench.act;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.workspace.Span;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Condition;
import zesty.signal.core.act.Flicker;
import zesty.signal.core.act.Rule;
import zesty.signal.core.act.RuleSpans;
import zesty.signal.core.act.Watch;
import zesty.signal.core.rig.ActSetup;
import zesty.signal.core.rig.BandSetup;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.scale.Line;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.BandSnapshot;
import zesty.signal.engine.Snapshot;

/** Act: rules as sentences under the picture of what the chosen one watches; beside it outputs, the map for a threshold, and the log. Longer than others: it keeps the parts of the bench in step with one chosen rule. */
public final class ActBench extends Bench {
    /** The picture shows this much at least. */
    static final double LEAST_SECONDS = 60;
    /** A number over the stretch in sight is worked out anew so often. */
    private static final double NUMBER_EVERY_NANOS = 2e9;
    /** As often in sight it may flicker; less often nobody is bothered. */
    private static final int FLICKER_TURNS = 6;

    private final ActPicture picture = new ActPicture();
    private final Label summary = new Label();
    private final Button calm = Bench.button(
            "use-hysteresis", Messages.of("bench.act.use"), Messages.of("bench.act.the-hysteresis-that-the-measured"));
    private final VBox rows = new VBox(3);
    private final VBox outputs = new VBox(6);
    private final Label outputsTitle = new Label(Messages.of("bench.act.outputs"));
    private final DecisionLines decisions = new DecisionLines();
    private final TuningPanel tuning;
    private final PlanPanel steps;
    private final ProfileMenu profile;
    private final Button today;
    private String chosen = "";
    private String seenFocus = "";
    private List<String> ruleNames = List.of();
    private Rig filled;
    private List<WatchChoice> choices = List.of();
    private List<String> choicesFor = List.of();
    private Watched number;
    private Watch numberOf;
    private double numberNanos;
    private double proposed = Double.NaN;

    public ActBench(Workspace workspace) {
        super(workspace, Stop.ACT);
        tuning = new TuningPanel(workspace, this::adopt, picture::attempt);
        profile = new ProfileMenu(workspace);
        steps = new PlanPanel(workspace);
        picture.on(this::adopt, tuning::pointed);
        summary.setId("act-summary");
        summary.getStyleClass().add("hint");
        summary.setMinWidth(0);
        calm.managedProperty().bind(calm.visibleProperty());
        calm.setVisible(false);
        calm.setOnAction(event -> inForce().ifPresent(rule -> adopt(RuleEdits.widened(rule, proposed))));
        outputsTitle.getStyleClass().add("kinds-title");
        Button board = Bench.button(
                "show-scoreboard",
                Messages.of("bench.act.scoreboard"),
                Messages.of("bench.act.points-in-digits-that-are-read"));
        board.setOnAction(event -> workspace.view().scoreboard().set(true));
        today = Bench.button(
                "todays-rules",
                Messages.of("bench.act.today-s-rules"),
                Messages.of("bench.act.what-the-live-rig-would-have"));
        today.managedProperty().bind(today.visibleProperty());
        today.setVisible(false);
        today.setOnAction(
                event -> workspace.acting().change(now -> workspace.live().rig().act()));
        Button code = Bench.button(
                "portable-rules",
                Messages.of("bench.act.board-code-c"),
                Messages.of("bench.act.scaling-recipe-and-rules-of-this"));
        code.setOnAction(event -> focused(workspace.shown().snapshot(System.nanoTime()))
                .filter(one -> one.raw() != null)
                .ifPresent(workspace.planning()::portable));
        atHead(today, profile.node(), board, code);
        HBox line = new HBox(10, summary, calm);
        line.setAlignment(Pos.CENTER_LEFT);
        AddMenus more = new AddMenus(workspace, name -> chosen = name);
        PlainScroll list = new PlainScroll(new VBox(6, rows, more, steps));
        list.setPrefHeight(236);
        list.setMinHeight(96);
        VBox left = new VBox(6, picture, line, list);
        VBox.setVgrow(picture, Priority.ALWAYS);
        VBox inside = new VBox(10, outputsTitle, outputs, tuning, decisions);
        PlainScroll side = new PlainScroll(inside);
        side.setId("act-side");
        side.setPrefWidth(410);
        side.setMinWidth(300);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox all = new HBox(18, left, side);
        VBox.setVgrow(all, Priority.ALWAYS);
        getChildren().add(all);
    }

    @Override
    public void opened(Snapshot snapshot) {
        filled = null;
        seenFocus = "";
        show(snapshot);
    }

    private ActSetup act() {
        return workspace.shown().rig().act();
    }

    /** @return the chosen rule with its limits as values, where it watches something */
    private Optional<Rule> watching() {
        return act().inForce().rules().stream()
                .filter(one -> one.name().equals(chosen) && RuleEdits.watch(one) != null)
                .findFirst();
    }

    /** @return the same, of a rule with a condition */
    private Optional<Rule.OnSamples> inForce() {
        return watching().filter(Rule.OnSamples.class::isInstance).map(Rule.OnSamples.class::cast);
    }

    /** Takes a rule whose limits are values, as it was dragged or found. */
    private void adopt(Rule inValues) {
        if (band().isPresent() && ((Rule.OnSamples) inValues).when() instanceof Condition.Outside edges) {
            BandSetup moved = BandRow.moved(band().get(), edges);
            workspace.change(rig -> rig.withBand(moved));
            return;
        }
        workspace.acting().change(now -> {
            boolean percent = now.inPercent().contains(inValues.name());
            return now.withRule(
                    percent && inValues instanceof Rule.OnSamples one
                            ? now.span(one)
                                    .map(span -> NewParts.inPercent(one, span))
                                    .orElse(one)
                            : inValues);
        });
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        follow(snapshot);
        refill(snapshot);
        today.setVisible(
                !workspace.shown().isLive() && !workspace.live().rig().act().equals(act()));
        ActSnapshot now = snapshot.act();
        double seconds = snapshot.nowSeconds(System.nanoTime());
        for (Node node : rows.getChildren()) {
            if (node instanceof RuleRow row) {
                row.chosen(row.rule().name().equals(chosen));
                row.show(find(now, row.rule().name()), seconds);
            } else if (node instanceof BandRow row) {
                row.chosen(BandRow.key(row.setup()).equals(chosen));
                row.show(find(snapshot, row.setup()));
            }
        }
        for (Node node : outputs.getChildren()) {
            ((OutputRow) node).show(now, seconds);
        }
        steps.show(snapshot, focused(snapshot).orElse(null));
        decisions.show(now.log());
        profile.show(act(), inForce().orElse(null), number);
        draw(snapshot);
    }

    /** A channel that comes into focus brings its own rule into the picture. */
    private void follow(Snapshot snapshot) {
        String focus = focused(snapshot).map(one -> one.channel().column()).orElse("");
        if (focus.equals(seenFocus)) {
            return;
        }
        seenFocus = focus;
        boolean own = watching()
                .map(one -> WatchChoice.column(RuleEdits.watch(one)).equals(focus))
                .orElse(false);
        if (!own) {
            choose(snapshot.rig().act().book().rules().stream()
                    .filter(one -> RuleEdits.watch(one) != null
                            && WatchChoice.column(RuleEdits.watch(one)).equals(focus))
                    .map(Rule::name)
                    .findFirst()
                    .or(() -> bandOn(focus))
                    .orElse(""));
        }
    }

    private static ActSnapshot.RuleNow find(ActSnapshot now, String name) {
        return now.rules().stream()
                .filter(one -> one.rule().name().equals(name))
                .findFirst()
                .orElse(null);
    }

    private static BandSnapshot find(Snapshot snapshot, BandSetup setup) {
        return snapshot.channels().stream()
                .flatMap(channel -> channel.readers().stream())
                .filter(reader -> reader.setup().id().equals(setup.reader()))
                .flatMap(reader -> reader.band(setup.scalar()).stream())
                .findFirst()
                .orElse(null);
    }

    /** A chosen rule that has got another name stays chosen. */
    private void renamed(List<Rule> now) {
        List<String> names = now.stream().map(Rule::name).toList();
        int was = ruleNames.indexOf(chosen);
        if (was >= 0 && !names.contains(chosen) && names.size() == ruleNames.size()) {
            chosen = names.get(was);
        }
        ruleNames = names;
    }

    private Optional<String> bandOn(String column) {
        Rig rig = workspace.shown().rig();
        return rig.readersOn(column).stream()
                .flatMap(reader -> rig.bandsOn(reader.id()).stream())
                .map(BandRow::key)
                .findFirst();
    }

    /** Sentences are made anew only where something of them changed: somebody may be writing in one. */
    private void refill(Snapshot snapshot) {
        Rig rig = workspace.shown().rig();
        String focus = focused(snapshot).map(one -> one.channel().column()).orElse("");
        choices = WatchChoice.of(snapshot, focus);
        List<String> named =
                choices.stream().map(one -> one.words() + one.unit()).toList();
        if (filled != null && isWriting()) {
            return;
        }
        if (filled != null
                && filled.act().equals(rig.act())
                && filled.bands().equals(rig.bands())
                && filled.acknowledged().equals(rig.acknowledged())
                && named.equals(choicesFor)) {
            return;
        }
        filled = rig;
        choicesFor = named;
        List<Node> made = new ArrayList<>();
        ActSetup act = rig.act();
        renamed(act.book().rules());
        double spread = focused(snapshot).map(one -> 4 * one.level().noise()).orElse(1.0);
        for (int r = 0; r < act.book().rules().size(); r++) {
            String name = act.book().rules().get(r).name();
            made.add(new RuleRow(workspace, act, r, choices, spread > 0 ? spread : 1, () -> picked(name)));
        }
        for (int b = 0; b < rig.bands().size(); b++) {
            String key = BandRow.key(rig.bands().get(b));
            made.add(new BandRow(workspace, rig, b, () -> choose(key)));
        }
        if (act.book().rules().isEmpty()) {
            made.add(0, Bench.small(Messages.of("bench.act.no-rule-yet-a-rule-watches-a")));
        }
        rows.getChildren().setAll(made);
        List<Node> out = new ArrayList<>();
        for (int o = 0; o < act.book().outputs().size(); o++) {
            out.add(new OutputRow(workspace, rig, o, choices));
        }
        outputs.getChildren().setAll(out);
        outputsTitle.setVisible(!out.isEmpty());
        outputsTitle.setManaged(!out.isEmpty());
    }

    /** The lane above is that of what the rule watches. */
    private void picked(String name) {
        choose(name);
        watching().ifPresent(rule -> {
            seenFocus = WatchChoice.column(RuleEdits.watch(rule));
            workspace.view().focus().set(seenFocus);
        });
    }

    /** @return whether somebody writes in one of the sentences */
    private boolean isWriting() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        for (Node node = owner instanceof TextField ? owner : null; node != null; node = node.getParent()) {
            if (node == rows || node == outputs) {
                return true;
            }
        }
        return false;
    }

    private void choose(String name) {
        if (!name.equals(chosen)) {
            chosen = name;
            number = null;
        }
    }

    /** The range of a reader's number, as it was looked at twice a second. */
    private void drawBand(Snapshot snapshot, BandSetup band) {
        BandSnapshot seen = find(snapshot, band);
        String unit = BandRow.unit(workspace.shown().rig(), band);
        Watched watched =
                seen == null ? Watched.nothing(unit) : new Watched(seen.seconds(), seen.values(), 2, Line.SAME, unit);
        Rule.OnSamples rule = BandRow.asRule(workspace.shown().rig(), band);
        List<RuleSpans.On> spans = picture.show(
                workspace.view().night().get(),
                watched,
                workspace.shown().zero(snapshot),
                rule.name() + (unit.isEmpty() ? "" : ", " + unit),
                new ActPicture.Drawn(rule, act().book().rules().size()),
                List.of(),
                new double[0]);
        tuning.show(snapshot, null, unit);
        calm.setVisible(false);
        summary.setText(Messages.of("bench.act.drag-an-edge-of-the-range-in-sight", times(spans.size())));
    }

    private Optional<BandSetup> band() {
        return workspace.shown().rig().bands().stream()
                .filter(one -> BandRow.key(one).equals(chosen))
                .findFirst();
    }

    private void draw(Snapshot snapshot) {
        if (band().isPresent()) {
            drawBand(snapshot, band().get());
            return;
        }
        Rule rule = watching().orElse(null);
        Watch watch = rule != null
                ? RuleEdits.watch(rule)
                : focused(snapshot)
                        .map(one -> (Watch) new Watch.Column(one.channel().column()))
                        .orElse(null);
        if (watch == null) {
            summary.setText(Messages.of("bench.act.no-channel-yet"));
            return;
        }
        WatchChoice choice = WatchChoice.find(choices, watch);
        Span sight = workspace
                .shown()
                .pictured(
                        snapshot,
                        Math.max(LEAST_SECONDS, workspace.shown().window().span()));
        Watched watched = Watched.of(snapshot, watch, sight.from(), sight.to());
        if (watch instanceof Watch.Number one) {
            watched = numbers(one, watched, choice.unit());
        } else {
            number = watched;
        }
        List<ActPicture.Drawn> others = new ArrayList<>();
        ActPicture.Drawn own = null;
        List<Rule> all = act().inForce().rules();
        for (int r = 0; r < all.size(); r++) {
            if (watch.equals(RuleEdits.watch(all.get(r))) && !choice.events()) {
                if (all.get(r).name().equals(chosen)) {
                    own = new ActPicture.Drawn(all.get(r), r);
                } else {
                    others.add(new ActPicture.Drawn(all.get(r), r));
                }
            }
        }
        boolean night = workspace.view().night().get();
        String unit = watch instanceof Watch.Column ? watched.unit() : choice.unit();
        List<RuleSpans.On> spans = picture.show(
                night,
                watched,
                workspace.shown().zero(snapshot),
                choice.words() + (unit.isEmpty() ? "" : ", " + unit),
                own,
                others,
                tuning.truth());
        Rule.OnSamples on = own != null && own.rule() instanceof Rule.OnSamples one ? one : null;
        tuning.show(snapshot, on, choice.unit());
        summarize(own == null ? null : own.rule(), spans, watched, choice);
    }

    /** Numbers of a reader over the stretch in sight are worked out beside the window's thread, now and then. */
    private Watched numbers(Watch.Number watch, Watched column, String unit) {
        double nanos = System.nanoTime();
        boolean other = !watch.equals(numberOf);
        if (other) {
            number = null;
        }
        if (other || nanos - numberNanos > NUMBER_EVERY_NANOS) {
            numberNanos = nanos;
            numberOf = watch;
            workspace
                    .tasks()
                    .fetch(
                            Messages.of("bench.act.the-number-could-not-be-worked-out"),
                            () -> column.number(watch, unit),
                            made -> {
                                if (watch.equals(numberOf)) {
                                    number = made;
                                }
                            });
        }
        return number == null ? Watched.nothing(unit) : number;
    }

    private void summarize(Rule rule, List<RuleSpans.On> spans, Watched watched, WatchChoice choice) {
        calm.setVisible(false);
        if (rule == null) {
            summary.setText(Messages.of("bench.act.no-rule-on-yet-a-rule-adds-one", choice.words()));
            return;
        }
        if (rule instanceof Rule.InBands) {
            summary.setText(Messages.of("bench.act.in-sight-it-would-have-changed-its", Math.max(0, spans.size() - 1)));
            return;
        }
        double on = spans.stream().mapToDouble(one -> one.to() - one.from()).sum();
        String said = Messages.of(
                "bench.act.in-sight-it-would-have-been-on-s", times(spans.size()), Digits.fixed(on, on < 10 ? 1 : 0));
        proposed = NewParts.tidy(Flicker.hysteresis(watched.values(), watched.rateHz()));
        if (spans.size() >= FLICKER_TURNS && proposed > RuleEdits.hysteresis(rule)) {
            int calmer = RuleSpans.of(RuleEdits.widened(rule, proposed), watched.seconds(), watched.values())
                    .size();
            if (calmer <= spans.size() / 2) {
                said += Messages.of("bench.act.it-flickers-with-which-the-noise", amount(proposed / 2), times(calmer));
                calm.setText(Messages.of("bench.act.use-2", amount(proposed / 2)));
                calm.setVisible(true);
            }
        }
        summary.setText(said);
    }

    private static String amount(double value) {
        return Digits.about(value, 3);
    }

    private static String times(int count) {
        return count + (count == 1 ? Messages.of("bench.act.time") : Messages.of("bench.act.times"));
    }
}
