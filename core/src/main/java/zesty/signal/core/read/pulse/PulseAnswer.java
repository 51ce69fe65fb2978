package zesty.signal.core.read.pulse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zesty.signal.core.read.Event;
import zesty.signal.core.read.Item;
import zesty.signal.core.read.Quality;
import zesty.signal.core.read.Reading;
import zesty.signal.core.scale.Digits;
import zesty.signal.core.text.Messages;

/**
 * The numbers of a pulse, from its beats. SDNN, RMSSD, pNN50 and the bands of the spectrum as in the Task Force of the
 * European Society of Cardiology and the North American Society of Pacing and Electrophysiology 1996, "Heart rate
 * variability: standards of measurement, physiological interpretation, and clinical use". Early beats count for the
 * rate but not for the spread, which is one of normal beats.
 */
final class PulseAnswer {
    private static final double SPECTRUM_SECONDS = 120;
    private static final double BREATHING_SECONDS = 25;
    private static final double SLOWEST_BREATH_HZ = 0.08;
    private static final double FASTEST_BREATH_HZ = 0.5;
    /** Of noise alone, a peak as high as this among some thirty independent frequencies comes once in forty times. */
    private static final double CLEAR_BREATH = 7;

    private static final double EFFORT_SECONDS = 15;
    private static final double RECOVERY_SECONDS = 60;
    private static final double EFFORT_BPM = 15;

    private final Beats beats;
    private final double from;
    private final double to;
    private final boolean held;
    private final Intervals intervals;

    /** @param held whether the pulse has just gone, so that what is said of it is held */
    PulseAnswer(Beats beats, double from, double to, boolean held) {
        this.beats = beats;
        this.from = from;
        this.to = to;
        this.held = held;
        intervals = new Intervals(beats);
    }

    /** @return beats a minute, from the mean interval; NaN without one */
    double rate() {
        return 60000 / mean(intervals.all());
    }

    Reading reading() {
        double[] all = intervals.all();
        double[] normal = intervals.normal();
        double mean = mean(all);
        double deviation = deviation(normal);
        double[] steps = intervals.steps();
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
        items.add(new Item.Scalar("early", intervals.earlyCount()));
        List<String> notes = new ArrayList<>();
        spectrum(items, notes);
        items.add(new Item.Scalar("breathing_per_min", breathing()));
        items.add(new Item.Scalar("recovery_bpm", recovery()));
        items.add(new Item.Trace("rate", "beats/min", "value", intervals.rateTimes(), intervals.rates()));
        items.add(new Item.Events("doubtful", List.of("t_s", "end_s"), doubtful()));
        items.add(new Item.Word("state", state(all.length)));
        Quality quality = new PulseQuality(beats, intervals, from, to, held).quality();
        return new Reading(quality, items, working(all, normal, mean, deviation, steps, notes));
    }

    private List<Event> beatEvents() {
        List<Event> events = new ArrayList<>();
        for (int i = 0; i < beats.count(); i++) {
            boolean hand = beats.byHand()[i];
            String kind = intervals.early(i) ? "early" : "beat";
            String why = hand
                    ? Messages.of("read.pulse.put-in-by-hand")
                    : intervals.early(i)
                            ? Messages.of("read.pulse.it-came-before-its-time")
                            : intervals.odd(i) ? Messages.of("read.pulse.its-shape-is-another") : "";
            double t = beats.seconds()[i];
            events.add(new Event(kind, t, t, beats.height()[i], true, why));
        }
        return events;
    }

    private List<Event> rejectedEvents() {
        List<Event> events = new ArrayList<>();
        for (double t : beats.rejected()) {
            events.add(new Event("bump", t, t, Double.NaN, false, Messages.of("read.pulse.not-believed-to-be-a-beat")));
        }
        return events;
    }

    /** Stretches in which beats should have been and none is believed. */
    private List<Event> doubtful() {
        List<Event> events = new ArrayList<>();
        if (beats.count() == 0) {
            return events;
        }
        double longest = 1.75 * (Double.isNaN(intervals.usualSeconds()) ? 1 : intervals.usualSeconds());
        for (int i = 0; i <= beats.count(); i++) {
            double start = i == 0 ? from : beats.seconds()[i - 1];
            double end = i == beats.count() ? to : beats.seconds()[i];
            double least = i == 0 || i == beats.count() ? Math.max(2.5, longest) : longest;
            if (end - start > least) {
                long bumps = Arrays.stream(beats.rejected())
                        .filter(t -> t > start && t < end)
                        .count();
                String why = bumps > 0
                        ? Messages.of("read.pulse.rejected-peaks-movement-or-noise")
                        : Messages.of("read.pulse.nothing-stands-out-no-contact-or");
                events.add(new Event("doubtful", start, end, Double.NaN, false, why));
            }
        }
        return events;
    }

    private String state(int intervals) {
        return intervals == 0 ? "none" : held ? "held" : "live";
    }

    private static double over50(double[] steps) {
        return steps.length == 0
                ? Double.NaN
                : 100.0 * Arrays.stream(steps).filter(d -> Math.abs(d) > 50).count() / steps.length;
    }

    private void spectrum(List<Item> items, List<String> notes) {
        double low = Double.NaN;
        double high = Double.NaN;
        double[][] run = intervals.normalRun();
        boolean enough = run[0].length > 30
                && run[0][run[0].length - 1] - run[0][0] >= SPECTRUM_SECONDS * 0.97
                && run[0].length > 0.8 * beats.count();
        if (enough) {
            low = Lomb.meanBand(run[0], run[1], 0.04, 0.15);
            high = Lomb.meanBand(run[0], run[1], 0.15, 0.4);
            notes.add(Messages.of(
                    "read.pulse.slow-part-0-04-to-0-15-hz-ms-fast", Digits.fixed(low, 0), Digits.fixed(high, 0)));
        } else if (to - from < SPECTRUM_SECONDS) {
            notes.add(Messages.of("read.pulse.the-spectrum-of-the-intervals", Digits.fixed(to - from, 0)));
        } else {
            notes.add(Messages.of("read.pulse.the-spectrum-of-the-intervals-2"));
        }
        items.add(new Item.Scalar("lf_ms2", low));
        items.add(new Item.Scalar("hf_ms2", high));
    }

    /**
     * Breathing makes beats higher and lower and their intervals longer and shorter (P. H. Charlton et al. 2016, "An
     * assessment of algorithms to estimate respiratory rate from the electrocardiogram and photoplethysmogram"): the
     * frequency at which both together have most power, where it stands out. Per minute; NaN where it does not.
     */
    private double breathing() {
        double[][] run = intervals.normalRun();
        int n = run[0].length;
        if (n < 16 || run[0][n - 1] - run[0][0] < BREATHING_SECONDS) {
            return Double.NaN;
        }
        double[] heights = new double[n];
        int k = 0;
        for (int i = 1; i < beats.count(); i++) {
            if (beats.followsOn()[i] && !intervals.odd(i) && !intervals.odd(i - 1)) {
                heights[k++] = Double.isNaN(beats.height()[i]) ? 0 : beats.height()[i];
            }
        }
        // The last minutes tell how it is now, and are quick to work out.
        int first = Math.max(0, n - 200);
        double[] t = Arrays.copyOfRange(run[0], first, n);
        Lomb byInterval = new Lomb(t, Arrays.copyOfRange(run[1], first, n));
        Lomb byHeight = new Lomb(t, Arrays.copyOfRange(heights, first, n));
        double top = Math.min(FASTEST_BREATH_HZ, 0.45 / intervals.usualSeconds());
        double best = 0;
        double at = Double.NaN;
        double step = 0.2 / (t[t.length - 1] - t[0]);
        int count = (int) Math.max(0, Math.ceil((top - SLOWEST_BREATH_HZ) / step));
        double[] heightPowers = byHeight.powers(SLOWEST_BREATH_HZ, step, count);
        double[] intervalPowers = byInterval.powers(SLOWEST_BREATH_HZ, step, count);
        for (int f = 0; f < count; f++) {
            double power = Math.max(heightPowers[f], 0.5 * (heightPowers[f] + intervalPowers[f]));
            if (power > best) {
                best = power;
                at = SLOWEST_BREATH_HZ + f * step;
            }
        }
        return best > CLEAR_BREATH ? 60 * at : Double.NaN;
    }

    /** How much the rate falls in the minute after the fastest quarter minute; NaN where there was no effort. */
    private double recovery() {
        double[] t = intervals.rateTimes();
        double[] bpm = intervals.rates();
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
        double[] t = intervals.rateTimes();
        double[] bpm = intervals.rates();
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

    private List<String> working(
            double[] all, double[] normal, double mean, double deviation, double[] steps, List<String> notes) {
        List<String> lines = new ArrayList<>();
        if (all.length > 0) {
            lines.add(Messages.of(
                    "read.pulse.mean-of-ms-60000-beats-min",
                    all.length,
                    (all.length == 1 ? Messages.of("read.pulse.interval-2") : Messages.of("read.pulse.intervals")),
                    Digits.fixed(mean, 1),
                    Digits.fixed(mean, 1),
                    Digits.fixed(60000 / mean, 1)));
            lines.add(Messages.of(
                    "read.pulse.between-beats-to",
                    Digits.fixed(60000 / extreme(all, 1), 0),
                    Digits.fixed(60000 / extreme(all, -1), 0)));
            if (normal.length > 1) {
                lines.add(Messages.of(
                        "read.pulse.sdnn-ms-over-intervals-between",
                        Digits.fixed(deviation, 1),
                        normal.length,
                        (steps.length > 0
                                ? Messages.of("read.pulse.rmssd-ms", Digits.fixed(rootMeanSquare(steps), 1))
                                : "")));
            }
            if (intervals.earlyCount() > 0) {
                lines.add(Messages.of("read.pulse.early-they-count-for-the-rate-not", intervals.earlyCount()));
            }
            lines.add(Messages.of(
                    "read.pulse.beats-point-in-the-signal",
                    (beats.up() ? Messages.of("read.pulse.up") : Messages.of("read.pulse.down"))));
            lines.addAll(notes);
        }
        lines.add(Messages.of("read.pulse.not-a-medical-device-it-diagnoses"));
        return lines;
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
