package zesty.signal.core.read.muscle;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * How good a place of the electrodes is, told by the same pulls made there: how far the pulls stand above what is there at
 * rest, mains included, less what spoils them. What is taken off, in dB: for each hundredth of clipped samples 3, and for
 * each tenth by which the pulls' heights spread beyond the first 3.
 *
 * @param place in the maker's words
 * @param scoreDb the worth of the place; NaN where no pull was seen
 * @param reason what made it so, in a sentence
 */
public record Placement(String place, int pulls, double snrDb, double scoreDb, String reason) {
    /** Mains is told where it makes this share of the signal; it counts by what it adds at rest. */
    private static final double TOLD_HUM = 0.1;

    private static final double CLIPPED_DB = 300;
    private static final double SPREAD_DB = 30;
    private static final double USUAL_SPREAD = 0.1;
    /** What costs less than this, in dB, is not told. */
    private static final double TOLD_DB = 0.5;

    /** @param reading of the muscle reader over the pulls made at this place */
    public static Placement of(String place, Reading reading) {
        int pulls = reading.events("bursts").size();
        if (pulls == 0) {
            return new Placement(
                    place, 0, Double.NaN, Double.NaN, Messages.of("read.muscle.no-pull-stood-out-of-rest"));
        }
        double snr = reading.scalar("snr_db");
        double clipped = CLIPPED_DB * share(reading, "clipped_percent");
        double spread = SPREAD_DB * Math.max(0, share(reading, "spread_percent") - USUAL_SPREAD);
        List<String> words = new ArrayList<>();
        words.add(Messages.of("read.muscle.pulls-db-above-rest", Digits.fixed(snr, 1)));
        if (share(reading, "hum_percent") > TOLD_HUM) {
            words.add(Messages.of("read.muscle.mains-makes-of-it", Digits.fixed(reading.scalar("hum_percent"), 0)));
        }
        tell(
                words,
                clipped,
                Messages.of("read.muscle.of-the-pulls-is-cut-off", Digits.fixed(reading.scalar("clipped_percent"), 1)));
        tell(
                words,
                spread,
                Messages.of("read.muscle.the-pulls-differ-by", Digits.fixed(reading.scalar("spread_percent"), 0)));
        return new Placement(place, pulls, snr, snr - clipped - spread, String.join(", ", words));
    }

    private static void tell(List<String> words, double costDb, String what) {
        if (costDb >= TOLD_DB) {
            words.add(what + " (−" + Digits.fixed(costDb, 1) + " dB)");
        }
    }

    private static double share(Reading reading, String key) {
        double percent = reading.scalar(key);
        return percent == percent ? percent / 100 : 0;
    }

    /** @return the best first; places without a pull last */
    public static List<Placement> ranked(List<Placement> tried) {
        return tried.stream()
                .sorted(Comparator.comparingDouble((Placement p) -> Double.isNaN(p.scoreDb) ? 1e9 : -p.scoreDb))
                .toList();
    }
}
