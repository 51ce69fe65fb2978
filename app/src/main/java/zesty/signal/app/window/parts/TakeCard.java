package zesty.signal.app.window.parts;

import java.io.File;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import javafx.collections.WeakListChangeListener;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.stage.FileChooser;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.HomePath;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.LogEntry;
import zesty.signal.takes.Shelf;

/** A take on the shelf: a small drawing of its lanes, its name, and what can be done with it. */
final class TakeCard extends VBox {
    private static final double DRAWING_WIDTH = 266;
    private static final double DRAWING_HEIGHT = 84;
    private static final int MOST_LANES = 5;
    /** Two lines, whether or not they are there yet. */
    private static final double NUMBERS_HEIGHT = 30;

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");

    private static final PseudoClass CHOSEN = PseudoClass.getPseudoClass("chosen");

    private final Workspace workspace;
    private final CardWriting writing;
    private final Shelf.Entry entry;
    private final Label title = new Label();
    private final Label numbers = new Label();
    private final VBox head;
    private final HBox name = new HBox(6);
    private final CheckBox choose = new CheckBox();
    private final ObservableList<Path> chosen;
    private final ListChangeListener<Path> follows = change -> chosenNow();

    /** @param chosen the takes that are chosen on the shelf; the card follows and changes it */
    TakeCard(Workspace workspace, CardWriting writing, Shelf.Entry entry, ObservableList<Path> chosen) {
        super(7);
        this.chosen = chosen;
        this.workspace = workspace;
        this.writing = writing;
        this.entry = entry;

        title.setText(entry.title());
        title.getStyleClass().add("take-title");
        title.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
        String time = entry.started().atZone(ZoneId.systemDefault()).format(TIME);
        String words = entry.trouble().isEmpty()
                ? time + " · " + Wording.clock(entry.seconds()) + " · " + Wording.size(entry.bytes())
                        + (entry.mended().isEmpty() ? "" : Messages.of("parts.repaired"))
                : entry.trouble();
        Label about = new Label(words);
        about.getStyleClass().add("hint");
        about.setWrapText(true);
        about.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
        choose.setId("choose");
        choose.setFocusTraversable(false);
        Tip.on(choose, Messages.of("parts.choose-it-to-read-compare-and"));
        chosenNow();
        choose.setOnAction(event -> toggle());
        chosen.addListener(new WeakListChangeListener<>(follows));
        Region between = new Region();
        HBox.setHgrow(between, Priority.ALWAYS);
        Button star = new Button(entry.starred() ? Shelf.Entry.STAR : "\u2606");
        star.setId("star");
        star.getStyleClass().setAll("star");
        star.setFocusTraversable(false);
        star.setAccessibleText(entry.starred() ? Messages.of("parts.starred") : Messages.of("parts.not-starred"));
        Tip.on(star, Messages.of("parts.singles-it-out-or-no-longer-b"));
        star.setOnAction(event -> star());
        name.getChildren().setAll(title, between, star, choose);
        head = new VBox(1, name, about);
        if (!entry.tags().isEmpty() || !entry.marks().isEmpty()) {
            Label told = new Label(Stream.concat(entry.tags().stream(), entry.marks().stream())
                    .filter(one -> !one.equals(Shelf.Entry.STAR))
                    .limit(5)
                    .collect(Collectors.joining(" · ")));
            told.getStyleClass().add("hint");
            told.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
            head.getChildren().add(told);
        }
        numbers.getStyleClass().add("take-numbers");
        numbers.setWrapText(true);
        numbers.setAlignment(Pos.TOP_LEFT);
        numbers.setMinHeight(workspace.view().textSize().get().of(NUMBERS_HEIGHT));
        numbers.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
        numbers.managedProperty().bind(numbers.visibleProperty());
        head.getChildren().add(numbers);
        numbers(entry.numbers());
        Button open = button(
                Messages.of("parts.open"),
                Messages.of("parts.show-it-in-the-lanes-enter"),
                () -> workspace.open(entry.file()));
        open.setDisable(!entry.trouble().isEmpty());
        Button rename = button(Messages.of("parts.rename"), Messages.of("parts.give-it-another-name-f2"), this::rename);
        Button export = button(
                Messages.of("parts.export-2"), Messages.of("parts.write-it-into-a-file-of-another"), this::export);
        Button remove =
                button(Messages.of("parts.remove"), Messages.of("parts.take-it-off-the-shelf-undo"), () -> workspace
                        .takes()
                        .remove(entry));
        HBox buttons = new HBox(6, open, rename, export, remove);
        buttons.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(drawing(entry), head, buttons);
        getStyleClass().add("take");
        setFocusTraversable(true);
        setMaxWidth(USE_PREF_SIZE);
        setOnMouseClicked(event -> {
            requestFocus();
            if (event.getClickCount() == 2 && entry.trouble().isEmpty()) {
                workspace.open(entry.file());
            }
        });
        setOnKeyPressed(event -> {
            if (event.getTarget() != this) {
                return;
            }
            if (event.getCode() == KeyCode.ENTER && entry.trouble().isEmpty()) {
                workspace.open(entry.file());
            } else if (event.getCode() == KeyCode.F2) {
                rename();
            } else if (event.getCode() == KeyCode.SPACE) {
                toggle();
            } else if (event.getCode() == KeyCode.B) {
                star();
            } else if (event.getCode() == KeyCode.DELETE) {
                workspace.takes().remove(entry);
            } else if (event.getCode() == KeyCode.X) {
                export();
            } else {
                return;
            }
            event.consume();
        });
    }

    /** Shows the main numbers of its readers; null while they are not worked out. Its place is kept, so that nothing moves. */
    void numbers(List<String> now) {
        numbers.setVisible(now == null || !now.isEmpty());
        numbers.setText(now == null ? "\u2026\n" : String.join("\n", now.subList(0, Math.min(2, now.size()))));
        Tip.on(numbers, now == null ? null : String.join("\n", now));
    }

    private void star() {
        List<String> star = List.of(Shelf.Entry.STAR);
        workspace
                .takes()
                .write(
                        entry,
                        new LogEntry(
                                null,
                                null,
                                entry.starred() ? List.of() : star,
                                entry.starred() ? star : List.of(),
                                List.of()),
                        null);
    }

    private void chosenNow() {
        boolean is = chosen.contains(entry.file());
        choose.setSelected(is);
        pseudoClassStateChanged(CHOSEN, is);
    }

    private void toggle() {
        if (!chosen.remove(entry.file())) {
            chosen.add(entry.file());
        }
    }

    private static Button button(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().setAll("small-button");
        Tip.on(button, tip);
        button.setOnAction(event -> action.run());
        return button;
    }

    private void rename() {
        writing.end();
        TextField field = new TextField(entry.title());
        field.setId("rename");
        name.getChildren().set(0, field);
        field.requestFocus();
        field.selectAll();
        writing.begins(field::equals, () -> name.getChildren().set(0, title));
        field.setOnAction(event -> {
            String name = field.getText().strip();
            writing.leaveFor(entry.file());
            if (!name.isEmpty() && !name.equals(entry.title())) {
                workspace.takes().rename(entry, name);
            }
        });
    }

    /** Asks where to, in the card itself: a path to write over, or the system's own chooser. */
    private void export() {
        String name = entry.title().replaceAll("[^\\p{L}\\p{N} .,-]", "_") + ".csv";
        TextField path = new TextField(HomePath.shown(name));
        path.setId("export-path");
        Tip.on(path, Messages.of("parts.where-it-goes-the-ending-chooses"));
        HBox.setHgrow(path, Priority.ALWAYS);
        writing.end();
        HBox row = new HBox(6, path);
        Button browse = button("…", Messages.of("parts.choose-with-the-system-s-own"), () -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle(Messages.of("parts.export-the-take"));
            chooser.setInitialFileName(name);
            File file = chooser.showSaveDialog(getScene().getWindow());
            if (file != null) {
                path.setText(file.getPath());
            }
        });
        Runnable go = () -> {
            writing.leaveFor(entry.file());
            exportTo(path.getText().strip());
        };
        Button write = button(Messages.of("parts.write"), Messages.of("parts.write-the-file-enter"), go);
        write.setId("export-write");
        row.getChildren().addAll(browse, write);
        path.setOnAction(event -> go.run());
        getChildren().add(row);
        path.requestFocus();
        path.selectAll();
        writing.begins(row.getChildren()::contains, () -> getChildren().remove(row));
    }

    private void exportTo(String path) {
        try {
            if (path.isEmpty()) {
                throw new InvalidPathException(path, "empty");
            }
            workspace.takes().export(entry.file(), HomePath.of(path));
        } catch (InvalidPathException e) {
            workspace.trouble(Messages.of("parts.is-no-file-name-write-for-example", path));
        }
    }

    private Node drawing(Shelf.Entry entry) {
        Canvas canvas = new Canvas(DRAWING_WIDTH, DRAWING_HEIGHT);
        GraphicsContext g = canvas.getGraphicsContext2D();
        List<Shelf.Drawing> lanes = entry.drawing();
        int count = Math.min(MOST_LANES, lanes.size());
        for (int lane = 0; lane < count; lane++) {
            Shelf.Drawing one = lanes.get(lane);
            g.setFill(Color.web(Palette.css(
                    Palette.channel(one.place()), workspace.view().night().get())));
            draw(g, one.extremes(), lane * DRAWING_HEIGHT / count, DRAWING_HEIGHT / count - 3);
        }
        return canvas;
    }

    /** One lane as a band from lowest to highest, without a break from cell to cell. */
    private static void draw(GraphicsContext g, double[] extremes, double top, double height) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i + 1 < extremes.length; i += 2) {
            low = Math.min(low, extremes[i]);
            high = Math.max(high, extremes[i + 1]);
        }
        double gain = height / Math.max(high - low, 1e-12);
        int cells = extremes.length / 2;
        double width = DRAWING_WIDTH / cells;
        double before = Double.NaN;
        for (int cell = 0; cell < cells; cell++) {
            double a = (high - extremes[2 * cell + 1]) * gain;
            double b = (high - extremes[2 * cell]) * gain;
            // A cell begins where the one before it ended.
            double from = before < a ? before : a;
            double to = before > b ? before : b;
            g.fillRect(cell * width, top + from, width + 0.5, Math.max(1.2, to - from));
            before = a == a ? (a + b) / 2 : before;
        }
    }
}
