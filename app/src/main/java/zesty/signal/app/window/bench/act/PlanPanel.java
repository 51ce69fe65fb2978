package zesty.signal.app.window.bench.act;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.act.Output;
import zesty.signal.core.act.StepPlan;
import zesty.signal.core.rig.Caution;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ActSnapshot;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.PlanAnswer;
import zesty.signal.engine.Snapshot;

/** A plan of settings for an output: written, started, watched, and then what it tells about the thing that answered. */
final class PlanPanel extends VBox {
    private static final String FIRST = Messages.of("bench.act.0-20-s-40-settled-120-s-0-60-s");

    private final Workspace workspace;
    private final MenuButton which = new MenuButton();
    private final TextField text = new TextField(FIRST);
    private final Button start = Bench.button(
            "start-plan", Messages.of("bench.act.start"), Messages.of("bench.act.sets-one-value-after-the-other"));
    private final Label says = new Label();
    private String output = "";
    private String column = "";
    private String unit = "";
    private boolean running;
    private Rig rig;
    /** What the newest plan came to; null while that is worked out. */
    private ActSnapshot.PlanNow told;

    private String answer = "";

    PlanPanel(Workspace workspace) {
        super(5);
        HelpPlace.mark(this, "steps");
        this.workspace = workspace;
        setId("plan");
        Label title = new Label(Messages.of("bench.act.steps"));
        title.getStyleClass().add("kinds-title");
        which.setId("plan-output");
        which.getStyleClass().add("pill");
        Tip.on(which, Messages.of("bench.act.the-output-that-is-set"));
        text.setId("plan-text");
        Tip.on(text, Messages.of("bench.act.settings-with-times-such-as-0-20-s"));
        text.setOnAction(event -> begin());
        HBox.setHgrow(text, Priority.ALWAYS);
        start.setOnAction(event -> {
            if (running) {
                workspace.acting().endPlan();
            } else {
                begin();
            }
        });
        says.setId("plan-says");
        says.setWrapText(true);
        says.getStyleClass().add("tuning-says");
        HBox line = new HBox(8, which, text, start);
        line.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(title, line, says);
        managedProperty().bind(visibleProperty());
        setVisible(false);
    }

    private void begin() {
        try {
            StepPlan plan = StepPlan.parse(text.getText());
            workspace.acting().plan(output, column, plan);
            answer = "";
        } catch (IllegalArgumentException e) {
            workspace.trouble(e.getMessage() + ".");
        }
    }

    void show(Snapshot snapshot, ChannelSnapshot focused) {
        rig = snapshot.rig();
        List<Output> outputs = rig.act().book().outputs();
        setVisible(!outputs.isEmpty() && focused != null && workspace.shown().isLive());
        if (!isVisible()) {
            return;
        }
        if (outputs.stream().noneMatch(one -> one.name().equals(output))) {
            output = outputs.get(0).name();
        }
        if (which.getItems().size() != outputs.size() || !which.getText().equals(output)) {
            which.setText(output);
            which.getItems()
                    .setAll(outputs.stream()
                            .map(one -> {
                                MenuItem item = new MenuItem(one.name());
                                item.setMnemonicParsing(false);
                                item.setOnAction(event -> output = one.name());
                                return item;
                            })
                            .toList());
        }
        ActSnapshot.PlanNow plan = snapshot.act().plan();
        running = plan != null && plan.ended().isEmpty();
        start.setText(running ? Messages.of("bench.act.stop") : Messages.of("bench.act.start"));
        if (!running) {
            column = focused.channel().column();
            unit = focused.channel().scaling().unit();
        }
        if (plan == null) {
            says.setText(Messages.of(
                    "bench.act.the-settings-of-one-after-the",
                    output,
                    focused.channel().name()));
        } else if (running) {
            StepPlan.Phase now = plan.plan().phases().get(plan.phase());
            says.setText(Messages.of(
                    "bench.act.setting-of-s-more",
                    (plan.phase() + 1),
                    plan.plan().phases().size(),
                    Digits.box(now.value()),
                    (now.settled() ? Messages.of("bench.act.until-settled-at-most") : Messages.of("bench.act.for")),
                    Digits.fixed(plan.leftSeconds(), 0)));
        } else {
            ended(plan);
        }
    }

    private void ended(ActSnapshot.PlanNow plan) {
        boolean fresh = told == null || told.plan() != plan.plan() || told.seconds().length != plan.seconds().length;
        if (fresh) {
            told = plan;
            answer = "";
            boolean heats = rig.act().use(plan.output()).caution() == Caution.HEAT;
            String in = unit;
            workspace
                    .tasks()
                    .fetch(
                            Messages.of("bench.act.the-steps-could-not-be-read"),
                            () -> PlanAnswer.of(plan, in, heats),
                            words -> answer = words);
        }
        String how = plan.ended().equals(ActSnapshot.DONE)
                ? Messages.of("bench.act.done")
                : Messages.of("bench.act.plan", plan.ended());
        says.setText(answer.isEmpty() ? how : how + "\n" + answer);
    }
}
