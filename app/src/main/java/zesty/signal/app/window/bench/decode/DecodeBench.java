package zesty.signal.app.window.bench.decode;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.Bench;
import zesty.signal.app.window.bench.LinePieces;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Stop;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.decode.Recogniser;
import zesty.signal.core.decode.RejectedLines;
import zesty.signal.core.decode.Stations;
import zesty.signal.core.decode.StreamFormat;
import zesty.signal.core.sample.Times;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LinkHealth;
import zesty.signal.engine.Snapshot;

/**
 * Decode: one real line or packet large, in its pieces; the last rows as a table; the tray of what was set aside, to
 * teach from; and the format by hand, tried on the bytes at hand as it is written.
 */
public final class DecodeBench extends Bench {
    private static final int FEWEST_ROWS = 4;
    private static final double ROW_HEIGHT = 19;
    private static final int MOST_COLUMNS = 12;

    private final Label format = new Label();
    private final ComboBox<Recogniser.Proposal> readAs = new ComboBox<>();
    private final ToggleButton byHand = new ToggleButton(Messages.of("bench.decode.by-hand"));
    private final FlowPane line = new FlowPane(6, 6);
    private final GridPane table = new GridPane();
    private final PictureView picture = new PictureView();
    private final StackPane rows = new StackPane(table, picture);
    private final VBox left = new VBox(8);
    private final FormatEditor editor;
    private final ListView<RejectedLines.Item> tray = new ListView<>();
    private final Label trayTitle = small("");
    private long trayCount = -1;
    private boolean filling;

    public DecodeBench(Workspace workspace) {
        super(workspace, Stop.DECODE);
        editor = new FormatEditor(workspace);
        format.getStyleClass().add("bench-line");
        format.setWrapText(true);
        format.setMinHeight(Region.USE_PREF_SIZE);
        HBox.setHgrow(format, Priority.ALWAYS);
        format.setMaxWidth(Double.MAX_VALUE);
        readAs.setId("read-as");
        readAs.setPromptText(Messages.of("bench.decode.read-as"));
        Tip.on(readAs, Messages.of("bench.decode.what-the-recogniser-makes-of-the"));
        readAs.setCellFactory(view -> new ProposalCell());
        readAs.setButtonCell(new ProposalCell());
        readAs.setMinWidth(170);
        readAs.setPrefWidth(170);
        readAs.setOnAction(event -> {
            if (!filling && readAs.getValue() != null) {
                workspace.sourceActions().reformat(readAs.getValue().format());
            }
        });
        byHand.setId("by-hand");
        Tip.on(byHand, Messages.of("bench.decode.edit-names-units-roles-and-the"));
        byHand.setMinWidth(Region.USE_PREF_SIZE);
        byHand.setOnAction(event -> {
            editor.open(workspace.sourceActions().format());
            arrange();
        });
        HBox top = new HBox(10, format, readAs, byHand);
        top.setAlignment(Pos.CENTER_LEFT);
        table.setHgap(16);
        table.setVgap(2);
        table.getStyleClass().add("rows");
        left.setMinWidth(0);
        // As many rows as there is room for: they must not hold the room open when it shrinks.
        rows.minHeightProperty()
                .bind(Bindings.createDoubleBinding(
                        () -> workspace.view().textSize().get().of(ROW_HEIGHT * (FEWEST_ROWS + 1)),
                        workspace.view().textSize()));
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox both = new HBox(14, left, tray());
        VBox.setVgrow(both, Priority.ALWAYS);
        getChildren().addAll(top, both);
        arrange();
    }

    private void arrange() {
        if (byHand.isSelected()) {
            PlainScroll scroll = new PlainScroll(editor);
            scroll.setFitToHeight(true);
            VBox.setVgrow(scroll, Priority.ALWAYS);
            left.getChildren().setAll(scroll);
            return;
        }
        StackPane.setAlignment(table, Pos.TOP_LEFT);
        VBox.setVgrow(rows, Priority.ALWAYS);
        left.getChildren()
                .setAll(
                        small(Messages.of("bench.decode.the-newest-line-or-packet-piece-by")),
                        line,
                        small(Messages.of("bench.decode.the-last-rows")),
                        rows);
    }

    private VBox tray() {
        tray.setId("tray");
        tray.setCellFactory(view -> new ListCell<>() {
            @Override
            protected void updateItem(RejectedLines.Item item, boolean empty) {
                super.updateItem(item, empty);
                setText(empty ? "" : Messages.of("bench.decode.line", item.line(), item.why(), item.text()));
            }
        });
        tray.setFixedCellSize(44);
        tray.setPlaceholder(small(Messages.of("bench.decode.every-line-so-far-was-understood")));
        VBox.setVgrow(tray, Priority.ALWAYS);
        Button columns = teach(
                Messages.of("bench.decode.it-has-columns"),
                "teach-columns",
                Messages.of("bench.decode.find-a-format-that-reads-lines"));
        columns.setOnAction(event -> chosen().ifPresent(this::teachColumns));
        Button known = teach(
                Messages.of("bench.decode.a-banner"),
                "teach-banner",
                Messages.of("bench.decode.the-board-says-this-now-and-then"));
        known.setOnAction(
                event -> chosen().ifPresent(item -> workspace.sourceActions().passOver(item.text())));
        Button noise = teach(
                Messages.of("bench.decode.noise"),
                "teach-noise",
                Messages.of("bench.decode.it-means-nothing-pass-over-lines"));
        noise.setOnAction(
                event -> chosen().ifPresent(item -> workspace.sourceActions().passOver(item.text())));
        FlowPane teaching = new FlowPane(6, 6, columns, known, noise);
        VBox right = new VBox(
                6, trayTitle, tray, small(Messages.of("bench.decode.choose-a-line-above-and-say-what")), teaching);
        right.setMinWidth(330);
        right.setPrefWidth(330);
        return right;
    }

    private static Button teach(String text, String id, String tip) {
        Button button = new Button(text);
        button.setId(id);
        Tip.on(button, tip);
        return button;
    }

    private Optional<RejectedLines.Item> chosen() {
        RejectedLines.Item item = tray.getSelectionModel().getSelectedItem();
        if (item == null) {
            workspace.trouble(Messages.of("bench.decode.choose-a-rejected-line-first"));
        }
        return Optional.ofNullable(item);
    }

    private void teachColumns(RejectedLines.Item item) {
        StringBuilder alike = new StringBuilder();
        String shape = RejectedLines.shapeOf(item.text());
        for (RejectedLines.Item other : tray.getItems()) {
            if (RejectedLines.shapeOf(other.text()).equals(shape)) {
                alike.append(other.text()).append('\n');
            }
        }
        StreamFormat taught = workspace.sourceActions().taught(alike.toString());
        if (taught == null) {
            workspace.trouble(Messages.of("bench.decode.no-format-was-found-that-reads"));
        } else if (taught.equals(workspace.sourceActions().format())) {
            workspace.trouble(Messages.of("bench.decode.the-format-in-force-is-the-best"));
        } else {
            workspace.sourceActions().reformat(taught);
            workspace.say(Messages.of(
                    "bench.decode.reading-lines-like-this-one-too",
                    taught.columns().size()));
        }
    }

    @Override
    public void opened(Snapshot snapshot) {
        trayCount = -1;
        byHand.setSelected(false);
        arrange();
        show(snapshot);
    }

    @Override
    public void show(Snapshot snapshot) {
        head(snapshot);
        StreamFormat known = workspace.sourceActions().format();
        byHand.setDisable(known == null || !workspace.shown().isLive());
        if (known == null) {
            format.setText(Messages.of("bench.decode.no-format-yet-it-is-recognised-as"));
            line.getChildren().clear();
            table.getChildren().clear();
            return;
        }
        String words = known.words();
        int channels = (int) known.columns().stream().filter(c -> c.isChannel()).count();
        format.setText(Character.toUpperCase(words.charAt(0)) + words.substring(1) + "; "
                + known.columns().size()
                + (known.columns().size() == 1
                        ? Messages.of("bench.decode.column")
                        : Messages.of("bench.decode.columns"))
                + (channels < known.columns().size() ? Messages.of("bench.decode.with-values", channels) : "")
                + (known.clock() == null
                        ? Messages.of("bench.decode.no-clock-the-rate-is-taken-from")
                        : Messages.of(
                                "bench.decode.the-board-s-clock-is",
                                known.columns().get(known.clock().column()).name()))
                + (known.sequence() == null ? "" : Messages.of("bench.decode.losses-are-counted-by-its-sequence")));
        proposals();
        if (byHand.isSelected()) {
            editor.show();
        } else {
            pieces(snapshot, known);
            boolean heat = picture.show(
                    focused(snapshot).orElse(null), workspace.view().night().get());
            picture.setVisible(heat);
            table.setVisible(!heat);
            if (!heat) {
                rows(snapshot, known);
            }
        }
        tray(snapshot);
    }

    private void proposals() {
        List<Recogniser.Proposal> now = workspace.sourceActions().proposals();
        readAs.setVisible(!now.isEmpty() && workspace.shown().isLive());
        readAs.setManaged(readAs.isVisible());
        if (!now.equals(readAs.getItems())) {
            filling = true;
            readAs.getItems().setAll(now);
            readAs.setValue(null);
            filling = false;
        }
    }

    private void tray(Snapshot snapshot) {
        LinkHealth health = snapshot.health(workspace.sourceActions().source());
        if (health.rejectedLines() != trayCount
                || health.aside().size() != tray.getItems().size()) {
            trayCount = health.rejectedLines();
            List<RejectedLines.Item> newest = new ArrayList<>(health.aside());
            Collections.reverse(newest);
            RejectedLines.Item chosen = tray.getSelectionModel().getSelectedItem();
            tray.getItems().setAll(newest);
            if (chosen != null && newest.contains(chosen)) {
                tray.getSelectionModel().select(chosen);
            }
        }
        trayTitle.setText(
                workspace.shown().isLive()
                        ? Messages.of(
                                "bench.decode.rejected",
                                trayCount,
                                (trayCount > RejectedLines.KEPT
                                        ? Messages.of("bench.decode.the-newest", RejectedLines.KEPT)
                                        : ""))
                        : Messages.of("bench.decode.a-stored-take-holds-understood"));
    }

    private void pieces(Snapshot snapshot, StreamFormat known) {
        List<LinePieces.Piece> pieces = workspace.shown().isLive()
                ? LinePieces.newest(known, workspace.sourceActions().newest(1 << 14))
                : List.of();
        line.getChildren().clear();
        if (pieces.isEmpty()) {
            line.getChildren().add(small(Messages.of("bench.decode.no-line-at-hand")));
            return;
        }
        int place = 0;
        int numbered = 0;
        for (LinePieces.Piece piece : pieces) {
            int column = piece.column();
            boolean channel = column >= 0 && known.columns().get(column).isChannel();
            String colour = channel
                    ? Palette.css(
                            Palette.channel(place++), workspace.view().night().get())
                    : "-muted";
            Label text = new Label(piece.bytes().isEmpty() ? piece.text() : piece.bytes());
            text.getStyleClass().add("piece");
            text.setStyle("-fx-text-fill: " + colour + "; -fx-border-color: transparent transparent "
                    + (column < 0 ? "transparent" : colour) + " transparent;");
            String under = column < 0
                    ? piece.word()
                    : (++numbered) + " " + known.columns().get(column).name();
            line.getChildren().add(new VBox(1, text, small(under)));
            if (line.getChildren().size() > 2 * MOST_COLUMNS) {
                line.getChildren().add(small("…"));
                return;
            }
        }
    }

    private void rows(Snapshot snapshot, StreamFormat known) {
        table.getChildren().clear();
        List<ChannelSnapshot> channels = snapshot.channels().stream()
                .filter(c -> c.stream().source() == workspace.sourceActions().source())
                .toList();
        if (channels.isEmpty()) {
            return;
        }
        // Channels of one stream share their rows; with stations the focused one's are shown.
        ChannelSnapshot first = focused(snapshot).filter(channels::contains).orElse(channels.get(0));
        Times times = first.stream().times();
        table.add(small(Messages.of("bench.decode.time")), 0, 0);
        List<ChannelSnapshot> shown = channels.stream()
                .filter(c -> c.stream().equals(first.stream()))
                .limit(MOST_COLUMNS)
                .toList();
        for (int c = 0; c < shown.size(); c++) {
            String unit = shown.get(c).channel().scaling().converter() == null
                    ? known.columns()
                            .get(Stations.indexOf(
                                    known,
                                    snapshot.rig()
                                            .ownName(shown.get(c).channel().column())))
                            .unit()
                    : "";
            table.add(small(shown.get(c).channel().column() + (unit.isEmpty() ? "" : ", " + unit)), c + 1, 0);
        }
        long end = times.end();
        int most = Math.max(
                FEWEST_ROWS,
                (int) (rows.getHeight() / workspace.view().textSize().get().of(ROW_HEIGHT)) - 1);
        for (int row = 0; row < most && end - 1 - row >= times.start(); row++) {
            long index = end - 1 - row;
            table.add(mono(Digits.fixed(times.secondsAt(index), 3) + " s"), 0, row + 1);
            for (int c = 0; c < shown.size(); c++) {
                boolean there = index < shown.get(c).raw().end();
                String text = there ? Digits.of(shown.get(c).raw().value(index)) : "";
                Label cell = mono(text);
                cell.setMinWidth(64);
                table.add(cell, c + 1, row + 1);
            }
        }
    }

    private static final class ProposalCell extends ListCell<Recogniser.Proposal> {
        @Override
        protected void updateItem(Recogniser.Proposal proposal, boolean empty) {
            super.updateItem(proposal, empty);
            setText(
                    empty || proposal == null
                            ? Messages.of("bench.decode.read-as")
                            : Math.round(100 * proposal.confidence()) + " %  "
                                    + proposal.format().words());
        }
    }
}
