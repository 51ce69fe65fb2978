package zesty.signal.app.window.bench.source;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.List;
import java.util.function.IntFunction;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.bench.LinePieces;
import zesty.signal.app.window.workspace.TextSize;
import zesty.signal.core.text.Messages;

/** A line of the ribbon: when it came, and its pieces, each on the stroke of its channel. Its nodes stay and change words. */
final class RibbonRow extends HBox {
    private static final double HEIGHT = 22;
    private static final double WITH_BYTES = 36;
    private static final PseudoClass ASIDE = PseudoClass.getPseudoClass("aside");
    private static final PseudoClass SILENT = PseudoClass.getPseudoClass("silent");
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();
    private static final int MOST_PIECES = 24;
    private static final int MOST_BYTES = 12;
    private static final double PAD = 14;

    private final Label moment = new Label();
    private final Region dot = new Region();
    private final Label words = new Label();

    /** How the pieces are set: the width of each place in characters, what a character takes, the colour of a column. */
    record Setting(
            int[] characters, double characterWidth, IntFunction<String> colour, boolean bytesBeneath, TextSize size) {
        double width(int place) {
            return place < characters.length ? characters[place] * characterWidth + PAD : USE_COMPUTED_SIZE;
        }

        /** @param both whether the bytes stand beneath their pieces */
        double height(boolean both) {
            return size.of(both ? WITH_BYTES : HEIGHT);
        }
    }

    private static final class PieceNode extends VBox {
        final Label text = new Label();
        final Label bytes = new Label();

        PieceNode() {
            getStyleClass().add("ribbon-piece");
            text.getStyleClass().add("ribbon-text");
            bytes.getStyleClass().add("ribbon-bytes");
            bytes.managedProperty().bind(bytes.visibleProperty());
            getChildren().addAll(text, bytes);
        }

        void show(LinePieces.Piece piece, Setting setting, int place) {
            text.setText(piece.text());
            bytes.setVisible(setting.bytesBeneath());
            if (setting.bytesBeneath()) {
                bytes.setText(beneath(piece));
            }
            boolean number = piece.column() >= 0;
            setAlignment(number ? Pos.CENTER_RIGHT : Pos.CENTER_LEFT);
            double width = setting.width(place);
            setMinWidth(width);
            setPrefWidth(width);
            String stroke = number ? setting.colour().apply(piece.column()) : "transparent";
            setStyle("-fx-border-color: transparent transparent " + stroke + " transparent;");
        }
    }

    /** @return the bytes of a piece, as far as there is room for */
    static String beneath(LinePieces.Piece piece) {
        if (!piece.bytes().isEmpty()) {
            return piece.text().equals(piece.bytes()) ? "" : piece.bytes();
        }
        byte[] raw = piece.text().getBytes(StandardCharsets.UTF_8);
        return HEX.formatHex(raw, 0, Math.min(raw.length, MOST_BYTES)) + (raw.length > MOST_BYTES ? " …" : "");
    }

    RibbonRow() {
        super(8);
        getStyleClass().add("ribbon-row");
        setAlignment(Pos.CENTER_LEFT);
        moment.getStyleClass().add("ribbon-moment");
        moment.setMinWidth(Region.USE_PREF_SIZE);
        dot.getStyleClass().add("ribbon-dot");
        words.getStyleClass().add("ribbon-words");
        getChildren().addAll(moment, dot);
    }

    void show(RibbonPart part, String when, Setting setting) {
        double height = setting.height(setting.bytesBeneath() && !part.isSilence());
        setMinHeight(height);
        setPrefHeight(height);
        setMaxHeight(height);
        pseudoClassStateChanged(SILENT, part.isSilence());
        pseudoClassStateChanged(ASIDE, !part.why().isEmpty());
        moment.setText(when);
        List<LinePieces.Piece> pieces =
                part.pieces().subList(0, Math.min(MOST_PIECES, part.pieces().size()));
        String said = part.isSilence()
                ? part.silence()
                : part.why().isEmpty() ? "" : Messages.of("bench.source.rejected-2", part.why());
        words.setText(said);
        int nodes = pieces.size() + (said.isEmpty() ? 0 : 1);
        getChildren().remove(words);
        getChildren()
                .remove(
                        Math.min(getChildren().size(), 2 + pieces.size()),
                        getChildren().size());
        while (getChildren().size() < 2 + pieces.size()) {
            getChildren().add(new PieceNode());
        }
        if (nodes > pieces.size()) {
            getChildren().add(words);
        }
        for (int i = 0; i < pieces.size(); i++) {
            ((PieceNode) getChildren().get(2 + i))
                    .show(pieces.get(i), setting, part.pieces().size() == 1 ? Integer.MAX_VALUE : i);
        }
    }
}
