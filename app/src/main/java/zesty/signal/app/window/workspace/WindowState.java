package zesty.signal.app.window.workspace;

import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;

/** How the window stands: which stop is open, what has the focus, how it looks. JavaFX thread only. */
public final class WindowState {
    private final ObjectProperty<Stop> stop = new SimpleObjectProperty<>();
    private final BooleanProperty takesOpen = new SimpleBooleanProperty();
    private final BooleanProperty plannerOpen = new SimpleBooleanProperty();
    private final BooleanProperty phoneOpen = new SimpleBooleanProperty();
    private final BooleanProperty scoreboard = new SimpleBooleanProperty();
    private final StringProperty focus = new SimpleStringProperty("");
    private final DoubleProperty pictureAt = new SimpleDoubleProperty(Double.NaN);
    private final ObjectProperty<Span> span = new SimpleObjectProperty<>(Span.NONE);
    private final ObjectProperty<Cards> cards = new SimpleObjectProperty<>(Cards.FIRST);
    private final ObjectProperty<Look> look = new SimpleObjectProperty<>(Look.DAY);
    private final ObjectProperty<TextSize> textSize = new SimpleObjectProperty<>(TextSize.USUAL);
    private final BooleanProperty night = new SimpleBooleanProperty();
    private final BooleanProperty calm = new SimpleBooleanProperty();
    private final IntegerProperty firstHour = new SimpleIntegerProperty();
    private final BooleanProperty guided = new SimpleBooleanProperty();
    private Settings settings;

    WindowState(Settings settings) {
        this.settings = settings;
        List<BooleanProperty> rooms = List.of(takesOpen, plannerOpen, phoneOpen);
        for (BooleanProperty room : rooms) {
            room.addListener((p, was, is) ->
                    rooms.stream().filter(other -> is && other != room).forEach(other -> other.set(false)));
        }
        look.set(settings.look());
        calm.set(settings.ease().calm());
        firstHour.set(settings.ease().firstHour());
        guided.set(settings.ease().guided());
        textSize.set(settings.text());
        cards.set(settings.view().cards());
        night.bind(Bindings.createBooleanBinding(() -> look.get().dark(), look));
    }

    /** @return the stop whose bench is open; null for none */
    public ObjectProperty<Stop> stop() {
        return stop;
    }

    public BooleanProperty takesOpen() {
        return takesOpen;
    }

    /** @return whether the page for a phone has the room; of this, takes and planner one is open at most */
    public BooleanProperty phoneOpen() {
        return phoneOpen;
    }

    /** @return whether the planner has the room */
    public BooleanProperty plannerOpen() {
        return plannerOpen;
    }

    /** @return whether points stand large over everything */
    public BooleanProperty scoreboard() {
        return scoreboard;
    }

    /** @return the column of the channel in focus; empty for the first one */
    public StringProperty focus() {
        return focus;
    }

    /** @return the moment whose picture is looked at, in s of the time line; NaN for the newest */
    public DoubleProperty pictureAt() {
        return pictureAt;
    }

    /** @return the segment that is being measured in the lanes */
    public ObjectProperty<Span> span() {
        return span;
    }

    /** @return how the cards of readings stand */
    public ObjectProperty<Cards> cards() {
        return cards;
    }

    /** @return the set of colours that the window wears */
    public ObjectProperty<Look> look() {
        return look;
    }

    /** @return whether that is one of light on dark; it follows {@link #look()} */
    public ReadOnlyBooleanProperty night() {
        return night;
    }

    /** @return whether lanes step once a second rather than run */
    public BooleanProperty calm() {
        return calm;
    }

    /** @return how many steps of the first hour are done; −1 before it is begun */
    public IntegerProperty firstHour() {
        return firstHour;
    }

    /** @return whether the step of the first hour that comes next is in sight */
    public BooleanProperty guided() {
        return guided;
    }

    /** @return what of it comes back at the next start */
    public Settings.Ease ease() {
        return new Settings.Ease(calm.get(), firstHour.get(), guided.get());
    }

    /** Puts on the next set of colours. */
    public void nextLook() {
        look.set(look.get().next());
    }

    /** @return how large all words are */
    public ObjectProperty<TextSize> textSize() {
        return textSize;
    }

    /** Makes all words larger by a step; after the largest come the usual ones. */
    public void nextTextSize() {
        textSize.set(textSize.get().next());
    }

    /** @return what was kept of the last session, with what has changed since */
    public Settings settings() {
        return settings;
    }

    /** Remembers how the window stands. */
    public void remember(Settings changed) {
        settings = changed;
    }
}
