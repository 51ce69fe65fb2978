package zesty.signal.app.window.bench.source;

import java.io.File;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.stage.FileChooser;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.LinePieces;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.rig.Rig;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ByteTail;
import zesty.signal.engine.LinkHealth;

/**
 * The bytes as a running ribbon: each line or packet in its pieces, columns lined up on the strokes of their channels,
 * silences between them. Live it shows the newest; held still, all that is kept, to go back and search. What it holds is
 * bounded, whatever comes.
 */
final class Ribbon extends VBox {
    private static final int LIVE_BYTES = 1 << 14;
    /** More than can be seen at once: a stall in them is told although it has run out of sight. */
    private static final int LIVE_LINES = 400;

    private static final long TELL_STALL_NANOS = 20_000_000_000L;
    private static final int HELD_BYTES = 1 << 20;
    private static final int HELD_LINES = 20_000;
    private static final int FONT_SIZE = 12;
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("ss.SSS");

    private final Workspace workspace;
    private final ListView<RibbonPart> list = new ListView<>();
    /** Live, rows that stay and only change their words: a list that scrolls would cost several times as much. */
    private final VBox live = new VBox();

    private final HBox names = new HBox(8);
    private final Label nothing = Bench.small(Messages.of("bench.source.no-bytes-yet"));
    private final ToggleButton beneath = chip(
            Messages.of("bench.source.bytes-beneath"),
            "bytes-hex",
            Messages.of("bench.source.each-piece-s-bytes-in-hexadecimal"));
    private final ToggleButton digits = chip(
            Messages.of("bench.source.bytes-only"),
            "bytes-only",
            Messages.of("bench.source.the-bytes-as-received-not-decoded"));
    private final ToggleButton hold = chip(
            Messages.of("bench.source.pause"),
            "bytes-hold",
            Messages.of("bench.source.pause-it-to-go-back-and-search"));
    private final TextField search = new TextField();
    private final Label found = Bench.small("");
    private final Label stall = Bench.small("");
    private final double characterWidth;
    private RibbonPart lastStall;
    private ByteTail.Newest held;
    private List<RibbonPart> shown = List.of();
    private RibbonRow.Setting setting;
    private LinkHealth health = LinkHealth.IDLE;
    private StreamFormat format;
    private int firstColour;
    private int shownSource;
    private long shownUpTo = -1;

    Ribbon(Workspace workspace) {
        super(4);
        HelpPlace.mark(this, "ribbon");
        this.workspace = workspace;
        Text ten = new Text("0000000000");
        ten.setFont(Font.font("Atkinson Hyperlegible Mono", FONT_SIZE));
        characterWidth = ten.getLayoutBounds().getWidth() / 10;
        beneath.setOnAction(event -> refresh());
        digits.setOnAction(event -> refresh());
        hold.setOnAction(event -> {
            held = hold.isSelected() ? workspace.sourceActions().newest(HELD_BYTES) : null;
            refresh();
        });
        search.setId("bytes-search");
        search.setPromptText(Messages.of("bench.source.filter"));
        search.setPrefColumnCount(8);
        Tip.on(search, Messages.of("bench.source.only-lines-with-this-in-them"));
        search.textProperty().addListener((p, was, is) -> refresh());
        Button copy =
                button(Messages.of("bench.source.copy"), Messages.of("bench.source.copy-the-lines-shown"), this::copy);
        Button save = button(
                Messages.of("bench.source.save-2"),
                Messages.of("bench.source.save-the-bytes-at-hand-as-received"),
                this::save);
        list.setId("bytes");
        list.getStyleClass().add("ribbon-list");
        list.setCellFactory(view -> new Cell());
        list.setVisible(false);
        list.setMinHeight(0);
        live.setId("bytes-live");
        live.setAlignment(Pos.BOTTOM_LEFT);
        live.setMinSize(0, 0);
        live.setPrefSize(10, 10);
        Rectangle clip = new Rectangle();
        clip.widthProperty().bind(live.widthProperty());
        clip.heightProperty().bind(live.heightProperty());
        live.setClip(clip);
        StackPane both = new StackPane(live, list, nothing, stall);
        StackPane.setAlignment(stall, Pos.TOP_RIGHT);
        both.setMinSize(0, 60);
        VBox.setVgrow(both, Priority.ALWAYS);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        stall.setId("stall");
        stall.getStyleClass().add("stall");
        stall.visibleProperty().bind(stall.textProperty().isNotEmpty());
        HBox bar = new HBox(6, search, found, space, beneath, digits, hold, copy, save);
        bar.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(bar, names, both);
        setMinWidth(0);
        setMinHeight(0);
        VBox.setVgrow(this, Priority.ALWAYS);
    }

    private static ToggleButton chip(String text, String id, String tip) {
        ToggleButton chip = new ToggleButton(text);
        chip.getStyleClass().setAll("small-button");
        chip.setId(id);
        chip.setMinWidth(Region.USE_PREF_SIZE);
        Tip.on(chip, tip);
        return chip;
    }

    private static Button button(String text, String tip, Runnable action) {
        Button button = new Button(text);
        button.getStyleClass().setAll("small-button");
        Tip.on(button, tip);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** Shows the newest bytes of a source, unless it is held still. */
    void show(LinkHealth now, Rig rig, int source) {
        health = now;
        StreamFormat known = rig.sources().get(source).format();
        firstColour = 0;
        for (int s = 0; s < source; s++) {
            StreamFormat before = rig.sources().get(s).format();
            firstColour += before == null
                    ? 0
                    : (int) before.columns().stream().filter(c -> c.isChannel()).count();
        }
        if (source != shownSource) {
            shownSource = source;
            lastStall = null;
        }
        if (held == null && (now.bytes() != shownUpTo || known != format)) {
            format = known;
            refresh();
        }
    }

    private void refresh() {
        shownUpTo = health.bytes();
        boolean still = held != null;
        ByteTail.Newest bytes = still ? held : workspace.sourceActions().newest(LIVE_BYTES);
        int most = still ? HELD_LINES : LIVE_LINES;
        List<RibbonPart> parts = RibbonPart.of(format, bytes, most, aside(), digits.isSelected());
        String wanted = search.getText();
        shown = wanted.isEmpty()
                ? parts
                : parts.stream().filter(p -> p.text().contains(wanted)).toList();
        found.setText(wanted.isEmpty() ? "" : Messages.of("bench.source.of", shown.size(), parts.size()));
        stall(parts, still);
        setting = setting();
        names();
        list.setVisible(still);
        live.setVisible(!still);
        nothing.setVisible(shown.isEmpty());
        if (still) {
            list.getItems().setAll(shown);
            list.scrollTo(Math.max(0, shown.size() - 1));
        } else {
            list.getItems().clear();
            rows();
        }
    }

    /** The newest stall, for some time after it: its lines are soon out of sight. */
    private void stall(List<RibbonPart> parts, boolean still) {
        for (RibbonPart part : parts) {
            boolean newer = lastStall == null || part.nanoTime() > lastStall.nanoTime();
            lastStall = part.isSilence() && newer ? part : lastStall;
        }
        boolean tell = !still && lastStall != null && System.nanoTime() - lastStall.nanoTime() < TELL_STALL_NANOS;
        stall.setText(tell ? lastStall.silence() : "");
    }

    /** Lines the pieces up: each place is as wide as the widest piece in it, or as its column's name. */
    private RibbonRow.Setting setting() {
        int places = 0;
        for (RibbonPart part : shown) {
            places = part.pieces().size() > 1 ? Math.max(places, part.pieces().size()) : places;
        }
        int[] characters = new int[places];
        for (RibbonPart part : shown) {
            for (int i = 0; part.pieces().size() > 1 && i < part.pieces().size(); i++) {
                LinePieces.Piece piece = part.pieces().get(i);
                int name = piece.column() < 0
                        ? piece.word().length()
                        : columnName(piece.column()).length();
                int bytes = beneath.isSelected() ? RibbonRow.beneath(piece).length() : 0;
                characters[i] = Math.max(
                        characters[i], Math.max(bytes, Math.max(piece.text().length(), name)));
            }
        }
        boolean night = workspace.view().night().get();
        TextSize size = workspace.view().textSize().get();
        return new RibbonRow.Setting(
                characters, size.of(characterWidth), column -> colour(column, night), beneath.isSelected(), size);
    }

    private String columnName(int column) {
        return format == null || column >= format.columns().size()
                ? ""
                : format.columns().get(column).name();
    }

    private String colour(int column, boolean night) {
        if (format == null
                || column >= format.columns().size()
                || !format.columns().get(column).isChannel()) {
            return "-muted";
        }
        int place = firstColour;
        for (int c = 0; c < column; c++) {
            place += format.columns().get(c).isChannel() ? 1 : 0;
        }
        return Palette.css(Palette.channel(place), night);
    }

    /** The columns' names over the pieces. */
    private void names() {
        RibbonPart model = null;
        for (RibbonPart part : shown) {
            model = part.pieces().size() > 1 ? part : model;
        }
        names.getChildren().clear();
        if (model == null) {
            return;
        }
        Region before = new Region();
        before.getStyleClass().add("ribbon-before");
        names.getChildren().add(before);
        for (int i = 0; i < model.pieces().size(); i++) {
            LinePieces.Piece piece = model.pieces().get(i);
            boolean number = piece.column() >= 0;
            Label name = new Label(number ? columnName(piece.column()) : piece.word());
            name.getStyleClass().add("ribbon-name");
            name.setStyle("-fx-text-fill: "
                    + (number ? colour(piece.column(), workspace.view().night().get()) : "-muted") + ";");
            name.setAlignment(number ? Pos.CENTER_RIGHT : Pos.CENTER_LEFT);
            name.setMinWidth(setting.width(i));
            name.setPrefWidth(setting.width(i));
            names.getChildren().add(name);
        }
    }

    private void rows() {
        double room = live.getHeight();
        double each = setting.height(beneath.isSelected());
        int count = Math.min(Math.max(1, (int) (room / each)), shown.size());
        while (live.getChildren().size() < count) {
            live.getChildren().add(new RibbonRow());
        }
        live.getChildren().remove(count, live.getChildren().size());
        for (int i = 0; i < count; i++) {
            RibbonPart part = shown.get(shown.size() - count + i);
            ((RibbonRow) live.getChildren().get(i)).show(part, moment(part.nanoTime()), setting);
        }
    }

    private Map<String, String> aside() {
        Map<String, String> reasons = new HashMap<>();
        for (RejectedLines.Item item : health.aside()) {
            reasons.put(item.text().strip(), item.why());
        }
        return reasons;
    }

    private void copy() {
        List<String> lines = new ArrayList<>();
        shown.stream().filter(part -> !part.isSilence()).forEach(part -> lines.add(part.text()));
        ClipboardContent content = new ClipboardContent();
        content.putString(String.join("\n", lines));
        Clipboard.getSystemClipboard().setContent(content);
        workspace.say(Messages.of("bench.source.copied-lines", lines.size()));
    }

    private void save() {
        byte[] bytes = (held != null ? held : workspace.sourceActions().newest(HELD_BYTES)).bytes();
        FileChooser chooser = new FileChooser();
        chooser.setInitialFileName("bytes.bin");
        File file = chooser.showSaveDialog(getScene().getWindow());
        if (file != null) {
            workspace.sourceActions().save(file.toPath(), bytes);
        }
    }

    /** The second within the minute at which it came. */
    private static String moment(long nanoTime) {
        if (nanoTime == 0) {
            return "  .   ";
        }
        long ago = System.nanoTime() - nanoTime;
        return LocalTime.now(ZoneId.systemDefault())
                .minus(ago, ChronoUnit.NANOS)
                .format(MOMENT);
    }

    private final class Cell extends ListCell<RibbonPart> {
        private final RibbonRow row = new RibbonRow();

        @Override
        protected void updateItem(RibbonPart part, boolean empty) {
            super.updateItem(part, empty);
            setGraphic(empty || part == null ? null : row);
            if (!empty && part != null) {
                row.show(part, moment(part.nanoTime()), setting);
            }
        }
    }
}
