package zesty.signal.app.window.parts;

import java.util.List;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.DoubleBinding;
import javafx.collections.ListChangeListener;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.SnapshotTable;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/** The table of snapshots below the lanes: a remark, a press, a row. */
public final class SnapshotPanel extends VBox {
    private static final double MOST_HEIGHT = 170;
    /** One a second for a day makes 86 400 rows: all are kept in the file, and the newest are shown, each press anew. */
    private static final int MOST_SHOWN = 60;

    private final Workspace workspace;
    private final SnapshotTable table;
    private final TextField remark = new TextField();
    private final TextField every = new TextField();
    private final GridPane grid = new GridPane();
    private final ScrollPane scroll = new ScrollPane(grid);
    private final DoubleBinding scrolled = Bindings.createDoubleBinding(
            () -> scroll.getVvalue()
                    * Math.max(0, grid.getHeight() - scroll.getViewportBounds().getHeight()),
            scroll.vvalueProperty(),
            grid.heightProperty(),
            scroll.viewportBoundsProperty());
    private final Label hint = new Label();
    private Timeline clock;

    public SnapshotPanel(Workspace workspace) {
        super(6);
        this.workspace = workspace;
        table = workspace.snapshots();
        setId("snapshots");
        getStyleClass().add("snapshots");
        Label title = new Label(Messages.of("parts.snapshots"));
        title.getStyleClass().add("day");
        title.setMinWidth(Region.USE_PREF_SIZE);
        remark.setId("snapshot-remark");
        remark.setPromptText(Messages.of("parts.where-or-what"));
        remark.setPrefColumnCount(18);
        remark.setOnAction(event -> press());
        Button take = button(
                Messages.of("parts.take-one"), "snapshot-take", Messages.of("parts.every-shown-channel-s-mean-of-the"));
        take.setOnAction(event -> press());
        every.setId("snapshot-every");
        every.setPromptText(Messages.of("parts.by-hand"));
        every.setPrefColumnCount(6);
        Tip.on(every, Messages.of("parts.takes-one-every-so-many-seconds"));
        every.setOnAction(event -> repeat());
        Button done = button(
                Messages.of("parts.done"), "snapshot-done", Messages.of("parts.keeps-the-table-as-a-take-in-the"));
        done.setOnAction(event -> close());
        hint.getStyleClass().add("hint");
        hint.setMinWidth(Region.USE_PREF_SIZE);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Label each = new Label(Messages.of("parts.every-s"));
        each.getStyleClass().add("hint");
        each.setMinWidth(Region.USE_PREF_SIZE);
        HBox bar = new HBox(8, title, remark, take, each, every, hint, space, done);
        bar.setAlignment(Pos.CENTER_LEFT);
        grid.setHgap(18);
        grid.setVgap(3);
        grid.setId("snapshot-rows");
        scroll.getStyleClass().add("plain-scroll");
        scroll.setMaxHeight(MOST_HEIGHT);
        scroll.setMinHeight(0);
        getChildren().addAll(bar, scroll);
        table.rows().addListener((ListChangeListener<SnapshotTable.Row>) change -> fill());
        managedProperty().bind(visibleProperty());
        setVisible(false);
        fill();
    }

    private static Button button(String text, String id, String tip) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().setAll("small-button");
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(button, tip);
        return button;
    }

    /** Takes a row; the first press opens the table and waits for where it is to be. */
    public void press() {
        if (!isVisible()) {
            setVisible(true);
            remark.requestFocus();
            return;
        }
        table.take(remark.getText().strip());
        remark.clear();
    }

    private void repeat() {
        if (clock != null) {
            clock.stop();
            clock = null;
        }
        String text = every.getText().strip();
        if (text.isEmpty()) {
            return;
        }
        double seconds;
        try {
            seconds = Digits.typed(text);
        } catch (NumberFormatException e) {
            seconds = Double.NaN;
        }
        if (!(seconds >= 1 && seconds <= 86_400)) {
            workspace.trouble(Messages.of("parts.is-no-time-from-1-to-86400-s-write", text));
            return;
        }
        clock = new Timeline(new KeyFrame(Duration.seconds(seconds), event -> press()));
        clock.setCycleCount(Animation.INDEFINITE);
        clock.play();
        press();
    }

    private void close() {
        if (clock != null) {
            clock.stop();
            clock = null;
        }
        every.clear();
        table.done();
        setVisible(false);
    }

    private void fill() {
        grid.getChildren().clear();
        List<SnapshotTable.Row> rows = table.rows();
        hint.setText(count(rows.size()));
        if (rows.isEmpty()) {
            return;
        }
        Region ground = new Region();
        ground.getStyleClass().add("snapshots-head");
        grid.add(ground, 0, 0, table.head().size() + 2, 1);
        stay(ground);
        head("s", 0, HPos.RIGHT);
        head(Messages.of("parts.where"), 1, HPos.LEFT);
        for (int c = 0; c < table.head().size(); c++) {
            SnapshotTable.Head head = table.head().get(c);
            String unit = head.unit().isEmpty() ? "" : ", " + head.unit();
            head(head.name() + unit, c + 2, HPos.RIGHT);
        }
        List<SnapshotTable.Row> newest = rows.subList(Math.max(0, rows.size() - MOST_SHOWN), rows.size());
        for (int r = 0; r < newest.size(); r++) {
            SnapshotTable.Row row = newest.get(r);
            cell(new Label(Digits.fixed(row.seconds(), 0)), 0, r + 1, "table-number", HPos.RIGHT);
            cell(new Label(row.remark()), 1, r + 1, "", HPos.LEFT);
            for (int c = 0; c < row.means().length; c++) {
                cell(new Label(value(row, c)), c + 2, r + 1, "table-number", HPos.RIGHT);
            }
        }
        // Rows that have not been dressed have no height, and the newest would lie out of sight.
        scroll.applyCss();
        scroll.layout();
        scroll.setVvalue(1);
    }

    private static String count(int rows) {
        if (rows == 0) {
            return Messages.of("parts.write-where-the-sensor-is-wait");
        }
        if (rows > MOST_SHOWN) {
            return Messages.of("parts.rows-the-newest", rows, MOST_SHOWN);
        }
        return rows + (rows == 1 ? Messages.of("parts.row") : Messages.of("parts.rows-2"));
    }

    /** As many digits as the noise bears out. */
    private static String value(SnapshotTable.Row row, int c) {
        double noise = row.deviations()[c];
        if (Double.isNaN(row.means()[c])) {
            return Messages.of("parts.no-new-data");
        }
        if (!(noise > 0)) {
            return Digits.about(row.means()[c], 5);
        }
        int decimals = Digits.decimalsFor(noise / 2);
        return Digits.fixed(row.means()[c], decimals) + " ± " + Digits.fixed(noise, decimals);
    }

    private void head(String text, int column, HPos to) {
        Label label = new Label(text);
        cell(label, column, 0, "hint", to);
        stay(label);
    }

    /** Keeps what heads the columns in sight, above the rows that scroll beneath it. */
    private void stay(Node node) {
        node.translateYProperty().bind(scrolled);
        node.setViewOrder(-1);
    }

    private void cell(Label label, int column, int row, String style, HPos to) {
        if (!style.isEmpty()) {
            label.getStyleClass().add(style);
        }
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, to);
        grid.add(label, column, row);
    }
}
