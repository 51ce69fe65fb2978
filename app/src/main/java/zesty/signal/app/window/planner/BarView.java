package zesty.signal.app.window.planner;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.core.plan.Bar;
import zesty.signal.core.plan.Draft;
import zesty.signal.core.text.Messages;

/** One budget: its name and value, a bar whose end is pulled, what follows, and the changes that put it right. JavaFX thread. */
final class BarView extends VBox {
    private static final PseudoClass OVER = PseudoClass.getPseudoClass("over");
    private static final double HEIGHT = 18;
    private static final double TRACK = 11;
    private static final double KNOB = 17;
    private static final double KEY_STEP = 0.02;

    private final Label name = new Label();
    private final Label value = new Label();
    private final Label says = new Label();
    private final HBox mends = new HBox(6);
    private final Region track = new Region();
    private final Region fill = new Region();
    private final Region limit = new Region();
    private final Region knob = new Region();
    private final Pane bar = new Pane(track, fill, limit, knob) {
        @Override
        protected void layoutChildren() {
            place();
        }
    };
    private final Consumer<Draft> change;
    private final Consumer<Draft> pulling;
    private Bar shown;
    private Draft pulled;
    private List<Bar.Mend> offered = List.of();

    /** @param pulling hears of each plan while the end is pulled, {@code change} of the one where it is let go, or of a mend */
    BarView(String id, Consumer<Draft> pulling, Consumer<Draft> change) {
        super(1);
        this.pulling = pulling;
        this.change = change;
        setId("bar-" + id);
        getStyleClass().add("plan-bar");
        name.getStyleClass().add("plan-name");
        name.setMinWidth(USE_PREF_SIZE);
        value.getStyleClass().add("mono");
        says.getStyleClass().add("hint");
        says.setWrapText(true);
        says.setMinWidth(60);
        says.setMinHeight(USE_PREF_SIZE);
        track.getStyleClass().add("plan-track");
        fill.getStyleClass().add("plan-fill");
        limit.getStyleClass().add("plan-limit");
        knob.getStyleClass().add("plan-knob");
        for (Region one : new Region[] {track, fill, limit, knob}) {
            one.setMouseTransparent(true);
        }
        bar.setMinHeight(HEIGHT);
        bar.setPrefHeight(HEIGHT);
        bar.setMaxHeight(HEIGHT);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox.setHgrow(says, Priority.ALWAYS);
        HBox head = new HBox(8, name, space, value);
        head.setAlignment(Pos.BASELINE_LEFT);
        mends.setAlignment(Pos.CENTER_RIGHT);
        mends.setMinWidth(USE_PREF_SIZE);
        says.setMaxWidth(Double.MAX_VALUE);
        HBox foot = new HBox(8, says, mends);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.setMinHeight(18);
        getChildren().addAll(head, bar, foot);
        bar.setOnMousePressed(event -> pull(event.getX()));
        bar.setOnMouseDragged(event -> pull(event.getX()));
        bar.setOnMouseReleased(event -> letGo());
        bar.setOnKeyPressed(event -> {
            int way = event.getCode() == KeyCode.RIGHT ? 1 : event.getCode() == KeyCode.LEFT ? -1 : 0;
            if (way != 0 && shown.pulled() != null) {
                change.accept(shown.pulled().apply(Math.max(0, Math.min(1, shown.share() + way * KEY_STEP))));
                event.consume();
            }
        });
    }

    void show(Bar now) {
        shown = now;
        name.setText(now.name());
        value.setText(now.value());
        says.setText((now.over() ? "\u25b2 " : "") + now.says());
        pseudoClassStateChanged(OVER, now.over());
        bar.setFocusTraversable(now.pulled() != null);
        bar.setCursor(now.pulled() == null ? Cursor.DEFAULT : Cursor.H_RESIZE);
        knob.setVisible(now.pulled() != null);
        limit.setVisible(now.limit() == now.limit());
        bar.setAccessibleText(now.name() + ": " + now.value() + ", " + now.says());
        if (!now.mends().stream()
                .map(Bar.Mend::words)
                .toList()
                .equals(offered.stream().map(Bar.Mend::words).toList())) {
            List<Button> buttons = new ArrayList<>();
            for (int i = 0; i < Math.min(2, now.mends().size()); i++) {
                int index = i;
                Button button = Bench.button(
                        getId() + "-mend-" + (i + 1),
                        now.mends().get(i).words(),
                        Messages.of("planner.changes-the-plan-so-that-it-fits"));
                button.setOnAction(event -> change.accept(offered.get(index).after()));
                buttons.add(button);
            }
            mends.getChildren().setAll(buttons);
        }
        offered = now.mends();
        bar.requestLayout();
    }

    private void place() {
        double width = bar.getWidth();
        double top = (HEIGHT - TRACK) / 2;
        double end = shown == null ? 0 : width * Math.max(0, Math.min(1, shown.share()));
        track.resizeRelocate(0, top, width, TRACK);
        fill.resizeRelocate(0, top, Math.max(TRACK, end), TRACK);
        double at = shown == null ? 0 : width * shown.limit();
        limit.resizeRelocate(at - 1, 0, 2, HEIGHT);
        knob.resizeRelocate(Math.max(0, Math.min(width - KNOB, end - KNOB / 2)), (HEIGHT - KNOB) / 2, KNOB, KNOB);
    }

    private void pull(double x) {
        bar.requestFocus();
        if (shown == null || shown.pulled() == null || bar.getWidth() <= 0) {
            return;
        }
        pulled = shown.pulled().apply(Math.max(0, Math.min(1, x / bar.getWidth())));
        pulling.accept(pulled);
    }

    /** One gesture is one change. */
    private void letGo() {
        if (pulled != null) {
            change.accept(pulled);
            pulled = null;
        }
    }
}
