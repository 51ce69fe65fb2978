package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** How bad a pulse signal can be, each by its word behind the board's name: {@code deck+wander+hum}. */
public enum PulseMode {
    FAINT("few counts high"),
    GRAIN("noise of a quarter of the pulse"),
    HUM("mains, four tenths of the pulse"),
    WANDER("the level wanders four times as far as the pulse is high"),
    BREATH("breathing makes beats higher and lower by 30 %"),
    HUMPS("a second hump seven tenths as high as the first"),
    UPSIDE("beats point down"),
    CONTACT("the contact shifts now and then"),
    EFFORT("the rate goes from 70 to 130 within five seconds, and slowly back"),
    TAPPING("from 30 s to 90 s somebody taps on it"),
    LIFTED("from 30 s to 60 s nothing is on the sensor"),
    EARLY("some beats come early and are wide"),
    TALL("T as tall as R"),
    MUSCLE("bursts of muscle noise"),
    MOVEMENT("episodes of movement");

    private static final Set<PulseMode> FINGER =
            EnumSet.of(FAINT, GRAIN, HUM, WANDER, BREATH, HUMPS, UPSIDE, CONTACT, EFFORT, TAPPING, LIFTED);
    private static final Set<PulseMode> CHEST =
            EnumSet.of(FAINT, GRAIN, HUM, WANDER, UPSIDE, EFFORT, LIFTED, EARLY, TALL, MUSCLE, MOVEMENT);

    private final String about;

    PulseMode(String about) {
        this.about = about;
    }

    /** @return the word that asks for it, behind the board's name and a plus sign */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public String about() {
        return about;
    }

    /** @return the modes that a board has; none for most */
    public static Set<PulseMode> of(String board) {
        return board.equals("deck")
                ? EnumSet.copyOf(FINGER)
                : board.equals("chest") ? EnumSet.copyOf(CHEST) : EnumSet.noneOf(PulseMode.class);
    }

    /** @return the mode of that word that a board has; null when it has none */
    static PulseMode called(String board, String word) {
        return of(board).stream()
                .filter(mode -> mode.word().equals(word))
                .findFirst()
                .orElse(null);
    }

    static List<String> words() {
        return Arrays.stream(values()).map(PulseMode::word).toList();
    }
}
