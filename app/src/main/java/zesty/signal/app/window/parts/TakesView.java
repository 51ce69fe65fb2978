package zesty.signal.app.window.parts;

import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.geometry.Bounds;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zesty.signal.app.window.drawing.PlainScroll;
import zesty.signal.app.window.workspace.Workspace;
import zesty.signal.core.text.Messages;
import zesty.signal.takes.Shelf;

/** The shelf of takes by day, each as a small drawing of its lanes. */
public final class TakesView extends PlainScroll {
    private static final double CARD_WIDTH = 292;
    /** What the scroll bar and the edges take. */
    private static final double BESIDE = 34;

    private static final double CARD_HEIGHT = 190;
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern(Messages.of("parts.day-as-written"), Messages.language());

    /** In which order the takes stand. */
    enum Order {
        NEWEST(Messages.of("parts.newest-first"), null),
        OLDEST(Messages.of("parts.oldest-first"), Comparator.comparing(Shelf.Entry::started)),
        STARRED(Messages.of("parts.starred-first"), Comparator.comparing(one -> !one.starred())),
        TITLE(Messages.of("parts.by-title"), Comparator.comparing(one -> one.title()
                .toLowerCase(Locale.ROOT))),
        LONGEST(Messages.of("parts.longest-first"), Comparator.comparing(one -> -one.seconds()));

        private final String words;
        private final Comparator<Shelf.Entry> by;

        Order(String words, Comparator<Shelf.Entry> by) {
            this.words = words;
            this.by = by;
        }

        @Override
        public String toString() {
            return words;
        }
    }

    private final Workspace workspace;
    private Order order = Order.NEWEST;
    /** A few takes of a day leave room beside them for the day before. */
    private final FlowPane days = new FlowPane(26, 16);
    /** A card belongs to its take, and stays the same one while nothing of it changes. */
    private final Map<Path, Card> cards = new HashMap<>();

    private List<Shelf.Entry> shown;
    private Predicate<Shelf.Entry> wanted = entry -> true;
    private final ObservableList<Path> chosen = FXCollections.observableArrayList();

    private final CardWriting writing;

    private boolean looking;

    /** A place on the shelf; its card is made when it comes near sight. */
    private final class Card extends StackPane {
        private Shelf.Entry entry;

        Card(Shelf.Entry entry) {
            this.entry = entry;
            setMinSize(
                    workspace.view().textSize().get().of(CARD_WIDTH),
                    workspace.view().textSize().get().of(CARD_HEIGHT));
        }

        void make() {
            if (getChildren().isEmpty()) {
                setMinSize(USE_COMPUTED_SIZE, USE_COMPUTED_SIZE);
                getChildren().add(new TakeCard(workspace, writing, entry, chosen));
            }
        }

        /** Its take is the same, but its numbers are known now: nothing that may be under the pointer is made anew. */
        void now(Shelf.Entry known) {
            entry = known;
            if (!getChildren().isEmpty()) {
                ((TakeCard) getChildren().get(0)).numbers(known.numbers());
            }
        }

        void focus() {
            make();
            getChildren().get(0).requestFocus();
        }
    }

    public TakesView(Workspace workspace) {
        this.workspace = workspace;
        writing = new CardWriting(this, () -> fill(workspace.takes().all().get()), this::focusOn);
        setId("takes-view");
        getStyleClass().add("takes-view");
        setContent(days);
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
        sceneProperty().addListener((p, was, is) -> writing.end());
        fill(List.of());
    }

    /** Shows those alone that are wanted. */
    void show(Predicate<Shelf.Entry> others) {
        wanted = others;
        shown = null;
        fill(workspace.takes().all().get());
    }

    /** Puts them in another order. */
    void order(Order other) {
        order = other;
        shown = null;
        fill(workspace.takes().all().get());
    }

    /** @return the takes that are chosen, in the order they were */
    ObservableList<Path> chosen() {
        return chosen;
    }

    private void fillAnew() {
        cards.clear();
        shown = null;
        fill(workspace.takes().all().get());
    }

    private void fill(List<Shelf.Entry> entries) {
        if (entries.equals(shown) || writing.goesOn()) {
            return;
        }
        if (onlyNumbers(entries)) {
            shown = List.copyOf(entries);
            entries.forEach(one -> {
                Card card = cards.get(one.file());
                if (card != null) {
                    card.now(one);
                }
            });
            return;
        }
        shown = List.copyOf(entries);
        chosen.retainAll(entries.stream().map(Shelf.Entry::file).toList());
        Path held = focused();
        // Meanwhile no key reaches the card of another take.
        if (held != null) {
            requestFocus();
        }
        cards.keySet().retainAll(entries.stream().map(Shelf.Entry::file).collect(Collectors.toSet()));
        arrange(entries.stream().filter(wanted).toList(), entries.isEmpty());
        look();
        Card still = held == null ? null : cards.get(held);
        if (still != null) {
            still.focus();
        }
    }

    private boolean onlyNumbers(List<Shelf.Entry> entries) {
        boolean only = shown != null && shown.size() == entries.size();
        for (int i = 0; only && i < entries.size(); i++) {
            only = entries.get(i).isAs(shown.get(i));
        }
        return only;
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

    private void focusOn(Path file) {
        Card card = cards.get(file);
        if (card != null && isFocused()) {
            card.focus();
        }
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

    private void arrange(List<Shelf.Entry> entries, boolean none) {
        days.getChildren().clear();
        if (entries.isEmpty()) {
            Label empty = new Label(
                    !none
                            ? Messages.of("parts.no-take-has-all-of-that-in-its")
                            : workspace.takes().listed().get()
                                    ? Messages.of("parts.no-takes-yet-press-r-to-record")
                                    : Messages.of("parts.reading-the-takes"));
            empty.getStyleClass().add("empty");
            days.getChildren().add(empty);
            return;
        }
        LocalDate before = null;
        FlowPane day = null;
        if (order.by != null) {
            day = new FlowPane(12, 12);
            day.setMinWidth(0);
            Label heading = new Label(Character.toUpperCase(order.words.charAt(0)) + order.words.substring(1));
            heading.getStyleClass().add("day");
            days.getChildren().add(new VBox(8, heading, day));
            for (Shelf.Entry entry : entries.stream().sorted(order.by).toList()) {
                day.getChildren().add(cardOf(entry));
            }
            share();
            return;
        }
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
}
