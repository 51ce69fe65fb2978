package zesty.signal.core.picture;

import java.util.Arrays;
import zesty.signal.core.text.Messages;

/** The ends of the scale that pictures are shown by: those of each picture, of most of its pixels, or held. */
public final class FrameRange {
    /** How the ends are found. */
    public enum Mode {
        EACH(Messages.of("picture.each-picture")),
        MOST("2 to 98 %"),
        HELD("held");

        private final String words;

        Mode(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static final double CUT = 0.02;
    private Mode mode = Mode.EACH;
    private double low = Double.NaN;
    private double high = Double.NaN;

    public Mode mode() {
        return mode;
    }

    public void mode(Mode other) {
        mode = other;
    }

    /** Holds the scale between two ends. */
    public void hold(double from, double to) {
        mode = Mode.HELD;
        low = Math.min(from, to);
        high = Math.max(from, to);
    }

    /** Takes a picture in, unless the range is held. */
    public void fit(double[] frame) {
        if (mode == Mode.HELD && low == low) {
            return;
        }
        double[] sorted =
                Arrays.stream(frame).filter(value -> value == value).sorted().toArray();
        if (sorted.length == 0) {
            return;
        }
        int cut = mode == Mode.MOST ? (int) (CUT * (sorted.length - 1)) : 0;
        low = sorted[cut];
        high = sorted[sorted.length - 1 - cut];
    }

    public double low() {
        return low;
    }

    public double high() {
        return high;
    }
}
