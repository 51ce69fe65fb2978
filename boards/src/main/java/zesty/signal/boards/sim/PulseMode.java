package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import zesty.signal.core.text.Messages;

/** How bad a pulse signal can be, each by its word behind the board's name: {@code deck+wander+hum}. */
public enum PulseMode {
    FAINT(Messages.of("sim.few-counts-high")),
    GRAIN(Messages.of("sim.noise-of-a-quarter-of-the-pulse")),
    HUM(Messages.of("sim.mains-four-tenths-of-the-pulse")),
    WANDER(Messages.of("sim.the-level-wanders-four-times-as")),
    BREATH(Messages.of("sim.breathing-makes-beats-higher-and")),
    HUMPS(Messages.of("sim.a-second-hump-seven-tenths-as-high")),
    UPSIDE(Messages.of("sim.beats-point-down")),
    CONTACT(Messages.of("sim.the-contact-shifts-now-and-then")),
    EFFORT(Messages.of("sim.the-rate-goes-from-70-to-130")),
    TAPPING(Messages.of("sim.from-30-s-to-90-s-somebody-taps-on")),
    LIFTED(Messages.of("sim.from-30-s-to-60-s-nothing-is-on")),
    EARLY(Messages.of("sim.some-beats-come-early-and-are-wide")),
    TALL(Messages.of("sim.t-as-tall-as-r")),
    MUSCLE(Messages.of("sim.bursts-of-muscle-noise")),
    MOVEMENT(Messages.of("sim.episodes-of-movement"));

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
