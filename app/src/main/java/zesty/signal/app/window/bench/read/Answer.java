package zesty.signal.app.window.bench.read;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.parts.Slice;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.ReaderSnapshot;

/** A reading: the answer large, with unit, uncertainty and quality; every other number a tile, pressed for what it is. */
final class Answer extends HBox {
    private final Label value = new Label();
    private final Label unit = new Label();
    private final Label name = new Label();
    private final Slice slice = new Slice(38);
    private final Label quality = new Label();
    private final FlowPane numbers = new FlowPane(6, 6);
    private final Label explained = new Label();
    private final List<Number> tiles = new ArrayList<>();
    private String kind = "";

    private final class Number extends VBox {
        final ScalarInfo info;
        final Label says = new Label();
        final Label in = new Label();

        Number(ScalarInfo info) {
            super(1);
            this.info = info;
            getStyleClass().add("number-tile");
            setId("number-" + info.key().replace('.', '-'));
            setFocusTraversable(true);
            HelpPlace.mark(this, HelpBook.reader(kind) + "#" + info.words());
            Label called = new Label(heading(info.words()));
            called.getStyleClass().add("number-name");
            says.getStyleClass().add("number-value");
            in.getStyleClass().add("number-unit");
            HBox line = new HBox(4, says, in);
            line.setAlignment(Pos.BASELINE_LEFT);
            for (Label each : new Label[] {called, says, in}) {
                each.setMinWidth(Region.USE_PREF_SIZE);
            }
            getChildren().addAll(called, line);
            Tip.on(this, info.tip());
            setOnMouseClicked(event -> explain());
            setOnKeyPressed(event -> {
                if (event.getCode() == KeyCode.ENTER || event.getCode() == KeyCode.SPACE) {
                    explain();
                    event.consume();
                }
            });
        }

        private void explain() {
            String text = info.words() + ": " + info.tip() + ".";
            boolean again = explained.getText().equals(text);
            explained.setText(again ? "" : text);
            explained.setVisible(!again);
        }
    }

    Answer() {
        super(12);
        name.getStyleClass().add("number-name");
        value.getStyleClass().add("answer-value");
        value.setId("answer");
        value.setMinWidth(Region.USE_PREF_SIZE);
        unit.getStyleClass().add("answer-unit");
        unit.setMinWidth(Region.USE_PREF_SIZE);
        quality.setId("reader-words");
        quality.setWrapText(true);
        quality.setMinHeight(USE_PREF_SIZE);
        explained.setWrapText(true);
        explained.setMinHeight(USE_PREF_SIZE);
        explained.getStyleClass().add("hint");
        explained.setId("explained");
        explained.managedProperty().bind(explained.visibleProperty());
        explained.setVisible(false);
        Region space = new Region();
        HBox.setHgrow(space, Priority.ALWAYS);
        HBox line = new HBox(8, value, unit, space, slice);
        line.setAlignment(Pos.CENTER_LEFT);
        VBox card = new VBox(2, name, line, quality);
        card.getStyleClass().add("answer-card");
        card.setMinWidth(300);
        card.setPrefWidth(300);
        card.setMaxWidth(300);
        numbers.setMinWidth(0);
        VBox right = new VBox(6, numbers, explained);
        right.setMinWidth(0);
        HBox.setHgrow(right, Priority.ALWAYS);
        getChildren().addAll(card, right);
    }

    /** @param trouble why nothing can be read, in words; empty when it can */
    void show(ChannelSnapshot channel, ReaderSnapshot reader, String trouble, Color colour) {
        if (!reader.kind().name().equals(kind)) {
            kind = reader.kind().name();
            tiles.clear();
            reader.kind().scalars().stream().skip(1).forEach(info -> tiles.add(new Number(info)));
            explained.setVisible(false);
            explained.setText("");
        }
        ScalarInfo headline = reader.kind().scalars().get(0);
        name.setText(heading(headline.words()));
        Reading reading = trouble.isEmpty() ? reader.reading() : null;
        double number = reading == null ? Double.NaN : reading.scalar(headline.key());
        String[] said = Wording.said(channel, headline, number);
        value.setText(said[0]);
        double uncertainty = reading == null ? Double.NaN : uncertainty(reading, headline.key());
        unit.setText(said[1] + (uncertainty > 0 ? "  ± " + Wording.scalar(channel, headline, uncertainty) : ""));
        slice.show(reading == null ? 0 : reading.quality().segments(), colour);
        quality.setText(
                reading == null
                        ? trouble
                        : words(reading.quality(), reader.kind().onBody()));
        List<Number> known = new ArrayList<>();
        for (Number tile : tiles) {
            double one = reading == null ? Double.NaN : reading.scalar(tile.info.key());
            if (!Double.isNaN(one)) {
                String[] words = Wording.said(channel, tile.info, one);
                tile.says.setText(words[0]);
                tile.in.setText(words[1]);
                known.add(tile);
            }
        }
        if (!numbers.getChildren().equals(known)) {
            numbers.getChildren().setAll(known);
        }
    }

    /** A term such as pNN50 stays as it is written. */
    private static String heading(String words) {
        boolean term = words.chars().skip(1).anyMatch(Character::isUpperCase);
        return term ? words : Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    private static double uncertainty(Reading reading, String key) {
        return reading.items().stream()
                .filter(item -> item instanceof Item.Scalar && item.key().equals(key))
                .mapToDouble(item -> ((Item.Scalar) item).uncertainty())
                .findFirst()
                .orElse(Double.NaN);
    }

    private static String words(Quality quality, boolean onBody) {
        StringBuilder text = new StringBuilder(Messages.of("bench.read.quality"))
                .append(quality.segments())
                .append(Messages.of("bench.read.of-8"));
        text.append(quality.reasons().isEmpty() ? "" : ":");
        for (String reason : quality.reasons()) {
            text.append(quality.reasons().size() > 1 ? "\n· " : " ").append(reason);
        }
        return text + (onBody ? Messages.of("bench.read.not-a-medical-device-it-diagnoses") : "");
    }
}
