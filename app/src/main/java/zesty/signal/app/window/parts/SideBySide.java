package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.layout.GridPane;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.Shelf;

/** The numbers of several takes beside each other, with what else differs before them. */
final class SideBySide {
    private final Workspace workspace;
    private final Consumer<WidePage> wide;

    /** @param wide shows a page in the place of the shelf */
    SideBySide(Workspace workspace, Consumer<WidePage> wide) {
        this.workspace = workspace;
        this.wide = wide;
    }

    /** @param differ what of their setups differs, a sentence each */
    List<Node> nodes(Report report, List<Shelf.Entry> chosen, List<String> differ) {
        Report.Table table = report.sections().get(0).tables().get(0);
        List<Node> nodes = new ArrayList<>();
        for (int i = 0; i < chosen.size(); i++) {
            Shelf.Entry one = chosen.get(i);
            nodes.add(TakePanel.hint((char) ('A' + i) + "  " + one.title() + " · " + one.rig()));
        }
        if (!differ.isEmpty()) {
            nodes.add(TakePanel.hint(Messages.of("parts.their-setups-differ-so-a")));
            differ.forEach(one -> nodes.add(TakePanel.hint(one)));
        }
        if (table.rows().isEmpty()) {
            nodes.add(TakePanel.hint(Messages.of("parts.no-reader-is-set-up-on-their")));
            return nodes;
        }
        if (chosen.size() > 2) {
            nodes.add(TakePanel.button(
                    Messages.of("parts.all-numbers"),
                    "all-numbers",
                    Messages.of("parts.the-numbers-of-all-of-them-in-one"),
                    () -> wide.accept(new TablePage(
                            workspace,
                            "side-by-side",
                            chosen.size() + " takes",
                            "",
                            List.of(allNumbers(table, chosen.size()))))));
        }
        // Two beside each other fit at every size of text; more go on below.
        for (int from = 0; from < chosen.size(); from += 2) {
            nodes.add(pair(table, from, Math.min(chosen.size(), from + 2), chosen.size() == 2));
        }
        return nodes;
    }

    private static Report.Table allNumbers(Report.Table table, int takes) {
        List<String> head = new ArrayList<>(List.of(Messages.of("parts.number"), "A"));
        for (int t = 1; t < takes; t++) {
            char letter = (char) ('A' + t);
            head.add(String.valueOf(letter));
            head.add(letter + " \u2212 A");
        }
        List<List<String>> rows = new ArrayList<>();
        for (List<String> row : table.rows()) {
            List<String> cells = new ArrayList<>(row.subList(0, 2));
            for (int t = 1; t < takes; t++) {
                cells.add(row.get(1 + t));
                cells.add(Differences.of(row.get(1), row.get(1 + t)));
            }
            rows.add(cells);
        }
        return new Report.Table(Messages.of("parts.side-by-side"), head, rows);
    }

    private static GridPane pair(Report.Table table, int from, int to, boolean difference) {
        List<String> head = new ArrayList<>(List.of(""));
        for (int i = from; i < to; i++) {
            head.add(String.valueOf((char) ('A' + i)));
        }
        if (difference) {
            head.add("B − A");
        }
        List<List<String>> rows = new ArrayList<>();
        for (List<String> row : table.rows()) {
            List<String> values = row.subList(1 + from, 1 + to);
            // The unit stands once, with the name.
            String unit = values.stream()
                    .map(SideBySide::unit)
                    .filter(one -> !one.isEmpty())
                    .findFirst()
                    .orElse("");
            List<String> cells = new ArrayList<>();
            cells.add(row.get(0) + (unit.isEmpty() ? "" : ", " + unit));
            for (String value : values) {
                cells.add(value.endsWith(" " + unit) ? value.substring(0, value.length() - unit.length() - 1) : value);
            }
            if (difference) {
                String by = Differences.of(row.get(1), row.get(2));
                cells.add(by);
            }
            rows.add(cells);
        }
        return TakePanel.grid(head, rows);
    }

    /** @return what stands behind a number and its uncertainty; empty for nothing */
    private static String unit(String value) {
        java.util.regex.Matcher number = java.util.regex.Pattern.compile("[-−+]?[\\d.]+(?: ± \\S+)? (\\D.*)")
                .matcher(value);
        return number.matches() ? number.group(1) : "";
    }
}
