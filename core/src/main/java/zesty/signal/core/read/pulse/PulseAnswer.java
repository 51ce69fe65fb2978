package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.sample.Order;
import zesty.signal.core.scale.Digits;

/**
 * The numbers of a pulse, from its beats. SDNN, RMSSD, pNN50 and the bands of the spectrum as in the Task Force of the
 * European Society of Cardiology and the North American Society of Pacing and Electrophysiology 1996, "Heart rate
 * variability: standards of measurement, physiological interpretation, and clinical use". Early beats count for the
 * rate but not for the spread, which is one of normal beats.
 */
final class PulseAnswer {
    /** Half of the successive intervals of an irregular heart differ by this share of one at least. */
    private static final double IRREGULAR = 0.12;
    /** Of a white jitter alone the ratio to the spread is 0.7; from 0.5 on more than half of the variance is noise. */
    private static final double JITTERS = 0.5;

    private static final double IN_DOUBT_BY_RHYTHM = 0.58;
    private static final int FEWEST_FOR_RHYTHM = 12;

    private static final double EARLY = 0.82;
    private static final double ALIKE = 0.6;
    /** A moment is displaced by more than this share of the interval … */
    private static final double DISPLACED = 0.06;
    /** … and by more than so many deviations of the intervals around it, of which so many to either side are looked at. */
    private static final double DEVIATIONS = 4;

    private static final int NEAR = 5;
    private static final double SPECTRUM_SECONDS = 120;
    private static final double BREATHING_SECONDS = 25;
    private static final double SLOWEST_BREATH_HZ = 0.08;
    private static final double FASTEST_BREATH_HZ = 0.5;
    /** Of noise alone, a peak as high as this among some thirty independent frequencies comes once in forty times. */
    private static final double CLEAR_BREATH = 7;

    private static final double EFFORT_SECONDS = 15;
    private static final double RECOVERY_SECONDS = 60;
    private static final double EFFORT_BPM = 15;

    /** A beat whose rise is steeper than its fall by so little, as a share, may as well point the other way. */
    private static final double UNSIDED = 0.035;

    private static final double SIDED = 0.045;
    private static final double FAST_SECONDS = 0.5;
    private static final int LEAP_BEATS = 5;
    private static final double LEAP = 1.35;
    private static final double EVEN = 0.12;
    /** What an answer that may be another one altogether is worth at most. */
    private static final double IN_DOUBT = 0.3;
    /** So many beats are looked at for humps that were taken for beats. */
    private static final int HEIGHTS = 60;

    private final Beats beats;
    private final double from;
    private final double to;
    private final boolean held;
    private final boolean[] early;
    /** Beats whose intervals do not count for the spread: early ones, and those of another shape. */
    private final boolean[] odd;

    private final double usual;

    /** @param held whether the pulse has just gone, so that what is said of it is held */
    PulseAnswer(Beats beats, double from, double to, boolean held) {
        this.beats = beats;
        this.from = from;
        this.to = to;
        this.held = held;
        double[] all = intervals(false, new boolean[beats.count()]);
        Arrays.sort(all);
        usual = all.length == 0 ? Double.NaN : all[all.length / 2] / 1000;
        early = early();
        odd = early.clone();
        for (int i = 0; i < odd.length; i++) {
            odd[i] |= beats.likeness()[i] < ALIKE || displaced(i);
        }
    }

    /**
     * A single beat that is early by as much as the next interval is long, or the reverse, and far more than the beats
     * around it differ: its moment was moved by what disturbed the signal, or it came before its time. Either way its
     * two intervals say nothing of the normal rhythm.
     */
    private boolean displaced(int i) {
        if (i < 1 || i + 1 >= beats.count() || !beats.followsOn()[i] || !beats.followsOn()[i + 1]) {
            return false;
        }
        double around = around(i);
        double before = beats.seconds()[i] - beats.seconds()[i - 1] - around;
        double after = beats.seconds()[i + 1] - beats.seconds()[i] - around;
        double[] off = new double[2 * NEAR + 1];
        int n = 0;
        for (int k = Math.max(1, i - NEAR); k <= Math.min(beats.count() - 1, i + NEAR); k++) {
            if (beats.followsOn()[k] && k != i && k != i + 1) {
                off[n++] = Math.abs(beats.seconds()[k] - beats.seconds()[k - 1] - around);
            }
        }
        if (n < 3) {
            return false;
        }
        Arrays.sort(off, 0, n);
        double least = Math.max(DISPLACED * around, 1.4826 * DEVIATIONS * off[n / 2]);
        return before * after < 0 && Math.min(Math.abs(before), Math.abs(after)) > least;
    }

    /** A beat is early when it comes well before its time for what the beats around it do, and the next one waits. */
    private boolean[] early() {
        boolean[] found = new boolean[beats.count()];
        for (int i = 1; i < found.length; i++) {
            double around = around(i);
            double before = beats.seconds()[i] - beats.seconds()[i - 1];
            boolean soon = beats.followsOn()[i] && before < EARLY * around && !found[i - 1];
            boolean waits = i + 1 < found.length
                    && beats.followsOn()[i + 1]
                    && beats.seconds()[i + 1] - beats.seconds()[i] > 1.08 * around;
            boolean other = beats.likeness()[i] < ALIKE;
            found[i] = soon && (waits || other);
        }
        return found;
    }

    /** The usual interval around a beat: the median of the nine nearest. */
    private double around(int i) {
        int first = Math.max(1, i - 4);
        int last = Math.min(beats.count() - 1, i + 4);
        double[] near = new double[last - first + 1];
        int n = 0;
        for (int k = first; k <= last; k++) {
            if (beats.followsOn()[k]) {
                near[n++] = beats.seconds()[k] - beats.seconds()[k - 1];
            }
        }
        Arrays.sort(near, 0, n);
        return n == 0 ? Double.NaN : near[n / 2];
    }

    /** @return the intervals in ms, those at an early beat only if asked for */
    private double[] intervals(boolean normalOnly, boolean[] soon) {
        double[] found = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !(normalOnly && (soon[i] || soon[i - 1]))) {
                found[n++] = 1000 * (beats.seconds()[i] - beats.seconds()[i - 1]);
            }
        }
        return Arrays.copyOf(found, n);
    }

    /** @return beats a minute, from the mean interval; NaN without one */
    double rate() {
        return 60000 / mean(intervals(false, early));
    }

    Reading reading() {
        double[] all = intervals(false, early);
        double[] normal = intervals(true, odd);
        double mean = mean(all);
        double deviation = deviation(normal);
        double[] steps = steps();
        int judged = beats.count() + beats.rejected().length;
        double share = judged == 0 ? Double.NaN : (double) beats.rejected().length / judged;
        List<Item> items = new ArrayList<>();
        items.add(new Item.Events("beats", List.of(), beatEvents()));
        items.add(new Item.Scalar(Pulse.RATE, rate(), 60000 / mean / mean * standardError(all)));
        items.add(new Item.Scalar("rate_bpm.min", 60000 / extreme(all, 1)));
        items.add(new Item.Scalar("rate_bpm.max", 60000 / extreme(all, -1)));
        items.add(new Item.Scalar("interval_ms.mean", mean, standardError(all)));
        items.add(new Item.Scalar("interval_ms.sdnn", deviation));
        items.add(new Item.Scalar("interval_ms.rmssd", rootMeanSquare(steps)));
        items.add(new Item.Events("rejected", List.of(), rejectedEvents()));
        items.add(new Item.Scalar("pnn50_percent", over50(steps)));
        items.add(new Item.Scalar("set_aside_percent", 100 * share));
        items.add(new Item.Scalar("early", count(early)));
        List<String> notes = new ArrayList<>();
        spectrum(items, notes);
        items.add(new Item.Scalar("breathing_per_min", breathing()));
        items.add(new Item.Scalar("recovery_bpm", recovery()));
        items.add(new Item.Trace("rate", "beats/min", "value", rateTimes(), rates()));
        items.add(new Item.Events("doubtful", List.of("t_s", "end_s"), doubtful()));
        items.add(new Item.Word("state", state(all.length)));
        Quality quality = quality(all.length);
        return new Reading(quality, items, working(all, normal, mean, deviation, steps, notes));
    }

    private List<Event> beatEvents() {
        List<Event> events = new ArrayList<>();
        for (int i = 0; i < beats.count(); i++) {
            boolean hand = beats.byHand()[i];
            String kind = early[i] ? "early" : "beat";
            String why = hand
                    ? "put in by hand"
                    : early[i] ? "it came before its time" : odd[i] ? "its shape is another" : "";
            double t = beats.seconds()[i];
            events.add(new Event(kind, t, t, beats.height()[i], true, why));
        }
        return events;
    }

    private List<Event> rejectedEvents() {
        List<Event> events = new ArrayList<>();
        for (double t : beats.rejected()) {
            events.add(new Event("bump", t, t, Double.NaN, false, "not believed to be a beat"));
        }
        return events;
    }

    /** Stretches in which beats should have been and none is believed. */
    private List<Event> doubtful() {
        List<Event> events = new ArrayList<>();
        if (beats.count() == 0) {
            return events;
        }
        double longest = 1.75 * (Double.isNaN(usual) ? 1 : usual);
        for (int i = 0; i <= beats.count(); i++) {
            double start = i == 0 ? from : beats.seconds()[i - 1];
            double end = i == beats.count() ? to : beats.seconds()[i];
            double least = i == 0 || i == beats.count() ? Math.max(2.5, longest) : longest;
            if (end - start > least) {
                long bumps = Arrays.stream(beats.rejected())
                        .filter(t -> t > start && t < end)
                        .count();
                String why = bumps > 0
                        ? "rejected peaks: movement, or noise"
                        : "nothing stands out: no contact, or too weak";
                events.add(new Event("doubtful", start, end, Double.NaN, false, why));
            }
        }
        return events;
    }

    private String state(int intervals) {
        return intervals == 0 ? "none" : held ? "held" : "live";
    }

    private double[] steps() {
        double[] found = new double[beats.count()];
        int n = 0;
        for (int i = 2; i < beats.count(); i++) {
            boolean both = beats.followsOn()[i] && beats.followsOn()[i - 1] && !odd[i] && !odd[i - 1] && !odd[i - 2];
            if (both) {
                double[] t = beats.seconds();
                found[n++] = 1000 * ((t[i] - t[i - 1]) - (t[i - 1] - t[i - 2]));
            }
        }
        return Arrays.copyOf(found, n);
    }

    private static double over50(double[] steps) {
        return steps.length == 0
                ? Double.NaN
                : 100.0 * Arrays.stream(steps).filter(d -> Math.abs(d) > 50).count() / steps.length;
    }

    private void spectrum(List<Item> items, List<String> notes) {
        double low = Double.NaN;
        double high = Double.NaN;
        double[][] run = normalRun();
        boolean enough = run[0].length > 30
                && run[0][run[0].length - 1] - run[0][0] >= SPECTRUM_SECONDS * 0.97
                && run[0].length > 0.8 * beats.count();
        if (enough) {
            low = Lomb.meanBand(run[0], run[1], 0.04, 0.15);
            high = Lomb.meanBand(run[0], run[1], 0.15, 0.4);
            notes.add("Slow part (0.04 to 0.15 Hz) " + Digits.fixed(low, 0) + " ms², fast part (0.15 to 0.4 Hz) "
                    + Digits.fixed(high, 0) + " ms², by least squares at uneven times.");
        } else if (to - from < SPECTRUM_SECONDS) {
            notes.add(
                    "The spectrum of the intervals needs two minutes; these are " + Digits.fixed(to - from, 0) + " s.");
        } else {
            notes.add("The spectrum of the intervals needs two minutes with few holes; there are too many here.");
        }
        items.add(new Item.Scalar("lf_ms2", low));
        items.add(new Item.Scalar("hf_ms2", high));
    }

    /** Times and lengths of the intervals between normal beats, in s and ms. */
    private double[][] normalRun() {
        double[] t = new double[beats.count()];
        double[] ms = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !odd[i] && !odd[i - 1]) {
                t[n] = beats.seconds()[i];
                ms[n++] = 1000 * (beats.seconds()[i] - beats.seconds()[i - 1]);
            }
        }
        return new double[][] {Arrays.copyOf(t, n), Arrays.copyOf(ms, n)};
    }

    /**
     * Breathing makes beats higher and lower and their intervals longer and shorter (P. H. Charlton et al. 2016, "An
     * assessment of algorithms to estimate respiratory rate from the electrocardiogram and photoplethysmogram"): the
     * frequency at which both together have most power, where it stands out. Per minute; NaN where it does not.
     */
    private double breathing() {
        double[][] run = normalRun();
        int n = run[0].length;
        if (n < 16 || run[0][n - 1] - run[0][0] < BREATHING_SECONDS) {
            return Double.NaN;
        }
        double[] heights = new double[n];
        int k = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !odd[i] && !odd[i - 1]) {
                heights[k++] = Double.isNaN(beats.height()[i]) ? 0 : beats.height()[i];
            }
        }
        // The last minutes tell how it is now, and are quick to work out.
        int first = Math.max(0, n - 200);
        double[] t = Arrays.copyOfRange(run[0], first, n);
        Lomb byInterval = new Lomb(t, Arrays.copyOfRange(run[1], first, n));
        Lomb byHeight = new Lomb(t, Arrays.copyOfRange(heights, first, n));
        double top = Math.min(FASTEST_BREATH_HZ, 0.45 / usual);
        double best = 0;
        double at = Double.NaN;
        double step = 0.2 / (t[t.length - 1] - t[0]);
        for (double hz = SLOWEST_BREATH_HZ; hz < top; hz += step) {
            double power = Math.max(byHeight.power(hz), 0.5 * (byHeight.power(hz) + byInterval.power(hz)));
            if (power > best) {
                best = power;
                at = hz;
            }
        }
        return best > CLEAR_BREATH ? 60 * at : Double.NaN;
    }

    /** How much the rate falls in the minute after the fastest quarter minute; NaN where there was no effort. */
    private double recovery() {
        double[] t = rateTimes();
        double[] bpm = rates();
        if (t.length < 20 || t[t.length - 1] - t[0] < EFFORT_SECONDS + RECOVERY_SECONDS) {
            return Double.NaN;
        }
        double fastest = 0;
        double ends = Double.NaN;
        int first = 0;
        double sum = 0;
        for (int i = 0; i < t.length; i++) {
            sum += bpm[i];
            while (t[i] - t[first] > EFFORT_SECONDS) {
                sum -= bpm[first++];
            }
            double mean = sum / (i - first + 1);
            if (i - first > 5 && mean > fastest) {
                fastest = mean;
                ends = t[i];
            }
        }
        double after = meanRate(ends + RECOVERY_SECONDS - 5, ends + RECOVERY_SECONDS + 5);
        return fastest - after > EFFORT_BPM ? fastest - after : Double.NaN;
    }

    private double meanRate(double start, double end) {
        double[] t = rateTimes();
        double[] bpm = rates();
        double sum = 0;
        int n = 0;
        for (int i = 0; i < t.length; i++) {
            if (t[i] >= start && t[i] <= end) {
                sum += bpm[i];
                n++;
            }
        }
        return n == 0 ? Double.NaN : sum / n;
    }

    private double[] rateTimes() {
        double[] t = new double[beats.count()];
        int n = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i]) {
                t[n++] = beats.seconds()[i];
            }
        }
        return Arrays.copyOf(t, n);
    }

    private double[] rates() {
        return Arrays.stream(intervals(false, early)).map(ms -> 60000 / ms).toArray();
    }

    private Quality quality(int intervals) {
        List<String> reasons = new ArrayList<>();
        double length = to - from;
        if (intervals == 0) {
            boolean bumps = beats.rejected().length > 2;
            reasons.add(
                    !(length >= 5)
                            ? "not enough signal yet: some beats alike are needed"
                            : bumps
                                    ? "no pulse: there are peaks, but no run of beats alike. Is the sensor on, and still?"
                                    : "no pulse: nothing stands out of the noise. Is the sensor on?");
            return new Quality(0, reasons);
        }
        double alike = 0;
        for (double one : beats.likeness()) {
            alike += Math.min(1, one) / beats.count();
        }
        double shape = Math.max(0, Math.min(1, (alike - 0.35) / 0.5));
        double kept = (double) beats.count() / (beats.count() + beats.rejected().length);
        double covered = Arrays.stream(intervals(false, early)).sum() / 1000;
        double share = Math.min(1, covered / Math.max(length - 2.5 * usual, usual));
        double few = Math.min(1, intervals / 3.0);
        if (state(intervals).equals("held")) {
            double silent = to - beats.seconds()[beats.count() - 1];
            reasons.add("stale: no beat for " + Digits.fixed(silent, 0) + " s");
            share *= 0.3;
        }
        if (share < 0.9) {
            reasons.add("only " + Math.round(100 * Math.min(1, covered / length)) + " % of the time could be read");
        }
        if (beats.rejected().length > 0) {
            int n = beats.rejected().length;
            reasons.add(n + (n == 1 ? " peak" : " peaks") + " rejected");
        }
        if (shape < 0.8) {
            reasons.add("the beats differ in shape: noise or movement");
        }
        if (intervals < 4) {
            reasons.add("only " + intervals + (intervals == 1 ? " interval" : " intervals") + " so far");
        }
        double told = 1;
        double[] ms = intervals(false, early);
        if (irregular(ms)) {
            told *= IN_DOUBT_BY_RHYTHM;
            reasons.add(
                    "the intervals differ much from beat to beat: beats may be missed, or other peaks taken for beats."
                            + " Look at the lane, and take beats out or in by hand");
        }
        double jitter = jitter(ms);
        if (jitter > JITTERS * Math.sqrt(variance(ms))) {
            told *= IN_DOUBT_BY_RHYTHM;
            reasons.add("noise moves each beat by about " + Digits.fixed(jitter, 0) + " ms: SDNN is too large");
        }
        if (beats.source() == PulseSource.OPTICAL) {
            double sided = (beats.clear() - UNSIDED) / (SIDED - UNSIDED);
            if (sided < 1) {
                // Of a fast pulse either flank is near the beat.
                told *= Math.max(usual < FAST_SECONDS ? 2 * IN_DOUBT : IN_DOUBT, sided);
                reasons.add("rise and fall are alike: which way the beats point, and so their moment, is in doubt");
            }
            if (leaps()) {
                told *= IN_DOUBT;
                reasons.add("the rate leaps within a beat and stays there: before or after, humps are taken for beats");
            }
            int fold = Humps.fold(newestHeights(), usual);
            if (fold > 1) {
                told *= IN_DOUBT;
                reasons.add(
                        "every " + (fold == 2 ? "second" : "third") + " beat is higher: the others may be humps, and "
                                + Digits.fixed(60 / usual / fold, 0) + " beats/min true");
            }
        }
        return new Quality(Math.max(0, Math.min(1, shape * kept * share * few * told)), reasons);
    }

    private static double variance(double[] x) {
        double mean = Arrays.stream(x).average().orElse(0);
        return Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum() / Math.max(1, x.length - 1);
    }

    /** Whether successive intervals differ as those of an even heart, breath and early beats included, do not. */
    private static boolean irregular(double[] ms) {
        if (ms.length < FEWEST_FOR_RHYTHM) {
            return false;
        }
        double[] off = new double[ms.length - 1];
        for (int i = 0; i < off.length; i++) {
            off[i] = Math.abs(ms[i + 1] - ms[i]);
        }
        return Order.median(off) > IRREGULAR * Order.median(ms);
    }

    /**
     * Noise that moves each beat for itself makes an interval longer and the next one shorter: their covariance is minus the
     * square of it.
     *
     * @return the standard deviation of a beat's moment, in ms; 0 where none shows
     */
    private static double jitter(double[] ms) {
        if (ms.length < FEWEST_FOR_RHYTHM) {
            return 0;
        }
        double mean = Arrays.stream(ms).average().orElse(0);
        double sum = 0;
        for (int i = 1; i < ms.length; i++) {
            sum += (ms[i] - mean) * (ms[i - 1] - mean);
        }
        return Math.sqrt(Math.max(0, -sum / (ms.length - 1)));
    }

    /**
     * No heart's even pace becomes another one from one beat to the next, but a reader's does that takes up humps: so many
     * even intervals on either side, and between the two such a leap.
     */
    private boolean leaps() {
        double[] ms = intervals(false, early);
        for (int i = LEAP_BEATS; i + LEAP_BEATS <= ms.length; i++) {
            double before = evenPace(ms, i - LEAP_BEATS);
            double after = evenPace(ms, i);
            if (Math.max(before / after, after / before) > LEAP) {
                return true;
            }
        }
        return false;
    }

    /** @return the middle one of {@link #LEAP_BEATS} intervals; NaN where they are not even */
    private static double evenPace(double[] ms, int from) {
        double[] some = Arrays.copyOfRange(ms, from, from + LEAP_BEATS);
        Arrays.sort(some);
        double middle = some[LEAP_BEATS / 2];
        return some[0] > (1 - EVEN) * middle && some[LEAP_BEATS - 1] < (1 + EVEN) * middle ? middle : Double.NaN;
    }

    /** How high the newest beats are that came without a break, {@link #HEIGHTS} at the most. */
    private double[] newestHeights() {
        int last = beats.count();
        int first = last - 1;
        while (first > 0 && beats.followsOn()[first] && last - first < HEIGHTS && beats.height()[first - 1] > 0) {
            first--;
        }
        return Arrays.copyOfRange(beats.height(), Math.max(0, first), last);
    }

    private List<String> working(
            double[] all, double[] normal, double mean, double deviation, double[] steps, List<String> notes) {
        List<String> lines = new ArrayList<>();
        if (all.length > 0) {
            lines.add("Mean of " + all.length + (all.length == 1 ? " interval: " : " intervals: ")
                    + Digits.fixed(mean, 1) + " ms; 60000 ÷ " + Digits.fixed(mean, 1) + " = "
                    + Digits.fixed(60000 / mean, 1) + " beats/min.");
            lines.add("Between beats " + Digits.fixed(60000 / extreme(all, 1), 0) + " to "
                    + Digits.fixed(60000 / extreme(all, -1), 0) + ".");
            if (normal.length > 1) {
                lines.add("SDNN " + Digits.fixed(deviation, 1) + " ms over " + normal.length
                        + " intervals between normal beats"
                        + (steps.length > 0 ? ", RMSSD " + Digits.fixed(rootMeanSquare(steps), 1) + " ms" : "")
                        + ".");
            }
            if (count(early) > 0) {
                lines.add(count(early) + " early: they count for the rate, not for SDNN.");
            }
            lines.add("Beats point " + (beats.up() ? "up" : "down") + " in the signal.");
            lines.addAll(notes);
        }
        lines.add("Not a medical device; it diagnoses nothing.");
        return lines;
    }

    private static int count(boolean[] flags) {
        int n = 0;
        for (boolean flag : flags) {
            n += flag ? 1 : 0;
        }
        return n;
    }

    private static double mean(double[] values) {
        return Arrays.stream(values).average().orElse(Double.NaN);
    }

    private static double deviation(double[] values) {
        if (values.length < 2) {
            return Double.NaN;
        }
        double mean = mean(values);
        double squares = Arrays.stream(values).map(v -> (v - mean) * (v - mean)).sum();
        return Math.sqrt(squares / (values.length - 1));
    }

    private static double standardError(double[] values) {
        return values.length < 2 ? Double.NaN : deviation(values) / Math.sqrt(values.length);
    }

    private static double rootMeanSquare(double[] values) {
        return values.length == 0
                ? Double.NaN
                : Math.sqrt(Arrays.stream(values).map(v -> v * v).sum() / values.length);
    }

    /** @param sign 1 for the greatest, −1 for the least; NaN without any */
    private static double extreme(double[] values, int sign) {
        return sign * Arrays.stream(values).map(v -> sign * v).max().orElse(Double.NaN);
    }
}
