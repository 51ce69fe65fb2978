package zesty.signal.app.window.parts;

import java.io.EOFException;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.exchange.TakeView;
import zesty.signal.exchange.foreign.DumpFile;
import zesty.signal.exchange.foreign.ForeignFile;
import zesty.signal.exchange.foreign.TableFile;
import zesty.signal.takes.DiskWords;

/** A file from elsewhere, shown as it is understood before it is read, and corrected by hand. */
final class ImportForm extends VBox {
    private static final int SHOWN_ROWS = 5;
    private static final int SHOWN_COLUMNS = 4;

    /** How a file can be read. */
    private enum How {
        BY_ITS_FORMAT,
        ROWS,
        BLOCKS,
        INTERLEAVED
    }

    /** What was seen of it. */
    private record Seen(
            List<String> remarks, List<TakeView.Source> sources, boolean timed, double[] seconds, double[][] values) {}

    private final Workspace workspace;
    private final Runnable done;
    private final TextField path = new TextField();
    private final ToggleGroup hows = new ToggleGroup();
    private final TextField columns = field("import-columns", Messages.of("parts.temp-volts"));
    private final TextField time = field("import-time", Messages.of("parts.found-automatically"));
    private final TextField rate = field("import-rate", Messages.of("parts.rows-a-second"));
    private final VBox seen = new VBox(5);
    private final Button bring = new Button(Messages.of("parts.import"));

    private final ToggleButton listen = new ToggleButton(Messages.of("parts.listen-to-the-board"));
    private final Label heard = hint("");
    private Timeline clock;
    private long from;

    ImportForm(Workspace workspace, Runnable done) {
        super(8);
        this.workspace = workspace;
        this.done = done;
        path.setId("import-path");
        path.setPromptText(Messages.of("parts.path-of-the-file"));
        path.setOnAction(event -> look());
        HBox.setHgrow(path, Priority.ALWAYS);
        Button browse = new Button("…");
        browse.getStyleClass().setAll("small-button");
        Tip.on(browse, Messages.of("parts.choose-with-the-system-s-own"));
        browse.setOnAction(event -> {
            File file = new FileChooser().showOpenDialog(getScene().getWindow());
            if (file != null) {
                look(file.toPath());
            }
        });
        FlowPane ways = new FlowPane(6, 6);
        for (How how : How.values()) {
            ToggleButton way = new ToggleButton(
                    switch (how) {
                        case BY_ITS_FORMAT -> Messages.of("parts.table-sound-edf");
                        case ROWS -> Messages.of("parts.dump-a-line-a-row");
                        case BLOCKS -> Messages.of("parts.dump-column-after-column");
                        case INTERLEAVED -> Messages.of("parts.dump-by-turns");
                    });
            way.getStyleClass().setAll("chip");
            way.setUserData(how);
            way.setToggleGroup(hows);
            way.setSelected(how == How.BY_ITS_FORMAT);
            ways.getChildren().add(way);
        }
        hows.selectedToggleProperty().addListener((p, was, is) -> {
            if (is == null) {
                hows.selectToggle(was);
            } else {
                look();
            }
        });
        for (TextField one : List.of(columns, time, rate)) {
            one.setOnAction(event -> look());
        }
        GridPane fields = new GridPane();
        fields.setHgap(8);
        fields.setVgap(6);
        fields.addRow(0, name(Messages.of("parts.columns-of-a-dump")), columns);
        fields.addRow(1, name(Messages.of("parts.time-column-of-a-table")), time);
        fields.addRow(2, name(Messages.of("parts.rate-in-place-of-times")), rate);
        listen.setId("import-listen");
        listen.getStyleClass().setAll("chip");
        Tip.on(listen, Messages.of("parts.for-a-board-that-kept-its-samples"));
        listen.setOnAction(event -> listen());
        heard.setMinWidth(0);
        HBox fromBoard = new HBox(8, listen, heard);
        fromBoard.setAlignment(Pos.CENTER_LEFT);
        bring.setId("import-go");
        bring.getStyleClass().setAll("small-button");
        bring.setDisable(true);
        bring.setOnAction(event -> go());
        getChildren().addAll(new HBox(6, path, browse), fromBoard, ways, fields, seen, bring);
    }

    /** What the board prints from one press to the next is kept as a file, and looked at as a dump. */
    private void listen() {
        if (listen.isSelected()) {
            if (!workspace.live().connected()) {
                listen.setSelected(false);
                workspace.trouble(Messages.of("parts.no-board-is-connected-connect-it"));
                return;
            }
            from = workspace.sourceActions().byteCount();
            clock = new Timeline(new KeyFrame(Duration.millis(250), event -> hear()));
            clock.setCycleCount(Animation.INDEFINITE);
            clock.play();
            hear();
            return;
        }
        clock.stop();
        byte[] bytes = workspace.sourceActions().since(from);
        if (bytes == null || bytes.length == 0) {
            heard.setText("");
            workspace.trouble(
                    bytes == null
                            ? Messages.of("parts.the-board-printed-more-than-a")
                            : Messages.of("parts.the-board-printed-nothing-press"));
            return;
        }
        Path file = workspace
                .places()
                .dumps()
                .resolve("dump " + LocalDateTime.now().format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm.ss"))
                        + ".txt");
        workspace
                .tasks()
                .later(
                        Messages.of("parts.what-the-board-printed-could-not"),
                        () -> {
                            Files.createDirectories(file.getParent());
                            Files.write(file, bytes, StandardOpenOption.CREATE_NEW);
                        },
                        () -> {
                            heard.setText(Messages.of("parts.kept", file.getFileName()));
                            hows.getToggles().stream()
                                    .filter(way -> way.getUserData() == How.BLOCKS)
                                    .findFirst()
                                    .ifPresent(hows::selectToggle);
                            look(file);
                        });
    }

    private void hear() {
        byte[] bytes = workspace.sourceActions().since(from);
        long lines = 0;
        for (int i = 0; bytes != null && i < bytes.length; i++) {
            lines += bytes[i] == '\n' ? 1 : 0;
        }
        heard.setText(
                bytes == null
                        ? Messages.of("parts.more-than-a-megabyte")
                        : Messages.of("parts.lines-press-the-board-s-button", lines));
    }

    private static TextField field(String id, String prompt) {
        TextField field = new TextField();
        field.setId(id);
        field.setPromptText(prompt);
        field.setPrefColumnCount(11);
        field.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHgrow(field, Priority.ALWAYS);
        return field;
    }

    private static Label name(String words) {
        Label label = new Label(words);
        label.getStyleClass().add("hint");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private static Label hint(String text) {
        Label label = new Label(text);
        label.getStyleClass().add("hint");
        label.setWrapText(true);
        return label;
    }

    /** @param file null to ask which */
    void look(Path file) {
        path.setText(file == null ? "" : file.toString());
        seen.getChildren().clear();
        bring.setDisable(true);
        if (file == null) {
            path.requestFocus();
        } else {
            look();
        }
    }

    private void look() {
        if (path.getText().isBlank()) {
            return;
        }
        bring.setDisable(true);
        seen.getChildren().setAll(hint(Messages.of("parts.looking-at-it")));
        Path file = Path.of(path.getText().strip());
        workspace
                .tasks()
                .fetch(
                        Messages.of("parts.the-file-could-not-be-looked-at"),
                        () -> {
                            try (ForeignFile view = open(file)) {
                                return seen(view);
                            } catch (IOException e) {
                                return e.getMessage();
                            }
                        },
                        found -> {
                            if (found instanceof Seen one) {
                                show(one);
                            } else {
                                seen.getChildren().setAll(hint(String.valueOf(found)));
                            }
                        });
    }

    private How how() {
        return (How) hows.getSelectedToggle().getUserData();
    }

    private ForeignFile open(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException(file + DiskWords.absent(file));
        }
        How how = how();
        if (how != How.BY_ITS_FORMAT) {
            List<String> names = Arrays.stream(columns.getText().split(","))
                    .map(String::strip)
                    .filter(one -> !one.isEmpty())
                    .toList();
            return new DumpFile(file, DumpFile.Layout.valueOf(how.name()), names);
        }
        return ForeignFile.knows(file)
                ? ForeignFile.open(file)
                : new TableFile(file, time.getText().strip(), rateHz() > 0);
    }

    private double rateHz() {
        try {
            return Digits.typed(rate.getText());
        } catch (NumberFormatException e) {
            return Double.NaN;
        }
    }

    private static Seen seen(ForeignFile view) throws IOException {
        List<double[]> times = new ArrayList<>();
        List<double[][]> rows = new ArrayList<>();
        TakeView.Source first = view.sources().get(0);
        int count = Math.min(SHOWN_COLUMNS, first.columns().size());
        try {
            view.read(0, IntStream.range(0, count).toArray(), (seconds, values) -> {
                times.add(seconds);
                rows.add(values);
                throw new EOFException();
            });
        } catch (EOFException e) {
            // The first rows are enough to see how it is read.
        }
        double[] seconds = times.isEmpty() ? new double[0] : times.get(0);
        double[][] values = rows.isEmpty() ? new double[0][] : rows.get(0);
        return new Seen(view.remarks(), view.sources(), view.timed(), seconds, values);
    }

    private void show(Seen one) {
        List<javafx.scene.Node> nodes = new ArrayList<>();
        TakeView.Source first = one.sources().get(0);
        one.remarks().forEach(words -> nodes.add(hint(words)));
        boolean known = one.timed() || rateHz() > 0;
        double hz = rateHz() > 0 ? rateHz() : first.rateHz();
        nodes.add(hint(Messages.of(
                "parts.rows-columns",
                first.rows(),
                first.columns().size(),
                (known
                        ? Messages.of("parts.rows-s", Digits.about(hz, 4))
                        : Messages.of("parts.no-times-give-the-rate")))));
        GridPane grid = new GridPane();
        grid.setId("import-rows");
        grid.setHgap(14);
        grid.setVgap(2);
        grid.add(hint("s"), 0, 0);
        for (int c = 0; c < one.values().length; c++) {
            TakeView.Column column = first.columns().get(c);
            grid.add(hint(column.name() + (column.unit().isEmpty() ? "" : ", " + column.unit())), c + 1, 0);
        }
        for (int r = 0; r < Math.min(SHOWN_ROWS, one.seconds().length); r++) {
            double at = rateHz() > 0 ? r / rateHz() : one.seconds()[r];
            cell(grid, known ? Digits.about(at, 6) : "?", 0, r + 1);
            for (int c = 0; c < one.values().length; c++) {
                cell(grid, Digits.about(one.values()[c][r], 6), c + 1, r + 1);
            }
        }
        nodes.add(grid);
        seen.getChildren().setAll(nodes);
        bring.setDisable(!known);
    }

    private static void cell(GridPane grid, String text, int column, int row) {
        Label label = new Label(text);
        label.getStyleClass().add("table-number");
        label.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setHalignment(label, HPos.RIGHT);
        grid.add(label, column, row);
    }

    private void go() {
        Path file = Path.of(path.getText().strip());
        double hz = rateHz();
        bring.setDisable(true);
        workspace.tasks().fetch(Messages.of("parts.the-file-could-not-be-imported"), () -> open(file), view -> workspace
                .takes()
                .making()
                .importFile(view, file, hz, done));
    }
}
