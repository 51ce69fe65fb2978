package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** How bad a forearm's signal can be, and where its electrodes sit, each by its word behind the board's name: {@code forearm+weak+hum}. */
public enum MuscleMode {
    WEAK("pulls only 8 dB above rest"),
    HUM("mains, three times the noise at rest"),
    MOTOR("a winch motor on the same supply, its duty in a second column"),
    LOOSE("an electrode that lets go now and then"),
    HEART("beats of the heart in it"),
    CUT("pulls beyond the converter's range"),
    ELBOW("electrodes near the elbow, on the muscle's end: 8 dB less"),
    WRIST("electrodes near the wrist, on a tendon: 14 dB less, and mains"),
    TIRES("every fourth pull is held for 25 s and tires"),
    TWO("a second pair of electrodes, on the muscle at the other side");

    private final String about;

    MuscleMode(String about) {
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
    public static List<MuscleMode> of(String board) {
        return board.equals("forearm") || board.equals("forearm-envelope") ? Arrays.asList(values()) : List.of();
    }

    /** @return the mode of that word that a board has; null when it has none */
    static MuscleMode called(String board, String word) {
        return of(board).stream()
                .filter(mode -> mode.word().equals(word))
                .findFirst()
                .orElse(null);
    }
}
