package zesty.signal.app.window.parts;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.text.Text;
import zesty.signal.app.help.HelpBook;
import zesty.signal.app.window.drawing.HelpPlace;
import zesty.signal.app.window.drawing.Palette;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.drawing.Tip;
import zesty.signal.app.window.workspace.Cards;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.app.wording.CardWords;
import zesty.signal.app.wording.Wording;
import zesty.signal.core.read.Reading;
import zesty.signal.core.read.ScalarInfo;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;
import zesty.signal.engine.ChannelSnapshot;
import zesty.signal.engine.LevelNow;
import zesty.signal.engine.ReaderSnapshot;
import zesty.signal.engine.Snapshot;

/**
 * The answers at the right: one card a channel. Opening a card tells how far to trust it and why, and its other numbers. A
 * card can be pinned to the top, moved, and put away.
 */
public final class ReadingCards extends PlainScroll {

    private final Workspace workspace;
    private final VBox cards = new VBox(9);
    private final Map<String, Card> byColumn = new HashMap<>();
    private List<String> shown = List.of();
    private boolean onlyFocus;
    /** The columns that have a card, before it is asked how they stand. */
    private List<String> asked = List.of();

    private final Button back = new Button();

    private final class Card extends VBox {
        final Label name = new Label();
        final Label value = new Label();
        final Label unit = new Label();
        final Label detail = new Label();
        final Label why = new Label();
        final Slice slice = new Slice(24);
        final Button pin = new Button(Messages.of("parts.pin"));
        final Button away = new Button("×");
        boolean open;

        void pinned(boolean now) {
            pin.setText(now ? Messages.of("parts.unpin") : Messages.of("parts.pin"));
            String does = now ? Messages.of("parts.unpin") : Messages.of("parts.pin-at-the-top");
            Tip.on(pin, Messages.of("parts.p-on-the-card-ctrl-with-the-arrows", does));
        }

        /** What needs two lines is parted between its facts, and no dot is left at the end of the first. */
        void detail(String words) {
            Text whole = new Text(words);
            whole.setFont(detail.getFont());
            boolean fits = detail.getWidth() == 0 || whole.getLayoutBounds().getWidth() <= detail.getWidth();
            detail.setText(fits ? words : words.replace(" · ", "\n"));
        }

        Card(String column) {
            getStyleClass().add("card");
            setFocusTraversable(true);
            name.getStyleClass().add("card-name");
            value.getStyleClass().add("card-value");
            unit.getStyleClass().add("card-unit");
            Tip.on(unit, Messages.of("parts.press-to-show-a-level-in-the-next"));
            unit.setOnMouseClicked(event -> {
                workspace.nextUnit(column);
                event.consume();
            });
            detail.getStyleClass().add("card-detail");
            detail.setWrapText(true);
            why.getStyleClass().add("card-why");
            why.setWrapText(true);
            Region space = new Region();
            HBox.setHgrow(space, Priority.ALWAYS);
            pin.setOnAction(event ->
                    workspace.view().cards().set(workspace.view().cards().get().turned(column)));
            away.setOnAction(event ->
                    workspace.view().cards().set(workspace.view().cards().get().without(column)));
            for (Button button : new Button[] {pin, away}) {
                button.getStyleClass().setAll("lane-hide");
                button.setFocusTraversable(false);
                button.visibleProperty().bind(hoverProperty().or(focusedProperty()));
                button.managedProperty().bind(button.visibleProperty());
            }
            Tip.on(away, Messages.of("parts.put-this-card-away-delete-on-the"));
            HBox head = new HBox(4, name, space, pin, away, slice);
            head.setAlignment(Pos.CENTER_LEFT);
            HBox number = new HBox(7, value, unit);
            number.setAlignment(Pos.BASELINE_LEFT);
            getChildren().addAll(head, number, detail, why);
            open(false);
            setOnMouseClicked(event -> {
                workspace.view().focus().set(column);
                open(!open);
            });
            setOnKeyPressed(event -> {
                Cards now = workspace.view().cards().get();
                Cards then =
                        switch (event.getCode()) {
                            case P -> now.turned(column);
                            case DELETE -> now.without(column);
                            case UP -> event.isShortcutDown() ? now.moved(column, -1, asked) : null;
                            case DOWN -> event.isShortcutDown() ? now.moved(column, 1, asked) : null;
                            default -> null;
                        };
                if (event.getCode() == KeyCode.ENTER) {
                    open(!open);
                    event.consume();
                } else if (then != null) {
                    workspace.view().cards().set(then);
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

    public ReadingCards(Workspace workspace) {
        this.workspace = workspace;
        getStyleClass().add("cards");
        back.setId("cards-back");
        back.getStyleClass().setAll("small-button");
        Tip.on(back, Messages.of("parts.shows-the-hidden-cards"));
        back.setOnAction(event ->
                workspace.view().cards().set(workspace.view().cards().get().all()));
        back.managedProperty().bind(back.visibleProperty());
        setContent(new VBox(9, cards, back));
        getStyleClass().add("readings");
    }

    /** Shows all cards, or only the one in focus, at the end of its lane, while a bench has the room. */
    public void showOnlyFocus(boolean only) {
        onlyFocus = only;
    }

    /** Shows what is so now; a few times a second is enough. */
    public void show(Snapshot snapshot) {
        List<String> wanted = new ArrayList<>();
        String focus = snapshot.focused(workspace.view().focus().get())
                .map(c -> c.channel().column())
                .orElse("");
        for (ChannelSnapshot channel : snapshot.channels()) {
            boolean there = onlyFocus
                    ? channel.channel().column().equals(focus)
                    : channel.channel().shown() || channel.reader().isPresent();
            if (there) {
                wanted.add(channel.channel().column());
            }
        }
        asked = List.copyOf(wanted);
        Cards order = workspace.view().cards().get();
        if (!onlyFocus) {
            wanted = order.arranged(asked);
        }
        int gone = onlyFocus ? 0 : order.away(asked);
        back.setVisible(gone > 0);
        back.setText(gone == 1 ? Messages.of("parts.1-hidden-card") : Messages.of("parts.hidden-cards", gone));
        if (!wanted.equals(shown)) {
            shown = wanted;
            byColumn.keySet().retainAll(wanted);
            cards.getChildren()
                    .setAll(wanted.stream()
                            .map(column -> byColumn.computeIfAbsent(column, Card::new))
                            .toList());
        }
        for (ChannelSnapshot channel : snapshot.channels()) {
            Card card = byColumn.get(channel.channel().column());
            if (card != null) {
                fill(card, snapshot, channel);
            }
        }
    }

    private void fill(Card card, Snapshot snapshot, ChannelSnapshot channel) {
        boolean pinned = workspace
                .view()
                .cards()
                .get()
                .pinned()
                .contains(channel.channel().column());
        card.pinned(pinned);
        CardWords words = CardWords.of(
                snapshot,
                channel,
                workspace.shown().levelsOver(),
                workspace.shown().unread());
        card.pseudoClassStateChanged(javafx.css.PseudoClass.getPseudoClass("stale"), words.stale());
        int index = Palette.placeOf(snapshot.rig(), channel.channel().column());
        Color colour = Color.web(
                Palette.css(Palette.channel(index), workspace.view().night().get()));
        card.name.setText(words.name());
        card.value.setText(words.value());
        card.unit.setText(words.unit());
        card.detail(words.detail());
        Optional<ReaderSnapshot> reader = channel.reader();
        HelpPlace.mark(
                card, HelpBook.reader(reader.map(one -> one.kind().name()).orElse("level")));
        if (reader.isPresent()) {
            card.slice.show(words.segments(), colour);
            explain(card, channel, reader.get());
        } else {
            explain(card, channel, words.lost());
        }
        card.slice.setVisible(reader.isPresent());
        card.setAccessibleText(card.name.getText() + ": " + card.value.getText() + " " + card.unit.getText() + ", "
                + card.detail.getText());
    }

    private static void explain(Card card, ChannelSnapshot channel, ReaderSnapshot reader) {
        if (reader.reading() == null) {
            card.why.setText(reader.trouble());
        } else if (!channel.trouble().isEmpty()) {
            card.why.setText(channel.trouble());
        } else if (card.open) {
            card.why.setText(why(channel, reader));
        }
    }

    private static String why(ChannelSnapshot channel, ReaderSnapshot reader) {
        Reading reading = reader.reading();
        StringBuilder text = new StringBuilder();
        text.append(Messages.of("parts.quality"))
                .append(reading.quality().segments())
                .append(Messages.of("parts.of-8"));
        if (reading.quality().reasons().isEmpty()) {
            text.append(Messages.of("parts.no-problems-found"));
        }
        for (String reason : reading.quality().reasons()) {
            text.append("\n· ").append(reason);
        }
        text.append("\n");
        List<String> told = new ArrayList<>(reader.kind().detailKeys());
        told.add(reader.kind().scalars().get(0).key());
        for (ScalarInfo scalar : reader.kind().scalars()) {
            double value = reading.scalar(scalar.key());
            if (!Double.isNaN(value) && !told.contains(scalar.key())) {
                String unit = scalar.unit(channel.channel().unit());
                text.append("\n").append(scalar.words()).append(" ").append(Wording.scalar(channel, scalar, value));
                text.append(unit.isEmpty() ? "" : " " + unit);
            }
        }
        text.append("\n");
        for (String line : reading.working()) {
            text.append("\n").append(line);
        }
        return text.toString();
    }

    private static void explain(Card card, ChannelSnapshot channel, boolean lost) {
        LevelNow level = channel.level();
        String unit = channel.channel().unit();
        if (card.open && level.samples() > 0 && !lost) {
            card.why.setText(Messages.of(
                    "parts.mean-of-cleaned-samples-from-one",
                    level.samples(),
                    Digits.of(level.noise()),
                    unit,
                    Digits.of(channel.scalingNow().stepSize()),
                    unit));
        }
    }
}
