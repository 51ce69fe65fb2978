package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.HPos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.exchange.report.Report;

/** Tables of numbers over the whole width: the phases of a take, or a take worked out with another rig. */
final class TablePage extends WidePage {
    TablePage(String id, String title, String hint, List<Report.Table> tables) {
        super(id, title);
        VBox all = new VBox(14);
        if (!hint.isEmpty()) {
            all.getChildren().add(hint(hint));
        }
        for (Report.Table table : tables) {
            Label name = new Label(table.title());
            name.getStyleClass().add("table-group");
            all.getChildren().add(new VBox(5, name, grid(table)));
        }
        ScrollPane scroll = new ScrollPane(all);
        scroll.getStyleClass().add("plain-scroll");
        scroll.setMinHeight(0);
        fill(scroll);
    }

    /** The first column are names, the others numbers; the unit of a column stands once, with its name. */
    static GridPane grid(Report.Table table) {
        GridPane grid = new GridPane();
        grid.setHgap(20);
        grid.setVgap(4);
        for (int c = 0; c < table.head().size(); c++) {
            int column = c;
            List<String> values =
                    table.rows().stream().map(row -> row.get(column)).toList();
            String unit = c == 0 ? "" : unit(values);
            Label head = new Label(table.head().get(c) + (unit.isEmpty() ? "" : ", " + unit));
            head.getStyleClass().add("hint");
            head.setMinWidth(Region.USE_PREF_SIZE);
            place(grid, head, c, 0);
            for (int r = 0; r < values.size(); r++) {
                String value = values.get(r);
                Label cell = new Label(
                        unit.isEmpty() || !value.endsWith(" " + unit)
                                ? value
                                : value.substring(0, value.length() - unit.length() - 1));
                cell.getStyleClass().add(c == 0 ? "table-name" : "table-number");
                cell.setMinWidth(Region.USE_PREF_SIZE);
                place(grid, cell, c, r + 1);
            }
        }
        return grid;
    }

    private static void place(GridPane grid, Label label, int column, int row) {
        grid.add(label, column, row);
        GridPane.setHalignment(label, column == 0 ? HPos.LEFT : HPos.RIGHT);
    }

    /** @return what stands behind every number of the column; empty where they differ */
    private static String unit(List<String> values) {
        List<String> units = new ArrayList<>();
        for (String value : values) {
            int cut = value.lastIndexOf(' ');
            if (cut > 0 && value.substring(cut + 1).matches("\\D.*")) {
                units.add(value.substring(cut + 1));
            } else if (value.matches(".*\\d.*")) {
                units.add("");
            }
        }
        return units.isEmpty() || units.stream().distinct().count() > 1 ? "" : units.get(0);
    }
}
