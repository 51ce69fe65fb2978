package zesty.signal.app.window.bench;

import java.io.File;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import javafx.stage.FileChooser;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.core.decode.Framing;
import zesty.signal.core.decode.PacketFormat;
import zesty.signal.core.decode.SetAside;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.engine.ByteTail;
import zesty.signal.engine.LinkHealth;

/**
 * The bytes as they come, as text or in hexadecimal digits, each line with the moment it came. Live it shows the newest
 * lines; paused, all that is kept, to scroll and search. What it holds is bounded, whatever comes.
 */
final class ByteView extends VBox {
    private static final int LIVE_BYTES = 1 << 14;
    private static final int LIVE_LINES = 60;
    private static final int ROW_HEIGHT = 19;
    private static final int PAUSED_BYTES = 1 << 20;
    private static final int PAUSED_LINES = 20_000;
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("HH:mm:ss.SSS");

    private final Desk desk;
    private final ListView<ByteLine> list = new ListView<>();
    /** Live, rows that stay and only change their words: a list that scrolls would cost several times as much. */
    private final VBox live = new VBox();

    private final Label nothing = Bench.small("No bytes yet.");
    private final ToggleButton hex = new ToggleButton("Hex");
    private final ToggleButton pause = new ToggleButton("Pause");
    private final TextField search = new TextField();
    private final Label found = Bench.small("");
    private ByteTail.Newest held;
    private List<ByteLine> shown = List.of();
    private LinkHealth health = LinkHealth.IDLE;
    private long shownUpTo = -1;
    private boolean chosenByHand;

    ByteView(Desk desk) {
        super(6);
        this.desk = desk;
        hex.setId("bytes-hex");
        hex.setTooltip(new Tooltip("show the bytes in hexadecimal digits"));
        hex.setOnAction(event -> {
            chosenByHand = true;
            refresh();
        });
        pause.setId("bytes-pause");
        pause.setTooltip(new Tooltip("hold the picture still, to scroll back and search"));
        pause.setOnAction(event -> {
            held = pause.isSelected() ? desk.wire().newest(PAUSED_BYTES) : null;
            refresh();
        });
        search.setId("bytes-search");
        search.setPromptText("only lines with …");
        search.setPrefColumnCount(12);
        search.textProperty().addListener((p, was, is) -> refresh());
        Button copy = button("Copy", "copy the lines shown", this::copy);
        Button save = button("Save…", "save the bytes kept, as they came, to a file", this::save);
        list.setId("bytes");
        list.getStyleClass().add("byte-list");
        list.setFixedCellSize(ROW_HEIGHT);
        list.setCellFactory(view -> new Cell());
        list.setMinHeight(80);
        list.setVisible(false);
        live.setId("bytes-live");
        live.getStyleClass().add("byte-rows");
        live.setAlignment(Pos.BOTTOM_LEFT);
        live.setMinSize(0, 80);
        live.setPrefSize(10, 10);
        Rectangle clip = new Rectangle();
        clip.widthProperty().bind(live.widthProperty());
        clip.heightProperty().bind(live.heightProperty());
        live.setClip(clip);
        StackPane both = new StackPane(live, list, nothing);
        both.setMinSize(0, 80);
        VBox.setVgrow(both, Priority.ALWAYS);
        FlowPane bar = new FlowPane(6, 6, hex, pause, search, copy, save, found);
        bar.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(bar, both);
        setMinWidth(0);
        VBox.setVgrow(this, Priority.ALWAYS);
    }

    private static Button button(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.setTooltip(new Tooltip(tip));
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** Shows the newest bytes, unless it is paused. */
    void show(LinkHealth now, StreamFormat format) {
        health = now;
        boolean packets = format instanceof PacketFormat packet && packet.framing() != Framing.HEX_LINE;
        if (!chosenByHand && hex.isSelected() != packets) {
            hex.setSelected(packets);
            shownUpTo = -1;
        }
        if (held == null && now.bytes() != shownUpTo) {
            refresh();
        }
    }

    private void refresh() {
        shownUpTo = health.bytes();
        boolean still = held != null;
        ByteTail.Newest bytes = still ? held : desk.wire().newest(LIVE_BYTES);
        int most = still ? PAUSED_LINES : LIVE_LINES;
        List<ByteLine> lines = hex.isSelected() ? ByteLine.ofHex(bytes, most) : ByteLine.ofText(bytes, most, aside());
        String wanted = search.getText();
        List<ByteLine> found = wanted.isEmpty()
                ? lines
                : lines.stream().filter(l -> l.text().contains(wanted)).toList();
        this.found.setText(wanted.isEmpty() ? "" : found.size() + " of " + lines.size() + " lines");
        shown = found;
        list.setVisible(still);
        live.setVisible(!still);
        nothing.setVisible(shown.isEmpty());
        if (still) {
            list.getItems().setAll(shown);
            list.scrollTo(Math.max(0, shown.size() - 1));
        } else {
            list.getItems().clear();
            rows(shown);
        }
    }

    private void rows(List<ByteLine> lines) {
        int most = Math.max(1, (int) (live.getHeight() / ROW_HEIGHT));
        int count = Math.min(most, lines.size());
        while (live.getChildren().size() < count) {
            live.getChildren().add(new Row());
        }
        live.getChildren().remove(count, live.getChildren().size());
        for (int i = 0; i < count; i++) {
            ((Row) live.getChildren().get(i)).show(lines.get(lines.size() - count + i));
        }
    }

    private Map<String, String> aside() {
        Map<String, String> reasons = new HashMap<>();
        for (SetAside.Item item : health.aside()) {
            reasons.put(item.text().strip(), item.why());
        }
        return reasons;
    }

    private void copy() {
        ClipboardContent content = new ClipboardContent();
        content.putString(String.join("\n", shown.stream().map(ByteLine::text).toList()));
        Clipboard.getSystemClipboard().setContent(content);
        desk.say("Copied " + shown.size() + " lines.");
    }

    private void save() {
        byte[] bytes = (held != null ? held : desk.wire().newest(PAUSED_BYTES)).bytes();
        FileChooser chooser = new FileChooser();
        chooser.setInitialFileName("bytes.bin");
        File file = chooser.showSaveDialog(getScene().getWindow());
        if (file != null) {
            desk.wire().save(file.toPath(), bytes);
        }
    }

    private static String moment(long nanoTime) {
        if (nanoTime == 0) {
            return "            ";
        }
        long ago = System.nanoTime() - nanoTime;
        return LocalTime.now(ZoneId.systemDefault())
                .minus(ago, ChronoUnit.NANOS)
                .format(MOMENT);
    }

    /** A line: when it came, what it says, and why it was set aside where it was. */
    private static final class Row extends HBox {
        private final Label moment = new Label();
        private final Label text = new Label();
        private final Label why = new Label();

        Row() {
            super(10);
            getStyleClass().add("byte-row");
            setMinHeight(ROW_HEIGHT);
            setPrefHeight(ROW_HEIGHT);
            setMaxHeight(ROW_HEIGHT);
            moment.getStyleClass().add("byte-moment");
            moment.setMinWidth(Region.USE_PREF_SIZE);
            text.getStyleClass().add("byte-text");
            text.setMinWidth(Region.USE_PREF_SIZE);
            why.getStyleClass().add("byte-why");
            getChildren().addAll(moment, text);
        }

        void show(ByteLine line) {
            boolean aside = !line.why().isEmpty();
            pseudoClassStateChanged(PseudoClass.getPseudoClass("aside"), aside);
            moment.setText(ByteView.moment(line.nanoTime()));
            text.setText(line.text());
            if (aside) {
                why.setText("set aside: " + line.why());
            }
            if (aside != getChildren().contains(why)) {
                if (aside) {
                    getChildren().add(why);
                } else {
                    getChildren().remove(why);
                }
            }
        }
    }

    private static final class Cell extends ListCell<ByteLine> {
        private final Row row = new Row();

        @Override
        protected void updateItem(ByteLine line, boolean empty) {
            super.updateItem(line, empty);
            setGraphic(empty || line == null ? null : row);
            if (!empty && line != null) {
                row.show(line);
            }
        }
    }
}
