package zesty.signal.core.read.tone;

/** The notes of equal temperament, A of the fourth octave at 440 Hz. */
public final class Notes {
    private static final String[] NAMES = {"C", "C♯", "D", "D♯", "E", "F", "F♯", "G", "G♯", "A", "A♯", "B"};

    private Notes() {}

    /** @return above A of 440 Hz, in half steps; NaN of no tone */
    public static double halfSteps(double hz) {
        return 12 * Math.log(hz / 440) / Math.log(2);
    }

    /** @param halfSteps above A of 440 Hz */
    public static String called(double halfSteps) {
        int fromC = (int) Math.rint(halfSteps) + 9;
        return NAMES[Math.floorMod(fromC, 12)] + (4 + Math.floorDiv(fromC, 12));
    }

    /** @return the nearest note, and by how many hundredths of a half step a tone is off */
    static String note(double hz) {
        if (!(hz > 0)) {
            return "";
        }
        double steps = halfSteps(hz);
        int cents = (int) Math.rint(100 * (steps - Math.rint(steps)));
        return called(steps) + (cents == 0 ? "" : (cents > 0 ? " +" : " \u2212") + Math.abs(cents) + " cents");
    }
}
