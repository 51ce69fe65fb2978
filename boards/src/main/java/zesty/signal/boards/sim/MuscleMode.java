package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import zesty.signal.core.text.Messages;

/** How bad a forearm's signal can be, and where its electrodes sit, each by its word behind the board's name: {@code forearm+weak+hum}. */
public enum MuscleMode {
    WEAK(Messages.of("sim.pulls-only-8-db-above-rest")),
    HUM(Messages.of("sim.mains-three-times-the-noise-at")),
    MOTOR(Messages.of("sim.a-winch-motor-on-the-same-supply")),
    LOOSE(Messages.of("sim.an-electrode-that-lets-go-now-and")),
    HEART(Messages.of("sim.beats-of-the-heart-in-it")),
    CUT(Messages.of("sim.pulls-beyond-the-converter-s-range")),
    ELBOW(Messages.of("sim.electrodes-near-the-elbow-on-the")),
    WRIST(Messages.of("sim.electrodes-near-the-wrist-on-a")),
    TIRES(Messages.of("sim.every-fourth-pull-is-held-for-25-s")),
    TWO(Messages.of("sim.a-second-pair-of-electrodes-on-the"));

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
