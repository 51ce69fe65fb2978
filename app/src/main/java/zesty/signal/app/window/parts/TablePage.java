package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.HPos;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.exchange.report.Report;

/** Tables of numbers over the whole width: the phases of a take, or a take worked out with another rig. */
final class TablePage extends WidePage {
    /** What a letter of a table takes at the usual size of text, in pixels; the gap between columns. */
    private static final double LETTER = 7.4;

    private static final double GAP = 20;

    private final Workspace workspace;
    private final List<Report.Table> tables;
    private final VBox all = new VBox(14);

    TablePage(Workspace workspace, String id, String title, String hint, List<Report.Table> tables) {
        super(id, title);
        this.workspace = workspace;
        this.tables = tables;
        PlainScroll scroll = new PlainScroll(all);
        scroll.setMinHeight(0);
        if (!hint.isEmpty()) {
            getChildren().add(hint(hint));
        }
        fill(scroll);
        scroll.viewportBoundsProperty().addListener((p, was, is) -> {
            if (was == null || was.getWidth() != is.getWidth()) {
                lay(is.getWidth());
            }
        });
    }

    /** A table that is wider than there is room for goes on below, with its names again. */
    private void lay(double width) {
        all.getChildren().clear();
        double letter = workspace.view().textSize().get().of(LETTER);
        for (Report.Table table : tables) {
            Label name = new Label(table.title());
            name.getStyleClass().add("table-group");
            VBox parts = new VBox(10, name);
            int from = 1;
            while (from < table.head().size()) {
                double used = letters(table, 0) * letter + 2 * GAP;
                int to = from;
                while (to < table.head().size() && (to == from || used + letters(table, to) * letter + GAP <= width)) {
                    used += letters(table, to++) * letter + GAP;
                }
                parts.getChildren().add(grid(part(table, from, to)));
                from = to;
            }
            all.getChildren().add(parts);
        }
    }

    private static int letters(Report.Table table, int column) {
        int most = table.head().get(column).length() + 4;
        for (List<String> row : table.rows()) {
            most = Math.max(most, row.get(column).length());
        }
        return most;
    }

    private static Report.Table part(Report.Table table, int from, int to) {
        List<List<String>> rows = new ArrayList<>();
        for (List<String> row : table.rows()) {
            List<String> cells = new ArrayList<>(List.of(row.get(0)));
            cells.addAll(row.subList(from, to));
            rows.add(cells);
        }
        List<String> head = new ArrayList<>(List.of(table.head().get(0)));
        head.addAll(table.head().subList(from, to));
        return new Report.Table(table.title(), head, rows);
    }

    /** The first column are names, the others numbers; the unit of a column stands once, with its name. */
    static GridPane grid(Report.Table table) {
        GridPane grid = new GridPane();
        grid.setHgap(GAP);
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
