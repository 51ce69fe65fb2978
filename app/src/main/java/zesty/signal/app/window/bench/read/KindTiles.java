package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.core.read.ReaderKind;
import zesty.signal.core.read.kinds.ReaderKinds;
import zesty.signal.core.text.Messages;

/** What can be read of a channel: a tile a kind, with what it gives and whether it fits the channel, the likely ones first. */
final class KindTiles extends VBox {
    private static final double GAP = 8;
    /** As many tiles have a key: the digits from 1 on. */
    private static final int KEYS = 9;

    private static final int MOST_COLUMNS = 5;

    private static final double LEAST_WIDTH = 216;
    private static final PseudoClass UNFIT = PseudoClass.getPseudoClass("unfit");
    private static final PseudoClass LIKELY = PseudoClass.getPseudoClass("likely");

    private final Label title = new Label();
    private final FlowPane tiles = new FlowPane(GAP, GAP);
    private final List<Tile> all = new ArrayList<>();
    private final Consumer<ReaderKind> chosen;
    private List<String> order = List.of();

    /** Whether a kind fits, and why. @param likely whether the signal looks like one */
    record Fit(String words, boolean fits, boolean likely) {}

    private final class Tile extends VBox {
        final ReaderKind kind;
        final Label fit = new Label();
        final Label key = new Label();
        final KindDrawing drawing;
        private Fit shown;
        private Color colour;

        Tile(ReaderKind kind) {
            super(4);
            this.kind = kind;
            drawing = new KindDrawing(kind.name());
            setId("read-" + kind.name());
            getStyleClass().add("kind-tile");
            setFocusTraversable(true);
            Label name = new Label(kind.title());
            name.getStyleClass().add("kind-name");
            name.setWrapText(true);
            name.setMinHeight(Region.USE_PREF_SIZE);
            Label gives = new Label(kind.gives());
            fit.getStyleClass().add("kind-fit");
            key.getStyleClass().add("kind-key");
            for (Label each : new Label[] {gives, fit}) {
                each.setWrapText(true);
                each.setMinHeight(Region.USE_PREF_SIZE);
            }
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            HBox head = new HBox(6, name, space, drawing);
            head.setAlignment(Pos.CENTER_LEFT);
            key.setMinWidth(Region.USE_PREF_SIZE);
            HBox.setHgrow(fit, Priority.ALWAYS);
            fit.setMaxWidth(Double.MAX_VALUE);
            HBox foot = new HBox(6, fit, key);
            foot.setAlignment(Pos.BOTTOM_LEFT);
            getChildren().addAll(head, gives, foot);
            setOnMouseClicked(event -> chosen.accept(kind));
            setOnKeyPressed(event -> {
                if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE) {
                    chosen.accept(kind);
                    event.consume();
                }
            });
        }

        void show(Fit now, Color with, String pressed) {
            key.setText(pressed);
            if (now.equals(shown) && with.equals(colour)) {
                return;
            }
            shown = now;
            colour = with;
            fit.setText(now.words());
            pseudoClassStateChanged(UNFIT, !now.fits());
            pseudoClassStateChanged(LIKELY, now.likely());
            drawing.draw(now.fits() ? with : with.grayscale().deriveColor(0, 1, 1, 0.4));
            setAccessibleText(kind.title() + ": " + kind.gives() + ". " + now.words());
        }
    }

    KindTiles(Consumer<ReaderKind> chosen) {
        super(10);
        this.chosen = chosen;
        setId("kinds");
        title.getStyleClass().add("kinds-title");
        tiles.setRowValignment(VPos.TOP);
        setMinHeight(USE_PREF_SIZE);
        ReaderKinds.all().forEach(kind -> all.add(new Tile(kind)));
        getChildren().addAll(title, tiles);
        widthProperty().addListener((p, was, is) -> share(is.doubleValue()));
        setOnKeyPressed(event -> {
            int digit = event.getCode().ordinal() - KeyCode.DIGIT1.ordinal();
            if (event.isShiftDown() && digit >= 0 && digit < Math.min(KEYS, order.size())) {
                pick(digit);
                event.consume();
            }
        });
    }

    private void share(double width) {
        int columns = (int) Math.max(1, Math.min(MOST_COLUMNS, Math.floor((width + GAP) / (LEAST_WIDTH + GAP))));
        double tile = Math.floor((width - GAP * (columns - 1)) / columns) - 1;
        all.forEach(one -> one.setPrefWidth(tile));
        tiles.setPrefWrapLength(width);
    }

    /** Chooses the tile at a place. */
    void pick(int place) {
        if (place < order.size()) {
            chosen.accept(ReaderKinds.of(order.get(place)));
        }
    }

    /** @param fits one a kind, in the order of {@link ReaderKinds#all()} */
    void show(String channel, List<Fit> fits, Color colour) {
        title.setText(Messages.of("bench.read.what-do-you-want-to-know-about", channel));
        List<Tile> likely = new ArrayList<>();
        List<Tile> others = new ArrayList<>();
        List<Tile> unfit = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            Fit fit = fits.get(i);
            (fit.likely() ? likely : fit.fits() ? others : unfit).add(all.get(i));
        }
        likely.addAll(others);
        likely.addAll(unfit);
        List<String> now = likely.stream().map(tile -> tile.kind.name()).toList();
        if (!now.equals(order)) {
            boolean held = tiles.getChildren().stream().anyMatch(Node::isFocused);
            order = now;
            tiles.getChildren().setAll(likely);
            if (held) {
                // The keyboard was given to the first one, and is meant for the first one.
                focusFirst();
            }
        }
        for (int i = 0; i < all.size(); i++) {
            int place = order.indexOf(all.get(i).kind.name());
            all.get(i).show(fits.get(i), colour, place < KEYS ? "Shift+" + (place + 1) : "");
        }
    }

    /** Gives the keyboard to the likeliest. */
    void focusFirst() {
        if (!tiles.getChildren().isEmpty()) {
            tiles.getChildren().get(0).requestFocus();
        }
    }
}
