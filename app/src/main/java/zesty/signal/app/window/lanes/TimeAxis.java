package zesty.signal.app.window.lanes;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.drawing.WhenSeen;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;

/** The times below the lanes, the marks of a take below these, and how many lanes are hidden. */
final class TimeAxis extends Pane {
    private static final double HEIGHT = 24;
    private static final double MARKS_TOP = 22;
    private static final double LABEL_TOP = 3;

    private final Workspace workspace;
    private final List<Label> times = new ArrayList<>();
    private final MarkerRow marks;
    private final Button hidden = new Button();

    TimeAxis(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("time-axis");
        hidden.getStyleClass().setAll("small-button");
        Tip.on(hidden, Messages.of("lanes.show-all-lanes-shift-h"));
        hidden.setOnAction(event -> workspace.showAllLanes());
        marks = new MarkerRow(workspace);
        hidden.setVisible(false);
        WhenSeen.in(this, hidden);
        getChildren().add(marks);
        // Lanes share what it leaves before it is shown first.
        high();
    }

    /**
     * @param left where the pictures begin
     * @param width of the pictures, in pixels
     * @param from the time at the left
     * @param alone whether lanes are left out only for now
     */
    void show(TimeTicks ticks, double left, int width, double from, boolean alone) {
        long out = workspace.shown().rig().channels().stream()
                .filter(c -> !c.shown())
                .count();
        hidden.setVisible(out > 0 && !alone);
        hidden.setText(Messages.of("lanes.hidden-show", out));
        hidden.autosize();
        hidden.relocate(0, 0);
        int used = 0;
        for (int i = 0; i < ticks.count(); i++) {
            if (ticks.labelled(i)) {
                Label label = label(times, used++, "axis-label");
                say(label, ticks.label(i));
                // Of a take that is dragged it moves with each frame: a place in the layout would lay out the whole
                // window.
                label.setTranslateX(Math.round(left + ticks.pixel(i) - label.getWidth() / 2));
            }
        }
        hideFrom(times, used);
        placeMarks(left, width, from);
    }

    private void placeMarks(double left, int width, double from) {
        high();
        marks.relocate(0, workspace.view().textSize().get().of(MARKS_TOP));
        marks.resize(getWidth(), marks.high());
        marks.show(left, width, from);
    }

    private void high() {
        double high = workspace.view().textSize().get().of(HEIGHT) + marks.high();
        setMinHeight(high);
        setPrefHeight(high);
    }

    private Label label(List<Label> pool, int index, String style) {
        if (index == pool.size()) {
            Label label = new Label();
            label.getStyleClass().add(style);
            label.setLayoutY(LABEL_TOP);
            pool.add(label);
            getChildren().add(label);
        }
        pool.get(index).setVisible(true);
        return pool.get(index);
    }

    private static void say(Label label, String text) {
        if (!text.equals(label.getText()) || label.getWidth() == 0) {
            label.setText(text);
            label.autosize();
        }
    }

    private static void hideFrom(List<Label> pool, int used) {
        for (int i = used; i < pool.size(); i++) {
            pool.get(i).setVisible(false);
        }
    }
}
