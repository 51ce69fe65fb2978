package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** How bad the signals of things can be, each by its word behind its board's name: {@code hull+worn+folded}. */
public enum ThingMode {
    FOLDED("hull", "a tone of 900 Hz, which is aliased to 700"),
    SLOWER("hull", "1000 samples a second, so that an aliased tone moves"),
    WORN("hull", "the second harmonic of the hum two and a half times as strong, and a new line at 131 Hz"),
    WEAK("halyard", "every third slap is hardly above the noise"),
    DOUBLE("halyard", "every second slap strikes twice within 60 ms"),
    RINGS("halyard", "the mast rings six times as long"),
    FALLS("halyard", "a level module instead of a knock sensor: louder reads lower"),
    SCALE("whistle", "somebody sings up a scale from 220 Hz, half a second a note"),
    MISSING("whistle", "a horn of 180 Hz whose fundamental is missing"),
    GLIDES("whistle", "a siren that glides from 400 to 1200 Hz and back"),
    RUMBLE("whistle", "a generator next door: 31 Hz, as loud as the whistle"),
    BOUNCES("masthead-edges", "the contact bounces, one to three times a turn"),
    CALM("masthead", "hardly any wind, and a minute of none"),
    NORTH("masthead", "wind from about north, the vane going to and fro across it"),
    SWAPPED("motion", "the unit sits turned by a quarter, its scales and zeros off"),
    IRON("motion", "iron beside the unit that shifts and stretches the field"),
    MAGNET("motion", "somebody comes by with a magnet for half of every ten seconds"),
    RESTING("elbow", "the upper arm lies on the thwart, only the forearm moves"),
    UPRIGHT("elbow", "the arm swings level, so that the elbow's axis stands upright"),
    TWISTS("elbow", "the forearm is turned over as well, which is no hinge"),
    BOUNCED("shaft", "the mark's contact bounces at times"),
    SKIPS("shaft", "every ninth mark is missed"),
    RUNS_UP("shaft", "it runs up from 10 to 40 turns a second in twenty seconds"),
    APART("shaft", "the sensor sits on something else, where nothing of the shaft arrives"),
    UNPOWERED("cupboard", "nobody pushed in the heater's plug"),
    SUNNY("cupboard", "the sun warms the shed by 2 °C a minute");

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
