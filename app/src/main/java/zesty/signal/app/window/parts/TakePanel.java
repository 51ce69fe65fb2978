package zesty.signal.app.window.parts;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Rigs;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.PhaseTables;
import zesty.signal.engine.TakeReport;
import zesty.signal.exchange.report.Report;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Shelf;

/** Beside the shelf: the page of one take, or the numbers of several side by side, or a file that is to be imported. Longer than others: the three of them share one place and its tables. */
final class TakePanel extends PlainScroll {
    private static final double WIDTH = 420;
    private static final int MOST_TAKES = 6;

    private final Workspace workspace;
    private final Runnable leave;
    private final Consumer<WidePage> wide;
    private final VBox page = new VBox(10);
    private final ImportForm form;
    private List<Shelf.Entry> shown = List.of();
    private boolean bringing;
    private TextArea notes = new TextArea();

    /** @param leave chooses nothing any more. @param wide shows a page in the place of the shelf */
    TakePanel(Workspace workspace, Runnable leave, Consumer<WidePage> wide) {
        this.workspace = workspace;
        this.wide = wide;
        this.leave = leave;
        form = new ImportForm(workspace, this::close);
        setId("take-panel");
        getStyleClass().add("take-panel");
        page.getStyleClass().add("take-page");
        setContent(page);
    }

    /** Takes the width that goes with the text, as far as there is so much. */
    void wide(double most) {
        double width = Math.min(workspace.view().textSize().get().of(WIDTH), Math.max(WIDTH, most));
        setMinWidth(width);
        setPrefWidth(width);
        setMaxWidth(width);
    }

    /** @return whether a file from elsewhere is being looked at */
    boolean brings() {
        return bringing;
    }

    /** @param file null to ask which */
    void bring(Path file) {
        bringing = true;
        shown = List.of();
        page.getChildren().setAll(head(Messages.of("parts.import-a-file-2")), form);
        form.look(file);
    }

    private void close() {
        bringing = false;
        shown = List.of();
        setVisible(false);
        leave.run();
    }

    void show(List<Shelf.Entry> chosen) {
        boolean same = chosen.size() == shown.size();
        for (int i = 0; same && i < chosen.size(); i++) {
            same = chosen.get(i).isAs(shown.get(i));
        }
        if (same) {
            return;
        }
        // What is being written and not kept yet stays, whatever else of the take has changed.
        boolean goesOn = chosen.size() == 1
                && shown.size() == 1
                && chosen.get(0).file().equals(shown.get(0).file())
                && !notes.getText().strip().equals(shown.get(0).notes());
        String written = goesOn ? notes.getText() : null;
        bringing = false;
        shown = List.copyOf(chosen);
        page.getChildren().clear();
        if (chosen.size() == 1) {
            one(chosen.get(0));
            if (written != null) {
                notes.setText(written);
            }
        } else {
            several(chosen);
        }
    }

    private HBox head(String text) {
        Label title = new Label(text);
        title.getStyleClass().add("day");
        title.setWrapText(true);
        title.setMinWidth(0);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        Button close = button(
                Messages.of("parts.close"),
                "close-panel",
                Messages.of("parts.close-this-and-choose-nothing"),
                this::close);
        HBox head = new HBox(8, title, space, close);
        head.setAlignment(Pos.TOP_LEFT);
        return head;
    }

    static Button button(String text, String id, String tip, Runnable action) {
        Button button = new Button(text);
        button.setId(id);
        button.getStyleClass().setAll("small-button");
        button.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    private void one(Shelf.Entry entry) {
        notes = new TextArea(entry.notes());
        notes.setId("take-notes");
        notes.setWrapText(true);
        notes.setPrefRowCount(4);
        notes.setPromptText(Messages.of("parts.what-was-different-this-time-where"));
        Runnable keep = () -> {
            if (!this.notes.getText().strip().equals(entry.notes())) {
                workspace.takes().notes(entry, this.notes.getText());
            }
        };
        TextArea notes = this.notes;
        notes.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER && event.isShortcutDown()) {
                keep.run();
                event.consume();
            }
        });
        Label rig = new Label(
                Messages.of("parts.rig", (entry.rig().isEmpty() ? Messages.of("parts.not-readable") : entry.rig())));
        rig.getStyleClass().add("hint");
        rig.setWrapText(true);
        VBox numbers = new VBox(4);
        page.getChildren()
                .addAll(
                        named(entry),
                        rig,
                        tags(entry),
                        notes,
                        new HBox(
                                6,
                                button(
                                        Messages.of("parts.keep-notes"),
                                        "keep-notes",
                                        Messages.of("parts.write-the-notes-into-the-take-ctrl"),
                                        keep),
                                button(
                                        Messages.of("parts.open"),
                                        "open-take",
                                        Messages.of("parts.show-it-in-the-lanes"),
                                        () -> workspace.open(entry.file()))),
                        numbers,
                        more(entry),
                        new ReportForm(workspace, List.of(entry)));
        if (entry.trouble().isEmpty()) {
            numbers.getChildren().setAll(hint(Messages.of("parts.reading-its-numbers")));
            workspace.takes().read(List.of(entry.file()), said -> {
                if (shown.equals(List.of(entry))) {
                    numbers.getChildren().setAll(numbers(said));
                    phases(entry, said).ifPresent(numbers.getChildren()::add);
                }
            });
        }
    }

    /** The take's name, which a press makes a field of. */
    private HBox named(Shelf.Entry entry) {
        HBox head = head(entry.title());
        Button rename = button(
                Messages.of("parts.rename"), "rename-take", Messages.of("parts.give-it-another-name-f2-on-its"), () -> {
                    TextField name = new TextField(entry.title());
                    name.setId("take-name");
                    HBox.setHgrow(name, Priority.ALWAYS);
                    name.setOnAction(event -> {
                        String text = name.getText().strip();
                        if (text.isEmpty() || text.equals(entry.title())) {
                            head.getChildren().set(0, new Label(entry.title()));
                        } else {
                            workspace.takes().rename(entry, text);
                        }
                    });
                    head.getChildren().set(0, name);
                    name.requestFocus();
                    name.selectAll();
                });
        head.getChildren().add(2, rename);
        return head;
    }

    /** What can be made of a take beside its numbers: worked out with another rig, split. */
    private VBox more(Shelf.Entry entry) {
        MenuButton other = new MenuButton(Messages.of("parts.with-another-rig"));
        other.setId("other-rig");
        other.getStyleClass().add("small-menu");
        other.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(other, Messages.of("parts.its-numbers-with-the-rig-of-today"));
        MenuItem today = new MenuItem(
                Messages.of("parts.today-s-rig", workspace.live().rig().name()));
        today.setOnAction(event -> rework(entry, workspace.live().rig()));
        other.getItems().add(today);
        workspace.rigs().list(kept -> {
            for (Rigs.Kept one : kept) {
                MenuItem item = new MenuItem(one.name());
                item.setOnAction(event -> workspace.rigs().read(one, rig -> rework(entry, rig)));
                other.getItems().add(item);
            }
        });
        TextField at = new TextField();
        at.setId("split-at");
        at.setPromptText(Messages.of("parts.at-s"));
        at.setPrefColumnCount(5);
        Runnable split = () -> {
            try {
                workspace.takes().making().split(entry.file(), Digits.typed(at.getText()));
            } catch (NumberFormatException e) {
                workspace.trouble(Messages.of("parts.is-no-time-write-for-example-12-5", at.getText()));
            }
        };
        at.setOnAction(event -> split.run());
        HBox row = new HBox(
                6,
                other,
                at,
                button(
                        Messages.of("parts.split"),
                        "split-take",
                        Messages.of("parts.makes-two-takes-of-it-this-one"),
                        split));
        row.setAlignment(Pos.CENTER_LEFT);
        return new VBox(row);
    }

    private void rework(Shelf.Entry entry, Rig rig) {
        workspace.takes().reworked(entry.file(), rig, table -> {
            List<String> head = new ArrayList<>(table.head());
            head.add(Messages.of("parts.difference"));
            List<List<String>> rows = new ArrayList<>();
            for (List<String> row : table.rows()) {
                List<String> cells = new ArrayList<>(row);
                cells.replaceAll(cell -> cell.isEmpty() ? "none" : cell);
                cells.add(Differences.of(row.get(1), row.get(2)));
                rows.add(cells);
            }
            wide.accept(new TablePage(
                    workspace,
                    "reworked",
                    entry.title(),
                    Messages.of("parts.the-same-samples-worked-out-twice"),
                    List.of(new Report.Table(Messages.of("parts.numbers-with-both-rigs"), head, rows))));
        });
    }

    private Optional<Button> phases(Shelf.Entry entry, Report report) {
        List<Report.Table> tables = report.sections().get(0).tables().stream()
                .filter(table -> table.title().endsWith(PhaseTables.TITLE))
                .toList();
        return tables.isEmpty()
                ? Optional.empty()
                : Optional.of(button(
                        Messages.of("parts.phase-by-phase"),
                        "show-phases",
                        Messages.of("parts.each-reader-s-numbers-in-each"),
                        () -> wide.accept(new TablePage(workspace, "phases", entry.title(), "", tables))));
    }

    static Label hint(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setWrapText(true);
        return label;
    }

    private static List<javafx.scene.Node> numbers(Report report) {
        List<javafx.scene.Node> nodes = new ArrayList<>();
        for (Report.Section section : report.sections()) {
            for (Report.Table table : section.tables()) {
                if (table.title().equals(TakeReport.READINGS)) {
                    nodes.add(grid(
                            List.of("", "", Messages.of("parts.quality")),
                            table.rows().stream()
                                    .map(row -> List.of(row.get(0) + " · " + row.get(1), row.get(2), row.get(3)))
                                    .toList()));
                }
            }
            for (Report.Paragraph paragraph : section.paragraphs()) {
                if (paragraph.title().equals(TakeReport.DOUBTS)) {
                    paragraph.lines().forEach(line -> nodes.add(hint(line)));
                }
            }
        }
        return nodes.isEmpty() ? List.of(hint(Messages.of("parts.no-reader-is-set-up-on-its"))) : nodes;
    }

    static GridPane grid(List<String> head, List<List<String>> rows) {
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(3);
        grid.setId("take-numbers");
        for (int c = 0; c < head.size(); c++) {
            Label label = new Label(head.get(c));
            label.getStyleClass().add("hint");
            label.setWrapText(true);
            grid.add(label, c, 0);
            GridPane.setHalignment(label, c == 0 ? HPos.LEFT : HPos.RIGHT);
        }
        String group = "";
        int at = 1;
        for (List<String> row : rows) {
            // Numbers of one reader stand together under its name.
            int cut = row.get(0).lastIndexOf(" · ");
            String of = cut < 0 ? "" : row.get(0).substring(0, cut);
            if (!of.equals(group)) {
                group = of;
                Label label = new Label(of.replaceFirst(", ", " · "));
                label.getStyleClass().add("table-group");
                label.setWrapText(true);
                grid.add(label, 0, at++, head.size(), 1);
            }
            for (int c = 0; c < row.size(); c++) {
                Label label = new Label(c == 0 ? row.get(0).substring(cut < 0 ? 0 : cut + 3) : row.get(c));
                label.setWrapText(true);
                label.setMinWidth(c == 0 ? 0 : Region.USE_PREF_SIZE);
                label.getStyleClass().add(c == 0 ? "hint" : "table-number");
                grid.add(label, c, at);
                GridPane.setHalignment(label, c == 0 ? HPos.LEFT : HPos.RIGHT);
                GridPane.setHgrow(label, c == 0 ? Priority.ALWAYS : Priority.NEVER);
            }
            at++;
        }
        return grid;
    }

    private FlowPane tags(Shelf.Entry entry) {
        FlowPane tags = new FlowPane(6, 6);
        for (String tag : entry.tags().stream()
                .filter(one -> !one.equals(Shelf.Entry.STAR))
                .toList()) {
            tags.getChildren().add(button(tag + "  ×", "untag", Messages.of("parts.take-this-tag-off"), () -> workspace
                    .takes()
                    .write(entry, tagging(List.of(), List.of(tag)), tagging(List.of(tag), List.of()))));
        }
        TextField more = new TextField();
        more.setId("add-tag");
        more.setPromptText(Messages.of("parts.add-a-tag"));
        more.setPrefColumnCount(8);
        more.setOnAction(event -> {
            String tag = more.getText().strip();
            if (!tag.isEmpty() && !entry.tags().contains(tag)) {
                workspace.takes().write(entry, tagging(List.of(tag), List.of()), tagging(List.of(), List.of(tag)));
            }
        });
        tags.getChildren().add(more);
        return tags;
    }

    private static LogEntry tagging(List<String> on, List<String> off) {
        return new LogEntry(null, null, on, off, List.of());
    }

    private void several(List<Shelf.Entry> chosen) {
        page.getChildren().add(head(Messages.of("parts.takes-chosen", chosen.size())));
        if (chosen.size() > MOST_TAKES) {
            page.getChildren()
                    .addAll(
                            hint(Messages.of("parts.up-to-takes-can-be-laid-side-by", MOST_TAKES)),
                            new GroupTest(workspace, chosen));
            return;
        }
        VBox numbers = new VBox(6, hint(Messages.of("parts.reading-their-numbers")));
        Button over = button(
                Messages.of("parts.over-one-another"),
                "show-overlay",
                Messages.of("parts.the-same-channel-of-all-of-them-in"),
                () -> wide.accept(new OverlayPage(workspace, chosen)));
        Button join = button(
                Messages.of("parts.join"),
                "join-takes",
                Messages.of("parts.makes-one-take-of-them-with-gaps"),
                () -> workspace
                        .takes()
                        .making()
                        .join(chosen.stream().map(Shelf.Entry::file).toList()));
        page.getChildren()
                .addAll(
                        new HBox(6, over, join),
                        numbers,
                        new GroupTest(workspace, chosen),
                        new ReportForm(workspace, chosen));
        List<Path> files = chosen.stream().map(Shelf.Entry::file).toList();
        workspace.takes().setups(files, differ -> workspace.takes().read(files, said -> {
            if (shown.equals(chosen)) {
                numbers.getChildren().setAll(new SideBySide(workspace, wide).nodes(said, chosen, differ));
            }
        }));
    }
}
