package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import zesty.signal.app.window.Palette;
import zesty.signal.app.window.desk.Desk;
import zesty.signal.app.window.lanes.LaneStack;
import zesty.signal.app.window.lanes.Wording;
import zesty.signal.core.read.LevelReader;
import zesty.signal.core.read.PulseReading;
import zesty.signal.core.scale.Digits;
import zesty.signal.engine.ChannelSight;
import zesty.signal.engine.LinkState;
import zesty.signal.engine.Sight;

/** The answers at the right: one card a channel. Opening a card tells how far to trust it and why. */
public final class ReadingCards extends ScrollPane {
    private static final double WIDTH = 250;

    private final Desk desk;
    private final VBox cards = new VBox(9);
    private final Map<String, Card> byColumn = new HashMap<>();
    private List<String> shown = List.of();

    private final class Card extends VBox {
        final Label name = new Label();
        final Label value = new Label();
        final Label unit = new Label();
        final Label detail = new Label();
        final Label why = new Label();
        final Slice slice = new Slice(24);
        boolean open;

        Card(String column) {
            getStyleClass().add("card");
            setFocusTraversable(true);
            name.getStyleClass().add("card-name");
            value.getStyleClass().add("card-value");
            unit.getStyleClass().add("card-unit");
            unit.setTooltip(new Tooltip("press to show a level in the next unit"));
            unit.setOnMouseClicked(event -> {
                desk.nextUnit(column);
                event.consume();
            });
            detail.getStyleClass().add("card-detail");
            detail.setWrapText(true);
            why.getStyleClass().add("card-why");
            why.setWrapText(true);
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            HBox head = new HBox(name, space, slice);
            head.setAlignment(Pos.CENTER_LEFT);
            HBox number = new HBox(7, value, unit);
            number.setAlignment(Pos.BASELINE_LEFT);
            getChildren().addAll(head, number, detail, why);
            open(false);
            setOnMouseClicked(event -> {
                desk.focus().set(column);
                open(!open);
            });
            setOnKeyPressed(event -> {
                if (event.getCode() == KeyCode.ENTER) {
                    open(!open);
                    event.consume();
                }
            });
        }

        void open(boolean on) {
            open = on;
            why.setVisible(on);
            why.setManaged(on);
        }
    }

    public ReadingCards(Desk desk) {
        this.desk = desk;
        getStyleClass().add("cards");
        setContent(cards);
        setFitToWidth(true);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        setMinWidth(WIDTH);
        setPrefWidth(WIDTH);
        setMaxWidth(WIDTH);
    }

    /** Shows what is so now; a few times a second is enough. */
    public void show(Sight sight) {
        List<String> wanted = new ArrayList<>();
        for (ChannelSight channel : sight.channels()) {
            if (channel.channel().shown() || channel.pulse() != null) {
                wanted.add(channel.channel().column());
            }
        }
        if (!wanted.equals(shown)) {
            shown = wanted;
            byColumn.keySet().retainAll(wanted);
            cards.getChildren()
                    .setAll(wanted.stream()
                            .map(column -> byColumn.computeIfAbsent(column, Card::new))
                            .toList());
        }
        for (ChannelSight channel : sight.channels()) {
            Card card = byColumn.get(channel.channel().column());
            if (card != null) {
                fill(card, sight, channel);
            }
        }
    }

    private void fill(Card card, Sight sight, ChannelSight channel) {
        LinkState state = sight.state(channel.strand(), System.nanoTime());
        boolean lost = state == LinkState.LOST || state == LinkState.REFUSED;
        boolean stale = lost || state == LinkState.HELD;
        card.pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("stale"), stale);
        int index = LaneStack.colourOf(sight, channel.channel());
        Color colour =
                Color.web(Palette.css(Palette.channel(index), desk.night().get()));
        if (channel.pulse() != null) {
            pulse(card, channel, colour, lost);
        } else {
            level(card, channel, lost);
        }
        if (stale) {
            card.detail.setText(lost ? "lost; the link is tried again" : "held: nothing came just now");
        }
        card.slice.setVisible(channel.pulse() != null);
    }

    private void pulse(Card card, ChannelSight channel, Color colour, boolean lost) {
        PulseReading pulse = channel.pulse();
        card.name.setText(channel.channel().name());
        card.value.setText(pulse.present() && !lost ? Digits.fixed(pulse.meanBpm(), 0) : "—");
        card.unit.setText("beats/min");
        card.detail.setText(
                pulse.present()
                        ? "spread " + Digits.fixed(pulse.sdnnMs(), 0) + " ms · " + pulse.intervalsMs().length
                                + " intervals · " + pulse.rejected().length + " set aside"
                        : pulse.quality().reasons().isEmpty()
                                ? "no pulse"
                                : pulse.quality().reasons().get(0));
        card.slice.show(lost ? 0 : pulse.quality().segments(), colour);
        if (card.open) {
            card.why.setText(why(pulse));
        }
    }

    private String why(PulseReading pulse) {
        StringBuilder text = new StringBuilder();
        text.append("Trust ").append(pulse.quality().segments()).append(" of 8. ");
        if (pulse.quality().reasons().isEmpty()) {
            text.append("Nothing speaks against it.");
        }
        for (String reason : pulse.quality().reasons()) {
            text.append("\n· ").append(reason);
        }
        if (pulse.present()) {
            text.append("\n\nMean of ")
                    .append(pulse.intervalsMs().length)
                    .append(" intervals: ")
                    .append(Digits.fixed(pulse.meanIntervalMs(), 1))
                    .append(" ms; 60000 ÷ ")
                    .append(Digits.fixed(pulse.meanIntervalMs(), 1))
                    .append(" = ")
                    .append(Digits.fixed(pulse.meanBpm(), 1))
                    .append(" beats/min.\nBetween beats ")
                    .append(Digits.fixed(pulse.lowestBpm(), 0))
                    .append(" to ")
                    .append(Digits.fixed(pulse.highestBpm(), 0))
                    .append(".\nSDNN ")
                    .append(Digits.fixed(pulse.sdnnMs(), 1))
                    .append(" ms, RMSSD ")
                    .append(Digits.fixed(pulse.rmssdMs(), 1))
                    .append(" ms.\nBeats point ")
                    .append(pulse.upright() ? "up" : "down")
                    .append(" in the signal.");
        }
        return text.append("\n\nNot a medical device; it diagnoses nothing.").toString();
    }

    private void level(Card card, ChannelSight channel, boolean lost) {
        LevelReader.Level level = channel.level();
        boolean some = level != null && level.samples() > 0 && !lost;
        String unit = channel.channel().unit();
        card.name.setText(channel.channel().name());
        card.value.setText(some ? Wording.number(channel, level.mean()) : "—");
        card.unit.setText(unit);
        card.detail.setText(
                some
                        ? Wording.number(channel, level.lowest()) + " to " + Wording.number(channel, level.highest())
                                + " " + unit + (desk.isStored() ? " in all" : " in 10 s")
                        : "no samples yet");
        if (card.open && some) {
            card.why.setText(
                    "Mean of " + level.samples() + " cleaned samples.\nFrom one sample to the next they differ "
                            + "by a noise of " + Digits.of(level.noise()) + " " + unit
                            + " (standard deviation).\nOne step that "
                            + "arrives is worth "
                            + Digits.of(channel.scalingNow().stepSize()) + " " + unit + ".");
        }
    }
}
