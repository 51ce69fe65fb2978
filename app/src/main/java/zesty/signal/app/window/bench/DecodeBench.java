package zesty.signal.app.window.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.desk.Stop;
import zesty.signal.core.decode.Column;
import zesty.signal.core.decode.DelimitedFormat;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.sample.TimeRing;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.Sight;

/** Decode: one real line large, in its pieces; the last rows as a table; the tray of lines set aside. */
public final class DecodeBench extends Bench {
    private static final int ROWS = 9;

    private final Label format = new Label();
    private final FlowPane line = new FlowPane(6, 6);
    private final GridPane table = new GridPane();
    private final ListView<SetAside.Item> tray = new ListView<>();
    private final Label trayTitle = small("");
    private long trayCount = -1;

    public DecodeBench(Desk desk) {
        super(desk, Stop.DECODE);
        format.getStyleClass().add("bench-line");
        format.setWrapText(true);
        table.setHgap(16);
        table.setVgap(2);
        table.getStyleClass().add("rows");
        tray.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(SetAside.Item item, boolean empty) {
                super.updateItem(item, empty);
                setText(empty ? "" : "line " + item.line() + ": " + item.why() + "\n    " + item.text());
            }
        });
        tray.setFixedCellSize(44);
        Label none = small("Every line so far was understood.");
        tray.setPlaceholder(none);
        VBox.setVgrow(tray, Priority.ALWAYS);
        VBox left = new VBox(8, small("The newest line, piece by piece"), line, small("The last rows"), table);
        left.setMinWidth(0);
        HBox.setHgrow(left, Priority.ALWAYS);
        VBox right = new VBox(6, trayTitle, tray);
        right.setMinWidth(330);
        right.setPrefWidth(330);
        HBox both = new HBox(14, left, right);
        both.setMinHeight(0);
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(format, both);
    }

    @Override
    public void show(Sight sight) {
        head(sight);
        DelimitedFormat known = sight.rig().format();
        if (known == null) {
            format.setText("No format yet. It is recognised by itself as soon as lines of numbers come.");
            line.getChildren().clear();
            table.getChildren().clear();
            return;
        }
        format.setText("Text, parted by " + known.delimiterName() + ", "
                + known.columns().size() + " columns"
                + (known.header().isEmpty() ? ", no header: names were made up" : ", named by the board's header")
                + (known.clock() == null
                        ? "; no clock: the rate is taken from arrival"
                        : "; the board's clock is "
                                + known.columns().get(known.clock().column()).name()));
        pieces(sight, known);
        rows(sight, known);
        if (sight.health().setAside() != trayCount) {
            trayCount = sight.health().setAside();
            List<SetAside.Item> newest = new ArrayList<>(sight.health().aside());
            Collections.reverse(newest);
            tray.getItems().setAll(newest);
        }
        trayTitle.setText(
                desk.isStored()
                        ? "A stored take holds understood lines only"
                        : "Set aside: " + trayCount
                                + (trayCount > SetAside.KEPT ? ", the newest " + SetAside.KEPT : ""));
    }

    private void pieces(Sight sight, DelimitedFormat known) {
        String newest = newestLine(known);
        line.getChildren().clear();
        if (newest.isEmpty()) {
            line.getChildren().add(small("no line at hand"));
            return;
        }
        String[] fields =
                newest.strip().split(known.delimiter() == ' ' ? "[ \t]+" : "\\Q" + known.delimiter() + "\\E", -1);
        for (int c = 0; c < Math.min(fields.length, known.columns().size()); c++) {
            Label text = new Label(fields[c].strip());
            text.getStyleClass().add("piece");
            int clock =
                    known.clock() == null ? Integer.MAX_VALUE : known.clock().column();
            String colour = c == clock
                    ? "-muted"
                    : Palette.css(
                            Palette.channel(c > clock ? c - 1 : c), desk.night().get());
            text.setStyle("-fx-text-fill: " + colour + "; -fx-border-color: transparent transparent " + colour
                    + " transparent;");
            line.getChildren()
                    .add(new VBox(
                            1,
                            text,
                            small((c + 1) + " " + known.columns().get(c).name())));
        }
    }

    private String newestLine(DelimitedFormat known) {
        String[] lines = new String(desk.newestBytes(2000), StandardCharsets.UTF_8).split("\n", -1);
        for (int i = lines.length - 2; i > 0; i--) {
            if (!lines[i].isBlank() && !lines[i].strip().equals(known.header())) {
                return lines[i];
            }
        }
        return "";
    }

    private void rows(Sight sight, DelimitedFormat known) {
        TimeRing times = sight.times();
        table.getChildren().clear();
        if (times == null) {
            return;
        }
        table.add(small("time"), 0, 0);
        List<ChannelSight> channels = new ArrayList<>();
        for (Column column : known.columns()) {
            sight.channel(column.name()).ifPresent(channels::add);
        }
        for (int c = 0; c < channels.size(); c++) {
            table.add(small(channels.get(c).channel().column()), c + 1, 0);
        }
        long end = times.end();
        for (int row = 0; row < ROWS && end - 1 - row >= times.start(); row++) {
            long index = end - 1 - row;
            table.add(mono(Digits.fixed(times.secondsAt(index), 3) + " s"), 0, row + 1);
            for (int c = 0; c < channels.size(); c++) {
                boolean there = index < channels.get(c).raw().end();
                String text = there ? Digits.of(channels.get(c).raw().value(index)) : "";
                Label cell = mono(text);
                cell.setMinWidth(64);
                table.add(cell, c + 1, row + 1);
            }
        }
    }
}
