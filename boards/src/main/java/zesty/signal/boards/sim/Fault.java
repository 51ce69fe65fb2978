package zesty.signal.boards.sim;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import zesty.signal.core.text.Messages;

/** What can go wrong with a board, on demand. */
public enum Fault {
    DROPOUTS("dropouts", Messages.of("sim.frames-vanish-some-at-a-time")),
    NOISE("noise", Messages.of("sim.strange-bytes-come-between-frames")),
    HALVES("halves", Messages.of("sim.the-end-of-a-frame-is-cut-off")),
    RESTART("restart", Messages.of("sim.the-board-starts-anew-every-few")),
    UNPLUG("unplug", Messages.of("sim.the-cable-comes-out-and-goes-in")),
    SLOW("slow", Messages.of("sim.the-board-s-clock-is-half-a")),
    CLIPPED("clipped", Messages.of("sim.the-sensor-s-range-is-too-small"));

    private final String word;
    private final String about;

    Fault(String word, String about) {
        this.word = word;
        this.about = about;
    }

    /** @return the word that asks for it, behind the board's name and a plus sign */
    public String word() {
        return word;
    }

    public String about() {
        return about;
    }

    /** @throws IllegalArgumentException when no fault is called so */
    static Fault called(String word, String board) {
        List<String> words = Arrays.stream(values()).map(Fault::word).toList();
        int index = words.indexOf(word);
        if (index < 0) {
            String modes = SimulatedBoards.modes(board).keySet().stream()
                    .map(mode -> ", " + mode)
                    .collect(Collectors.joining());
            throw new IllegalArgumentException(
                    "no fault is called '" + word + "'; there are " + String.join(", ", words) + modes);
        }
        return values()[index];
    }
}
