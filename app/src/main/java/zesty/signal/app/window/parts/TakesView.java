package zesty.signal.app.window.parts;

import java.io.File;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.stage.FileChooser;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.takes.Shelf;

/** The shelf of takes by day, each as a small drawing of its lanes. */
public final class TakesView extends ScrollPane {
    private static final double DRAWING_WIDTH = 266;
    private static final double CARD_WIDTH = 292;
    /** What the scroll bar and the edges take. */
    private static final double BESIDE = 34;

    private static final double CARD_HEIGHT = 190;
    private static final double DRAWING_HEIGHT = 84;
    private static final int MOST_LANES = 5;
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEEE, d MMMM uuuu", Locale.ENGLISH);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");

    private final Workspace workspace;
    /** A few takes of a day leave room beside them for the day before. */
    private final FlowPane days = new FlowPane(26, 16);
    /** A card belongs to its take, and stays the same one while nothing of it changes. */
    private final Map<Path, Card> cards = new HashMap<>();

    private List<Shelf.Entry> shown;

    /** Ends what is being written on a card, a name or a path; nothing where none is. A listing waits meanwhile. */
    private Runnable endWriting;

    private boolean looking;

    /** A place on the shelf; its card is made when it comes near sight. */
    private final class Card extends StackPane {
        private final Shelf.Entry entry;

        Card(Shelf.Entry entry) {
            this.entry = entry;
            setMinSize(
                    workspace.view().textSize().get().of(CARD_WIDTH),
                    workspace.view().textSize().get().of(CARD_HEIGHT));
        }

        void make() {
            if (getChildren().isEmpty()) {
                setMinSize(USE_COMPUTED_SIZE, USE_COMPUTED_SIZE);
                getChildren().add(card(entry));
            }
        }

        void focus() {
            make();
            getChildren().get(0).requestFocus();
        }
    }

    public TakesView(Workspace workspace) {
        this.workspace = workspace;
        setId("takes-view");
        getStyleClass().addAll("plain-scroll", "takes-view");
        setContent(days);
        setFitToWidth(true);
        setMinHeight(0);
        days.setRowValignment(VPos.TOP);
        workspace.view().textSize().addListener((p, was, is) -> fillAnew());
        workspace.takes().all().addListener((p, was, is) -> fill(is));
        workspace.view().night().addListener((p, was, is) -> fillAnew());
        widthProperty().addListener((p, was, is) -> share());
        vvalueProperty().addListener((p, was, is) -> look());
        viewportBoundsProperty().addListener((p, was, is) -> look());
        days.heightProperty().addListener((p, was, is) -> look());
        workspace.takes().listed().addListener((p, was, is) -> fillAnew());
        sceneProperty().addListener((p, was, is) -> writingEnds());
        fill(List.of());
    }

    private void fillAnew() {
        cards.clear();
        shown = null;
        fill(workspace.takes().all().get());
    }

    private void fill(List<Shelf.Entry> entries) {
        if (entries.equals(shown) || endWriting != null) {
            return;
        }
        shown = List.copyOf(entries);
        Path held = focused();
        // Meanwhile no key reaches the card of another take.
        if (held != null) {
            requestFocus();
        }
        cards.keySet().retainAll(entries.stream().map(Shelf.Entry::file).collect(Collectors.toSet()));
        arrange(entries);
        look();
        Card still = held == null ? null : cards.get(held);
        if (still != null) {
            still.focus();
        }
    }

    /**
     * Ends once a control that is none of these has the keyboard, as after Escape; another program having it ends nothing.
     *
     * @param end takes the controls away
     */
    private void writingBegins(Predicate<Node> controls, Runnable end) {
        Scene scene = getScene();
        ChangeListener<Node> elsewhere = (p, was, is) -> {
            if (!controls.test(is)) {
                writingEnds();
            }
        };
        scene.focusOwnerProperty().addListener(elsewhere);
        endWriting = () -> {
            scene.focusOwnerProperty().removeListener(elsewhere);
            end.run();
        };
    }

    /** Takes the field away, and shows what was listed meanwhile. */
    private void writingEnds() {
        Runnable end = endWriting;
        if (end != null) {
            endWriting = null;
            end.run();
            Platform.runLater(() -> fill(workspace.takes().all().get()));
        }
    }

    /** @return the take whose card, or a control on it, has the keyboard; null for none */
    private Path focused() {
        Node owner = getScene() == null ? null : getScene().getFocusOwner();
        for (Node node = owner; node != null; node = node.getParent()) {
            if (node instanceof Card card) {
                return card.entry.file();
            }
        }
        return null;
    }

    private Card cardOf(Shelf.Entry entry) {
        Card kept = cards.get(entry.file());
        if (kept == null || !kept.entry.equals(entry)) {
            kept = new Card(entry);
            cards.put(entry.file(), kept);
        }
        return kept;
    }

    /** Makes the cards in sight, and those a screen above and below. */
    private void look() {
        if (looking) {
            return;
        }
        looking = true;
        Platform.runLater(() -> {
            looking = false;
            double height = getViewportBounds().getHeight();
            double top = getVvalue() * Math.max(0, days.getHeight() - height);
            for (Card card : cards.values()) {
                if (card.getScene() != null && card.getChildren().isEmpty()) {
                    Bounds place = days.sceneToLocal(card.localToScene(card.getLayoutBounds()));
                    if (place.getMaxY() > top - height && place.getMinY() < top + 2 * height) {
                        card.make();
                    }
                }
            }
        });
    }

    private void arrange(List<Shelf.Entry> entries) {
        days.getChildren().clear();
        if (entries.isEmpty()) {
            Label empty = new Label(
                    workspace.takes().listed().get()
                            ? "No takes yet.\nPress R to record what the board sends; the take then appears here."
                            : "Reading the takes …");
            empty.getStyleClass().add("empty");
            days.getChildren().add(empty);
            return;
        }
        LocalDate before = null;
        FlowPane day = null;
        for (Shelf.Entry entry : entries) {
            LocalDate date = entry.started().atZone(ZoneId.systemDefault()).toLocalDate();
            if (!date.equals(before)) {
                before = date;
                day = new FlowPane(12, 12);
                day.setMinWidth(0);
                Label heading = new Label(date.format(DAY));
                heading.getStyleClass().add("day");
                days.getChildren().add(new VBox(8, heading, day));
            }
            day.getChildren().add(cardOf(entry));
        }
        share();
    }

    /** Makes each day as wide as its takes side by side, and none wider than the shelf. */
    private void share() {
        double card = workspace.view().textSize().get().of(CARD_WIDTH) + 12;
        for (Node day : days.getChildren()) {
            if (day instanceof VBox box && box.getChildren().get(1) instanceof FlowPane takes) {
                takes.setPrefWrapLength(Math.min(takes.getChildren().size() * card, getWidth() - BESIDE));
            }
        }
    }

    private Node card(Shelf.Entry entry) {
        Label title = new Label(entry.title());
        title.getStyleClass().add("take-title");
        title.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
        String time = entry.started().atZone(ZoneId.systemDefault()).format(TIME);
        String words = entry.trouble().isEmpty()
                ? time + " · " + Wording.clock(entry.seconds()) + " · " + Wording.size(entry.bytes())
                        + (entry.mended().isEmpty() ? "" : " · repaired")
                : entry.trouble();
        Label about = new Label(words);
        about.getStyleClass().add("hint");
        about.setWrapText(true);
        about.setMaxWidth(workspace.view().textSize().get().of(DRAWING_WIDTH));
        VBox head = new VBox(1, title, about);
        VBox card = new VBox(7);
        Button open = button("Open", "show it in the lanes (Enter)", () -> workspace.open(entry.file()));
        open.setDisable(!entry.trouble().isEmpty());
        Button rename = button("Rename", "give it another name (F2)", () -> rename(entry, head, title));
        Button export = button("Export", "write it as CSV (X)", () -> export(entry, card));
        Button remove = button("Remove", "take it off the shelf; Undo restores it (Delete)", () -> workspace
                .takes()
                .remove(entry));
        HBox buttons = new HBox(6, open, rename, export, remove);
        buttons.setAlignment(Pos.CENTER_LEFT);
        card.getChildren().addAll(drawing(entry), head, buttons);
        card.getStyleClass().add("take");
        card.setFocusTraversable(true);
        card.setMaxWidth(Region.USE_PREF_SIZE);
        card.setOnMouseClicked(event -> {
            card.requestFocus();
            if (event.getClickCount() == 2 && entry.trouble().isEmpty()) {
                workspace.open(entry.file());
            }
        });
        card.setOnKeyPressed(event -> {
            if (event.getTarget() != card) {
                return;
            }
            if (event.getCode() == KeyCode.ENTER && entry.trouble().isEmpty()) {
                workspace.open(entry.file());
            } else if (event.getCode() == KeyCode.F2) {
                rename(entry, head, title);
            } else if (event.getCode() == KeyCode.DELETE) {
                workspace.takes().remove(entry);
            } else if (event.getCode() == KeyCode.X) {
                export(entry, card);
            } else {
                return;
            }
            event.consume();
        });
        return card;
    }

    private static Button button(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().setAll("small-button");
        button.setTooltip(new Tooltip(tip));
        button.setOnAction(event -> action.run());
        return button;
    }

    private void rename(Shelf.Entry entry, VBox head, Label title) {
        writingEnds();
        TextField field = new TextField(entry.title());
        field.setId("rename");
        head.getChildren().set(0, field);
        field.requestFocus();
        field.selectAll();
        writingBegins(field::equals, () -> head.getChildren().set(0, title));
        field.setOnAction(event -> {
            String name = field.getText().strip();
            leaveFor(entry.file());
            if (!name.isEmpty() && !name.equals(entry.title())) {
                workspace.takes().rename(entry, name);
            }
        });
    }

    /** Ends the writing; the keyboard returns to the card once the key is up, or Enter held down would open the take. */
    private void leaveFor(Path file) {
        requestFocus();
        writingEnds();
        setOnKeyReleased(event -> {
            setOnKeyReleased(null);
            Card card = cards.get(file);
            if (card != null && isFocused()) {
                card.focus();
            }
        });
    }

    /** Asks where to, in the card itself: a path to write over, or the system's own chooser. */
    private void export(Shelf.Entry entry, VBox card) {
        String name = entry.title().replaceAll("[^\\p{L}\\p{N} .,-]", "_") + ".csv";
        TextField path =
                new TextField(Path.of(System.getProperty("user.home"), name).toString());
        path.setId("export-path");
        path.setTooltip(new Tooltip("where the CSV goes; Enter writes it, Escape gives up"));
        HBox.setHgrow(path, Priority.ALWAYS);
        writingEnds();
        HBox row = new HBox(6, path);
        Button browse = button("…", "choose with the system's own dialog", () -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("Export as CSV");
            chooser.setInitialFileName(name);
            File file = chooser.showSaveDialog(getScene().getWindow());
            if (file != null) {
                path.setText(file.getPath());
            }
        });
        Runnable go = () -> {
            leaveFor(entry.file());
            exportTo(entry, path.getText().strip());
        };
        Button write = button("Write", "write the CSV (Enter)", go);
        write.setId("export-write");
        row.getChildren().addAll(browse, write);
        path.setOnAction(event -> go.run());
        card.getChildren().add(row);
        path.requestFocus();
        path.selectAll();
        writingBegins(row.getChildren()::contains, () -> card.getChildren().remove(row));
    }

    private void exportTo(Shelf.Entry entry, String path) {
        try {
            if (path.isEmpty()) {
                throw new InvalidPathException(path, "empty");
            }
            workspace.takes().export(entry.file(), Path.of(path));
        } catch (InvalidPathException e) {
            workspace.trouble("'" + path + "' is no file name; write for example sail.csv.");
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
