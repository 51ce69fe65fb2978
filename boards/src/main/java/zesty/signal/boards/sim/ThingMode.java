package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** How bad the signals of things can be, each by its word behind its board's name: {@code hull+worn+folded}. */
public enum ThingMode {
    FOLDED("hull", Messages.of("sim.a-tone-of-900-hz-which-is-aliased")),
    SLOWER("hull", Messages.of("sim.1000-samples-a-second-so-that-an")),
    WORN("hull", Messages.of("sim.the-second-harmonic-of-the-hum-two")),
    WEAK("halyard", Messages.of("sim.every-third-slap-is-hardly-above")),
    DOUBLE("halyard", Messages.of("sim.every-second-slap-strikes-twice")),
    RINGS("halyard", Messages.of("sim.the-mast-rings-six-times-as-long")),
    FALLS("halyard", Messages.of("sim.a-level-module-instead-of-a-knock")),
    SCALE("whistle", Messages.of("sim.somebody-sings-up-a-scale-from-220")),
    MISSING("whistle", Messages.of("sim.a-horn-of-180-hz-whose-fundamental")),
    GLIDES("whistle", Messages.of("sim.a-siren-that-glides-from-400-to")),
    RUMBLE("whistle", Messages.of("sim.a-generator-next-door-31-hz-as")),
    BOUNCES("masthead-edges", Messages.of("sim.the-contact-bounces-one-to-three")),
    CALM("masthead", Messages.of("sim.hardly-any-wind-and-a-minute-of")),
    NORTH("masthead", Messages.of("sim.wind-from-about-north-the-vane")),
    SWAPPED("motion", Messages.of("sim.the-unit-sits-turned-by-a-quarter")),
    IRON("motion", Messages.of("sim.iron-beside-the-unit-that-shifts")),
    MAGNET("motion", Messages.of("sim.somebody-comes-by-with-a-magnet")),
    RESTING("elbow", Messages.of("sim.the-upper-arm-lies-on-the-thwart")),
    UPRIGHT("elbow", Messages.of("sim.the-arm-swings-level-so-that-the")),
    TWISTS("elbow", Messages.of("sim.the-forearm-is-turned-over-as-well")),
    BOUNCED("shaft", Messages.of("sim.the-mark-s-contact-bounces-at")),
    SKIPS("shaft", Messages.of("sim.every-ninth-mark-is-missed")),
    RUNS_UP("shaft", Messages.of("sim.it-runs-up-from-10-to-40-turns-a")),
    APART("shaft", Messages.of("sim.the-sensor-sits-on-something-else")),
    UNPOWERED("cupboard", Messages.of("sim.nobody-pushed-in-the-heater-s-plug")),
    SUNNY("cupboard", Messages.of("sim.the-sun-warms-the-shed-by-2-c-a"));

    private final String board;
    private final String about;

    ThingMode(String board, String about) {
        this.board = board;
        this.about = about;
    }

    /** @return the word that asks for it, behind the board's name and a plus sign */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    public String about() {
        return about;
    }

    /** @return the modes that a board has; none for some */
    public static List<ThingMode> of(String board) {
        return Arrays.stream(values()).filter(mode -> mode.board.equals(board)).toList();
    }

    /** @return the mode of that word that a board has; null when it has none */
    static ThingMode called(String board, String word) {
        return of(board).stream()
                .filter(mode -> mode.word().equals(word))
                .findFirst()
                .orElse(null);
    }
}
