package zesty.signal.core.read.tone;

import java.util.ArrayList;
import java.util.List;

/**
 * Whether what lies around the harmonics of a tone is one tone's. Two tones near each other beat, and three of a chord lie nearly
 * where harmonics of a deep one would: both look like one tone until their lines are looked at as finely as the record allows.
 * Places are in bins of its spectrum.
 */
final class OneTone {
    /** A steady line of a windowed record lies within so many bins of its highest. */
    private static final int LINE_BINS = 3;
    /** Lines nearer to each other than this are not told apart. */
    private static final int APART_BINS = 6;
    /** Two lines hold this share of what lies around a harmonic; a tone that wavers has more of them. */
    private static final double TWO_HOLD = 0.9;
    /** The lower one has this share of the other's power at least, and strong harmonics of that of the strongest. */
    private static final double ABOUT_AS_STRONG = 0.3;
    /** A line that holds this share of its harmonic is steady: its place can be told. */
    private static final double STEADY = 0.7;
    /** Harmonics of one tone lie so near to their places: of stiff strings the lower ones do, too. */
    private static final double NEAR_SHARE = 0.004;

    private static final double NEAR_BINS = 2;

    private record Harmonic(int order, double power, double highest, boolean steady, boolean two) {}

    private final List<Harmonic> harmonics = new ArrayList<>();

    /** @param power what stands out of the noise around a harmonic, a bin each. @param from the bin of the first of them */
    void add(int order, double[] power, int from) {
        double all = sum(power, 0, power.length);
        int first = highest(power, -1);
        if (!(all > 0)) {
            return;
        }
        double one = around(power, first);
        int second = highest(power, first);
        double other = second < 0 ? 0 : around(power, second);
        double moment = 0;
        for (int i = Math.max(0, first - LINE_BINS); i <= Math.min(power.length - 1, first + LINE_BINS); i++) {
            moment += power[i] * (from + i);
        }
        harmonics.add(new Harmonic(
                order,
                all,
                moment / one,
                one > STEADY * all,
                one + other > TWO_HOLD * all && other > ABOUT_AS_STRONG * one));
    }

    /** @param fundamental its place. @return whether its strong harmonics are those of one tone */
    boolean is(double fundamental) {
        double most = harmonics.stream().mapToDouble(Harmonic::power).max().orElse(0);
        return harmonics.stream()
                .filter(one -> one.power() > ABOUT_AS_STRONG * most)
                .noneMatch(one -> one.two() || one.steady() && isBeside(one, fundamental));
    }

    private static boolean isBeside(Harmonic one, double fundamental) {
        double place = one.order() * fundamental;
        return Math.abs(one.highest() - place) > Math.max(NEAR_BINS, NEAR_SHARE * place);
    }

    /** @param but what lies near to this is not looked at; none for −1. @return the highest; −1 where nothing is left */
    private static int highest(double[] power, int but) {
        int top = -1;
        for (int i = 0; i < power.length; i++) {
            boolean looked = but < 0 || Math.abs(i - but) > APART_BINS;
            top = looked && power[i] > 0 && (top < 0 || power[i] > power[top]) ? i : top;
        }
        return top;
    }

    private static double around(double[] power, int at) {
        return sum(power, Math.max(0, at - LINE_BINS), Math.min(power.length, at + LINE_BINS + 1));
    }

    private static double sum(double[] power, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += power[i];
        }
        return sum;
    }
}
