package zesty.signal.app.window.bench.decode;

import java.io.File;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.BoardClock;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.Role;
import zesty.signal.core.decode.Rows;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.FormatJson;
import zesty.signal.takes.TakeException;

/**
 * The format by hand: the columns' names, units, roles and whether they are kept, and all of it as text. What is written
 * is tried at once on the bytes at hand; it comes into force with a button.
 */
final class FormatEditor extends VBox {
    private static final int MOST_COLUMNS = 40;
    private static final int ROWS = 4;

    private final Workspace workspace;
    private final GridPane columns = new GridPane();
    private final TextArea text = new TextArea();
    private final Label verdict = new Label();
    private final GridPane table = new GridPane();
    private final Button use = new Button(Messages.of("bench.decode.use-it"));
    private StreamFormat inForce;
    private StreamFormat written;
    private boolean filling;

    FormatEditor(Workspace workspace) {
        super(8);
        this.workspace = workspace;
        columns.setHgap(8);
        columns.setVgap(4);
        text.setId("format-text");
        text.getStyleClass().add("mono");
        text.setPrefRowCount(7);
        text.textProperty().addListener((p, was, is) -> typed(is));
        VBox.setVgrow(text, Priority.ALWAYS);
        verdict.setId("format-verdict");
        verdict.setWrapText(true);
        verdict.setMinHeight(USE_PREF_SIZE);
        table.setHgap(16);
        table.setVgap(2);
        table.getStyleClass().add("rows");
        use.setId("format-use");
        Tip.on(use, Messages.of("bench.decode.read-the-stream-so-from-now-on-u"));
        use.setOnAction(event -> workspace.sourceActions().reformat(written));
        Button save = new Button(Messages.of("bench.decode.save"));
        Tip.on(save, Messages.of("bench.decode.save-the-format-in-force-as-a"));
        save.setOnAction(event -> {
            FileChooser chooser = new FileChooser();
            chooser.setInitialFileName("format.json");
            File file = chooser.showSaveDialog(getScene().getWindow());
            if (file != null) {
                workspace.sourceActions().saveFormat(file.toPath());
            }
        });
        Button load = new Button(Messages.of("bench.decode.load"));
        Tip.on(load, Messages.of("bench.decode.read-the-stream-with-a-format-that"));
        load.setOnAction(event -> {
            File file = new FileChooser().showOpenDialog(getScene().getWindow());
            if (file != null) {
                workspace.sourceActions().loadFormat(file.toPath());
            }
        });
        FlowPane bar = new FlowPane(6, 6, use, save, load);
        bar.setAlignment(Pos.CENTER_LEFT);
        VBox left = new VBox(6, Bench.small(Messages.of("bench.decode.what-each-column-is")), columns, bar);
        VBox right = new VBox(
                6, Bench.small(Messages.of("bench.decode.the-whole-format-as-it-is-saved")), text, verdict, table);
        right.setMinWidth(200);
        HBox.setHgrow(right, Priority.ALWAYS);
        HBox both = new HBox(14, left, right);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().add(both);
    }

    /** Begins with the format in force. */
    void open(StreamFormat format) {
        inForce = format;
        fill(format);
    }

    /** Follows the format in force when it changes, as by undo. */
    void show() {
        StreamFormat now = workspace.sourceActions().format();
        if (now != null && !now.equals(inForce)) {
            open(now);
        }
    }

    private void fill(StreamFormat format) {
        if (format == null) {
            return;
        }
        filling = true;
        try {
            text.setText(FormatJson.write(format));
        } catch (TakeException e) {
            verdict.setText(e.getMessage());
        }
        filling = false;
        grid(format);
        judge(format);
    }

    private void grid(StreamFormat format) {
        columns.getChildren().clear();
        String[] heads = {
            "",
            Messages.of("bench.decode.name"),
            Messages.of("bench.decode.unit"),
            Messages.of("bench.decode.role"),
            Messages.of("bench.decode.kept")
        };
        for (int i = 0; i < heads.length; i++) {
            columns.add(Bench.small(heads[i]), i, 0);
        }
        int shown = Math.min(MOST_COLUMNS, format.columns().size());
        for (int c = 0; c < shown; c++) {
            Column column = format.columns().get(c);
            int index = c;
            TextField name = new TextField(column.name());
            name.setPrefColumnCount(10);
            name.setId("column-name-" + (c + 1));
            TextField unit = new TextField(column.unit());
            unit.setPrefColumnCount(5);
            ComboBox<Role> role = new ComboBox<>();
            role.getItems().setAll(Role.values());
            role.setValue(column.role());
            role.setConverter(new RoleWords());
            CheckBox kept = new CheckBox();
            kept.setSelected(column.kept());
            Runnable changed = () -> change(index, name.getText(), unit.getText(), role.getValue(), kept.isSelected());
            name.textProperty().addListener((p, was, is) -> changed.run());
            unit.textProperty().addListener((p, was, is) -> changed.run());
            role.setOnAction(event -> changed.run());
            kept.setOnAction(event -> changed.run());
            columns.addRow(c + 1, Bench.small(Integer.toString(c + 1)), name, unit, role, kept);
        }
        if (shown < format.columns().size()) {
            columns.add(
                    Bench.small(Messages.of(
                            "bench.decode.and-more-in-the-text-below",
                            (format.columns().size() - shown))),
                    1,
                    shown + 1);
        }
    }

    private void change(int index, String name, String unit, Role role, boolean kept) {
        if (written == null || filling) {
            return;
        }
        try {
            List<Column> changed = new ArrayList<>(written.columns());
            changed.set(index, new Column(name.strip(), unit.strip(), role, kept));
            BoardClock clock = written.clock();
            if (role == Role.CLOCK && (clock == null || clock.column() != index)) {
                clock = new BoardClock(index, ticks(unit), BoardClock.WRAP_32_BIT);
            } else if (role != Role.CLOCK && role != Role.EDGE && clock != null && clock.column() == index) {
                clock = null;
            }
            StreamFormat format = written.with(changed, clock);
            filling = true;
            text.setText(FormatJson.write(format));
            filling = false;
            judge(format);
        } catch (IllegalArgumentException | TakeException e) {
            refuse(e.getMessage());
        }
    }

    private static double ticks(String unit) {
        return switch (unit.strip()) {
            case "s" -> 1;
            case "µs", "us" -> 1e6;
            default -> 1e3;
        };
    }

    private void typed(String json) {
        if (filling) {
            return;
        }
        try {
            StreamFormat format = FormatJson.read(json, Messages.of("bench.decode.this-format"));
            grid(format);
            judge(format);
        } catch (TakeException e) {
            refuse(e.getMessage());
        }
    }

    private void refuse(String why) {
        verdict.getStyleClass().setAll("error");
        verdict.setText(Messages.of("bench.decode.the-old-format-stays-in-force", why));
        use.setDisable(true);
    }

    private void judge(StreamFormat format) {
        written = format;
        byte[] bytes = workspace.sourceActions().sample();
        Recogniser.Proposal tried = Recogniser.propose(format, bytes, bytes.length);
        verdict.getStyleClass().setAll("hint");
        verdict.setText(
                bytes.length == 0
                        ? Messages.of("bench.decode.no-bytes-at-hand-to-try-it-on")
                        : Messages.of(
                                "bench.decode.on-the-first-bytes-it-gives-rows",
                                bytes.length,
                                tried.rows(),
                                Math.round(100 * tried.confidence())));
        use.setDisable(format.equals(inForce));
        table.getChildren().clear();
        int shown = Math.min(10, format.columns().size());
        for (int c = 0; c < shown; c++) {
            table.add(Bench.small(format.columns().get(c).name()), c, 0);
            Rows sample = tried.sample();
            for (int row = 0; row < Math.min(ROWS, sample.count()); row++) {
                table.add(Bench.mono(Digits.of(sample.columns()[c][row])), c, row + 1);
            }
        }
    }

    private static final class RoleWords extends javafx.util.StringConverter<Role> {
        @Override
        public String toString(Role role) {
            return role == null ? "" : role.name().toLowerCase(java.util.Locale.ROOT);
        }

        @Override
        public Role fromString(String text) {
            return Role.valueOf(text.toUpperCase(java.util.Locale.ROOT));
        }
    }
}
